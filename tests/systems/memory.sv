// A memory controller: it keeps a row open in each bank, closes and opens as it must, and refreshes in time.
package memory_pkg;
  localparam int REFRESH_EVERY = 60, OPEN_TIME = 2, READ_TIME = 2;
  typedef logic [3:0] row_t;
  typedef logic [1:0] bank_t;
  typedef logic [3:0] column_t;
  typedef struct packed { row_t row; bank_t bank; column_t column; } address_t;
  typedef enum logic [2:0] {NOTHING, ACTIVATE, READ, WRITE, PRECHARGE, REFRESH} command_t;
endpackage

interface chip_port (input logic clk);
  import memory_pkg::*;
  command_t command;
  bank_t bank;
  logic [3:0] number;  // of a row or a column
  logic [7:0] to_chip, from_chip;
  modport controller (input clk, from_chip, output command, bank, number, to_chip);
  modport chip (input clk, command, bank, number, to_chip, output from_chip);
endinterface

module controller import memory_pkg::*; (
  chip_port.controller m,
  input logic valid, is_write, input address_t address, input logic [7:0] data,
  output logic ready, answered, output logic [7:0] answer
);
  typedef enum logic [2:0] {IDLE, CLOSING, OPENING, ACCESS, WAITING, CLOSING_ALL, REFRESHING} phase_t;
  phase_t phase = IDLE;
  logic [3:0] is_open = '0;
  row_t open_row [4];
  address_t a;
  logic writes;
  logic [7:0] d;
  int since = 0;
  logic [2:0] count;
  bank_t closing;

  let due = since >= REFRESH_EVERY - 16;
  assign ready = phase == IDLE && !due;

  always_comb begin
    m.command = NOTHING;
    m.bank = a.bank;
    m.number = a.row;
    m.to_chip = d;
    unique case (phase)
      CLOSING: m.command = PRECHARGE;
      OPENING: if (count == 0) m.command = ACTIVATE;
      ACCESS: begin
        m.command = writes ? WRITE : READ;
        m.number = a.column;
      end
      CLOSING_ALL: if (is_open[closing]) begin
        m.command = PRECHARGE;
        m.bank = closing;
      end
      REFRESHING: if (count == 0) m.command = REFRESH;
      IDLE, WAITING: ;
    endcase
  end

  always_ff @(posedge m.clk) begin
    since <= since + 1;
    answered <= 1'b0;
    unique case (phase)
      IDLE: begin
        count <= '0;
        closing <= '0;
        if (due) phase <= CLOSING_ALL;
        else if (valid) begin
          a <= address;
          d <= data;
          writes <= is_write;
          if (!is_open[address.bank]) phase <= OPENING;
          else phase <= open_row[address.bank] == address.row ? ACCESS : CLOSING;
        end
      end
      CLOSING: begin
        is_open[a.bank] <= 1'b0;
        phase <= OPENING;
      end
      OPENING: begin
        count <= count + 1'b1;
        is_open[a.bank] <= 1'b1;
        open_row[a.bank] <= a.row;
        if (count == OPEN_TIME) begin
          phase <= ACCESS;
          count <= '0;
        end
      end
      ACCESS: phase <= writes ? IDLE : WAITING;
      WAITING: begin
        count <= count + 1'b1;
        if (count == READ_TIME - 1) begin
          answer <= m.from_chip;
          answered <= 1'b1;
          phase <= IDLE;
        end
      end
      CLOSING_ALL: begin
        is_open[closing] <= 1'b0;
        closing <= closing + 1'b1;
        if (&closing) phase <= REFRESHING;
      end
      REFRESHING: begin
        count <= count + 1'b1;
        if (count == 3) begin
          since <= 0;
          phase <= IDLE;
        end
      end
    endcase
  end
endmodule

module chip import memory_pkg::*; (chip_port.chip m);
  logic [7:0] cells [address_t];
  int opened [bank_t];  // the row of each open bank
  logic [7:0] coming [$];
  int last = 0, cycle = 0;

  task automatic told(input string what);
    $display("violation: %s in cycle %0d", what, cycle);
  endtask

  always @(posedge m.clk) begin
    cycle++;
    if (cycle - last > REFRESH_EVERY) told("no refresh");
    case (m.command)
      ACTIVATE: begin
        if (opened.exists(m.bank)) told("open twice");
        opened[m.bank] = m.number;
      end
      PRECHARGE: begin
        if (!opened.exists(m.bank)) told("closed twice");
        opened.delete(m.bank);
      end
      READ, WRITE: begin
        automatic address_t where = '{row: opened[m.bank], bank: m.bank, column: m.number};
        if (!opened.exists(m.bank)) told("not open");
        if (m.command == WRITE) cells[where] = m.to_chip;
        else coming.push_back(cells.exists(where) ? cells[where] : 8'hee);
      end
      REFRESH: begin
        if (opened.size() != 0) told("refresh while open");
        last = cycle;
      end
      default: ;
    endcase
    if (m.command != READ && coming.size() > 0) m.from_chip <= coming.pop_front();
  end
endmodule

module bench;
  import memory_pkg::*;
  timeunit 1ns;
  logic clk = 0, valid = 0, is_write, ready, answered;
  address_t address;
  logic [7:0] data, answer;
  int handle, number, value, cycle = 0, reads = 0;
  string kind;

  chip_port wires (.clk);
  controller c (.m(wires), .*);
  chip ram (.m(wires));

  always #5 clk = ~clk;
  always @(posedge clk) cycle++;
  always @(posedge clk) if (answered) begin
    $display("%0d", answer);
    reads--;
  end

  initial begin
    handle = $fopen("requests.txt", "r");
    while ($fscanf(handle, "%s %d %d", kind, number, value) == 3) begin
      @(negedge clk);
      while (!ready) @(negedge clk);
      valid = 1;
      is_write = kind == "w";
      address = address_t'(number);
      data = value;
      if (!is_write) reads++;
      @(negedge clk) valid = 0;
      if (kind == "p") repeat (value) @(negedge clk);
    end
    while (reads > 0) @(negedge clk);
    $display("cycles %0d", cycle);
    $finish;
  end
endmodule
