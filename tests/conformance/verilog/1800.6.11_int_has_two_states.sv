// IEEE 1800-2017 clause 6.11: x and z become 0
module t;
  int i;
  bit [3:0] b;
  initial begin
    $write("%0d %b ", i, b);
    b = 4'b1x1z;
    $display("%b", b);
  end
endmodule
//> 0 0000 1010
