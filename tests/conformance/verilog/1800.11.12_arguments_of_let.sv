// IEEE 1800-2017 clause 11.12: a named expression gets all its arguments
module t;
  let both(x, y) = x & y;
  initial $display("%b", both(1)); //! arguments
endmodule
