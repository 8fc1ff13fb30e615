// IEEE 1800-2017 clause 16.3: the run goes on behind one that fails
module t;
  int n = 0;
  initial begin
    assert (n == 1) else n = 5;
    $display("%0d", n);
    assert (n == 5) n = 6; else n = 7;
    $display("%0d", n);
    a: assert (n inside {[1:9]}) $display("in"); else $display("out");
  end
endmodule
//> 5
//> 6
//> in
