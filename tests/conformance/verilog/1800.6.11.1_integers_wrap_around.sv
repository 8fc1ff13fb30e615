// IEEE 1800-2017 clause 6.11.1: each at its own end
module t;
  byte b = 127;
  shortint s = -32768;
  int i = 2147483647;
  byte unsigned u = 255;
  initial begin
    b++;
    s--;
    i++;
    u += 2;
    $display("%0d %0d %0d %0d", b, s, i, u);
  end
endmodule
//> -128 32767 -2147483648 1
