// IEEE 1364-2005 clause 7.2 to 7.6: gates with every value, arrays of gates
module t;
  reg [1:0] a, b; integer i, j; reg [3:0] vals; wire y_and, y_nand, y_or, y_nor, y_xor, y_xnor, y_buf, y_not, b0, b1, n0, n1, c; wire [3:0] arr;
  reg p, q;
  and (y_and, p, q); nand (y_nand, p, q); or (y_or, p, q); nor (y_nor, p, q); xor (y_xor, p, q); xnor (y_xnor, p, q);
  buf (y_buf, p); not (y_not, p); bufif0 (b0, p, q); bufif1 (b1, p, q); notif0 (n0, p, q); notif1 (n1, p, q); cmos (c, p, q, ~q);
  and g[3:0] (arr, {p, q, p, q}, 4'b1101);
  function v(input integer n); case (n) 0: v = 0; 1: v = 1; 2: v = 1'bx; default: v = 1'bz; endcase endfunction
  initial for (i = 0; i < 4; i = i + 1) for (j = 0; j < 4; j = j + 1) begin
    p = v(i); q = v(j); #1 $display("%b%b %b%b%b%b%b%b %b%b %b%b%b%b%b %b", p, q, y_and, y_nand, y_or, y_nor, y_xor, y_xnor, y_buf, y_not, b0, b1, n0, n1, c, arr);
  end
endmodule
//> 00 010101 01 0z1zz 0000
//> 01 011010 01 z0z10 0101
//> 0x 01xxxx 01 xxxxx 0x0x
//> 0z 01xxxx 01 xxxxx 0x0x
//> 10 011010 10 1z0zz 1000
//> 11 101001 10 z1z01 1101
//> 1x xx10xx 10 xxxxx 1x0x
//> 1z xx10xx 10 xxxxx 1x0x
//> x0 01xxxx xx xzxzz x000
//> x1 xx10xx xx zxzxx x101
//> xx xxxxxx xx xxxxx xx0x
//> xz xxxxxx xx xxxxx xx0x
//> z0 01xxxx xx xzxzz x000
//> z1 xx10xx xx zxzxz x101
//> zx xxxxxx xx xxxxz xx0x
//> zz xxxxxx xx xxxxz xx0x
