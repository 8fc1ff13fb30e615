// IEEE 1800-2017 clause 7.12.1: `find` needs to know what is looked for
module t;
  int q[$], r[$];
  initial r = q.find(); //! no-with
endmodule
