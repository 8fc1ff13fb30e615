// IEEE 1800-2017 clause 20.7: `$size`, `$left` and their kin ask for one dimension of several
module t;
  logic [7:0] m[2:5][3];
  initial begin
    $display("%0d %0d %0d", $size(m), $size(m, 2), $size(m, 3));
    $display("%0d %0d %0d %0d", $left(m), $right(m), $low(m, 3), $high(m, 3));
    $display("%0d %0d", $dimensions(m), $unpacked_dimensions(m));
  end
endmodule
//> 4 3 8
//> 2 5 0 7
//> 3 2
