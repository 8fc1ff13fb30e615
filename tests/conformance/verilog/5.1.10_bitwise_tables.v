// IEEE 1364-2005 clause 5.1.10: and, or, xor, xnor of all four values
module t;
  reg [15:0] a, b;
  initial begin
    a = 16'b0000_1111_xxxx_zzzz; b = {4{4'b01xz}};
    $display("%b", a & b);
    $display("%b", a | b);
    $display("%b", a ^ b);
    $display("%b %b", a ~^ b, ~4'b01xz);
  end
endmodule
//> 000001xx0xxx0xxx
//> 01xx1111x1xxx1xx
//> 01xx10xxxxxxxxxx
//> 10xx01xxxxxxxxxx 10xx
