// IEEE 1800-2017 clause 11.4.7: `a -> b` is `!a || b`, `<->` that both ways, to the right and below `? :`
module t;
  logic a, b, x = 'x;
  initial begin
    for (int i = 0; i < 4; i++) begin
      {a, b} = 2'(i);
      $display("%b %b", a -> b, a <-> b);
    end
    $display("%b %b %b %b", 0 -> x, x -> 1, 1 -> x, x <-> x);
    $display("%b %b", 0 -> 1 -> 0, (0 -> 1) -> 0);
    $display("%b", 4'd8 <-> 4'd1);
    $display("%b", 1 ? 0 : 1 -> 1);
  end
endmodule
//> 1 1
//> 1 0
//> 0 0
//> 1 1
//> 1 1 x x
//> 1 0
//> 1
//> 1
