// IEEE 1364-2005 clause 5.2.1: the left end must be the more significant one
module t;
  reg [7:0] v;
  reg [3:0] a;
  initial a = v[0:3]; //! reversed-part
endmodule
