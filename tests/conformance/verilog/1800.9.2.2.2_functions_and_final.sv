// IEEE 1800-2017 clause 9.2.2.2: always_comb wakes for what its functions read, @* does not; 9.2.3: final
module m(input logic [3:0] a, b, output logic [3:0] y, z, w);
  function automatic logic [3:0] biggest(); if (a > b) return a; return b; endfunction
  function logic [3:0] outer(input logic [3:0] k); return k + biggest(); endfunction
  always_comb y = biggest();
  always_comb z = outer(1);
  always @* w = outer(b);
endmodule
module t;
  logic [3:0] a, b, y, z, w; int errors; m u(.*);
  logic clk = 0, d = 1, q; always_ff @(posedge clk) q <= #1 d;
  initial begin
    a = 3; b = 9; #1 $display("%0d %0d %0d", y, z, w); a = 12; #1 $display("%0d %0d %0d", y, z, w); b = 1; #1 $display("%0d", w);
    clk = 1; #2 $display("%b", q); errors = 1; $finish;
  end
  final if (errors == 0) $display("right"); else $display("wrong: %0d", errors);
  final $display("end");
endmodule
//> 9 10 2
//> 12 13 2
//> 13
//> 1
//> wrong: 1
//> end
