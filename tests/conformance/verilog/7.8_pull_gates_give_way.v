// IEEE 1364-2005 clause 7.8: pullup and pulldown hold what nobody drives
module t;
  reg d, en;
  wire a, b;
  pullup (a);
  pulldown (b);
  bufif1 (a, d, en), (b, d, en);
  initial begin
    en = 0; d = 0;
    #1 $write("%b%b ", a, b);
    en = 1;
    #1 $write("%b%b ", a, b);
    d = 1;
    #1 $display("%b%b", a, b);
  end
endmodule
//> 10 00 11
