// IEEE 1364-2005 clause 3.6.3: escapes by backslash and by octal number
module t;
  initial $display("a\tb\\c\"d\101");
endmodule
//> a	b\c"dA
