// IEEE 1364-2005 clause 12.4.1: an integer is none
module t;
  integer i;
  generate
    for (i = 0; i < 3; i = i + 1) begin : g //! genvar
      wire v;
    end
  endgenerate
endmodule
