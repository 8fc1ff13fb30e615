// IEEE 1800-2017 clause 6.20.3: a parameter that is a type
module hold #(parameter type T = logic [3:0], localparam int N = 2) (input T d, output T q);
  assign q = d + N;
endmodule
module t;
  typedef logic [7:0] wide_t;
  logic [3:0] a;
  wide_t b;
  hold u (.d(4'd15), .q(a));
  hold #(.T(wide_t)) v (.d(8'd15), .q(b));
  initial #1 $display("%0d %0d", a, b);
endmodule
//> 1 17
