// IEEE 1800-2017 clause 11.4.7: a word with a 1 in it is true, whatever else is unknown
module t;
  logic [1:0] a = 2'b1x, b = 2'b0x, c = 2'b00;
  initial begin
    $display("%b %b %b", !a, !b, !c);
    $display("%b %b %b", a && b, b && c, b || a);
  end
endmodule
//> 0 x 1
//> x 0 1
