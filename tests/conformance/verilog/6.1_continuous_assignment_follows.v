// IEEE 1364-2005 clause 6.1: whenever its right side changes
module t;
  reg a, b;
  wire y;
  assign y = a & b;
  initial begin
    a = 1; b = 1;
    #1 $write("%b", y);
    b = 0;
    #1 $display("%b", y);
  end
endmodule
//> 10
