// A serial line: frames of a start digit, eight digits from the right, even parity and a stop digit.
package frame_pkg;
  localparam int DIV = 8;
  typedef enum logic [2:0] {IDLE, START, DATA, PARITY, STOP} phase_t;
  typedef struct packed { logic bad; logic [7:0] data; } received_t;
endpackage

module queue #(parameter int LOG = 2, parameter type T = logic [7:0]) (
  input logic clk, put, take, input T d, output T q, output logic empty, full
);
  T cells [1 << LOG];
  logic [LOG:0] head = '0, tail = '0;
  assign empty = head == tail;
  assign full = head == {~tail[LOG], tail[LOG-1:0]};
  assign q = cells[tail[LOG-1:0]];
  always_ff @(posedge clk) begin
    if (put && !full) begin
      cells[head[LOG-1:0]] <= d;
      head <= head + 1'b1;
    end
    if (take && !empty) tail <= tail + 1'b1;
  end
endmodule

module sender import frame_pkg::*; (input logic clk, valid, input logic [7:0] data, output logic ready, line);
  phase_t phase = IDLE;
  logic [7:0] left;
  logic parity;
  logic [2:0] count;
  logic [$clog2(DIV)-1:0] ticks = '0;
  wire last = ticks == DIV - 1;

  assign ready = phase == IDLE;
  always_comb unique case (phase)
    IDLE, STOP: line = 1'b1;
    START: line = 1'b0;
    DATA: line = left[0];
    PARITY: line = parity;
  endcase

  always_ff @(posedge clk) begin
    ticks <= (phase == IDLE || last) ? '0 : ticks + 1'b1;
    unique case (phase)
      IDLE: if (valid) begin
        phase <= START;
        left <= data;
        parity <= ^data;
        count <= '0;
      end
      START: if (last) phase <= DATA;
      DATA: if (last) begin
        left <= {1'b0, left[7:1]};
        count <= count + 1'b1;
        if (&count) phase <= PARITY;
      end
      PARITY: if (last) phase <= STOP;
      STOP: if (last) phase <= IDLE;
    endcase
  end
endmodule

module receiver import frame_pkg::*; (input logic clk, line, output logic valid, output received_t found);
  phase_t phase = IDLE;
  logic [1:0] seen = '1;
  logic [7:0] data;
  logic parity, bad;
  logic [2:0] count;
  logic [$clog2(DIV)-1:0] ticks = '0;
  wire middle = ticks == DIV / 2 - 1, last = ticks == DIV - 1;

  always_ff @(posedge clk) begin
    seen <= {seen[0], line};
    valid <= 1'b0;
    ticks <= (phase == IDLE || last) ? '0 : ticks + 1'b1;
    case (phase)
      IDLE: if (!seen[1]) phase <= START;
      START: begin
        count <= '0;
        bad <= 1'b0;
        if (middle && seen[1]) phase <= IDLE;  // it was too short
        else if (last) phase <= DATA;
      end
      DATA: begin
        if (middle) data <= {seen[1], data[7:1]};
        if (last) begin
          count <= count + 1'b1;
          if (&count) phase <= PARITY;
        end
      end
      PARITY: begin
        if (middle) bad <= seen[1] != ^data;
        if (last) phase <= STOP;
      end
      default: if (middle) begin
        phase <= IDLE;
        valid <= 1'b1;
        found <= '{bad: bad | ~seen[1], data: data};
      end
    endcase
  end
endmodule

module bench;
  import frame_pkg::*;
  timeunit 1ns;
  logic clk = 0, put = 0, take, idle, ready, line, noise = 0, valid, none, unused_full, full;
  logic [7:0] byte_in, next;
  received_t found, out;
  int frames[$], noisy[$], got = 0, cycle = 0, value, handle, total;
  string kind;

  queue #(.T(logic [7:0])) to_send (.clk, .put, .take(ready && !idle), .d(byte_in), .q(next), .empty(idle), .full);
  sender s (.clk, .valid(!idle), .data(next), .ready, .line);
  receiver r (.clk, .line(line ^ noise), .valid, .found);
  queue #(.T(received_t)) come (.clk, .put(valid), .take, .d(found), .q(out), .empty(none), .full(unused_full));

  always #5 clk = ~clk;
  always_comb take = !none;

  initial begin
    handle = $fopen("frames.txt", "r");
    while ($fscanf(handle, "%s %d", kind, value) == 2)
      if (kind == "byte") frames.push_back(value);
      else noisy.push_back(value);
    total = frames.size();
    while (frames.size() > 0) begin
      @(negedge clk);
      put = !full;
      if (!full) byte_in = frames.pop_front();
    end
    @(negedge clk) put = 0;
  end

  always @(negedge clk) begin
    cycle++;
    noise = 0;
    foreach (noisy[i]) if (noisy[i] == cycle) noise = 1;
    if (!none) begin
      $display("%0d %0d", out.data, out.bad);
      got++;
    end
    if (got == total || cycle > 20000) $finish;
  end
endmodule
