// IEEE 1800-2017 clause 20.9: the ways to ask how many digits are 1
module t;
  logic [7:0] a = 8'b1010_0110;
  initial begin
    $display("%0d %0d", $countones(a), $countones(~a));
    $display("%b %b", $onehot(a), $onehot(a & -a));
    $display("%b %b", $onehot0(8'd0), $onehot(8'd0));
    $display("%b %b", $isunknown(a), $isunknown({a, 1'bz}));
  end
endmodule
//> 4 4
//> 0 1
//> 1 0
//> 0 1
