// IEEE 1800-2017 clause 20.9: of structures and arrays of digits
module t;
  struct packed { logic [2:0] a; logic b; } s = 4'b1x10;
  initial begin
    $display("%0d %b %b %b", $countones(s), $isunknown(s), $onehot(s.a), $onehot0(4'b0));
    s.a[1] = 0;
    $display("%0d %b", $countones(s), $isunknown(s));
  end
endmodule
//> 2 1 0 1
//> 2 0
