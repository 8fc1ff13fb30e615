// IEEE 1800-2017 clause 23.11: `bind` names a module that there is
module c (input logic a);
endmodule
module m (input logic a);
endmodule
bind n c u (.a(a)); //! no-module
module t;
  logic a;
  m m1 (.a);
  initial $display("x");
endmodule
