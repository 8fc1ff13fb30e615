// IEEE 1364-2005 clause 9.3.2: its drivers come back when it is released
module t;
  wire y;
  assign y = 1'b0;
  initial begin
    #1 force y = 1'b1;
    #1 $write("%b", y);
    release y;
    #1 $display("%b", y);
  end
endmodule
//> 10
