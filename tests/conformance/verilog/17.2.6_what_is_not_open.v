// IEEE 1364-2005 clause 17.2: reading what could not be opened
module m;
  integer f;
  initial begin
    f = $fopen("nobody.txt", "r");
    $display("%0d", f);
  end
endmodule
//> 0
