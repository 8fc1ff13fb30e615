// IEEE 1800-2017 clause 6.19: nothing behind its word
module t;
  initial ;
endmodule
enum //! expected-type
