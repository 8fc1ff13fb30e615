// IEEE 1800-2017 clause 7.2: a name behind the dot is a member
module t;
  struct packed { logic hi; logic lo; } s;
  initial s.low = 1; //! no-member
endmodule
