// IEEE 1364-2005 clause 17.8: $rtoi cuts, $itor widens
module t;
  initial $display("%0d %g %0d", $rtoi(2.9), $itor(3) / 2, $rtoi(-2.9));
endmodule
//> 2 1.5 -2
