// IEEE 1800-2017 clause 6.9.2: what stands left is the highest digit
module t;
  logic [0:3] up = 4'b1000;
  logic [3:0] down = 4'b1000;
  logic [-1:2] odd = 4'b0100;
  logic [6:3] shifted = 4'b0010;
  initial begin
    $display("%b %b", up[0], down[0]);
    $display("%b %b", odd[0], odd[-1]);
    $display("%b %b", shifted[4], shifted[6]);
    down = up;
    $display("%b %0d", down, up);
  end
endmodule
//> 1 0
//> 1 0
//> 1 0
//> 1000 8
