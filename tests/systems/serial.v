// A serial port: 5 to 8 digits, parity or none, one or two stop digits, a break, queues on both sides, votes of three samples,
// a wire back that says when there is room.
module queue #(parameter LOG = 2, W = 8) (
  input clk, put, take, input [W-1:0] d, output [W-1:0] q, output empty, full, output [LOG:0] count
);
  reg [W-1:0] cells [0:(1<<LOG)-1];
  reg [LOG:0] head = 0, tail = 0;
  assign count = head - tail;
  assign empty = count == 0;
  assign full = count[LOG];
  assign q = cells[tail[LOG-1:0]];
  always @(posedge clk) begin
    if (put && !full) begin
      cells[head[LOG-1:0]] <= d;
      head <= head + 1;
    end
    if (take && !empty) tail <= tail + 1;
  end
endmodule

// One tick in so many cycles; it begins anew where it is told to.
module ticker (input clk, restart, input [7:0] divisor, output tick);
  reg [7:0] left = 0;
  assign tick = left == 0 && !restart;
  always @(posedge clk) left <= restart || tick ? divisor : left - 1;
endmodule

// Of the digits that a format has; even parity is 0 for none or two.
module parity_of (input [7:0] data, input [1:0] more, input is_odd, output value);
  reg [7:0] counted;
  always @*
    case (more)
      2'd0: counted = data & 8'h1f;
      2'd1: counted = data & 8'h3f;
      2'd2: counted = data & 8'h7f;
      2'd3: counted = data;
    endcase
  assign value = ^counted ^ is_odd;
endmodule

module sender (
  input clk, valid, is_broken, waits, input [7:0] data, divisor, input [4:0] set, output ready, idle, output reg line
);
  localparam IDLE = 3'd0, START = 3'd1, DIGITS = 3'd2, PARITY = 3'd3, STOP = 3'd4;
  localparam SAMPLES = 8;
  reg [2:0] phase = IDLE, count, samples = 0;
  reg [4:0] format;
  reg [7:0] left;
  reg even;
  wire tick, parity;
  wire two_stops = format[4], has_parity = format[2];
  wire [1:0] f_more = format[1:0];
  wire last = tick && samples == SAMPLES - 1;
  wire ends = phase == STOP && last && count == two_stops;

  ticker t (clk, phase == IDLE, divisor, tick);
  parity_of p (data, set[1:0], set[3], parity);
  assign ready = (phase == IDLE || ends) && !is_broken && !waits;
  assign idle = phase == IDLE;

  always @(posedge clk) begin
    case (phase)
      START: line <= 0;
      DIGITS: line <= left[0];
      PARITY: line <= even;
      default: line <= !(is_broken && phase == IDLE);
    endcase

    if (tick) samples <= samples + 1;
    if (last)
      case (phase)
        START: begin
          phase <= DIGITS;
          count <= 0;
        end
        DIGITS: begin
          left <= left >> 1;
          count <= count + 1;
          if (count == 4 + f_more) begin
            phase <= has_parity ? PARITY : STOP;
            count <= 0;
          end
        end
        PARITY: phase <= STOP;
        STOP: begin
          count <= count + 1;
          if (ends) phase <= IDLE;
        end
        default: ;
      endcase
    if (valid && ready) begin
      phase <= START;
      samples <= 0;
      left <= data;
      format <= set;
      even <= parity;
    end
  end
endmodule

module receiver (
  input clk, line, input [7:0] divisor, input [4:0] format, output reg valid, output reg [10:0] found
);
  localparam IDLE = 3'd0, START = 3'd1, DIGITS = 3'd2, PARITY = 3'd3, STOP = 3'd4, RELEASED = 3'd5;
  localparam SAMPLES = 8;
  reg [2:0] phase = IDLE, count, samples;
  reg [1:0] seen = 2'b11, votes;
  reg [7:0] data;
  reg bad, any;
  wire tick, parity;
  wire has_parity = format[2];
  wire [1:0] f_more = format[1:0];
  wire begins = phase == IDLE && !seen[1];
  wire voted = votes[1];  // two or three of three
  wire decided = tick && samples == 5;

  ticker t (clk, begins, divisor, tick);
  parity_of p (data, f_more, format[3], parity);

  task next_digit;
    begin
      votes <= 0;
      case (phase)
        START: phase <= DIGITS;
        DIGITS: begin
          count <= count + 1;
          if (count == 4 + f_more) phase <= has_parity ? PARITY : STOP;
        end
        PARITY: phase <= STOP;
        default: phase <= phase + 1;
      endcase
    end
  endtask

  task decide;
    case (phase)
      START: if (voted) phase <= IDLE;  // it was too short
      DIGITS: begin
        data[count] <= voted;
        any <= any | voted;
      end
      PARITY: begin
        bad <= voted != parity;
        any <= any | voted;
      end
      STOP: begin
        valid <= 1;
        found <= {!any && !voted, !voted, bad, data};
        phase <= voted ? IDLE : RELEASED;
      end
      default: ;
    endcase
  endtask

  always @(posedge clk) begin
    seen <= {seen[0], line};
    valid <= 0;
    if (begins) begin
      phase <= START;
      {samples, votes, count, bad, any, data} <= 0;
    end else if (phase == RELEASED) begin
      if (seen[1]) phase <= IDLE;
    end else if (tick && phase != IDLE) begin
      samples <= samples + 1;
      if (samples >= 2 && samples <= 4) votes <= votes + seen[1];
      if (samples == SAMPLES - 1) next_digit;
      if (decided) decide;
    end
  end
