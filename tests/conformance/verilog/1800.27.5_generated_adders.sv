// IEEE 1800-2017 clause 27.5: full adders in a row, their carries in one vector
module fa(input logic a, b, c, output logic s, co); assign {co, s} = a + b + c; endmodule
module ripple #(parameter int N = 4) (input logic [N-1:0] a, b, input logic ci, output logic [N-1:0] s, output logic co);
  logic [N:0] c;
  assign c[0] = ci, co = c[N];
  for (genvar i = 0; i < N; i++) fa u(a[i], b[i], c[i], s[i], c[i+1]);
endmodule
module t;
  logic [7:0] a, b, s; logic ci, co; int wrong = 0;
  ripple #(.N(8)) u(.*);
  initial begin
    for (int i = 0; i < 256; i += 7)
      for (int j = 0; j < 256; j += 5) begin
        {a, b, ci} = {8'(i), 8'(j), 1'(i ^ j)};
        #1 if ({co, s} !== 9'(a) + b + ci) wrong++;
      end
    $display("%0d", wrong);
  end
endmodule
//> 0
