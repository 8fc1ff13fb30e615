// IEEE 1800-2017 clause 6.19: a number needs a cast
module t;
  typedef enum logic [1:0] {red, green} colour;
  colour c;
  initial c = 1; //! enum-cast
endmodule
