// IEEE 1364-2005 clause 9.2.1: each is done before the next begins
module t;
  reg [3:0] a, b;
  initial begin
    a = 1;
    a = a + 1;
    b = a + 1;
    $display("%0d %0d", a, b);
  end
endmodule
//> 2 3
