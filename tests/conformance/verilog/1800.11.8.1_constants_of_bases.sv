// IEEE 1800-2017 clause 11.8.1: a number with a base has no sign unless `s` says so
module t;
  initial $display("%b %b %0d", 4'hf < 0, 4'shf < 0, 4'shf);
endmodule
//> 0 1 -1
