// IEEE 1800-2017 clause 12.7.4: `while` may not run at all
module t;
  int n = 3;
  initial begin
    while (n < 3) n = 100;
    while (n > 0) begin $write("%0d ", n); n--; end
    $display("%0d", n);
  end
endmodule
//> 3 2 1 0
