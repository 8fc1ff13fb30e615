// IEEE 1364-2005 clause 8: user-defined primitives, combinational, by level and by edge
primitive majority(o, a, b, c); output o; input a, b, c;
  table 0 0 ? : 0; 0 ? 0 : 0; ? 0 0 : 0; 1 1 ? : 1; 1 ? 1 : 1; ? 1 1 : 1; endtable
endprimitive
primitive latch(output reg q, input c, d);
  table 1 0 : ? : 0; 1 1 : ? : 1; 0 ? : ? : -; endtable
endprimitive
primitive jk(q, clk, j, k); output q; reg q; input clk, j, k; initial q = 1'b0;
  table r 0 0 : ? : -; r 0 1 : ? : 0; r 1 0 : ? : 1; r 1 1 : 0 : 1; r 1 1 : 1 : 0; n ? ? : ? : -; b * ? : ? : -; b ? * : ? : -; endtable
endprimitive
primitive clear(q, clk, d, clr); output q; reg q; input clk, d, clr;
  table ? ? 1 : ? : 0; r 0 0 : ? : 0; r 1 0 : ? : 1; n ? 0 : ? : -; ? * 0 : ? : -; ? ? n : ? : -; endtable
endprimitive
module t;
  reg a, b, c, d, clk, j, k, clr; wire m, l, q, z;
  majority u1(m, a, b, c); latch u2(l, c, d); jk #1 u3(q, clk, j, k); clear (z, clk, d, clr);
  initial begin
    a = 0; b = 1'bx; c = 0; #1 $display("%b", m); c = 1; #1 $display("%b", m); b = 1; #1 $display("%b", m); b = 1'bz; #1 $display("%b", m);
    c = 0; d = 0; #1 $display("%b", l); c = 1; #1 $display("%b", l); d = 1; #1 $display("%b", l); c = 0; #1 d = 0; #1 $display("%b", l); c = 1'bx; #1 $display("%b", l);
    clk = 0; j = 1; k = 1; #2 $display("%b", q); clk = 1; #2 $display("%b", q); clk = 0; #2 clk = 1; #2 $display("%b", q); j = 0; k = 0; clk = 0; #2 clk = 1; #2 $display("%b", q);
    clr = 1; #1 $display("%b", z); clr = 0; clk = 0; d = 1; #1 clk = 1; #1 $display("%b", z); clr = 1; #1 $display("%b", z);
  end
endmodule
//> 0
//> x
//> 1
//> x
//> x
//> 0
//> 1
//> 1
//> x
//> 0
//> 1
//> 0
//> 0
//> 0
//> 1
//> 0
