// IEEE 1800-2017 clause 6.3: a net that nothing drives is z, a variable x
module t;
  wire [3:0] w;
  logic [3:0] v;
  tri0 [1:0] low;
  tri1 [1:0] high;
  initial #1 $display("%b %b %b %b", w, v, low, high);
endmodule
//> zzzz xxxx 00 11
