// IEEE 1364-2005 clause 5.1.5: negative and zero bases and exponents
module t;
  integer m1, m2;
  initial begin
    m1 = -1; m2 = -2;
    $display("%0d %0d %0d %0d %0d %0d", 2**3, m2**3, m1**m1, m1**m2, 2**m1, 0**0);
  end
endmodule
//> 8 -8 -1 1 0 1
