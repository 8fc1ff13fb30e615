// A memory controller for three who ask: who finds a row open goes first, but not for ever; rows stay open in each bank until
// another is wanted, every time that the chip asks for is kept, and it is refreshed before it forgets.
`define NOTHING 3'd0
`define ACTIVATE 3'd1
`define READ 3'd2
`define WRITE 3'd3
`define PRECHARGE 3'd4
`define REFRESH 3'd5
`define OPENS 3
`define CLOSES 2
`define STAYS 7
`define SETTLES 3
`define REFRESHES 6
`define FORGETS 90
`define EARLY 30
// A request: whether it writes, row, bank, column, which bytes it keeps, two bytes.
`define IS_WRITE 28
`define ROW 27:24
`define BANK 23:22
`define COLUMN 21:18
`define KEEPS 17:16
`define DATA 15:0

// Who waits for long goes first; who finds his row open may go before, so many times in a row.
module arbiter (input clk, take, input [2:0] valid, hits, output any, output reg [1:0] chosen);
  localparam MOST_BEFORE = 3;
  reg [1:0] first_of = 0, second_of = 1, third_of = 2;  // in the order of their turns
  reg [1:0] before = 0, first;

  always @* begin
    if (valid[first_of]) first = first_of;
    else if (valid[second_of]) first = second_of;
    else first = third_of;
    chosen = first;
    if (before < MOST_BEFORE) begin
      if (valid[first_of] && hits[first_of]) chosen = first_of;
      else if (valid[second_of] && hits[second_of]) chosen = second_of;
      else if (valid[third_of] && hits[third_of]) chosen = third_of;
    end
  end
  assign any = |valid;

  always @(posedge clk)
    if (take && any) begin
      before <= chosen == first ? 0 : before + 1;
      // Who was taken goes to the end.
      if (chosen == first_of) {first_of, second_of, third_of} <= {second_of, third_of, first_of};
      else if (chosen == second_of) {second_of, third_of} <= {third_of, second_of};
    end
endmodule

// What one bank allows: it counts down to the next command of each kind.
module bank_state (
  input clk, input [2:0] command, input [3:0] row,
  output reg is_open, output may_open, may_access, may_close, output reg [3:0] open_row
);
  reg [2:0] to_open = 0, to_access = 0, to_close = 0;

  function [2:0] less(input [2:0] n);
    less = n == 0 ? 0 : n - 1;
  endfunction
  function [2:0] later(input [2:0] n, input integer least);
    later = n > least ? n - 1 : least - 1;
  endfunction

  initial is_open = 0;
  always @(posedge clk) begin
    to_open <= less(to_open);
    to_access <= less(to_access);
    to_close <= less(to_close);
    case (command)
      `ACTIVATE: begin
        is_open <= 1;
        open_row <= row;
        to_access <= `OPENS - 1;
        to_close <= `STAYS - 1;
      end
      `PRECHARGE: begin
        is_open <= 0;
        to_open <= `CLOSES - 1;
      end
      `WRITE: to_close <= later(to_close, `SETTLES);
      `READ: to_close <= later(to_close, 1);
      `REFRESH: to_open <= `REFRESHES - 1;
      default: ;
    endcase
  end

  assign may_open = !is_open && to_open == 0,
         may_access = is_open && to_access == 0,
         may_close = is_open && to_close == 0;
endmodule

module controller (
  input clk, input [2:0] valid, input [3*29-1:0] requests, output [2:0] ready, answered, output [15:0] answer,
  output reg [2:0] command, output reg [1:0] bank, output reg [3:0] number, output [1:0] keeps, output [15:0] to_chip,
  input [15:0] from_chip
);
  localparam IDLE = 2'd0, SERVING = 2'd1, CLOSING_ALL = 2'd2;
  reg [1:0] phase = IDLE, now_of = 0;
  reg [28:0] now;
  reg [6:0] since = 0;
  reg [2:0] coming = 0;
  reg [5:0] coming_of = 0;
  wire [2:0] hits;
  wire [3:0] is_open, may_open, may_access, may_close;
  wire [3:0] open_row [0:3];
  wire any;
  wire [1:0] chosen;
  wire due = since >= `FORGETS - `EARLY;
  wire take = phase == IDLE && !due;
  wire [1:0] b = now[`BANK];

  genvar i;
  generate
    for (i = 0; i < 3; i = i + 1) begin : port
      wire [28:0] request = requests[29*i +: 29];
      assign hits[i] = is_open[request[`BANK]] && open_row[request[`BANK]] == request[`ROW];
      assign ready[i] = take && any && chosen == i;
      assign answered[i] = coming[2] && coming_of[5:4] == i;
    end
    for (i = 0; i < 4; i = i + 1) begin : of_bank
      bank_state state (
        clk, command == `REFRESH || bank == i ? command : `NOTHING, number,
        is_open[i], may_open[i], may_access[i], may_close[i], open_row[i]
      );
    end
  endgenerate

  arbiter a (clk, take, valid, hits, any, chosen);
  assign answer = from_chip;
  assign keeps = now[`KEEPS];
  assign to_chip = now[`DATA];

  always @* begin
    command = `NOTHING;
    bank = b;
    number = now[`ROW];
    case (phase)
      SERVING:
        if (!is_open[b]) begin
          if (may_open[b]) command = `ACTIVATE;
        end else if (open_row[b] != now[`ROW]) begin
          if (may_close[b]) command = `PRECHARGE;
        end else if (may_access[b]) begin
          command = now[`IS_WRITE] ? `WRITE : `READ;
          number = now[`COLUMN];
        end
      CLOSING_ALL:
        if (is_open == 0) begin
          if (&may_open) command = `REFRESH;
        end else if (may_close != 0) begin
          command = `PRECHARGE;
          bank = may_close[0] ? 0 : may_close[1] ? 1 : may_close[2] ? 2 : 3;
        end
      default: ;
    endcase
  end

  always @(posedge clk) begin
    since <= command == `REFRESH ? 0 : since + 1;
    coming <= {coming, command == `READ};
    coming_of <= {coming_of, now_of};
    case (phase)
      IDLE:
        if (due) phase <= CLOSING_ALL;
        else if (any) begin
          phase <= SERVING;
          now <= requests[29*chosen +: 29];
          now_of <= chosen;
        end
      SERVING: if (command == `READ || command == `WRITE) phase <= IDLE;
      CLOSING_ALL: if (command == `REFRESH) phase <= IDLE;
      default: ;
    endcase
  end
endmodule

// The chip says what it does not allow; what was never written reads eeee.
module chip (
  input clk, input [2:0] command, input [1:0] bank, input [3:0] number, input [1:0] keeps, input [15:0] to_chip,
  output reg [15:0] from_chip
);
  reg [15:0] cells [0:1023];
  reg [3:0] row [0:3];
  reg [3:0] opened = 0;
  integer opened_at [0:3], closed_at [0:3], written_at [0:3];
  integer refreshed_at = 0, cycle = 0, i;
  reg [9:0] where;
  reg [15:0] coming;

  task told(input [8*27:1] what);
    $display("violation: %0s in cycle %0d", what, cycle);
  endtask

  task wants(input integer since, least, input [8*27:1] what);
    if (cycle - since < least) $display("violation: %0s after %0d in cycle %0d", what, cycle - since, cycle);
  endtask

  task activate;
    begin
      if (opened[bank]) told("open twice");
      wants(closed_at[bank], `CLOSES, "opened too early");
      opened[bank] = 1;
      row[bank] = number;
      opened_at[bank] = cycle;
    end
  endtask

  task precharge;
    begin
      if (!opened[bank]) told("closed twice");
      wants(opened_at[bank], `STAYS, "closed too early");
      wants(written_at[bank], `SETTLES, "closed before it was written");
      opened[bank] = 0;
      closed_at[bank] = cycle;
    end
  endtask

  task access;
    if (!opened[bank]) told("not open");
    else begin
      where = {row[bank], bank, number};
      wants(opened_at[bank], `OPENS, "used too early");
      coming = cells[where];
      if (command == `WRITE) begin
        if (!keeps[0]) cells[where][7:0] = to_chip[7:0];
        if (!keeps[1]) cells[where][15:8] = to_chip[15:8];
        written_at[bank] = cycle;
      end
    end
  endtask

  task refresh;
    begin
      if (opened != 0) told("refresh while open");
      for (i = 0; i < 4; i = i + 1) wants(closed_at[i], `CLOSES, "refreshed too early");
      refreshed_at = cycle;
    end
  endtask

  initial begin
    for (i = 0; i < 1024; i = i + 1) cells[i] = 16'heeee;
    for (i = 0; i < 4; i = i + 1) begin
      opened_at[i] = -100;
      closed_at[i] = -100;
      written_at[i] = -100;
    end
  end

  always @(posedge clk) begin
    cycle = cycle + 1;
    from_chip <= coming;
    if (cycle - refreshed_at > `FORGETS) told("forgotten");
    if (command >= `ACTIVATE && command <= `PRECHARGE && refreshed_at > 0)
      wants(refreshed_at, `REFRESHES, "still refreshing");
    case (command)
      `ACTIVATE: activate;
      `PRECHARGE: precharge;
      `READ, `WRITE: access;
      `REFRESH: refresh;
      default: ;
    endcase
  end
endmodule

// One who asks, by a script of his own.
module client #(parameter WHO = 0) (
  input clk, ready, answered, input [15:0] answer, output reg valid, output reg [28:0] request, output reg done
);
  integer handle, is_there, number, value, asked, got;
  reg [8*5:1] kind;
  reg [8*13:1] name;

  always @(posedge clk)
    if (answered) begin
      $display("answer %0d %h", WHO, answer);
      got = got + 1;
    end
  always @(posedge clk) if (valid && ready) $display("took %0d", WHO);

  task ask;
    begin
      // `low` and `high` write one byte and keep the other
      request = {kind != "read", number[9:6], number[5:4], number[3:0], kind == "low", kind == "high", value[15:0]};
      valid = 1;
      #1;
      while (!ready) @(negedge clk) #1;
      @(negedge clk) valid = 0;
      if (kind == "read") asked = asked + 1;
    end
  endtask

  initial begin
    {done, valid} = 0;
    {asked, got} = 0;
    $swrite(name, "requests%0d.txt", WHO);
    handle = $fopen(name, "r");
    is_there = $fscanf(handle, "%s %d %d", kind, number, value);
    while (is_there == 3) begin
      @(negedge clk);
      if (kind == "wait") repeat (number) @(negedge clk);
      else ask;
      is_there = $fscanf(handle, "%s %d %d", kind, number, value);
    end
    while (got < asked) @(negedge clk);
    done = 1;
  end
endmodule

`timescale 1ns / 1ns
module bench;
  reg clk = 0;
  integer cycle = 0;
  wire [2:0] valid, ready, answered, done, command;
  wire [3*29-1:0] requests;
  wire [15:0] answer, to_chip, from_chip;
  wire [1:0] bank, keeps;
  wire [3:0] number;

  controller c (
    clk, valid, requests, ready, answered, answer, command, bank, number, keeps, to_chip, from_chip
  );
  chip ram (clk, command, bank, number, keeps, to_chip, from_chip);
  genvar i;
  generate
    for (i = 0; i < 3; i = i + 1) begin : who
      client #(.WHO(i)) one (clk, ready[i], answered[i], answer, valid[i], requests[29*i +: 29], done[i]);
    end
  endgenerate

  always #5 clk = ~clk;
  always @(posedge clk) cycle = cycle + 1;
  initial begin
    wait (&done);
    $display("cycles %0d", cycle);
    $finish;
  end
endmodule
