// IEEE 1364-2005 clause 7.14: a trireg keeps its charge behind a switch, and gives it to what conducts to it
module t;
  reg e, d, w;
  trireg s;
  wire o;
  tri line;
  trireg (small) c;
  tran (s, o);
  bufif1 (s, d, e);
  tranif1 (line, c, w);
  bufif1 (line, d, e);
  initial begin
    w = 1; e = 1; d = 1;
    #5 w = 0;
    #5 e = 0;
    #1 $display("%b%b %b%b", s, o, c, line);
    w = 1;
    #5 $display("%b%b", c, line);
  end
endmodule
//> 11 1z
//> 11
