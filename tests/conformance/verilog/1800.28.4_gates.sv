// IEEE 1800-2017 clause 28.4: gates of many inputs, and gates without names
module t;
  logic a, b, c; wire x, y, z, n;
  nand (x, a, b, c); xnor g1(y, a, b, c); nor (z, a, b), g2(n, b, c);
  initial begin
    {a, b, c} = 3'b111; #1 $display("%b%b%b%b", x, y, z, n);
    {a, b, c} = 3'b10x; #1 $display("%b%b%b%b", x, y, z, n);
    {a, b, c} = 3'b000; #1 $display("%b%b%b%b", x, y, z, n);
  end
endmodule
//> 0000
//> 1x0x
//> 1111
