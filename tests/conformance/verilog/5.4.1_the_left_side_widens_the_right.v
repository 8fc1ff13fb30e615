// IEEE 1364-2005 clause 5.4.1: a carry is kept when the target has room
module t;
  reg [3:0] a, b, s;
  reg [4:0] w;
  initial begin
    a = 15; b = 1;
    s = a + b; w = a + b;
    $display("%0d %0d", s, w);
  end
endmodule
//> 0 16
