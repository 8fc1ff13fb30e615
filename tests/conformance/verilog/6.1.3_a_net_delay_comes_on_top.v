// IEEE 1364-2005 clause 6.1.3: delay of the driver, then delay of the net
module t;
  reg a;
  wire #2 y;
  assign #3 y = a;
  initial begin
    a = 0;
    #10 a = 1;
    #4 $write("%b", y);
    #2 $display("%b", y);
  end
endmodule
//> 01
