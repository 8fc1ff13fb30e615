// IEEE 1800-2017 clause 22.6: `ifdef, `elsif and `else choose what is read
`define FAST
module t;
`ifdef SLOW
  initial $display("slow");
`elsif FAST
  initial $display("fast");
`else
  initial $display("none");
`endif
`ifndef SLOW
  initial $display("not slow");
`endif
endmodule
//> fast
//> not slow
