// A pipelined processor of five stages with forwarding, a stall after loads and branches decided in the third stage.
module cpu (input clk, rst_n, input [15:0] word, read, output [5:0] fetch, output we, output [15:0] address, written,
            output halted);
  localparam NOP = 0, ADD = 1, SUB = 2, AND_ = 3, OR_ = 4, XOR_ = 5, SLT = 6, ADDI = 7, LD = 8, ST = 9, BEQ = 10, LUI = 11,
    HALT = 15;
  reg [5:0] pc, f_pc, d_pc;
  reg f_valid, d_valid, x_valid, w_valid;
  reg [15:0] f_i, d_i, x_i, w_i, d_a, d_b, d_d, x_result, x_d, w_value;
  reg [15:0] r [0:7];
  reg [15:0] a, b, v, result, immediate;
  reg stall, taken;
  integer n;

  function writes(input [15:0] i);
    writes = ((i[15:12] >= ADD && i[15:12] <= LD) || i[15:12] == LUI) && i[11:9] != 0;
  endfunction

  function uses(input [15:0] i, input [2:0] n);
    case (i[15:12])
      ADD, SUB, AND_, OR_, XOR_, SLT: uses = i[8:6] == n || i[5:3] == n;
      ADDI, LD: uses = i[8:6] == n;
      ST, BEQ: uses = i[8:6] == n || i[11:9] == n;
      default: uses = 0;
    endcase
  endfunction

  function [15:0] forwarded(input [2:0] n, input [15:0] plain, input x_here, input [15:0] x_new, input w_here,
                            input [15:0] w_new);
    if (n == 0) forwarded = 0;
    else if (x_here) forwarded = x_new;
    else if (w_here) forwarded = w_new;
    else forwarded = plain;
  endfunction

  wire x_writes = x_valid && writes(x_i), w_writes = w_valid && writes(w_i);
  wire [3:0] op = d_i[15:12];

  always @* begin
    a = forwarded(d_i[8:6], d_a, x_writes && x_i[11:9] == d_i[8:6], x_result, w_writes && w_i[11:9] == d_i[8:6], w_value);
    b = forwarded(d_i[5:3], d_b, x_writes && x_i[11:9] == d_i[5:3], x_result, w_writes && w_i[11:9] == d_i[5:3], w_value);
    v = forwarded(d_i[11:9], d_d, x_writes && x_i[11:9] == d_i[11:9], x_result, w_writes && w_i[11:9] == d_i[11:9],
                  w_value);
    immediate = {{10{d_i[5]}}, d_i[5:0]};
    taken = d_valid && op == BEQ && v == a;
    stall = d_valid && op == LD && d_i[11:9] != 0 && f_valid && uses(f_i, d_i[11:9]);
    case (op)
      ADD: result = a + b;
      SUB: result = a - b;
      AND_: result = a & b;
      OR_: result = a | b;
      XOR_: result = a ^ b;
      SLT: result = $signed(a) < $signed(b);
      ADDI, LD, ST: result = a + immediate;
      LUI: result = d_i[8:0] << 7;
      default: result = 0;
    endcase
  end

  assign fetch = pc;
  assign we = x_valid && x_i[15:12] == ST;
  assign address = x_result;
  assign written = x_d;
  assign halted = w_valid && w_i[15:12] == HALT;

  always @(posedge clk or negedge rst_n)
    if (!rst_n) begin
      pc <= 0;
      {f_valid, d_valid, x_valid, w_valid} <= 0;
      {f_i, d_i, x_i, w_i} <= 0;
      for (n = 0; n < 8; n = n + 1) r[n] <= 0;
    end else begin
      if (taken) begin
        pc <= d_pc + 1 + immediate;
        f_valid <= 0;
      end else if (!stall) begin
        pc <= pc + 1;
        f_valid <= 1;
        f_i <= word;
        f_pc <= pc;
      end
      d_valid <= f_valid && !taken && !stall;
      d_i <= f_i;
      d_pc <= f_pc;
      d_a <= w_writes && w_i[11:9] == f_i[8:6] ? w_value : r[f_i[8:6]];
      d_b <= w_writes && w_i[11:9] == f_i[5:3] ? w_value : r[f_i[5:3]];
      d_d <= w_writes && w_i[11:9] == f_i[11:9] ? w_value : r[f_i[11:9]];
      x_valid <= d_valid;
      x_i <= d_i;
      x_result <= result;
      x_d <= v;
      w_valid <= x_valid;
      w_i <= x_i;
      w_value <= x_i[15:12] == LD ? read : x_result;
      if (w_writes) r[w_i[11:9]] <= w_value;
    end
endmodule

`timescale 1ns / 1ns
module bench;
  reg clk = 0, rst_n = 0;
  reg [15:0] image [0:63];
  reg [15:0] cells [0:63];
  integer cycles = 0, i;
  wire [5:0] fetch;
  wire we, halted;
  wire [15:0] address, written;

  cpu dut (clk, rst_n, image[fetch], cells[address % 64], fetch, we, address, written, halted);
  always @(posedge clk) if (we) cells[address % 64] <= written;

  initial begin
    for (i = 0; i < 64; i = i + 1) cells[i] = i * 3;
    $readmemh("program.hex", image);
    #1 clk = 1;
    #1 clk = 0;
    rst_n = 1;
    while (!halted && cycles < 500) begin
      #1 clk = 1;
      #1 clk = 0;
      cycles = cycles + 1;
    end
    for (i = 0; i < 8; i = i + 1) $write("%h ", dut.r[i]);
    $write("\n");
    for (i = 0; i < 64; i = i + 1) $write("%h ", cells[i]);
    $write("\n");
  end
endmodule
