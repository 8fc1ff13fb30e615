// IEEE 1800-2017 clause 20.6.2: dimensions are counted from the outermost unpacked one
module t;
  logic [7:0] a [3:1][0:4];
  typedef struct packed { logic [2:0] x; logic y; } s_t;
  initial begin
    $display("%0d %0d %0d %0d", $left(a), $right(a, 2), $low(a), $high(a, 3));
    $display("%0d %0d %0d %0d", $size(a, 2), $increment(a), $dimensions(a), $unpacked_dimensions(a));
    $display("%0d %0d %0d", $bits(a), $bits(s_t), $bits(logic [9:0]));
  end
endmodule
//> 3 4 1 7
//> 5 1 3 2
//> 120 4 10
