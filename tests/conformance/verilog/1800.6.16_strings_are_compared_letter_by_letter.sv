// IEEE 1800-2017 clause 6.16: table 6-9
module t;
  string a = "abc", b = "abd", c = "ab";
  initial $display("%b %b %b %b %b", a < b, c < a, a == "abc", a != b, b >= a);
endmodule
//> 1 1 1 1 1
