// IEEE 1364-2005 clause 5.1.3: -12 / 3 is signed, -'d12 / 3 is not
module t;
  integer a;
  initial begin
    a = -12 / 3; $write("%0d ", a);
    a = -'d12 / 3; $write("%0d ", a);
    a = -'sd12 / 3; $display("%0d", a);
  end
endmodule
//> -4 1431655761 -4
