// IEEE 1800-2017 clause 16.3: an assertion does what stands behind it where it holds, and behind `else` where not
module t;
  int n = 3;
  initial begin
    assert (n == 3) $display("holds");
    else $display("fails");
    assert (n > 5) else begin
      n = 6;
      $display("now %0d", n);
    end
    assume (n > 5);
    cover (n == 6) $display("covered");
  end
endmodule
//> holds
//> now 6
//> covered
