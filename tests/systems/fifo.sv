// Packets across two clocks: bytes are packed in pairs, kept until their packet is whole, dropped where it is taken back or
// does not fit; pointers cross as Gray codes, settings and counts as messages that are acknowledged. The last word of a packet
// has a sum over it, by which the reader knows whether it is as it was.
package crossing_pkg;
  typedef logic [15:0] word_t;
  typedef struct packed { logic is_last, is_half; logic [7:0] sum; logic [1:0][7:0] bytes; } pair_t;
  typedef struct packed { logic [7:0] taken_back, too_long; } losses_t;

  function automatic word_t to_gray(word_t n);
    return n ^ (n >> 1);
  endfunction

  function automatic word_t from_gray(word_t n);
    for (int i = 14; i >= 0; i--) n[i] ^= n[i + 1];
    return n;
  endfunction

  // x**8 + x**2 + x + 1, digit by digit from the left.
  function automatic logic [7:0] summed(logic [7:0] sum, logic [7:0] value);
    sum ^= value;
    repeat (8) sum = sum[7] ? {sum[6:0], 1'b0} ^ 8'h07 : {sum[6:0], 1'b0};
    return sum;
  endfunction
endpackage

interface stream #(parameter type T = logic [7:0]) (input logic clk, rst_n);
  T data;
  logic valid, ready, last;
  wire moves = valid && ready;
  modport source (input clk, rst_n, ready, moves, output data, valid, last);
  modport sink (input clk, rst_n, data, valid, last, moves, output ready);
endinterface

// A reset begins at once and ends with the clock.
module reset_release (input logic clk, rst_n, output logic released);
  logic first;
  always_ff @(posedge clk or negedge rst_n)
    if (!rst_n) {released, first} <= '0;
    else {released, first} <= {first, 1'b1};
endmodule

module crossing #(parameter int W = 4) (input logic clk, rst_n, input logic [W-1:0] d, output logic [W-1:0] q);
  logic [1:0][W-1:0] stages;
  always_ff @(posedge clk or negedge rst_n)
    if (!rst_n) stages <= '0;
    else stages <= {stages[0], d};
  assign q = stages[1];
endmodule

// A message is held until the other side has said that it took it: two turns of one wire each way.
module messenger #(parameter type T = logic [7:0]) (
  input logic from_clk, from_rst_n, send, input T message, output logic is_free,
  input logic to_clk, to_rst_n, output logic came, output T received
);
  T held;
  logic asked, asked_seen, asked_before, answered_seen;

  crossing #(1) forth (.clk(to_clk), .rst_n(to_rst_n), .d(asked), .q(asked_seen));
  crossing #(1) back (.clk(from_clk), .rst_n(from_rst_n), .d(asked_before), .q(answered_seen));
  assign is_free = asked == answered_seen;

  always_ff @(posedge from_clk or negedge from_rst_n)
    if (!from_rst_n) begin
      asked <= 1'b0;
      held <= T'(0);
    end else if (send && is_free) begin
      asked <= ~asked;
      held <= message;
    end

  always_ff @(posedge to_clk or negedge to_rst_n)
    if (!to_rst_n) begin
      {asked_before, came} <= '0;
      received <= T'(0);
    end else begin
      asked_before <= asked_seen;
      came <= asked_seen != asked_before;
      if (asked_seen != asked_before) received <= held;
    end
endmodule

// Two bytes become one word; the last one of an odd packet stands alone.
module packer import crossing_pkg::*; (stream.sink in, stream.source out, input logic back);
  logic has_first;
  logic [7:0] first, sum;

  wire is_whole = has_first || in.last;
  assign in.ready = out.ready || !is_whole,
         out.valid = in.valid && is_whole,
         out.last = in.last,
         out.data = '{
           is_last: in.last, is_half: !has_first, sum: summed(sum, in.data),
           bytes: has_first ? {in.data, first} : {8'h00, in.data}
         };

  always_ff @(posedge in.clk or negedge in.rst_n)
    if (!in.rst_n) {has_first, sum} <= '0;
    else if (back) {has_first, sum} <= '0;
    else if (in.moves) begin
      sum <= in.last ? '0 : summed(sum, in.data);
      has_first <= !has_first && !in.last;
      first <= in.data;
    end
endmodule

module unpacker import crossing_pkg::*; (stream.sink in, stream.source out, output logic is_bad);
  logic is_second;
  logic [7:0] sum;
  pair_t word;
  wire ends = is_second || word.is_half;

  assign word = in.data,
         in.ready = out.ready && ends,
         out.valid = in.valid,
         out.last = word.is_last && ends,
         out.data = word.bytes[is_second],
         is_bad = out.last && summed(sum, out.data) != word.sum;

  always_ff @(posedge in.clk or negedge in.rst_n)
    if (!in.rst_n) {is_second, sum} <= '0;
    else if (out.moves) begin
      is_second <= !ends;
      sum <= out.last ? '0 : summed(sum, out.data);
    end
endmodule

// What was put is seen by the reader when its packet is whole. `back` takes back what of a packet is there.
module packet_fifo import crossing_pkg::*; #(parameter int LOG = 3, parameter type T = pair_t) (
  stream.sink in, stream.source out, input logic back,
  output logic [LOG:0] room, waiting, output losses_t losses
);
  localparam int N = 1 << LOG;
  typedef logic [LOG:0] pointer_t;

  T cells [N];
  pointer_t head, whole, whole_gray, tail, tail_gray, whole_seen, tail_seen, gone;
  logic skips;

  crossing #(LOG + 1) to_reader (.clk(out.clk), .rst_n(out.rst_n), .d(whole_gray), .q(whole_seen));
  crossing #(LOG + 1) to_writer (.clk(in.clk), .rst_n(in.rst_n), .d(tail_gray), .q(tail_seen));

  assign gone = pointer_t'(from_gray(word_t'(tail_seen)));
  assign room = pointer_t'(N) - pointer_t'(head - gone);
  wire is_full = room == 0;
  wire never_fits = is_full && whole == gone && in.valid;
  assign in.ready = !is_full || skips;

  always_ff @(posedge in.clk or negedge in.rst_n)
    if (!in.rst_n) begin
      {head, whole, whole_gray, skips} <= '0;
      losses <= '0;
    end else if (back) begin
      head <= whole;
      skips <= 1'b0;
      losses.taken_back <= losses.taken_back + 1'b1;
    end else if (skips) begin
      if (in.moves && in.last) skips <= 1'b0;
    end else if (never_fits) begin
      head <= whole;
      skips <= 1'b1;
      losses.too_long <= losses.too_long + 1'b1;
    end else if (in.moves) begin
      cells[head[LOG-1:0]] <= in.data;
      head <= head + 1'b1;
      if (in.last) begin
        whole <= head + 1'b1;
        whole_gray <= pointer_t'(to_gray(word_t'(pointer_t'(head + 1'b1))));
      end
    end

  // A Gray code that crosses must change in one digit at a time.
  pointer_t tail_before = '0;
  always @(posedge out.clk) begin
    tail_before <= tail_gray;
    assert ($onehot0(tail_gray ^ tail_before)) else $error("the reader's pointer leaps: %b to %b", tail_before, tail_gray);
    assert (!(out.moves && waiting == 0)) else $error("read from nothing");
  end

  assign waiting = pointer_t'(from_gray(word_t'(whole_seen))) - tail;
  assign out.valid = waiting != 0;
  assign out.data = cells[tail[LOG-1:0]];
  assign out.last = 1'b0;  // said by the word itself

  always_ff @(posedge out.clk or negedge out.rst_n)
    if (!out.rst_n) {tail, tail_gray} <= '0;
    else if (out.moves) begin
      tail <= tail + 1'b1;
      tail_gray <= pointer_t'(to_gray(word_t'(pointer_t'(tail + 1'b1))));
    end
