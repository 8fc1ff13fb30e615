// IEEE 1800-2017 clause 6.6.1: `wire logic` is a net as `wire` is
module t;
  wire logic [1:0] w;
  assign w = 2'b1z;
  assign w = 2'bz0;
  initial #1 $display("%b", w);
endmodule
//> 10
