// IEEE 1364-2005 clause 6.1.3: the delay of an assignment is inertial
module t;
  reg a;
  wire y;
  assign #5 y = a;
  initial begin
    a = 0;
    #10 a = 1;
    #2 a = 0;
    #10 $write("%b ", y);
    a = 1;
    #6 $display("%b", y);
  end
endmodule
//> 0 1
