// IEEE 1364-2005 clause 4.3.2: the word signed makes a vector two's complement
module t;
  reg [3:0] u;
  reg signed [3:0] s;
  initial begin
    u = -1; s = -1;
    $display("%0d %0d", u, s);
  end
endmodule
//> 15 -1