endmodule

// The whole: bytes in on one side, out on the other, a threshold sent to the writer and the losses asked of it.
module link import crossing_pkg::*; #(parameter int LOG = 3) (
  stream.sink in, stream.source out, input logic back, output logic is_nearly_full, output logic [LOG:0] room, waiting,
  input logic set, ask, input logic [LOG:0] threshold, output logic answered, is_bad, output losses_t answer
);
  losses_t losses;
  logic [LOG:0] least;
  logic was_set, is_asked, unused_free, unused_free_too, unused_free_third, unused;

  stream #(.T(pair_t)) packed_in (.clk(in.clk), .rst_n(in.rst_n)), packed_out (.clk(out.clk), .rst_n(out.rst_n));
  packer p (.in, .out(packed_in.source), .back);
  packet_fifo #(.LOG(LOG)) f (.in(packed_in.sink), .out(packed_out.source), .back, .room, .waiting, .losses);
  unpacker u (.in(packed_out.sink), .out, .is_bad);

  messenger #(.T(logic [LOG:0])) settings (
    .from_clk(out.clk), .from_rst_n(out.rst_n), .send(set), .message(threshold), .is_free(unused_free),
    .to_clk(in.clk), .to_rst_n(in.rst_n), .came(was_set), .received(least)
  );
  messenger #(.T(logic)) question (
    .from_clk(out.clk), .from_rst_n(out.rst_n), .send(ask), .message(1'b1), .is_free(unused_free_too),
    .to_clk(in.clk), .to_rst_n(in.rst_n), .came(is_asked), .received(unused)
  );
  messenger #(.T(losses_t)) reply (
    .from_clk(in.clk), .from_rst_n(in.rst_n), .send(is_asked), .message(losses), .is_free(unused_free_third),
    .to_clk(out.clk), .to_rst_n(out.rst_n), .came(answered), .received(answer)
  );
  assign is_nearly_full = room <= least;
