// IEEE 1800-2017 clause 6.16.1: the length of a string, and its letters
module t;
  string s = "sluice";
  initial $display("%0d %s %0d", s.len(), s[0], s.getc(5));
endmodule
//> 6 s 101
