// IEEE 1364-2005 clause 19.3.2: the name means nothing any more
`define width 4
`undef width
`ifdef width
module t; initial $display("there"); endmodule
`else
module t; initial $display("gone"); endmodule
`endif
//> gone
