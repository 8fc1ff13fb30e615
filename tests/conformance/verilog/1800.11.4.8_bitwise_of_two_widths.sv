// IEEE 1800-2017 clause 11.4.8: the narrower operand is filled up before
module t;
  logic [3:0] a = 4'b1010; logic [7:0] y; logic signed [3:0] s = -1;
  initial begin
    y = ~a; $display("%b", y);
    y = ~a & 8'hff; $display("%b", y);
    y = {~a}; $display("%b", y);
    y = s ^ 8'sh0f; $display("%b", y);
    y = s ^ 8'h0f; $display("%b", y);
    y = a ~^ 8'h0a; $display("%b", y);
  end
endmodule
//> 11110101
//> 11110101
//> 00000101
//> 11110000
//> 00000000
//> 11111111
