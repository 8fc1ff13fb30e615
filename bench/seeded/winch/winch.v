module winch(input clk, input rst, input load, input up, input [2:0] turns, output reg [2:0] left, output done);
  wire full = left == 3'd6;
  wire none = left == 3'd0;
  always @(negedge clk)
    if (rst)
      left <= 0;
    else if (load)
      left <= turns;
    else if (up)
      left <= full ? 3'd0 : left + 3'd1;
    else
      left <= none ? 3'd0 : left - 3'd1;
  assign done = none;
endmodule
