// IEEE 1364-2005 clause 12.5: from the instance down
module m;
  reg [3:0] v;
  initial v = 6;
endmodule
module t;
  m u();
  initial #1 $display("%0d", u.v);
endmodule
//> 6
