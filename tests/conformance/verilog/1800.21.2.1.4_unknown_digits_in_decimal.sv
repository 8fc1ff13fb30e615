// IEEE 1800-2017 clause 21.2.1.4: x for all, X for some; z likewise
module t;
  logic [7:0] a;
  initial begin
    a = 8'bxxxx_xxxx; $display("%0d %0h", a, a);
    a = 8'bxxxx_0001; $display("%0d %0h", a, a);
    a = 8'bx001_0001; $display("%0d %0h", a, a);
    a = 8'bzzzz_zzzz; $display("%0d %0h", a, a);
    a = 8'bz000_zzzz; $display("%0d %0h", a, a);
  end
endmodule
//> x xx
//> X x1
//> X X1
//> z zz
//> Z Zz
