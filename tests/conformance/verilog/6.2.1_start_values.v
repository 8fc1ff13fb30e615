// IEEE 1364-2005 clause 6.2.1: a value in a declaration is given as if by an `initial`, so that whoever waits sees it change
`timescale 1ns/1ns
module counter(input clk, clr_n, output reg [3:0] q);
  always @(negedge clk or negedge clr_n)
    if (!clr_n) q <= 0;
    else q <= q + 1;
endmodule

module top;
  reg clk = 1, clr_n = 0;
  reg [1:0] state = 2;
  reg odd;
  wire [3:0] q;
  counter c(clk, clr_n, q);
  always @* odd = state[0];
  initial begin
    #1 $display("q %0d odd %b", q, odd);
    clr_n = 1;
    #1 clk = 0;
    #1 $display("q %0d", q);
    $finish;
  end
endmodule
//> q 0 odd 0
//> q 1
