// IEEE 1800-2017 clause 20.9: bit vector system functions
module m;
  localparam ONES = $countones(8'hf1);
  initial begin
    $display("%0d %0d %0d", ONES, $countones(4'b1x11), $countones(4'b0));
    $display("%b %b %b", $onehot(4'b0100), $onehot(4'b0110), $onehot(4'b0));
    $display("%b %b", $onehot0(4'b0), $onehot0(4'b1100));
    $display("%b %b %b", $isunknown(4'b0z00), $isunknown(4'b1x11), $isunknown(4'b1011));
  end
endmodule
//> 5 3 0
//> 1 0 0
//> 1 0
//> 1 1 0
