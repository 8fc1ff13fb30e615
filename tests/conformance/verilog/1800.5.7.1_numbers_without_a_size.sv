// IEEE 1800-2017 clause 5.7.1: a number without a size has 32 digits and a sign
module t;
  logic [39:0] a;
  initial begin
    a = -1; $display("%h", a);
    a = 'hff; $display("%h", a);
    $display("%0d %0d", $bits('1), -5 / 2);
  end
endmodule
//> ffffffffff
//> 00000000ff
//> 1 -2
