// IEEE 1800-2017 clause 12.4.1: the first condition that holds is taken
module t;
  int n;
  initial
    for (n = 0; n < 4; n++)
      if (n == 0) $display("zero");
      else if (n < 3) $display("few");
      else if (n < 2) $display("never");
      else $display("many");
endmodule
//> zero
//> few
//> few
//> many
