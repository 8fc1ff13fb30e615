// IEEE 1800-2017 clause 16.3: the pass and the fail statement
module t;
  logic [3:0] a = 5;
  initial begin
    assert (a == 5) $display("yes"); else $display("no");
    assert (a inside {1, 2}) else $display("not %0d", a);
  end
endmodule
//> yes
//> not 5
