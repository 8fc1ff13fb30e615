// IEEE 1800-2017 clause 11.6.1: their size has no influence
module t;
  logic [3:0] a = 4'b1000;
  logic [7:0] n = 1, y;
  initial begin
    $display("%b", a << n);
    y = a << n;
    $display("%b", y);
  end
endmodule
//> 0000
//> 00010000
