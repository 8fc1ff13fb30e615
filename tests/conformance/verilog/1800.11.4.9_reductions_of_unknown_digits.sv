// IEEE 1800-2017 clause 11.4.9: what decides is known in spite of an x
module t;
  logic [2:0] a = 3'b1x0, b = 3'b11x, c = 3'b00x;
  initial begin
    $display("%b%b%b", &a, |a, ^a);
    $display("%b%b%b", &b, |b, ^b);
    $display("%b%b%b", &c, |c, ~|c);
  end
endmodule
//> 01x
//> x1x
//> 0xx
