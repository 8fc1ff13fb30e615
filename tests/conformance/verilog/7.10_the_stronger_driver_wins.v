// IEEE 1364-2005 clause 7.10: strong beats pull beats weak
module t;
  wire a, b, c;
  assign (strong1, strong0) a = 1'b1;
  assign (pull1, pull0) a = 1'b0;
  assign (weak1, weak0) b = 1'b1;
  assign (pull1, pull0) b = 1'b0;
  assign (pull1, pull0) c = 1'b1;
  assign (pull1, pull0) c = 1'b0;
  initial #1 $display("%b%b%b", a, b, c);
endmodule
//> 10x
