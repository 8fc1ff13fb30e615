// IEEE 1364-2005 clause 5.2.1: reading gives x, writing does nothing
module t;
  reg [3:0] v;
  integer i;
  initial begin
    v = 4'b1010; i = 4;
    v[i] = 1;
    $display("%b %b", v, v[i]);
  end
endmodule
//> 1010 x
