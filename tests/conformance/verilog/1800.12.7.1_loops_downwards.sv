// IEEE 1800-2017 clause 12.7.1: with a step of its own
module t;
  initial begin
    for (int i = 7; i >= 0; i -= 3) $write("%0d ", i);
    for (byte unsigned b = 250; b != 2; b += 4) $write("%0d ", b);
    $display("|");
  end
endmodule
//> 7 4 1 250 254 |
