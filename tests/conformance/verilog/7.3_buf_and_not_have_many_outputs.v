// IEEE 1364-2005 clause 7.3: the last terminal is the input
module t;
  reg a;
  wire p, q, r, s;
  buf (p, q, a);
  not (r, s, a);
  initial begin
    a = 1;
    #1 $write("%b%b%b%b ", p, q, r, s);
    a = 1'bz;
    #1 $display("%b%b%b%b", p, q, r, s);
  end
endmodule
//> 1100 xxxx
