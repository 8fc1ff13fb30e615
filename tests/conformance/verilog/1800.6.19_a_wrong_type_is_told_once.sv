// IEEE 1800-2017 clause 6.19: and nothing that follows from it
package p;
  typedef enum {A, B = 0} s_t; //! enum-value
endpackage
module t;
  import p::*;
  s_t s = A, r;
  initial begin
    r = s_t'(1);
    s = B;
  end
endmodule
