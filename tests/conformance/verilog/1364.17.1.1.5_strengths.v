// IEEE 1364-2005 clause 17.1.1.5: %v names the strength of a net and its value
module t;
  wire a, b, c, d, e, f;
  pullup (a);
  buf (weak0, weak1) (b, 1'b1);
  assign (supply0, strong1) c = 0;
  assign (pull1, pull0) d = 1;
  assign (pull1, pull0) f = 1;
  assign (pull1, pull0) f = 0;
  initial #1 $display("%v %v %v %v %v %v", a, b, c, d, e, f);
endmodule
//> Pu1 We1 Su0 Pu1 HiZ PuX
