// IEEE 1364-2005 clause 4.6.5: supply0 and supply1 win over any other driver
module t;
  supply1 v;
  supply0 g;
  assign v = 1'b0;
  initial #1 $display("%b%b", v, g);
endmodule
//> 10
