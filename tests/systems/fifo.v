// A FIFO between two clocks: pointers cross as Gray codes, through two registers.
module crossing #(parameter W = 4) (input clk, input [W-1:0] d, output reg [W-1:0] q = 0);
  reg [W-1:0] between = 0;
  always @(posedge clk) begin
    between <= d;
    q <= between;
  end
endmodule

module fifo #(parameter LOG = 2, W = 12) (
  input wclk, rclk, put, take, input [W-1:0] d, output [W-1:0] q, output ready, valid
);
  reg [W-1:0] cells [0:(1<<LOG)-1];
  reg [LOG:0] head = 0, tail = 0, head_gray = 0, tail_gray = 0;
  wire [LOG:0] head_seen, tail_seen;
  wire [LOG:0] next_head = head + 1'b1, next_tail = tail + 1'b1;

  crossing #(LOG + 1) to_reader (rclk, head_gray, head_seen);
  crossing #(LOG + 1) to_writer (wclk, tail_gray, tail_seen);

  // Full where the Gray codes differ in their two upper digits alone.
  assign ready = head_gray != {~tail_seen[LOG:LOG-1], tail_seen[LOG-2:0]};
  assign valid = tail_gray != head_seen;
  assign q = cells[tail[LOG-1:0]];

  always @(posedge wclk)
    if (put && ready) begin
      cells[head[LOG-1:0]] <= d;
      head <= next_head;
      head_gray <= next_head ^ (next_head >> 1);
    end
  always @(posedge rclk)
    if (take && valid) begin
      tail <= next_tail;
      tail_gray <= next_tail ^ (next_tail >> 1);
    end
endmodule

`timescale 1ns / 1ps
module bench;
  reg wclk, rclk, done, put, take;
  reg [11:0] d;
  wire [11:0] q;
  wire ready, valid;
  integer fast, slow, count, wait_in, wait_out, handle, got, i, n;

  fifo dut (wclk, rclk, put, take, d, q, ready, valid);

  initial begin
    handle = $fopen("clocks.txt", "r");
    got = $fscanf(handle, "%d %d %d %d %d", fast, slow, count, wait_in, wait_out);
    wclk = 0;
    rclk = 0;
    done = 0;
    put = 0;
    take = 0;
    fork
      while (!done) #(fast * 0.5) wclk = ~wclk;
      while (!done) #(slow * 0.5) rclk = ~rclk;
      for (i = 0; i < count; i = i + 1) begin
        repeat (i % (wait_in + 1)) @(negedge wclk);
        d = i;
        put = 1;
        while (!ready) @(negedge wclk);
        @(negedge wclk) put = 0;
      end
      for (n = 0; n < count; n = n + 1) begin
        repeat (wait_out) @(negedge rclk);
        while (!valid) @(negedge rclk);
        $display("%0d", q);
        take = 1;
        @(negedge rclk) take = 0;
        if (n == count - 1) done = 1;
      end
    join
  end
endmodule
