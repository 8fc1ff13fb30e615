// A memory controller for three who ask: who finds a row open goes first, but not for ever; rows stay open in each bank until
// another is wanted, every time that the chip asks for is kept, and it is refreshed before it forgets.
package memory_pkg;
  localparam int OPENS = 3, CLOSES = 2, STAYS = 7, SETTLES = 3, REFRESHES = 6, ANSWERS = 2, FORGETS = 90, EARLY = 30;
  localparam int PORTS = 3, BANKS = 4, MOST_BEFORE = 3;
  typedef logic [3:0] row_t;
  typedef logic [1:0] bank_t;
  typedef logic [3:0] column_t;
  typedef logic [1:0] port_t;
  typedef struct packed { row_t row; bank_t bank; column_t column; } address_t;
  typedef struct packed { logic is_write; address_t address; logic [1:0] keeps; logic [1:0][7:0] data; } request_t;
  typedef enum logic [2:0] {NOTHING, ACTIVATE, READ, WRITE, PRECHARGE, REFRESH} command_t;
endpackage

interface request_port (input logic clk);
  import memory_pkg::*;
  logic valid, ready, answered;
  request_t request;
  logic [15:0] answer;
  modport client (input clk, ready, answered, answer, output valid, request);
  modport server (input clk, valid, request, output ready, answered, answer);
endinterface

interface chip_port (input logic clk);
  import memory_pkg::*;
  command_t command;
  bank_t bank;
  logic [3:0] number;  // of a row or a column
  logic [1:0] keeps;
  logic [1:0][7:0] to_chip, from_chip;
  modport controller (input clk, from_chip, output command, bank, number, keeps, to_chip);
  modport chip (input clk, command, bank, number, keeps, to_chip, output from_chip);
endinterface

