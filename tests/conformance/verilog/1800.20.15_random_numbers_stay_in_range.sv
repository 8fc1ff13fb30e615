// IEEE 1800-2017 clause 20.15: `$urandom_range` has both ends, and a seed gives the same numbers again
module t;
  int a, b, low = 100, high = -1, seed, same = 0;
  initial begin
    repeat (500) begin
      a = $urandom_range(9, 3);
      if (a < low) low = a;
      if (a > high) high = a;
    end
    $display("%0d %0d", low, high);
    seed = 5; a = $random(seed); seed = 5; b = $random(seed); $display("%b", a == b);
    repeat (100) begin a = $random % 8; same += a > -8 && a < 8; end
    $display("%0d", same);
    repeat (100) begin b = $urandom() & 15; same += b inside {[0:15]}; end
    $display("%0d", same);
  end
endmodule
//> 3 9
//> 1
//> 100
//> 200
