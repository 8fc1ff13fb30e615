// IEEE 1800-2017 clause 12.7.6: `forever` is left by `break`
module t;
  int n = 0;
  initial begin
    forever begin
      n += 3;
      if (n % 5 == 0) break;
    end
    $display("%0d", n);
  end
endmodule
//> 15
