// IEEE 1364-2005 clause 9.7.4: in a list of events
module t;
  reg a, b, c;
  always @(a or b, c) $write("%0t ", $time);
  initial begin
    #1 a = 0;
    #1 b = 0;
    #1 c = 0;
    #1 $display("end");
  end
endmodule
//> 1 2 3 end
