// IEEE 1800-2017 clause 7.2: only packed structures may be used with arithmetic and logical operators
module t;
  struct { logic [3:0] a; logic [3:0] b; } s;
  logic [7:0] y;
  assign y = s + 1; //! whole-struct
endmodule
