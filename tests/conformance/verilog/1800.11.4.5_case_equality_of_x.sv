// IEEE 1800-2017 clause 11.4.5: `===` compares unknown digits as they are, `==` does not know
module t;
  logic [3:0] a = 4'b10xz, b = 4'b10xz, c = 4'b11xz, d = 4'b1000;
  initial begin
    $display("%b %b", a == b, a === b);
    $display("%b %b", a == c, a === c);
    $display("%b %b", a != c, a !== c);
    $display("%b %b", a == d, a !== d);
  end
endmodule
//> x 1
//> 0 0
//> 1 1
//> x 1
