// IEEE 1800-2017 clause 10.3.2: a continuous assignment may drive a variable
module t;
  logic [3:0] a = 3;
  int y;
  assign y = a + 1;
  initial begin
    #1 $write("%0d ", y);
    a = 7;
    #1 $display("%0d", y);
  end
endmodule
//> 4 8
