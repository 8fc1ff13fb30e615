// IEEE 1800-2017 clause 7.4.1: a packed array is unsigned or signed as a whole, its parts never
module t;
  logic signed [3:0][1:0] a = 8'hf0;
  logic signed [7:0] s;
  initial begin
    $display("%0d %0d", a, a[3]);
    $display("%0d", a < 0);
    s = a[3]; $display("%0d", s);
    s = a >>> 2; $display("%b", s);
    $display("%0d", a[3:2]);
  end
endmodule
//> -16 3
//> 1
//> 3
//> 11111100
//> 15
