// IEEE 1800-2017 clause 5.7.1: '1 and '0 are as wide as they must be
module t;
  logic [6:0] a, b;
  initial begin
    a = '1; b = '0;
    $display("%b %b", a, b);
  end
endmodule
//> 1111111 0000000
