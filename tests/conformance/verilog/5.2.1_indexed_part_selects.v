// IEEE 1364-2005 clause 5.2.1: up from and down from a place that may vary
module t;
  reg [7:0] v;
  reg [0:7] w;
  integer i;
  initial begin
    v = 8'b1100_1010; w = 8'b1100_1010; i = 2;
    $display("%b %b %b %b", v[i +: 3], v[i+4 -: 3], w[i +: 3], w[i+4 -: 3]);
  end
endmodule
//> 010 100 001 101
