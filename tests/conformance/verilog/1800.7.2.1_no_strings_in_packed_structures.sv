// IEEE 1800-2017 clause 7.2.1: packed structures hold digits only
module t;
  typedef struct packed {
    string name; //! packed-of-unpacked
    logic [3:0] a;
  } wrong_t;
endmodule
