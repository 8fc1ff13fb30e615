// IEEE 1800-2017 clause 23.11: `bind` puts an instance into a module from outside
module checker_of_count (input logic c, input logic [3:0] n);
  always @(posedge c) $display("n is %0d", n);
endmodule
module counter (input logic clk, output logic [3:0] count = 0);
  always_ff @(posedge clk) count <= count + 1;
endmodule
bind counter checker_of_count seen (.c(clk), .n(count));
module t;
  logic clk = 0;
  logic [3:0] count;
  counter u (.clk, .count);
  initial repeat (4) #1 clk = ~clk;
endmodule
//> n is 0
//> n is 1
