// IEEE 1800-2017 clause 9.2.2.2: `always_comb` does not wait inside
module t;
  logic a, y;
  always_comb begin //! comb-waits
    #1 y = a; 
  end
endmodule