endmodule

module serial_port (
  input clk, input [2:0] address, input write, read, input [15:0] to_port, output reg [15:0] from_port,
  input line_in, may_send, output line_out, output reg has_room, output irq
);
  localparam DATA = 0, STATUS = 1, DIVISOR = 2, FORMAT = 3, CONTROL = 4, LEVELS = 5;
  reg [7:0] divisor = 0;
  reg [4:0] format = 5'b00011, control = 0;
  reg overrun = 0;
  wire nothing_to_send, ready, is_quiet, send_full, none, receive_full, valid, line;
  wire [7:0] next;
  wire [10:0] found, first;
  wire [2:0] waiting, arrived;
  wire is_broken = control[0], loops = control[1], on_data = control[2], on_room = control[3];
  wire waits = control[4] && !may_send;
  wire writes_data = write && address == DATA, takes_data = read && address == DATA;

  queue to_send (clk, writes_data, ready, to_port[7:0], next, nothing_to_send, send_full, waiting);
  sender s (clk, !nothing_to_send, is_broken, waits, next, divisor, format, ready, is_quiet, line);
  receiver r (clk, loops ? line : line_in, divisor, format, valid, found);
  queue #(.W(11)) come (clk, valid, takes_data, found, first, none, receive_full, arrived);

  assign line_out = line || loops;
  assign irq = on_data && !none || on_room && nothing_to_send;

  always @*
    case (address)
      DATA: from_port = none ? 16'h8000 : first;
      STATUS: from_port = {overrun, !none, nothing_to_send && is_quiet, send_full};
      DIVISOR: from_port = divisor;
      FORMAT: from_port = format;
      CONTROL: from_port = control;
      LEVELS: from_port = {5'b0, arrived, 5'b0, waiting};
      default: from_port = 16'hffff;
    endcase

  always @(posedge clk) begin
    // One more may be on its way when the other end is told, and one may just begin.
    has_room <= arrived + valid < 3;
    if (read && address == STATUS) overrun <= 0;
    if (valid && receive_full) overrun <= 1;
    if (write)
      case (address)
        DIVISOR: divisor <= to_port;
        FORMAT: format <= to_port;
        CONTROL: control <= to_port;
        default: ;
      endcase
  end
endmodule

`timescale 1ns / 1ns
module bench;
  localparam DATA = 0, STATUS = 1;
  reg clk = 0;
  reg [2:0] a_address, b_address;
  reg a_write = 0, a_read = 0, b_write = 0, b_read = 0;
  reg [15:0] a_to, b_to, value;
  wire [15:0] a_from, b_from;
  wire a_out, b_out, a_irq, b_irq, a_room, b_room;
  reg [8*8:1] kind;
  integer handle, first, second, waited, is_there, noise = 0;

  serial_port near (clk, a_address, a_write, a_read, a_to, a_from, b_out, b_room, a_out, a_room, a_irq);
  serial_port far (clk, b_address, b_write, b_read, b_to, b_from, a_out ^ (noise > 0), a_room, b_out, b_room, b_irq);

  always #5 clk = ~clk;
  always @(negedge clk) if (noise > 0) noise = noise - 1;

  task put(input is_far, input [2:0] at, input [15:0] what);
    begin
      @(negedge clk);
      if (is_far) {b_address, b_to, b_write} = {at, what, 1'b1};
      else {a_address, a_to, a_write} = {at, what, 1'b1};
      @(negedge clk) {a_write, b_write} = 0;
    end
  endtask

  task get(input is_far, input [2:0] at, output [15:0] what);
    begin
      @(negedge clk);
      if (is_far) {b_address, b_read} = {at, 1'b1};
      else {a_address, a_read} = {at, 1'b1};
      #1 what = is_far ? b_from : a_from;
      @(negedge clk) {a_read, b_read} = 0;
    end
  endtask

  task send(input [15:0] what);
    begin
      get(0, STATUS, value);
      while (value[0]) get(0, STATUS, value);
      put(0, DATA, what);
    end
  endtask

  task receive;
    begin
      waited = 1;
      get(1, STATUS, value);
      while (!value[2] && waited < 3000) begin
        get(1, STATUS, value);
        waited = waited + 1;
      end
      get(1, DATA, value);
      $display("%h", value);
    end
  endtask

  initial begin
    handle = $fopen("script.txt", "r");
    is_there = $fscanf(handle, "%s %d %d", kind, first, second);
    while (is_there == 3) begin
      case (kind)
        "near": put(0, first, second);
        "far": put(1, first, second);
        "send": send(first);
        "receive": repeat (first) receive;
        "show": begin
          get(first == 1, second, value);
          $display("%h", value);
        end
        "asks": $display("%b%b", a_irq, b_irq);
        "noise": noise = first;
        "wait": repeat (first) @(negedge clk);
        default: $display("%0s is no word of a script", kind);
      endcase
      is_there = $fscanf(handle, "%s %d %d", kind, first, second);
    end
    $finish;
  end
endmodule
