// IEEE 1800-2017 clause 22.6: one of several texts is read
`define B
module t;
`ifdef A
  localparam string S = "A";
`elsif B
  localparam string S = "B";
`elsif B
  localparam string S = "B again";
`else
  localparam string S = "none";
`endif
`ifndef A
  initial $display("%s, no A", S);
`endif
endmodule
//> B, no A
