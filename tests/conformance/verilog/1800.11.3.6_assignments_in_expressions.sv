// IEEE 1800-2017 clause 11.3.6: an assignment in parentheses is a value, in the width of its left side
module t;
  logic [3:0] a;
  int b, c;
  initial begin
    b = (a = 20) + 1; $display("%0d %0d", a, b);
    c = (b += 3) * 2; $display("%0d %0d", b, c);
    if ((a = b[3:0]) == 8) $display("eight");
  end
endmodule
//> 4 5
//> 8 16
//> eight
