// IEEE 1364-2005 clause 5.2.1: for reading and writing
module t;
  reg [3:0] v;
  reg i;
  initial begin
    v = 4'b1010;
    v[i] = 1;
    $display("%b %b", v, v[i]);
  end
endmodule
//> 1010 x
