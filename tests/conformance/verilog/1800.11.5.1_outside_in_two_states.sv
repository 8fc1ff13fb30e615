// IEEE 1800-2017 clause 11.5.1: what lies outside of a two-state vector reads 0
module t;
  bit [3:0] b = 15;
  bit [1:0][3:0] p = 8'hff;
  logic [1:0] u = 2'bx1;
  int k = 6;
  initial begin
    $display("%b %b %b", b[k], b[u], b[k-:3]);
    $display("%b %b", p[u], p[k]);
  end
endmodule
//> 0 0 000
//> 0000 0000
