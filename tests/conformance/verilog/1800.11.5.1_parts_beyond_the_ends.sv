// IEEE 1800-2017 clause 11.5.1: what lies outside reads x and is not written
module t;
  logic [3:0] a = 4'b1010;
  int i = 2;
  initial begin
    $display("%b", a[i+:4]);
    a[i+:4] = 4'b0101;
    $display("%b", a);
  end
endmodule
//> xx10
//> 0110
