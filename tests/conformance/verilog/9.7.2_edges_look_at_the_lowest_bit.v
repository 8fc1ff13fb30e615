// IEEE 1364-2005 clause 9.7.2: of a vector
module t;
  reg [1:0] a;
  always @(posedge a) $write("%0t ", $time);
  initial begin
    a = 0;
    #1 a = 2;
    #1 a = 3;
    #1 $display("end");
  end
endmodule
//> 2 end
