// IEEE 1800-2017 clause 9.3.4: a machine of two processes, its state shown by name
module t;
  typedef enum logic [1:0] {IDLE, RUN, DONE} st;
  st s, n; logic clk = 0, rst = 1, go = 0; logic [1:0] k;
  always_ff @(posedge clk, posedge rst) if (rst) begin s <= IDLE; k <= 0; end else begin s <= n; k <= s == RUN ? k + 1 : 0; end
  always_comb begin
    n = s;
    unique case (s)
      IDLE: if (go) n = RUN;
      RUN: if (k == 2) n = DONE;
      DONE: n = IDLE;
    endcase
  end
  initial begin
    #1 clk = 1; #1 clk = 0; rst = 0; go = 1;
    repeat (6) begin #1 clk = 1; #1 clk = 0; go = 0; $write("%s%0d ", s.name(), k); end
    $display(".");
  end
endmodule
//> RUN0 RUN1 RUN2 DONE3 IDLE0 IDLE0 .
