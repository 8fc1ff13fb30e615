// IEEE 1800-2017 clause 10.9.1: single elements by their index, the rest by `default`
module t;
  int a [0:4] = '{0: 5, 3: 7, default: -1};
  initial $display("%p", a);
endmodule
//> '{5, -1, -1, 7, -1}
