// IEEE 1800-2017 clause 10.3.1: a net is driven by the expression it is declared with
module t;
  logic [3:0] a = 3;
  wire [3:0] b = a + 1, c = ~b;
  initial begin
    #1 $display("%0d %0d", b, c);
    a = 9; #1 $display("%0d %0d", b, c);
  end
endmodule
//> 4 11
//> 10 5
