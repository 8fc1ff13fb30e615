// IEEE 1364-2005 clause 5.1.5: table 5-6
module t;
  integer z, m;
  initial begin
    z = 0; m = -1;
    $display("%b", z**m === 32'bx);
  end
endmodule
//> 1
