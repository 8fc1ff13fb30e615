// IEEE 1800-2017 clause 6.3.1: what is of two states takes x and z for 0
module t;
  bit [3:0] b;
  int i;
  logic [3:0] l;
  initial begin
    b = 4'b1x0z; i = 'x; l = b;
    $display("%b %0d %b", b, i, l);
  end
endmodule
//> 1000 0 1000
