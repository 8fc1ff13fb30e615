// IEEE 1800-2017 clause 7.4.3: as in a vector
module t;
  logic [3:0][3:0] m;
  logic [7:0] y;
  assign y = m[1:2]; //! reversed-part
endmodule
