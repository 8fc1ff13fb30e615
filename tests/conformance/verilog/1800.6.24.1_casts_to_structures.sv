// IEEE 1800-2017 clause 6.24.1: a vector may be cast to a packed structure as wide as it
module t;
  typedef struct packed { logic [3:0] op; logic [1:0] a, b; } code;
  code c;
  initial begin
    c = code'(8'b1001_10_01);
    $display("%b %b %b", c.op, c.a, c.b);
    $display("%h", 8'(c));
  end
endmodule
//> 1001 10 01
//> 99
