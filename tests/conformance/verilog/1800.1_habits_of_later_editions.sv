// IEEE 1800-2017 clause 1: habits of later editions that students mix in
typedef enum logic [1:0] {IDLE, RUN = 2, DONE} state_t;
module fsm(input logic clk, rst, go, output logic busy);
  state_t state, next;
  always_ff @(posedge clk or posedge rst) if (rst) state <= IDLE; else state <= next;
  always_comb begin next = state; unique case (state) IDLE: if (go) next = RUN; RUN: next = DONE; default: next = IDLE; endcase end
  assign busy = state != IDLE;
endmodule
module t;
  logic clk = 0, rst, go; logic busy; logic [7:0] fill; int total = 0; byte signed b;
  fsm dut(.*);
  always #5 clk = ~clk;
  function automatic int twice(int n); return 2 * n; endfunction
  initial begin
    rst = 1; go = 0; #7 rst = 0; go = 1; fill = '1; b = -1;
    for (int i = 0; i < 4; i++) begin @(posedge clk); #1 $display("%0d %b", dut.state, busy); total += i; if (i == 2) continue; end
    total++; $display("%0d %h %0d %0d", total, fill, b, twice(21)); fill = '0; $display("%h", fill);
    do total -= 3; while (total > 0); $display("%0d", total); while (1) begin total++; if (total == 5) break; end $display("%0d", total);
    $finish;
  end
endmodule
//> 2 1
//> 3 1
//> 0 0
//> 2 1
//> 7 ff -1 42
//> 00
//> -2
//> 5
