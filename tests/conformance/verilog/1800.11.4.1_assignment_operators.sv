// IEEE 1800-2017 clause 11.4.1: += and its kin
module t;
  int a;
  initial begin
    a = 5;
    a += 3; $write("%0d ", a);
    a <<= 1; $write("%0d ", a);
    a++; $display("%0d", a);
  end
endmodule
//> 8 16 17
