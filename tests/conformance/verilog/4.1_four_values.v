// IEEE 1364-2005 clause 4.1: what is not assigned is x in a variable and z on a net
module t;
  reg r;
  wire w;
  initial #1 $display("%b%b", r, w);
endmodule
//> xz
