// IEEE 1364-2005 clause 12.4.2: a variable cannot choose
module t;
  reg a;
  generate
    if (a) begin : g //! not-constant
      wire v;
    end
  endgenerate
endmodule
