// IEEE 1800-2017 clause 5.9: a string in a vector is eight digits a letter, on the right
module t;
  logic [31:0] v = "ab";
  byte b = "abc";
  initial $display("%h %s %h", v, v, b);
endmodule
//> 00006162   ab 63
