// Packets across two clocks: bytes are packed in pairs, kept until their packet is whole, dropped where it is taken back or
// does not fit; pointers cross as Gray codes, settings and counts as messages that are acknowledged. The last word of a packet
// has a sum over it, by which the reader knows whether it is as it was.

// A reset begins at once and ends with the clock.
module reset_release (input clk, rst_n, output reg released);
  reg first;
  always @(posedge clk or negedge rst_n)
    if (!rst_n) {released, first} <= 0;
    else {released, first} <= {first, 1'b1};
endmodule

module crossing #(parameter W = 4) (input clk, rst_n, input [W-1:0] d, output reg [W-1:0] q);
  reg [W-1:0] first;
  always @(posedge clk or negedge rst_n)
    if (!rst_n) {q, first} <= 0;
    else {q, first} <= {first, d};
endmodule

module to_gray #(parameter W = 4) (input [W-1:0] n, output [W-1:0] gray);
  assign gray = n ^ (n >> 1);
endmodule

module from_gray #(parameter W = 4) (input [W-1:0] gray, output [W-1:0] n);
  genvar i;
  generate
    for (i = 0; i < W; i = i + 1) begin : digit
      assign n[i] = ^(gray >> i);
    end
  endgenerate
endmodule

// x**8 + x**2 + x + 1, digit by digit from the left.
module summing (input [7:0] sum, value, output reg [7:0] next);
  integer i;
  always @* begin
    next = sum ^ value;
    for (i = 0; i < 8; i = i + 1) next = next[7] ? next << 1 ^ 8'h07 : next << 1;
  end
endmodule

// A message is held until the other side has said that it took it: two turns of one wire each way.
module messenger #(parameter W = 8) (
  input from_clk, from_rst_n, send, input [W-1:0] message, output is_free,
  input to_clk, to_rst_n, output reg came, output reg [W-1:0] received
);
  reg [W-1:0] held;
  reg asked, asked_before;
  wire asked_seen, answered_seen;

  crossing #(1) forth (to_clk, to_rst_n, asked, asked_seen);
  crossing #(1) back (from_clk, from_rst_n, asked_before, answered_seen);
  assign is_free = asked == answered_seen;

  always @(posedge from_clk or negedge from_rst_n)
    if (!from_rst_n) begin
      asked <= 0;
      held <= 0;
    end else if (send && is_free) begin
      asked <= ~asked;
      held <= message;
    end

  always @(posedge to_clk or negedge to_rst_n)
    if (!to_rst_n) begin
      {asked_before, came} <= 0;
      received <= 0;
    end else begin
      asked_before <= asked_seen;
      came <= asked_seen != asked_before;
      if (asked_seen != asked_before) received <= held;
    end
endmodule

