// IEEE 1364-2005 clause 7.14: three delays: to 1, to 0, to z; to x the least of them
module t;
  reg d, c;
  wire y;
  bufif1 #(2, 3, 7) (y, d, c);
  always @(y) if ($time >= 10) $display("%0t %b", $time, y);
  initial begin
    d = 1; c = 1;
    #10 c = 0;
    #10 c = 1'bx;
  end
endmodule
//> 17 z
//> 22 x
