// IEEE 1800-2017 clause 6.11.2: int, shortint, byte and longint have a sign unless they are told otherwise
module t;
  byte b = 200; byte unsigned u = 200;
  shortint s = 40000; int unsigned i = -1; longint l = -1;
  initial begin
    $display("%0d %0d %0d %0d %0d", b, u, s, i, l);
    $display("%b %b", b < 0, u < 0);
  end
endmodule
//> -56 200 -25536 4294967295 -1
//> 1 0
