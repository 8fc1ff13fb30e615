// IEEE 1364-2005 clause 7.5: nmos conducts at 1, pmos at 0; data z passes as z
module t;
  reg d, c;
  wire n, p;
  nmos (n, d, c);
  pmos (p, d, c);
  initial begin
    d = 1; c = 1;
    #1 $write("%b%b ", n, p);
    c = 0;
    #1 $write("%b%b ", n, p);
    d = 1'bz;
    #1 $display("%b%b", n, p);
  end
endmodule
//> 1z z1 zz
