// IEEE 1364-2005 clause 4.3.1: the left index is the most significant, whichever is higher
module t;
  reg [0:3] up;
  reg [3:0] down;
  initial begin
    up = 4'b1000; down = 4'b1000;
    $display("%b%b %b%b", up[0], up[3], down[0], down[3]);
  end
endmodule
//> 10 01
