// IEEE 1364-2005 clause 4.8.1: posedge of a real number
module t;
  real r;
  always @(posedge r) $display("x"); //! real-edge
endmodule
