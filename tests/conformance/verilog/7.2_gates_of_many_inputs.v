// IEEE 1364-2005 clause 7.2: and nand or nor xor xnor of three, with unknown inputs
module t;
  reg a, b, c;
  wire [5:0] y;
  and (y[5], a, b, c);
  nand (y[4], a, b, c);
  or (y[3], a, b, c);
  nor (y[2], a, b, c);
  xor (y[1], a, b, c);
  xnor (y[0], a, b, c);
  initial begin
    {a, b, c} = 3'b110;
    #1 $write("%b ", y);
    {a, b, c} = 3'b0x1;
    #1 $write("%b ", y);
    {a, b, c} = 3'b1z1;
    #1 $display("%b", y);
  end
endmodule
//> 011001 0110xx xx10xx