// Two bytes become one word; the last one of an odd packet stands alone.
module packer (
  input clk, rst_n, back, input [7:0] in, input in_valid, in_last, output in_ready,
  output [25:0] out, output out_valid, out_last, input out_ready
);
  reg has_first;
  reg [7:0] first, sum;
  wire [7:0] next;
  wire is_whole = has_first || in_last;

  summing s (sum, in, next);
  assign in_ready = out_ready || !is_whole;
  assign out_valid = in_valid && is_whole;
  assign out_last = in_last;
  assign out = {in_last, !has_first, next, has_first ? {in, first} : {8'h00, in}};

  always @(posedge clk or negedge rst_n)
    if (!rst_n) {has_first, sum} <= 0;
    else if (back) {has_first, sum} <= 0;
    else if (in_valid && in_ready) begin
      sum <= in_last ? 0 : next;
      has_first <= !has_first && !in_last;
      first <= in;
    end
endmodule

module unpacker (
  input clk, rst_n, input [25:0] in, input in_valid, output in_ready,
  output [7:0] out, output out_valid, out_last, is_bad, input out_ready
);
  reg is_second;
  reg [7:0] sum;
  wire [7:0] next;
  wire is_last = in[25], is_half = in[24];
  wire ends = is_second || is_half;

  summing s (sum, out, next);
  assign in_ready = out_ready && ends;
  assign out_valid = in_valid;
  assign out_last = is_last && ends;
  assign out = is_second ? in[15:8] : in[7:0];
  assign is_bad = out_valid && out_last && next != in[23:16];

  always @(posedge clk or negedge rst_n)
    if (!rst_n) {is_second, sum} <= 0;
    else if (out_valid && out_ready) begin
      is_second <= !ends;
      sum <= out_last ? 0 : next;
    end
endmodule

// What was put is seen by the reader when its packet is whole. `back` takes back what of a packet is there.
module packet_fifo #(parameter LOG = 3, W = 26) (
  input in_clk, in_rst_n, input [W-1:0] in, input in_valid, in_last, output in_ready,
  input out_clk, out_rst_n, output [W-1:0] out, output out_valid, input out_ready,
  input back, output [LOG:0] room, waiting, output reg [7:0] taken_back, too_long
);
  localparam N = 1 << LOG;
  reg [W-1:0] cells [0:N-1];
  reg [LOG:0] head, whole, whole_gray, tail, tail_gray;
  reg skips;
  wire [LOG:0] whole_seen, tail_seen, gone, there, after_head, after_tail, head_next, tail_next;

  crossing #(LOG + 1) to_reader (out_clk, out_rst_n, whole_gray, whole_seen);
  crossing #(LOG + 1) to_writer (in_clk, in_rst_n, tail_gray, tail_seen);
  from_gray #(LOG + 1) of_tail (tail_seen, gone);
  from_gray #(LOG + 1) of_whole (whole_seen, there);
  assign after_head = head + 1, after_tail = tail + 1;
  to_gray #(LOG + 1) for_head (after_head, head_next);
  to_gray #(LOG + 1) for_tail (after_tail, tail_next);

  wire [LOG:0] held = head - gone;
  assign room = N - held;
  wire is_full = room == 0;
  wire never_fits = is_full && whole == gone && in_valid;
  assign in_ready = !is_full || skips;

  always @(posedge in_clk or negedge in_rst_n)
    if (!in_rst_n) begin
      {head, whole, whole_gray, skips} <= 0;
      {taken_back, too_long} <= 0;
    end else if (back) begin
      head <= whole;
      skips <= 0;
      taken_back <= taken_back + 1;
    end else if (skips) begin
      if (in_valid && in_last) skips <= 0;
    end else if (never_fits) begin
      head <= whole;
      skips <= 1;
      too_long <= too_long + 1;
    end else if (in_valid && in_ready) begin
      cells[head[LOG-1:0]] <= in;
      head <= after_head;
      if (in_last) begin
        whole <= after_head;
        whole_gray <= head_next;
      end
    end

  assign waiting = there - tail;
  assign out_valid = waiting != 0;
  assign out = cells[tail[LOG-1:0]];

  always @(posedge out_clk or negedge out_rst_n)
    if (!out_rst_n) {tail, tail_gray} <= 0;
    else if (out_valid && out_ready) begin
      tail <= after_tail;
      tail_gray <= tail_next;
    end
endmodule

// The whole: bytes in on one side, out on the other, a threshold sent to the writer and the losses asked of it.
module link #(parameter LOG = 3) (
  input in_clk, in_rst_n, input [7:0] in, input in_valid, in_last, output in_ready,
  input out_clk, out_rst_n, output [7:0] out, output out_valid, out_last, input out_ready,
  input back, output is_nearly_full, output [LOG:0] room, waiting,
  input set, ask, input [LOG:0] threshold, output answered, is_bad, output [7:0] taken_back, too_long
);
  wire [25:0] packed, stored;
  wire packed_valid, packed_last, packed_ready, stored_valid, stored_ready, is_asked, unused;
  wire [7:0] back_count, long_count;
  wire [LOG:0] least;

  packer p (in_clk, in_rst_n, back, in, in_valid, in_last, in_ready, packed, packed_valid, packed_last, packed_ready);
  packet_fifo #(.LOG(LOG)) f (
    .in_clk(in_clk), .in_rst_n(in_rst_n), .in(packed), .in_valid(packed_valid), .in_last(packed_last),
    .in_ready(packed_ready), .out_clk(out_clk), .out_rst_n(out_rst_n), .out(stored), .out_valid(stored_valid),
    .out_ready(stored_ready), .back(back), .room(room), .waiting(waiting), .taken_back(back_count), .too_long(long_count)
  );
  unpacker u (out_clk, out_rst_n, stored, stored_valid, stored_ready, out, out_valid, out_last, is_bad, out_ready);

  messenger #(.W(LOG + 1)) settings (
    .from_clk(out_clk), .from_rst_n(out_rst_n), .send(set), .message(threshold), .is_free(),
    .to_clk(in_clk), .to_rst_n(in_rst_n), .came(), .received(least)
  );
  messenger #(.W(1)) question (
    .from_clk(out_clk), .from_rst_n(out_rst_n), .send(ask), .message(1'b1), .is_free(),
    .to_clk(in_clk), .to_rst_n(in_rst_n), .came(is_asked), .received(unused)
  );
  messenger #(.W(16)) reply (
    .from_clk(in_clk), .from_rst_n(in_rst_n), .send(is_asked), .message({back_count, long_count}), .is_free(),
    .to_clk(out_clk), .to_rst_n(out_rst_n), .came(answered), .received({taken_back, too_long})
  );
  assign is_nearly_full = room <= least;
