// IEEE 1800-2017 clause 7.2.1: only packed data types and integer types are legal in one
module t;
  struct packed { logic a [0:3]; } s; //! packed-of-unpacked
endmodule
