// IEEE 1364-2005 clause 7.7: n control 1 and p control 0 open it
module t;
  reg d, n, p;
  wire y;
  cmos (y, d, n, p);
  initial begin
    d = 1; n = 1; p = 0;
    #1 $write("%b ", y);
    n = 0; p = 1;
    #1 $display("%b", y);
  end
endmodule
//> 1 z
