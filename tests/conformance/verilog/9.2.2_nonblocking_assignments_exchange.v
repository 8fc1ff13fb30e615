// IEEE 1364-2005 clause 9.2.2: right sides are taken before any left side changes
module t;
  reg a, b;
  initial begin
    a = 0; b = 1;
    a <= b; b <= a;
    #1 $display("%b%b", a, b);
  end
endmodule
//> 10
