// IEEE 1800-2017 clause 6.19: enumerations, their base types and first values
module t;
  typedef enum {IDLE, RUN = 5, STOP} plain_t; typedef enum logic [1:0] {A = 2'b01, B} wide_t; typedef enum byte unsigned {LOW = 200, HIGH} byte_t; typedef plain_t other_t;
  plain_t p, q; wide_t w; byte_t b; other_t o; enum {X0, X1} own; enum bit [2:0] {Y0 = 3, Y1} few;
  function wide_t turned(input wide_t k); return k == A ? B : A; endfunction
  initial begin
    $display("%0d %b %0d %0d %0d", p, w, b, own, few);
    p = RUN; q = p; o = q; w = turned(A); b = HIGH; own = X1; few = Y1; $display("%0d %0d %0d %b %0d %0d %0d", p, q, o, w, b, own, few);
    p = STOP; w = w == B ? A : B; $display("%0d %b %0d", p, w, $bits(p));
    p = plain_t'(5); $display("%b", p == RUN);
    case (w) 2'b01: $display("A"); default: $display("no"); endcase
  end
endmodule
//> 0 xx 0 0 0
//> 5 5 5 10 201 1 4
//> 6 01 32
//> 1
//> A