endmodule

module bench;
  import crossing_pkg::*;
  timeunit 1ns;
  timeprecision 1ps;
  int fast, slow, wait_in, wait_out, least, handle, script, got, length, back_after, number = 0;
  int lowest = 8, highest = 0;
  logic wclk = 0, rclk = 0, rst_n = 1, w_rst_n, r_rst_n, finished = 0, done = 0;
  logic back = 0, is_nearly_full, set = 0, ask = 0, answered, is_bad;
  logic [3:0] room, waiting, threshold;
  losses_t answer;

  reset_release w (.clk(wclk), .rst_n, .released(w_rst_n));
  reset_release r (.clk(rclk), .rst_n, .released(r_rst_n));
  stream source (.clk(wclk), .rst_n(w_rst_n)), sink (.clk(rclk), .rst_n(r_rst_n));
  link dut (.in(source.sink), .out(sink.source), .*);

  always @(negedge wclk)
    if (w_rst_n) begin
      if (room < lowest) lowest = room;
      if (room + waiting > 8) $display("more than there are places: %0d and %0d", room, waiting);
    end
  always @(posedge rclk) if (r_rst_n && waiting > highest) highest = waiting;

  task automatic give(input logic [7:0] value, input logic last);
    repeat (value % (wait_in + 1)) @(negedge wclk);
    source.data = value;
    source.last = last;
    source.valid = 1;
    #0;
    while (!source.ready) @(negedge wclk);
    @(negedge wclk) source.valid = 0;
  endtask

  initial begin
    handle = $fopen("clocks.txt", "r");
    got = $fscanf(handle, "%d %d %d %d %d", fast, slow, wait_in, wait_out, least);
    {source.valid, source.last, sink.ready} = '0;
    #5 rst_n = 0;
    #5 rst_n = 1;
    fork
      while (!done) #(fast * 0.5ns) wclk = ~wclk;
      while (!done) #(slow * 0.5ns) rclk = ~rclk;
      begin : writing
        script = $fopen("packets.txt", "r");
        repeat (4) @(negedge wclk);
        while ($fscanf(script, "%d %d", length, back_after) == 2) begin
          for (int k = 0; k < length; k++) give(16 * number + k, k == length - 1 && !back_after);
          if (back_after) begin
            back = 1;
            @(negedge wclk) back = 0;
          end
          number++;
        end
        repeat (12) @(negedge wclk);
        finished = 1;
      end
      begin : reading
        automatic int quiet = 0;
        repeat (4) @(negedge rclk);
        threshold = least;
        set = 1;
        @(negedge rclk) set = 0;
        while (!finished || quiet < 12 + wait_out) begin
          quiet++;
          if (sink.valid && quiet > wait_out) begin
            $write("%h%s%s", sink.data, string'(is_bad ? " bad" : ""), sink.last ? "\n" : " ");
            sink.ready = 1;
            quiet = 0;
          end
          @(negedge rclk) sink.ready = 0;
        end
        $display("nearly full %b, free %0d", is_nearly_full, room);
        ask = 1;
        @(negedge rclk) ask = 0;
        while (!answered) @(negedge rclk);
        $display("taken back %0d, too long %0d", answer.taken_back, answer.too_long);
        $display("between %0d and %0d", lowest, highest);
        done = 1;
      end
    join
  end
endmodule
