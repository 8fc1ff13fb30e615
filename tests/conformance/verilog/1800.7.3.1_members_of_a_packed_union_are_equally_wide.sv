// IEEE 1800-2017 clause 7.3.1: all members of a packed union have the same size
module t;
  union packed { logic [7:0] a; logic [3:0] b; } u; //! union-widths
endmodule
