// IEEE 1800-2017 clause 19: `covergroup` is not read, and named
module t;
  logic [1:0] a;
  covergroup g; //! not-yet
    coverpoint a;
  endgroup
endmodule
