// IEEE 1800-2017 clause 5.9.1: \x and two digits are a character
module t;
  string s = "\x41\x42";
  initial $display("%s%s %0d", s, "\x43", "\x7f" == 8'd127);
endmodule
//> ABC 1
