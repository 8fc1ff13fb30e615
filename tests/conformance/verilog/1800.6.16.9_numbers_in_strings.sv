// IEEE 1800-2017 clause 6.16.9: numbers are read from the beginning of a string
module t;
  string d = "123abc", h = "fFz", o = "178", b = "10102";
  initial $display("%0d %0d %0d %0d %0d", d.atoi(), h.atohex(), o.atooct(), b.atobin(), "x");
endmodule
//> 123 255 15 10 120
