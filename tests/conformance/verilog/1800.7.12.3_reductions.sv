// IEEE 1800-2017 clause 7.12.3: sums and their kin have the width of an element, or of what is asked of each
module t;
  byte q[$] = {100, 27, 3};
  logic b[$] = {1, 1, 0};
  initial begin
    $display("%0d", q.sum());
    $display("%0d", q.sum with (int'(item)));
    $display("%0d %0d", q.product with (int'(item)), q.xor());
    $display("%b %b", b.and(), b.or());
    $display("%0d", b.sum with (int'(item)));
  end
endmodule
//> -126
//> 130
//> 8100 124
//> 0 1
//> 2
