// A memory controller: it keeps a row open in each bank, closes and opens as it must, and refreshes in time.
module controller #(parameter REFRESH_EVERY = 60, OPEN_TIME = 2, READ_TIME = 2) (
  input clk, valid, is_write, input [9:0] address, input [7:0] data, from_chip,
  output ready, output reg answered, output reg [7:0] answer,
  output reg [2:0] command, output reg [1:0] bank, output reg [3:0] number, output [7:0] to_chip
);
  localparam IDLE = 0, CLOSING = 1, OPENING = 2, ACCESS = 3, WAITING = 4, CLOSING_ALL = 5, REFRESHING = 6;
  localparam NOTHING = 0, ACTIVATE = 1, READ = 2, WRITE = 3, PRECHARGE = 4, REFRESH = 5;
  reg [2:0] phase = IDLE, count = 0;
  reg [3:0] is_open = 0;
  reg [3:0] open_row [0:3];
  reg [9:0] a;
  reg writes;
  reg [7:0] d;
  reg [1:0] closing = 0;
  integer since = 0;
  wire due = since >= REFRESH_EVERY - 16;
  wire [1:0] wanted = address[5:4];
  assign ready = phase == IDLE && !due;
  assign to_chip = d;

  always @* begin
    command = NOTHING;
    bank = a[5:4];
    number = a[9:6];
    case (phase)
      CLOSING: command = PRECHARGE;
      OPENING: if (count == 0) command = ACTIVATE;
      ACCESS: begin
        command = writes ? WRITE : READ;
        number = a[3:0];
      end
      CLOSING_ALL: if (is_open[closing]) begin
        command = PRECHARGE;
        bank = closing;
      end
      REFRESHING: if (count == 0) command = REFRESH;
    endcase
  end

  always @(posedge clk) begin
    since <= since + 1;
    answered <= 0;
    case (phase)
      IDLE: begin
        count <= 0;
        closing <= 0;
        if (due) phase <= CLOSING_ALL;
        else if (valid) begin
          a <= address;
          d <= data;
          writes <= is_write;
          if (!is_open[wanted]) phase <= OPENING;
          else phase <= open_row[wanted] == address[9:6] ? ACCESS : CLOSING;
        end
      end
      CLOSING: begin
        is_open[a[5:4]] <= 0;
        phase <= OPENING;
      end
      OPENING: begin
        count <= count + 1;
        is_open[a[5:4]] <= 1;
        open_row[a[5:4]] <= a[9:6];
        if (count == OPEN_TIME) begin
          phase <= ACCESS;
          count <= 0;
        end
      end
      ACCESS: phase <= writes ? IDLE : WAITING;
      WAITING: begin
        count <= count + 1;
        if (count == READ_TIME - 1) begin
          answer <= from_chip;
          answered <= 1;
          phase <= IDLE;
        end
      end
      CLOSING_ALL: begin
        is_open[closing] <= 0;
        closing <= closing + 1;
        if (&closing) phase <= REFRESHING;
      end
      REFRESHING: begin
        count <= count + 1;
        if (count == 3) begin
          since <= 0;
          phase <= IDLE;
        end
      end
    endcase
  end
endmodule

module chip #(parameter REFRESH_EVERY = 60) (
  input clk, input [2:0] command, input [1:0] bank, input [3:0] number, input [7:0] to_chip, output reg [7:0] from_chip
);
  reg [7:0] cells [0:1023];
  reg [3:0] row [0:3];
  reg [3:0] opened = 0;
  reg [7:0] coming;
  reg is_coming = 0;
  integer last = 0, cycle = 0, i;
  initial for (i = 0; i < 1024; i = i + 1) cells[i] = 8'hee;

  always @(posedge clk) begin
    cycle = cycle + 1;
    if (cycle - last > REFRESH_EVERY) $display("violation: no refresh in cycle %0d", cycle);
    if (command != 2 && is_coming) begin
      from_chip <= coming;
      is_coming = 0;
    end
    case (command)
      1: begin
        if (opened[bank]) $display("violation: open twice in cycle %0d", cycle);
        opened[bank] = 1;
        row[bank] = number;
      end
      4: begin
        if (!opened[bank]) $display("violation: closed twice in cycle %0d", cycle);
        opened[bank] = 0;
      end
      2, 3: begin
        if (!opened[bank]) $display("violation: not open in cycle %0d", cycle);
        if (command == 3) cells[{row[bank], bank, number}] = to_chip;
        else begin
          coming = cells[{row[bank], bank, number}];
          is_coming = 1;
        end
      end
      5: begin
        if (opened != 0) $display("violation: refresh while open in cycle %0d", cycle);
        last = cycle;
      end
    endcase
  end
endmodule

`timescale 1ns / 1ns
module bench;
  reg clk = 0, valid = 0, is_write;
  reg [9:0] address;
  reg [7:0] data;
  reg [7:0] kind;
  integer handle, number, value, cycle = 0, reads = 0;
  wire ready, answered;
  wire [7:0] answer, to_chip, from_chip;
  wire [2:0] command;
  wire [1:0] bank;
  wire [3:0] place;

  controller c (clk, valid, is_write, address, data, from_chip, ready, answered, answer, command, bank, place, to_chip);
  chip ram (clk, command, bank, place, to_chip, from_chip);

  always #5 clk = ~clk;
  always @(posedge clk) cycle = cycle + 1;
  always @(posedge clk) if (answered) begin
    $display("%0d", answer);
    reads = reads - 1;
  end

  initial begin
    handle = $fopen("requests.txt", "r");
    while ($fscanf(handle, "%s %d %d", kind, number, value) == 3) begin
      @(negedge clk);
      while (!ready) @(negedge clk);
      valid = 1;
      is_write = kind == "w";
      address = number;
      data = value;
      if (!is_write) reads = reads + 1;
      @(negedge clk) valid = 0;
      if (kind == "p") repeat (value) @(negedge clk);
    end
    while (reads > 0) @(negedge clk);
    $display("cycles %0d", cycle);
    $finish;
  end
endmodule
