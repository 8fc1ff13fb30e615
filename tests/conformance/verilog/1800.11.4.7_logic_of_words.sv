// IEEE 1800-2017 clause 11.4.7: `&&`, `||`, `!` take a word that is not 0 for true; `->` and `<->` are not read
module t;
  logic [3:0] a = 4'b0100, b = 0, x = 4'bx000;
  initial $display("%b %b %b %b %b", a && b, a || b, !a, x && a, x || a);
endmodule
//> 0 1 0 x 1
