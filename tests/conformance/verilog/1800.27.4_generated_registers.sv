// IEEE 1800-2017 clause 27.4: a shift register of as many as wanted
module chain #(parameter int N = 3) (input logic clk, d, output logic q);
  logic [N:0] s;
  assign s[0] = d;
  for (genvar i = 0; i < N; i++) begin : stage
    always_ff @(posedge clk) s[i+1] <= s[i];
  end
  assign q = s[N];
endmodule
module t;
  logic clk = 0, d = 1, q;
  chain #(4) c(.*);
  initial begin
    repeat (3) begin #1 clk = 1; #1 clk = 0; end
    $display("%b", q);
    #1 clk = 1;
    #1 $display("%b %b", q, c.stage[0].s); //! no-path
  end
endmodule
