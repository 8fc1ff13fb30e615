// IEEE 1800-2017 clause 10.4.2: an element of a queue is not written later
module t;
  int q[$] = {1};
  initial q[0] <= 2; //! collection-later
endmodule
