// IEEE 1800-2017 clause 9.2.2.2: is an error, a wire is driven by `assign`
module t;
  logic a;
  wire y;
  always_comb y = ~a; //! net-in-process
endmodule
