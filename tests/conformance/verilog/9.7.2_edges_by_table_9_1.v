// IEEE 1364-2005 clause 9.7.2: posedge is towards 1, from anything; towards x from 0
module t;
  reg a;
  always @(posedge a) $write("p%0t ", $time);
  always @(negedge a) $write("n%0t ", $time);
  initial begin
    #1 a = 0;
    #1 a = 1'bx;
    #1 a = 1;
    #1 a = 1'bz;
    #1 a = 0;
    #1 $display("end");
  end
endmodule
//> n1 p2 p3 n4 n5 end
