// IEEE 1800-2017 clause 21.2.1.2: %h, %o, %b and %d with widths of their own
module t;
  logic [7:0] a = 8'h0f;
  initial begin
    $display("%h %0h %b %0b %o %d %0d", a, a, a, a, a, a, a);
    $display("%4h|%6b|%-5d|%05d", a, a[3:0], a, a);
  end
endmodule
//> 0f f 00001111 1111 017  15 15
//> 000f|001111|15   |00015
