// IEEE 1364-2005 clause 19.4: ifdef, ifndef, elsif, else
`define b
module t;
`ifdef a
  initial $display("a");
`elsif b
  `ifndef c
  initial $display("b without c");
  `endif
`else
  initial $display("none");
`endif
endmodule
//> b without c
