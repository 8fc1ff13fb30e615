// IEEE 1800-2017 clause 7.10.2: a dynamic array has no `push_back`
module t;
  int d[];
  initial d.push_back(1); //! no-method
endmodule
