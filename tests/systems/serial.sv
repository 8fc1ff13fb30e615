// A serial port: 5 to 8 digits, parity or none, one or two stop digits, a break, queues on both sides, votes of three samples,
// a wire back that says when there is room.
package serial_pkg;
  localparam int SAMPLES = 8;  // of a digit

  typedef enum logic [2:0] {DATA, STATUS, DIVISOR, FORMAT, CONTROL, LEVELS} address_t;
  typedef enum logic [2:0] {IDLE, START, DIGITS, PARITY, STOP, RELEASED} phase_t;
  typedef struct packed { logic two_stops, is_odd, has_parity; logic [1:0] more; } format_t;
  typedef struct packed { logic waits, on_room, on_data, loop, is_broken; } control_t;
  typedef struct packed { logic is_break, bad_stop, bad_parity; logic [7:0] data; } received_t;
  typedef struct packed { logic overrun, available, idle, full; } status_t;

  function automatic logic parity(logic [7:0] data, format_t f);
    return ^(data & (8'hff >> (3 - f.more))) ^ f.is_odd;
  endfunction
endpackage

interface register_bus (input logic clk);
  import serial_pkg::*;
  address_t address;
  logic write, read;
  logic [15:0] to_port, from_port;
  modport port (input clk, address, write, read, to_port, output from_port);
  modport host (input clk, from_port, output address, write, read, to_port);

  task automatic put(address_t at, logic [15:0] value);
    @(negedge clk);
    {address, to_port, write} = {at, value, 1'b1};
    @(negedge clk) write = 0;
  endtask
  task automatic get(input address_t at, output logic [15:0] value);
    @(negedge clk);
    {address, read} = {at, 1'b1};
    #1 value = from_port;
    @(negedge clk) read = 0;
  endtask
endinterface

module queue #(parameter int LOG = 2, parameter type T = logic [7:0]) (
  input logic clk, put, take, input T d, output T q, output logic empty, full, output logic [LOG:0] count
);
  T cells [1 << LOG];
  logic [LOG:0] head = '0, tail = '0;
  assign count = head - tail;
  assign empty = count == 0;
  assign full = count[LOG];
  assign q = cells[tail[LOG-1:0]];
  always_ff @(posedge clk) begin
    if (put && !full) begin
      cells[head[LOG-1:0]] <= d;
      head <= head + 1'b1;
    end
    if (take && !empty) tail <= tail + 1'b1;
    assert (count <= 1 << LOG) else $error("the queue holds more than it has places: %0d", count);
  end
endmodule

// One tick in so many cycles; it begins anew where it is told to.
module ticker (input logic clk, restart, input logic [7:0] divisor, output logic tick);
  logic [7:0] left = '0;
  assign tick = left == 0 && !restart;
  always_ff @(posedge clk) left <= restart || tick ? divisor : left - 1'b1;
endmodule

module sender import serial_pkg::*; (
  input logic clk, valid, is_broken, waits, input logic [7:0] data, divisor, input format_t set,
  output logic ready, idle, line
);
  phase_t phase = IDLE;
  format_t format;
  logic [7:0] left;
  logic even, tick;
  logic [2:0] count, samples = '0;
  wire last = tick && samples == SAMPLES - 1;
  wire ends = phase == STOP && last && count == format.two_stops;

  ticker t (.clk, .restart(phase == IDLE), .divisor, .tick);
  assign ready = (phase == IDLE || ends) && !is_broken && !waits;
  assign idle = phase == IDLE;

  always_ff @(posedge clk) begin
    unique case (phase)
      START: line <= 1'b0;
      DIGITS: line <= left[0];
      PARITY: line <= even;
      default: line <= !(is_broken && phase == IDLE);
    endcase

    if (tick) samples <= samples + 1'b1;
    if (last)
      unique case (phase)
        START: begin
          phase <= DIGITS;
          count <= '0;
        end
        DIGITS: begin
          left <= {1'b0, left[7:1]};
          count <= count + 1'b1;
          if (count == 4 + format.more) begin
            phase <= format.has_parity ? PARITY : STOP;
            count <= '0;
          end
        end
        PARITY: phase <= STOP;
        STOP: begin
          count <= count + 1'b1;
          if (ends) phase <= IDLE;
        end
        default: ;
      endcase
    if (valid && ready) begin
      phase <= START;
      samples <= '0;
      left <= data;
      format <= set;
      even <= parity(data, set);
    end
  end
endmodule

module receiver import serial_pkg::*; (
  input logic clk, line, input logic [7:0] divisor, input format_t format, output logic valid, output received_t found
);
  phase_t phase = IDLE;
  logic [1:0] seen = '1;
  logic [1:0] votes;
  logic [7:0] data;
  logic bad, any, tick;
  logic [2:0] count, samples;
  wire begins = phase == IDLE && !seen[1];
  wire voted = votes[1];  // two or three of three
  wire decided = tick && samples == 5;

  ticker t (.clk, .restart(begins), .divisor, .tick);

  function automatic phase_t following(phase_t now);
    case (now)
      START: return DIGITS;
      DIGITS: return count != 4 + format.more ? DIGITS : format.has_parity ? PARITY : STOP;
      default: return phase_t'(now + 1);
    endcase
  endfunction

  always_ff @(posedge clk) begin
    seen <= {seen[0], line};
    valid <= 1'b0;
    if (begins) begin
      phase <= START;
      {samples, votes, count, bad, any, data} <= '0;
    end else if (phase == RELEASED) begin
      if (seen[1]) phase <= IDLE;
    end else if (tick && phase != IDLE) begin
      samples <= samples + 1'b1;
      if (samples inside {[2:4]}) votes <= votes + seen[1];
      if (samples == SAMPLES - 1) begin
        phase <= following(phase);
        votes <= '0;
        if (phase == DIGITS) count <= count + 1'b1;
      end
      if (decided)
        unique case (phase)
          START: if (voted) phase <= IDLE;  // it was too short
          DIGITS: begin
            data[count] <= voted;
            any <= any | voted;
          end
          PARITY: begin
            bad <= voted != parity(data, format);
            any <= any | voted;
          end
          STOP: begin
            valid <= 1'b1;
            found <= '{is_break: !any && !voted, bad_stop: !voted, bad_parity: bad, data: data};
            phase <= voted ? IDLE : RELEASED;
          end
          default: ;
        endcase
    end
  end
endmodule

module serial_port import serial_pkg::*; (register_bus.port bus, input logic line_in, may_send, output logic line_out, has_room, irq);
  logic [7:0] divisor = '0;
  format_t format = '{more: 3, default: 0};
  control_t control = '0;
  status_t status;
  logic overrun = 0;
  logic nothing_to_send, ready, is_quiet, send_full, none, receive_full, valid, line;
  logic [7:0] next;
  received_t found, first;
  logic [2:0] waiting, arrived;
  wire writes_data = bus.write && bus.address == DATA;
  wire takes_data = bus.read && bus.address == DATA;
  wire waits = control.waits && !may_send;

  queue to_send (
    .clk(bus.clk), .put(writes_data), .take(ready), .d(bus.to_port[7:0]), .q(next), .empty(nothing_to_send),
    .full(send_full), .count(waiting)
  );
  sender s (
    .clk(bus.clk), .valid(!nothing_to_send), .is_broken(control.is_broken), .waits, .data(next), .divisor, .set(format),
    .ready, .idle(is_quiet), .line
  );
  receiver r (.clk(bus.clk), .line(control.loop ? line : line_in), .divisor, .format, .valid, .found);
  queue #(.T(received_t)) come (
    .clk(bus.clk), .put(valid), .take(takes_data), .d(found), .q(first), .empty(none), .full(receive_full),
    .count(arrived)
  );

  assign line_out = line || control.loop;
  always_ff @(posedge bus.clk)
    // One more may be on its way when the other end is told, and one may just begin.
    has_room <= arrived + valid < 3;
  assign status = '{overrun: overrun, available: !none, idle: nothing_to_send && is_quiet, full: send_full};
  assign irq = control.on_data && !none || control.on_room && nothing_to_send;

  always_comb
    case (bus.address)
      DATA: bus.from_port = none ? 16'h8000 : 16'(first);
      STATUS: bus.from_port = 16'(status);
      DIVISOR: bus.from_port = 16'(divisor);
      FORMAT: bus.from_port = 16'(format);
      CONTROL: bus.from_port = 16'(control);
      LEVELS: bus.from_port = {5'b0, arrived, 5'b0, waiting};
      default: bus.from_port = '1;
    endcase

  // Nobody begins a frame while the line is held down, and nobody reads and writes in one cycle.
  always @(posedge bus.clk) begin
    assert (!(control.is_broken && ready)) else $error("a frame begins within a break");
    assert (!(bus.read && bus.write)) else $error("read and written at once");
  end

  always_ff @(posedge bus.clk) begin
    if (bus.read && bus.address == STATUS) overrun <= 1'b0;
    if (valid && receive_full) overrun <= 1'b1;
    if (bus.write)
      case (bus.address)
        DIVISOR: divisor <= bus.to_port[7:0];
        FORMAT: format <= format_t'(bus.to_port);
        CONTROL: control <= control_t'(bus.to_port);
        default: ;
      endcase
  end
endmodule

module bench;
  import serial_pkg::*;
  timeunit 1ns;
  logic clk = 0, a_out, b_out, a_irq, b_irq, a_room, b_room;
  int handle, first, second, noise = 0, waited;
  string kind;
  logic [15:0] value;

  register_bus a (.clk), b (.clk);
  serial_port near (.bus(a), .line_in(b_out), .may_send(b_room), .line_out(a_out), .has_room(a_room), .irq(a_irq));
  serial_port far (
    .bus(b), .line_in(a_out ^ (noise > 0)), .may_send(a_room), .line_out(b_out), .has_room(b_room), .irq(b_irq)
  );

  always #5 clk = ~clk;
  always @(negedge clk) if (noise > 0) noise--;

  task automatic send(input logic [15:0] what);
    do a.get(STATUS, value); while (value[0]);
    a.put(DATA, what);
  endtask

  task automatic receive(input int many);
    repeat (many) begin
      waited = 0;
      do begin
        b.get(STATUS, value);
        waited++;
      end while (!value[2] && waited < 3000);
      b.get(DATA, value);
      $display("%h", value);
    end
  endtask

  initial begin
    {a.read, a.write, b.read, b.write} = '0;
    handle = $fopen("script.txt", "r");
    while ($fscanf(handle, "%s %d %d", kind, first, second) == 3)
      case (kind)
        "near": a.put(address_t'(first), second);
        "far": b.put(address_t'(first), second);
        "send": send(first);
        "receive": receive(first);
        "show": begin
          if (first == 0) a.get(address_t'(second), value);
          else b.get(address_t'(second), value);
          $display("%h", value);
        end
        "asks": $display("%b%b", a_irq, b_irq);
        "noise": noise = first;
        "wait": repeat (first) @(negedge clk);
        default: $error("%s is no word of a script", kind);
      endcase
    $finish;
  end
endmodule
