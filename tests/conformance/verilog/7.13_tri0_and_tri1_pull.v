// IEEE 1364-2005 clause 7.13: an undriven one has the value of its name
module t;
  reg en;
  tri0 a;
  tri1 b;
  assign a = en ? 1'b1 : 1'bz, b = en ? 1'b0 : 1'bz;
  initial begin
    en = 0;
    #1 $write("%b%b ", a, b);
    en = 1;
    #1 $display("%b%b", a, b);
  end
endmodule
//> 01 10
