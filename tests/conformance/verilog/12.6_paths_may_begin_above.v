// IEEE 1364-2005 clause 12.6: with the name of a module around
module m;
  initial #1 $display("%0d", t.v);
endmodule
module t;
  reg [3:0] v;
  m u();
  initial v = 8;
endmodule
//> 8
