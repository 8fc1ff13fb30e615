// IEEE 1800-2017 clause 6.24.1: a cast makes its own context
module t;
  logic [3:0] a = 15, b = 1; logic [7:0] y;
  initial begin
    y = a + b; $display("%0d", y);
    y = 4'(a + b); $display("%0d", y);
    y = 5'(a + b) >> 1; $display("%0d", y);
    y = signed'(a) + 8'sd0; $display("%0d", y);
    y = signed'(a) * 2; $display("%0d", $signed(y));
    y = byte'(a) + int'(b); $display("%0d", y);
    $display("%0d %0d", shortint'(16'h8000), unsigned'(-8'sd1));
    $display("%0d", $bits(12'(a)));
  end
endmodule
//> 16
//> 0
//> 0
//> 255
//> -2
//> 16
//> -32768 255
//> 12
