// IEEE 1800-2017 clause 22.5.1: two back-ticks join what a macro makes, one before a quote makes a string
`define PORT(n) data_``n
`define TEXT(n) `"n is set`"
module t;
  int data_a = 5;
  initial $display("%0d %s", `PORT(a), `TEXT(data));
endmodule
//> 5 data is set
