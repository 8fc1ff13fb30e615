// IEEE 1364-2005 clause 5.1.11: && is not & &
module t;
  reg [1:0] a, b;
  initial begin
    a = 2'b11; b = 2'b10;
    $display("%b", a & &b);
  end
endmodule
//> 00
