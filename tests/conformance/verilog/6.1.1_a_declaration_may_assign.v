// IEEE 1364-2005 clause 6.1.1: wire y = expression is declaration and driver
module t;
  reg a;
  wire y = ~a;
  initial begin
    a = 0;
    #1 $display("%b", y);
  end
endmodule
//> 1
