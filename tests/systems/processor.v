// A pipelined processor of five stages: forwarding, a stall after loads, branches foretold by what they did before, a unit
// that multiplies and divides in sixteen cycles, and interrupts and traps that leave every instruction either done or not begun.
module alu (input [15:0] i, a, b, c, output reg [15:0] y);
  localparam ALU = 1, ADDI = 3, ANDI = 4, LD = 5, ST = 6, SLTI = 7, LUI = 11, SHI = 13;

  function [15:0] shifted(input [1:0] kind, input [15:0] v, input [3:0] by);
    case (kind)
      2'd0: shifted = v << by;
      2'd1: shifted = v >> by;
      2'd2: shifted = $signed(v) >>> by;
      2'd3: shifted = v << by | v >> (5'd16 - by);
    endcase
  endfunction

  always @*
    case (i[15:12])
      ALU:
        case (i[2:0])
          3'd0: y = a + b;
          3'd1: y = a - b;
          3'd2: y = a & b;
          3'd3: y = a | b;
          3'd4: y = a ^ b;
          3'd5: y = $signed(a) < $signed(b);
          3'd6: y = a < b;
          3'd7: y = shifted(2'd2, a, b[3:0]);
        endcase
      ADDI, LD, ST: y = a + c;
      ANDI: y = a & c;
      SLTI: y = $signed(a) < $signed(c);
      LUI: y = {i[8:0], 7'b0};
      SHI: y = shifted(i[5:4], a, i[3:0]);
      default: y = 0;
    endcase
endmodule

// Multiplies by adding and divides by subtracting, one digit a cycle; what it is given counts only in its first cycle.
module long_unit (input clk, rst_n, start, kill, input [1:0] kind, input [15:0] a, b, output reg done, output [15:0] y);
  localparam MUL = 2'd0, MULHU = 2'd1, DIVU = 2'd2, REMU = 2'd3;
  reg busy;
  reg [1:0] k;
  reg [3:0] count;
  reg [15:0] high, low, other;
  wire [16:0] sum = high + (low[0] ? other : 16'b0);
  wire [16:0] left = {high, low[15]};
  wire [16:0] less = left - other;
  wire fits = left >= other;

  always @(posedge clk or negedge rst_n)
    if (!rst_n) begin
      busy <= 0;
      done <= 0;
      count <= 0;
    end else begin
      done <= busy && &count && !kill;
      count <= count + 1;
      if (kill) busy <= 0;
      else if (start && !busy && !done) begin
        busy <= 1;
        count <= 0;
        k <= kind;
        other <= b;
        high <= 0;
        low <= a;
      end else if (busy) begin
        if (k == MUL || k == MULHU) {high, low} <= {sum, low[15:1]};
        else begin
          high <= fits ? less[15:0] : left[15:0];
          low <= {low[14:0], fits};
        end
        if (&count) busy <= 0;
      end
    end

  assign y = k == MUL || k == DIVU ? low : high;
endmodule

// What each of eight branches did: twice the other way before it is foretold otherwise.
module foreteller (input clk, rst_n, input [2:0] asked, output taken, input is_known, was_taken, input [2:0] known);
  localparam NEVER = 2'd0, SELDOM = 2'd1, OFTEN = 2'd2, ALWAYS = 2'd3;
  reg [1:0] habits [0:7];
  integer n;

  always @(posedge clk or negedge rst_n)
    if (!rst_n)
      for (n = 0; n < 8; n = n + 1) habits[n] <= SELDOM;
    else if (is_known)
      case (habits[known])
        NEVER: habits[known] <= was_taken ? SELDOM : NEVER;
        ALWAYS: habits[known] <= was_taken ? ALWAYS : OFTEN;
        default: habits[known] <= was_taken ? habits[known] + 1 : habits[known] - 1;
      endcase

  assign taken = habits[asked][1];
endmodule

module cpu (input clk, rst_n, irq, input [15:0] word, read, output [6:0] fetch, output we, output [15:0] address, written,
            output halted, acknowledge, retired, came, output [6:0] place, output [2:0] into, output [15:0] value);
  localparam NOP = 0, ALU = 1, LONG = 2, ADDI = 3, ANDI = 4, LD = 5, ST = 6, SLTI = 7, BEQ = 8, BNE = 9, BLT = 10, LUI = 11,
    JMP = 12, SHI = 13, SYS = 14, HALT = 15;
  localparam RETURN = 0, ENABLE = 1, DISABLE = 2, CALL = 3, GET_CAUSE = 4, GET_PLACE = 5, SET_PLACE = 6;
  localparam INTERRUPT = 0, CALLED = 1, DIVIDED = 2, ILLEGAL = 3;
  localparam VECTOR = 7'd4;

  reg [6:0] pc, f_pc, d_pc, x_pc, w_pc, return_place;
  reg f_valid, d_valid, x_valid, w_valid, x_came, w_came, f_foretold, d_foretold, enabled;
  reg [15:0] f_i, d_i, x_i, w_i, d_a, d_b, d_d, x_result, w_result, x_d, cause;
  reg [15:0] r [0:7];
  reg [15:0] a, b, v, c, result, new_cause;
  reg interrupted, is_long, hold, runs, trap, taken, redirect, stall;
  reg [6:0] target, redirected;
  wire [15:0] plain, long_result;
  wire foretold, long_done;
  wire [3:0] op = d_i[15:12];
  wire [2:0] what = d_i[2:0];
  integer n;

  function is_branch(input [15:0] i);
    is_branch = i[15:12] == BEQ || i[15:12] == BNE || i[15:12] == BLT;
  endfunction

  function [15:0] immediate(input [15:0] i);
    immediate = {{10{i[5]}}, i[5:0]};
  endfunction

  function writes(input [15:0] i);
    case (i[15:12])
      ALU, LONG, ADDI, ANDI, LD, SLTI, LUI, JMP, SHI: writes = i[11:9] != 0;
      SYS: writes = (i[2:0] == GET_CAUSE || i[2:0] == GET_PLACE) && i[11:9] != 0;
      default: writes = 0;
    endcase
  endfunction

  // Whether an instruction reads a register: as its first, its second or its third operand.
  function uses(input [15:0] i, input [2:0] n);
    case (i[15:12])
      ALU, LONG: uses = i[8:6] == n || i[5:3] == n;
      ADDI, ANDI, LD, SLTI, JMP, SHI: uses = i[8:6] == n;
      ST, BEQ, BNE, BLT: uses = i[8:6] == n || i[11:9] == n;
      SYS: uses = i[2:0] == SET_PLACE && i[11:9] == n;
      default: uses = 0;
    endcase
  endfunction

  wire x_writes = x_valid && writes(x_i), w_writes = w_valid && writes(w_i);
  wire goes = is_branch(word) && foretold;

  function [15:0] forwarded(input [2:0] n, input [15:0] plain, input x_is, input [2:0] x_n, input [15:0] x_new, input w_is,
                            input [2:0] w_n, input [15:0] w_new);
    if (n == 0) forwarded = 0;
    else if (x_is && x_n == n) forwarded = x_new;
    else if (w_is && w_n == n) forwarded = w_new;
    else forwarded = plain;
  endfunction

  function [15:0] current(input [2:0] n, input [15:0] held, input w_is, input [2:0] w_n, input [15:0] w_new);
    current = n == 0 ? 16'd0 : w_is && w_n == n ? w_new : held;
  endfunction

  foreteller habits (clk, rst_n, pc[2:0], foretold, runs && is_branch(d_i), taken, d_pc[2:0]);
  alu quick (d_i, a, b, c, plain);
  long_unit slow (clk, rst_n, is_long && !interrupted, interrupted, d_i[1:0], a, b, long_done, long_result);

  // The third stage: everything is decided here, so what is older is done and what is younger has left no trace.
  always @* begin
    a = forwarded(d_i[8:6], d_a, x_writes, x_i[11:9], x_result, w_writes, w_i[11:9], w_result);
    b = forwarded(d_i[5:3], d_b, x_writes, x_i[11:9], x_result, w_writes, w_i[11:9], w_result);
    v = forwarded(d_i[11:9], d_d, x_writes, x_i[11:9], x_result, w_writes, w_i[11:9], w_result);
    c = immediate(d_i);
    interrupted = irq && enabled && d_valid;
    is_long = d_valid && op == LONG && !what[2] && !(what[1] && b == 0);
    hold = is_long && !long_done && !interrupted;
    runs = d_valid && !hold && !interrupted;

    trap = 1;
    new_cause = INTERRUPT;
    if (!interrupted) begin
      if (op == SYS && what == CALL) new_cause = CALLED;
      else if (op == LONG && what[2] || op == SYS && what == 7) new_cause = ILLEGAL;
      else if (op == LONG && !is_long) new_cause = DIVIDED;
      else trap = 0;
      trap = trap && runs;
    end

    case (op)
      BEQ: taken = v == a;
      BNE: taken = v != a;
      BLT: taken = $signed(v) < $signed(a);
      default: taken = 0;
    endcase
    target = d_pc + 1 + c;

    redirect = trap;
    redirected = VECTOR;
    if (!trap && runs)
      case (op)
        BEQ, BNE, BLT: begin
          redirect = taken != d_foretold;
          redirected = taken ? target : d_pc + 7'd1;
        end
        JMP: begin
          redirect = 1;
          redirected = d_i[8:6] == 0 ? target : a + c;
        end
        SYS: begin
          redirect = what == RETURN;
          redirected = return_place;
        end
        default: ;
      endcase

    case (op)
      LONG: result = long_result;
      JMP: result = (d_pc + 1) & 16'h7f;
      SYS: result = what == GET_CAUSE ? cause : return_place;
      default: result = plain;
    endcase
    stall = runs && op == LD && d_i[11:9] != 0 && f_valid && uses(f_i, d_i[11:9]);
  end

  assign acknowledge = interrupted;
  assign fetch = pc;

  always @(posedge clk or negedge rst_n)
    if (!rst_n) begin
      {pc, return_place, cause, enabled} <= 0;
      {f_valid, d_valid, x_valid, w_valid, x_came, w_came, f_foretold, d_foretold} <= 0;
      {f_i, d_i, x_i, w_i} <= 0;
      for (n = 0; n < 8; n = n + 1) r[n] <= 0;
    end else begin
      if (redirect) begin
        pc <= redirected;
        f_valid <= 0;
      end else if (!stall && !hold) begin
        pc <= goes ? pc + 1 + immediate(word) : pc + 1;
        f_valid <= 1;
        f_i <= word;
        f_pc <= pc;
        f_foretold <= goes;
      end

      if (redirect || stall) d_valid <= 0;
      else if (hold) begin  // what was forwarded is gone in the next cycle
        d_a <= a;
        d_b <= b;
        d_d <= v;
      end else begin
        d_valid <= f_valid;
        d_i <= f_i;
        d_pc <= f_pc;
        d_foretold <= f_foretold;
        d_a <= current(f_i[8:6], r[f_i[8:6]], w_writes, w_i[11:9], w_result);
        d_b <= current(f_i[5:3], r[f_i[5:3]], w_writes, w_i[11:9], w_result);
        d_d <= current(f_i[11:9], r[f_i[11:9]], w_writes, w_i[11:9], w_result);
      end

      if (trap) begin
        cause <= new_cause;
        return_place <= interrupted ? d_pc : d_pc + 1;
        enabled <= 0;
      end else if (runs && op == SYS)
        case (what)
          RETURN, ENABLE: enabled <= 1;
          DISABLE: enabled <= 0;
          SET_PLACE: return_place <= v;
          default: ;
        endcase

      x_valid <= runs && !(trap && new_cause != CALLED);
      x_came <= interrupted;
      x_i <= d_i;
      x_pc <= d_pc;
      x_result <= result;
      x_d <= v;
      w_valid <= x_valid;
      w_came <= x_came;
      w_i <= x_i;
      w_pc <= x_pc;
      w_result <= x_i[15:12] == LD ? read : x_result;
      if (w_writes) r[w_i[11:9]] <= w_result;
    end

  assign we = x_valid && x_i[15:12] == ST;
  assign address = x_result;
  assign written = x_d;
  assign halted = w_valid && w_i[15:12] == HALT;
  assign retired = w_valid;
  assign came = w_came;
  assign place = w_pc;
  assign into = writes(w_i) ? w_i[11:9] : 3'd0;
  assign value = writes(w_i) ? w_result : 16'd0;
endmodule

// What is below 8000 is memory; the rest is a device that tells what it is given and gives what it is asked by.
module data_memory #(parameter N = 64) (input clk, we, input [15:0] address, written, output [15:0] read);
  reg [15:0] cells [0:N-1];
  integer i;
  initial for (i = 0; i < N; i = i + 1) cells[i] = i * 3;
  always @(posedge clk)
    if (we) begin
      if (address[15]) $display("out %h", written);
      else cells[address % N] <= written;
    end
  assign read = address[15] ? 16'h5a5a ^ address : cells[address % N];
endmodule

`timescale 1ns / 1ns
module bench;
  reg clk = 0, rst_n = 0, irq = 0;
  reg [15:0] image [0:127];
  integer cycles = 0, i, handle, asked, is_left;
  reg was_taken;
  wire [6:0] fetch, place;
  wire [2:0] into;
  wire we, halted, acknowledge, retired, came;
  wire [15:0] address, written, read, value;

  cpu dut (clk, rst_n, irq, image[fetch], read, fetch, we, address, written, halted, acknowledge, retired, came, place, into,
           value);
  data_memory memory (clk, we, address, written, read);

  initial begin
    $readmemh("program.hex", image);
    handle = $fopen("interrupts.txt", "r");
    is_left = $fscanf(handle, "%d", asked);
    #1 clk = 1;
    #1 clk = 0;
    rst_n = 1;
    while (!halted && cycles < 3000) begin
      if (is_left == 1 && asked == cycles) begin
        irq = 1;
        is_left = $fscanf(handle, "%d", asked);
      end
      #1;
      if (retired) $display("did %h %0d %h", place, into, value);
      if (came) $display("interrupt");
      was_taken = acknowledge;
      clk = 1;
      #1 clk = 0;
      if (was_taken) irq = 0;
      cycles = cycles + 1;
    end
    $display("cycles %0d", cycles);
    for (i = 0; i < 64; i = i + 1) $write("%h ", memory.cells[i]);
    $write("\n");
  end
endmodule
