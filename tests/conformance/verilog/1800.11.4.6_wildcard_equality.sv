// IEEE 1800-2017 clause 11.4.6: x and z of the right operand match anything
module t;
  logic [3:0] a = 4'b1010, x = 4'b10x0;
  initial begin
    $display("%b %b %b", a ==? 4'b1?1x, a ==? 4'b0???, a !=? 4'b1??1);
    $display("%b %b", x ==? 4'b10?0, x ==? 4'b1000);
    $display("%b", a ==? x);
  end
endmodule
//> 1 0 1
//> 1 x
//> 1
