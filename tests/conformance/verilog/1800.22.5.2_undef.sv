// IEEE 1800-2017 clause 22.5.2: a macro may be forgotten, and defined again
`define N 3
module t;
  initial begin
    $display("%0d", `N);
`undef N
`ifdef N
    $display("still there");
`else
    $display("gone");
`endif
`define N 4
    $display("%0d", `N);
`undefineall
`ifndef N
    $display("all gone");
`endif
  end
endmodule
//> 3
//> gone
//> 4
//> all gone
