// IEEE 1364-2005 clause 5.1.12: << and >> whatever the sign
module t;
  reg signed [3:0] s;
  initial begin
    s = 4'b1000;
    $display("%b %b", s >> 1, 4'b0001 << 3);
  end
endmodule
//> 0100 1000
