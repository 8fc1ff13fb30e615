// IEEE 1364-2005 clause 7.1.4: and several may be declared at once
module t;
  reg a, b;
  wire x, y;
  and (x, a, b), (y, a, a);
  initial begin
    a = 1; b = 0;
    #1 $display("%b%b", x, y);
  end
endmodule
//> 01
