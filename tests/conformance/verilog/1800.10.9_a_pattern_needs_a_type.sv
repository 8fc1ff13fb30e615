// IEEE 1800-2017 clause 10.9: in an expression its type stands before it
module t;
  logic [7:0] y;
  initial y = 1 + '{4'h1, 4'h2}; //! untyped-pattern
endmodule
