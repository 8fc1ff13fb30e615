// IEEE 1800-2017 clause 10.10.1: in braces vectors stand side by side, on the left too
module t;
  logic [3:0] a = 4'hc, b = 4'h5, x;
  logic [1:0] y, z;
  initial begin
    {x, y, z} = {a, b};
    $display("%h %b %b", x, y, z);
  end
endmodule
//> c 01 01