// Who waits for long goes first; who finds his row open may go before, so many times in a row.
module arbiter import memory_pkg::*; (
  input logic clk, take, input logic [PORTS-1:0] valid, hits, output logic any, output port_t chosen
);
  port_t order [PORTS] = '{0, 1, 2};
  logic [1:0] before = '0;
  port_t first;
  logic has_first;

  always_comb begin
    has_first = 1'b0;
    first = order[0];
    for (int i = PORTS - 1; i >= 0; i--)
      if (valid[order[i]]) {has_first, first} = {1'b1, order[i]};
    chosen = first;
    if (before < MOST_BEFORE)
      for (int i = PORTS - 1; i >= 0; i--)
        if (valid[order[i]] && hits[order[i]]) chosen = order[i];
  end
  assign any = has_first;

  always_ff @(posedge clk)
    if (take && any) begin
      before <= chosen == first ? '0 : before + 1'b1;
      // Who was taken goes to the end.
      if (chosen == order[0]) order <= '{order[1], order[2], order[0]};
      else if (chosen == order[1]) order <= '{order[0], order[2], order[1]};
    end
endmodule

// What one bank allows: it counts down to the next command of each kind.
module bank_state import memory_pkg::*; (
  input logic clk, input command_t command, input row_t row,
  output logic is_open, may_open, may_access, may_close, output row_t open_row
);
  logic [2:0] to_open = '0, to_access = '0, to_close = '0;

  function automatic logic [2:0] less(logic [2:0] n);
    return n == 0 ? '0 : n - 1'b1;
  endfunction
  function automatic logic [2:0] later(logic [2:0] n, int least);
    return n > least ? n - 1'b1 : 3'(least - 1);
  endfunction

  initial is_open = 0;
  always_ff @(posedge clk) begin
    to_open <= less(to_open);
    to_access <= less(to_access);
    to_close <= less(to_close);
    unique case (command)
      ACTIVATE: begin
        is_open <= 1'b1;
        open_row <= row;
        to_access <= OPENS - 1;
        to_close <= STAYS - 1;
      end
      PRECHARGE: begin
        is_open <= 1'b0;
        to_open <= CLOSES - 1;
      end
      WRITE: to_close <= later(to_close, SETTLES);
      READ: to_close <= later(to_close, 1);
      REFRESH: to_open <= REFRESHES - 1;
      NOTHING: ;
    endcase
  end

  assign may_open = !is_open && to_open == 0,
         may_access = is_open && to_access == 0,
         may_close = is_open && to_close == 0;
endmodule

module controller import memory_pkg::*; (request_port.server p [PORTS], chip_port.controller m);
  typedef enum logic [1:0] {IDLE, SERVING, CLOSING_ALL} phase_t;
  typedef struct packed { logic valid; port_t of; } expected_t;

  phase_t phase = IDLE;
  request_t asked [PORTS];
  request_t now;
  port_t of, chosen;
  logic [PORTS-1:0] valid, hits;
  logic [BANKS-1:0] is_open, may_open, may_access, may_close;
  row_t open_row [BANKS];
  expected_t [ANSWERS:0] coming = '0;
  logic [6:0] since = '0;
  logic any, take;

  let due = since >= FORGETS - EARLY;

  for (genvar i = 0; i < PORTS; i++) begin : port
    assign valid[i] = p[i].valid;
    assign asked[i] = p[i].request;
    assign hits[i] = is_open[p[i].request.address.bank] && open_row[p[i].request.address.bank] == p[i].request.address.row;
    assign p[i].ready = take && any && chosen == i;
    assign p[i].answered = coming[ANSWERS].valid && coming[ANSWERS].of == i;
    assign p[i].answer = m.from_chip;
  end
  for (genvar b = 0; b < BANKS; b++) begin : bank
    bank_state state (
      .clk(m.clk), .command(m.command == REFRESH || m.bank == b ? m.command : NOTHING), .row(m.number),
      .is_open(is_open[b]), .may_open(may_open[b]), .may_access(may_access[b]), .may_close(may_close[b]),
      .open_row(open_row[b])
    );
  end

  assign take = phase == IDLE && !due;
  arbiter a (.clk(m.clk), .take, .valid, .hits, .any, .chosen);

  always_comb begin
    m.command = NOTHING;
    m.bank = now.address.bank;
    m.number = now.address.row;
    m.keeps = now.keeps;
    m.to_chip = now.data;
    unique case (phase)
      IDLE: ;
      SERVING:
        if (!is_open[now.address.bank]) begin
          if (may_open[now.address.bank]) m.command = ACTIVATE;
        end else if (open_row[now.address.bank] != now.address.row) begin
          if (may_close[now.address.bank]) m.command = PRECHARGE;
        end else if (may_access[now.address.bank]) begin
          m.command = now.is_write ? WRITE : READ;
          m.number = now.address.column;
        end
      CLOSING_ALL:
        if (is_open == 0) begin
          if (&may_open) m.command = REFRESH;
        end else
          for (int b = 0; b < BANKS; b++)
            if (may_close[b]) begin
              m.command = PRECHARGE;
              m.bank = bank_t'(b);
              break;
            end
    endcase
  end

  always_ff @(posedge m.clk) begin
    since <= m.command == REFRESH ? '0 : since + 1'b1;
    coming <= {coming[ANSWERS-1:0], expected_t'{m.command == READ, of}};
    unique case (phase)
      IDLE:
        if (due) phase <= CLOSING_ALL;
        else if (any) begin
          phase <= SERVING;
          now <= asked[chosen];
          of <= chosen;
        end
      SERVING: if (m.command inside {READ, WRITE}) phase <= IDLE;
      CLOSING_ALL: if (m.command == REFRESH) phase <= IDLE;
    endcase
  end
endmodule

// The chip says what it does not allow; what was never written reads eeee.
module chip import memory_pkg::*; (chip_port.chip m);
  logic [1:0][7:0] cells [address_t];
  int opened [bank_t];  // the row of each open bank
  int opened_at [BANKS] = '{default: -100}, closed_at [BANKS] = '{default: -100}, written_at [BANKS] = '{default: -100};
  int refreshed_at = 0, cycle = 0;
  logic [1:0][7:0] coming;

  task automatic told(input string what);
    $display("violation: %s in cycle %0d", what, cycle);
  endtask

  task automatic wants(input int since, input int least, input string what);
    if (cycle - since < least) told({what, $sformatf(" after %0d", cycle - since)});
  endtask

  always @(posedge m.clk) begin
    cycle++;
    m.from_chip <= coming;
    if (cycle - refreshed_at > FORGETS) told("forgotten");
    if (m.command inside {[ACTIVATE:PRECHARGE]} && refreshed_at > 0) wants(refreshed_at, REFRESHES, "still refreshing");
    case (m.command)
      ACTIVATE: begin
        if (opened.exists(m.bank)) told("open twice");
        wants(closed_at[m.bank], CLOSES, "opened too early");
        opened[m.bank] = m.number;
        opened_at[m.bank] = cycle;
      end
      PRECHARGE: begin
        if (!opened.exists(m.bank)) told("closed twice");
        wants(opened_at[m.bank], STAYS, "closed too early");
        wants(written_at[m.bank], SETTLES, "closed before it was written");
        opened.delete(m.bank);
        closed_at[m.bank] = cycle;
      end
      READ, WRITE:
        if (!opened.exists(m.bank)) told("not open");
        else begin
          automatic address_t where = '{row: opened[m.bank], bank: m.bank, column: m.number};
          wants(opened_at[m.bank], OPENS, "used too early");
          if (!cells.exists(where)) cells[where] = 16'heeee;
          coming = cells[where];
          if (m.command == WRITE) begin
            foreach (m.keeps[i]) if (!m.keeps[i]) cells[where][i] = m.to_chip[i];
            written_at[m.bank] = cycle;
          end
        end
      REFRESH: begin
        if (opened.size() != 0) told("refresh while open");
        foreach (closed_at[b]) wants(closed_at[b], CLOSES, "refreshed too early");
        refreshed_at = cycle;
      end
      default: ;
    endcase
  end
endmodule

// One who asks, by a script of his own.
module client import memory_pkg::*; #(parameter int WHO = 0) (request_port.client p, output logic done);
  int handle, number, value, asked = 0, got = 0;
  string kind;

  always @(posedge p.clk)
    if (p.answered) begin
      $display("answer %0d %h", WHO, p.answer);
      got++;
    end
  always @(posedge p.clk) if (p.valid && p.ready) $display("took %0d", WHO);

  initial begin
    {done, p.valid} = '0;
    handle = $fopen($sformatf("requests%0d.txt", WHO), "r");
    while ($fscanf(handle, "%s %d %d", kind, number, value) == 3) begin
      @(negedge p.clk);
      case (kind)
        "wait": repeat (number) @(negedge p.clk);
        default: begin
          // `low` and `high` write one byte and keep the other
          p.request = '{
            is_write: kind != "read", address: address_t'(number), keeps: {kind == "low", kind == "high"}, data: value
          };
          p.valid = 1;
          #1;
          while (!p.ready) @(negedge p.clk) #1;
          @(negedge p.clk) p.valid = 0;
          if (kind == "read") asked++;
        end
      endcase
    end
    while (got < asked) @(negedge p.clk);
    done = 1;
  end
endmodule

module bench;
  import memory_pkg::*;
  timeunit 1ns;
  logic clk = 0;
  logic [PORTS-1:0] done;
  int cycle = 0;

  request_port ports [PORTS] (.clk);
  chip_port wires (.clk);
  controller c (.p(ports), .m(wires));
  chip ram (.m(wires));
  for (genvar i = 0; i < PORTS; i++) begin : who
    client #(.WHO(i)) one (.p(ports[i]), .done(done[i]));
  end

  always #5 clk = ~clk;
  always @(posedge clk) cycle++;
  initial begin
    wait (&done);
    $display("cycles %0d", cycle);
    $finish;
  end
endmodule
