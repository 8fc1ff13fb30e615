// IEEE 1364-2005 clause 5.2.1: only +: and -: may vary
module t;
  reg [7:0] v;
  integer i;
  reg [3:0] a;
  initial a = v[i+3:i]; //! not-constant
endmodule
