// IEEE 1364-2005 clause 7.4: off they give z, with an unknown control L or H, which show as x
module t;
  reg d, c;
  wire y, n;
  bufif1 (y, d, c);
  notif0 (n, d, c);
  initial begin
    d = 1; c = 1;
    #1 $write("%b%b ", y, n);
    c = 0;
    #1 $write("%b%b ", y, n);
    c = 1'bx;
    #1 $display("%b%b", y, n);
  end
endmodule
//> 1z z0 xx
