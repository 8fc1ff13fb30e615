// IEEE 1800-2017 clause 23.3.3.5: between modules as a whole
package p;
  typedef struct packed { logic valid; logic [3:0] n; } req_t;
  typedef struct { logic [3:0] a [2]; logic b; } mixed_t;
endpackage
module inc import p::*; (input req_t i, output req_t o, input mixed_t m, output logic [3:0] s);
  always_comb begin
    o = i;
    if (i.valid) o.n++;
  end
  assign s = m.a[0] + m.a[1] + m.b;
endmodule
module t;
  import p::*;
  req_t a = '{1, 4}, b;
  mixed_t m = '{'{2, 3}, 1};
  logic [3:0] s;
  inc u (.i(a), .o(b), .m, .s);
  initial begin
    #1 $display("%b %0d %0d", b.valid, b.n, s);
    a.valid = 0;
    m.a[1] = 9;
    #1 $display("%b %0d %0d", b.valid, b.n, s);
  end
endmodule
//> 1 5 6
//> 0 4 12