endmodule

`timescale 1ns / 1ps
module bench;
  integer fast, slow, wait_in, wait_out, least, handle, script, got, length, back_after, k, quiet, number = 0;
  integer lowest = 8, highest = 0;
  reg wclk = 0, rclk = 0, rst_n = 1, finished = 0, done = 0;
  reg back = 0, set = 0, ask = 0, in_valid = 0, in_last = 0, out_ready = 0;
  reg [7:0] in;
  reg [3:0] threshold;
  wire w_rst_n, r_rst_n, in_ready, out_valid, out_last, is_nearly_full, answered, is_bad;
  wire [7:0] out, taken_back, too_long;
  wire [3:0] room, waiting;

  reset_release w (wclk, rst_n, w_rst_n);
  reset_release r (rclk, rst_n, r_rst_n);
  link dut (
    wclk, w_rst_n, in, in_valid, in_last, in_ready, rclk, r_rst_n, out, out_valid, out_last, out_ready,
    back, is_nearly_full, room, waiting, set, ask, threshold, answered, is_bad, taken_back, too_long
  );

  always @(negedge wclk)
    if (w_rst_n) begin
      if (room < lowest) lowest = room;
      if (room + waiting > 8) $display("more than there are places: %0d and %0d", room, waiting);
    end
  always @(posedge rclk) if (r_rst_n && waiting > highest) highest = waiting;

  task give(input [7:0] value, input last);
    begin
      repeat (value % (wait_in + 1)) @(negedge wclk);
      in = value;
      in_last = last;
      in_valid = 1;
      #0;
      while (!in_ready) @(negedge wclk);
      @(negedge wclk) in_valid = 0;
    end
  endtask

  initial begin
    handle = $fopen("clocks.txt", "r");
    got = $fscanf(handle, "%d %d %d %d %d", fast, slow, wait_in, wait_out, least);
    #5 rst_n = 0;
    #5 rst_n = 1;
    fork
      while (!done) #(fast * 0.5) wclk = ~wclk;
      while (!done) #(slow * 0.5) rclk = ~rclk;
      begin : writing
        script = $fopen("packets.txt", "r");
        repeat (4) @(negedge wclk);
        got = $fscanf(script, "%d %d", length, back_after);
        while (got == 2) begin
          for (k = 0; k < length; k = k + 1) give(16 * number + k, k == length - 1 && !back_after);
          if (back_after) begin
            back = 1;
            @(negedge wclk) back = 0;
          end
          number = number + 1;
          got = $fscanf(script, "%d %d", length, back_after);
        end
        repeat (12) @(negedge wclk);
        finished = 1;
      end
      begin : reading
        quiet = 0;
        repeat (4) @(negedge rclk);
        threshold = least;
        set = 1;
        @(negedge rclk) set = 0;
        while (!finished || quiet < 12 + wait_out) begin
          quiet = quiet + 1;
          if (out_valid && quiet > wait_out) begin
            $write("%h", out);
            if (is_bad) $write(" bad");
            $write("%s", out_last ? "\n" : " ");
            out_ready = 1;
            quiet = 0;
          end
          @(negedge rclk) out_ready = 0;
        end
        $display("nearly full %b, free %0d", is_nearly_full, room);
        ask = 1;
        @(negedge rclk) ask = 0;
        while (!answered) @(negedge rclk);
        $display("taken back %0d, too long %0d", taken_back, too_long);
        $display("between %0d and %0d", lowest, highest);
        done = 1;
      end
    join
  end
endmodule
