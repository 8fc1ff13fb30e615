// IEEE 1364-2005 clause 5.5.1: even of the whole of a signed vector
module t;
  reg signed [3:0] s;
  reg signed [7:0] y;
  initial begin
    s = -1;
    y = s[3:0]; $write("%0d ", y);
    y = s; $display("%0d", y);
  end
endmodule
//> 15 -1
