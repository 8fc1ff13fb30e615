// IEEE 1800-2017 clause 23.4: in one message, with nothing following from it
module t;
  logic a = 1;
  module inner; //! not-yet
    initial $display("never");
  endmodule : inner
  initial $display("%b", a);
endmodule
