// A serial line: frames of a start digit, eight digits from the right, even parity and a stop digit.
module queue #(parameter LOG = 2, W = 8) (
  input clk, put, take, input [W-1:0] d, output [W-1:0] q, output empty, full
);
  reg [W-1:0] cells [0:(1<<LOG)-1];
  reg [LOG:0] head = 0, tail = 0;
  assign empty = head == tail;
  assign full = head == {~tail[LOG], tail[LOG-1:0]};
  assign q = cells[tail[LOG-1:0]];
  always @(posedge clk) begin
    if (put && !full) begin
      cells[head[LOG-1:0]] <= d;
      head <= head + 1'b1;
    end
    if (take && !empty) tail <= tail + 1'b1;
  end
endmodule

module sender #(parameter DIV = 8) (input clk, valid, input [7:0] data, output ready, output reg line);
  localparam IDLE = 3'd0, START = 3'd1, DATA = 3'd2, PARITY = 3'd3, STOP = 3'd4;
  reg [2:0] phase = IDLE, count = 0;
  reg [7:0] left;
  reg parity;
  reg [3:0] ticks = 0;
  wire last = ticks == DIV - 1;
  assign ready = phase == IDLE;

  always @*
    case (phase)
      START: line = 1'b0;
      DATA: line = left[0];
      PARITY: line = parity;
      default: line = 1'b1;
    endcase

  always @(posedge clk) begin
    ticks <= (phase == IDLE || last) ? 4'd0 : ticks + 1'b1;
    case (phase)
      IDLE: if (valid) begin
        phase <= START;
        left <= data;
        parity <= ^data;
        count <= 0;
      end
      START: if (last) phase <= DATA;
      DATA: if (last) begin
        left <= left >> 1;
        count <= count + 1'b1;
        if (&count) phase <= PARITY;
      end
      PARITY: if (last) phase <= STOP;
      default: if (last) phase <= IDLE;
    endcase
  end
endmodule

module receiver #(parameter DIV = 8) (input clk, line, output reg valid, output reg [8:0] found);
  localparam IDLE = 3'd0, START = 3'd1, DATA = 3'd2, PARITY = 3'd3, STOP = 3'd4;
  reg [2:0] phase = IDLE, count = 0;
  reg [1:0] seen = 2'b11;
  reg [7:0] data;
  reg bad;
  reg [3:0] ticks = 0;
  wire middle = ticks == DIV / 2 - 1, last = ticks == DIV - 1;

  always @(posedge clk) begin
    seen <= {seen[0], line};
    valid <= 1'b0;
    ticks <= (phase == IDLE || last) ? 4'd0 : ticks + 1'b1;
    case (phase)
      IDLE: if (!seen[1]) phase <= START;
      START: begin
        count <= 0;
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
        found <= {bad | ~seen[1], data};
      end
    endcase
  end
endmodule

`timescale 1ns / 1ns
module bench;
  reg clk = 0, put = 0, noise = 0;
  reg [7:0] byte_in;
  reg [7:0] frames [0:255];
  integer noisy [0:255];
  reg [8*8:1] kind;
  integer total = 0, noises = 0, sent = 0, got = 0, cycle = 0, value, handle, i;
  wire idle, full, ready, line, valid, none, unused_full;
  wire [7:0] next;
  wire [8:0] found, out;

  queue #(.W(8)) to_send (clk, put, ready && !idle, byte_in, next, idle, full);
  sender s (clk, !idle, next, ready, line);
  receiver r (clk, line ^ noise, valid, found);
  queue #(.W(9)) come (clk, valid, !none, found, out, none, unused_full);

  always #5 clk = ~clk;

  initial begin
    handle = $fopen("frames.txt", "r");
    while ($fscanf(handle, "%s %d", kind, value) == 2)
      if (kind == "byte") begin
        frames[total] = value;
        total = total + 1;
      end else begin
        noisy[noises] = value;
        noises = noises + 1;
      end
    while (sent < total) begin
      @(negedge clk);
      put = !full;
      if (!full) begin
        byte_in = frames[sent];
        sent = sent + 1;
      end
    end
    @(negedge clk) put = 0;
  end

  always @(negedge clk) if ($time > 0) begin  // a start value is a change too
    cycle = cycle + 1;
    noise = 0;
    for (i = 0; i < noises; i = i + 1) if (noisy[i] == cycle) noise = 1;
    if (!none) begin
      $display("%0d %0d", out[7:0], out[8]);
      got = got + 1;
    end
    if (got == total || cycle > 20000) $finish;
  end
endmodule
