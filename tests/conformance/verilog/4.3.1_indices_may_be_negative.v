// IEEE 1364-2005 clause 4.3.1: a range may lie on either side of zero
module t;
  reg [1:-2] v;
  initial begin
    v = 4'b0110;
    $display("%b%b%b%b", v[1], v[0], v[-1], v[-2]);
  end
endmodule
//> 0110
