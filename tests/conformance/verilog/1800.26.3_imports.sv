// IEEE 1800-2017 clause 26.3: one name, or all that are asked for; a declaration of one's own goes before
package p;
  localparam A = 1, B = 2, C = 3;
  typedef struct packed { logic [3:0] n; } box_t;
endpackage
package q;
  import p::*;
  localparam D = A + C;
endpackage
module t;
  import p::*;
  import q::D;
  localparam B = 20;
  box_t x;
  initial begin
    x.n = 4'(A + B + D);
    $display("%0d %0d %0d", A, B, x.n);
  end
endmodule
//> 1 20 9
