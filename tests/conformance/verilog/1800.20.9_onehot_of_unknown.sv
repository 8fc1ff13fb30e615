// IEEE 1800-2017 clause 20.9: digits that are unknown are not counted
module t;
  logic [3:0] a = 4'b01x0, b = 4'b1xz1;
  initial $display("%0d %b %b %b %b", $countones(b), $onehot(a), $onehot0(4'b0000), $isunknown(a), $isunknown(4'b0000));
endmodule
//> 2 1 1 1 0
