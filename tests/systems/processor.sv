// A pipelined processor of five stages: forwarding, a stall after loads, branches foretold by what they did before, a unit
// that multiplies and divides in sixteen cycles, and interrupts and traps that leave every instruction either done or not begun.
package cpu_pkg;
  typedef logic [15:0] word_t;
  typedef logic [6:0] place_t;
  typedef enum logic [3:0] {
    NOP, ALU, LONG, ADDI, ANDI, LD, ST, SLTI, BEQ, BNE, BLT, LUI, JMP, SHI, SYS, HALT
  } op_t;
  typedef enum logic [2:0] {ADD, SUB, AND_, OR_, XOR_, SLT, SLTU, SRA} alu_t;
  typedef enum logic [2:0] {MUL, MULHU, DIVU, REMU} long_t;
  typedef enum logic [1:0] {SLL, SRL, SAR, ROL} shift_t;
  typedef enum logic [2:0] {RETURN, ENABLE, DISABLE, CALL, GET_CAUSE, GET_PLACE, SET_PLACE} sys_t;
  typedef enum word_t {INTERRUPT, CALLED, DIVIDED, ILLEGAL} cause_t;

  typedef struct packed {
    op_t op;
    logic [2:0] rd, rs, rt, x;
  } instr_t;

  localparam place_t VECTOR = 4;

  function automatic word_t immediate(instr_t i);
    return word_t'(signed'({i.rt, i.x}));
  endfunction

  function automatic logic is_branch(instr_t i);
    return i.op inside {BEQ, BNE, BLT};
  endfunction

  function automatic logic gets(instr_t i);
    return i.op == SYS && i.x inside {GET_CAUSE, GET_PLACE};
  endfunction

  function automatic logic writes(instr_t i);
    return (i.op inside {[ALU:LD], SLTI, [LUI:SHI]} || gets(i)) && i.rd != 0;
  endfunction

  // Whether an instruction reads a register: as its first, its second or its third operand.
  function automatic logic uses(instr_t i, logic [2:0] n);
    case (i.op) inside
      ALU, LONG: return i.rs == n || i.rt == n;
      ADDI, ANDI, LD, SLTI, JMP, SHI: return i.rs == n;
      ST, [BEQ:BLT]: return i.rs == n || i.rd == n;
      SYS: return i.x == SET_PLACE && i.rd == n;
      default: return 0;
    endcase
  endfunction
endpackage

interface data_bus;
  logic we, re;
  cpu_pkg::word_t address, written, read;
  modport cpu (output we, re, address, written, input read);
  modport memory (input we, re, address, written, output read);
endinterface

// What is below 8000 is memory; the rest is a device that tells what it is given and gives what it is asked by.
module data_memory #(parameter int N = 64) (input logic clk, data_bus.memory bus);
  cpu_pkg::word_t cells [N];
  wire is_device = bus.address[15];
  initial foreach (cells[i]) cells[i] = 16'(i * 3);
  always @(posedge clk)
    if (bus.we)
      if (is_device) $display("out %h", bus.written);
      else cells[bus.address % N] <= bus.written;
  assign bus.read = is_device ? 16'h5a5a ^ bus.address : cells[bus.address % N];
endmodule

module alu import cpu_pkg::*; (input instr_t i, input word_t a, b, c, output word_t y);
  function automatic word_t shifted(shift_t kind, word_t v, logic [3:0] by);
    unique case (kind)
      SLL: return v << by;
      SRL: return v >> by;
      SAR: return word_t'(signed'(v) >>> by);
      ROL: return {v, v} >> (5'd16 - by);
    endcase
  endfunction

  always_comb begin
    y = '0;
    unique case (i.op) inside
      ALU:
        unique case (alu_t'(i.x))
          ADD: y = a + b;
          SUB: y = a - b;
          AND_: y = a & b;
          OR_: y = a | b;
          XOR_: y = a ^ b;
          SLT: y = word_t'(signed'(a) < signed'(b));
          SLTU: y = word_t'(a < b);
          SRA: y = shifted(SAR, a, b[3:0]);
        endcase
      ADDI, LD, ST: y = a + c;
      ANDI: y = a & c;
      SLTI: y = word_t'(signed'(a) < signed'(c));
      LUI: y = {i.rs, i.rt, i.x, 7'd0};
      SHI: y = shifted(shift_t'(i.rt[2:1]), a, {i.rt[0], i.x});
      default: ;
    endcase
  end
endmodule

// Multiplies by adding and divides by subtracting, one digit a cycle; what it is given counts only in its first cycle.
module long_unit import cpu_pkg::*; (
  input logic clk, rst_n, start, kill, input long_t kind, input word_t a, b, output logic done, output word_t y
);
  typedef struct packed { word_t high, low; } pair_t;
  pair_t p, next;
  word_t other;
  long_t k;
  logic busy;
  logic [3:0] count;

  always_comb begin
    automatic logic [16:0] sum, left;
    sum = p.high + (p.low[0] ? other : '0);
    left = {p.high, p.low[15]};
    if (k inside {MUL, MULHU}) next = {sum, p.low[15:1]};
    else if (left >= other) next = {word_t'(left - other), p.low[14:0], 1'b1};
    else next = {word_t'(left), p.low[14:0], 1'b0};
  end

  always_ff @(posedge clk or negedge rst_n)
    if (!rst_n) {busy, done, count} <= '0;
    else begin
      done <= busy && &count && !kill;
      count <= count + 1'b1;
      if (kill) busy <= 1'b0;
      else if (start && !busy && !done) begin
        busy <= 1'b1;
        count <= '0;
        k <= kind;
        other <= b;
        p <= '{high: '0, low: a};
      end else if (busy) begin
        p <= next;
        if (&count) busy <= 1'b0;
      end
    end

  assign y = k inside {MUL, DIVU} ? p.low : p.high;
endmodule

// What each of eight branches did: twice the other way before it is foretold otherwise.
module foreteller (
  input logic clk, rst_n, input logic [2:0] asked, output logic taken, input logic is_known, was_taken, input logic [2:0] known
);
  typedef enum logic [1:0] {NEVER, SELDOM, OFTEN, ALWAYS} habit_t;
  habit_t habits [8];

  function automatic habit_t after(habit_t h, logic went);
    case (h)
      NEVER: return went ? SELDOM : NEVER;
      ALWAYS: return went ? ALWAYS : OFTEN;
      default: return went ? h.next() : h.prev();
    endcase
  endfunction

  always_ff @(posedge clk or negedge rst_n)
    if (!rst_n) habits <= '{default: SELDOM};
    else if (is_known) habits[known] <= after(habits[known], was_taken);

  assign taken = habits[asked] inside {OFTEN, ALWAYS};
endmodule

module cpu import cpu_pkg::*; (
  input logic clk, rst_n, irq,
  input instr_t code [128],
  data_bus.cpu bus,
  output logic halted, acknowledge, retired, came,
  output place_t place,
  output logic [2:0] into,
  output word_t value
);
  typedef struct packed { logic valid; instr_t i; place_t pc; logic foretold; } fetched_t;
  typedef struct packed { fetched_t f; word_t a, b, d; } decoded_t;
  typedef struct packed { logic valid, came; instr_t i; place_t pc; word_t result, d; } executed_t;

  place_t pc, redirected, return_place;
  fetched_t f;
  decoded_t d;
  executed_t x, w;
  word_t r [8];
  cause_t cause, new_cause;
  logic enabled;

  instr_t fetching;
  word_t a, b, v, plain, result, long_result;
  logic foretold, taken, redirect, trap, stall, hold, is_long, long_done, interrupted, runs;
  place_t target;

  assign fetching = code[pc];
  foreteller habits (
    .clk, .rst_n, .asked(pc[2:0]), .taken(foretold),
    .is_known(runs && is_branch(d.f.i)), .was_taken(taken), .known(d.f.pc[2:0])
  );

  function automatic word_t current(logic [2:0] n);
    if (n == 0) return '0;
    return w.valid && writes(w.i) && w.i.rd == n ? w.result : r[n];
  endfunction

  function automatic word_t forwarded(logic [2:0] n, word_t otherwise);
    if (n == 0) return '0;
    if (x.valid && writes(x.i) && x.i.rd == n) return x.result;
    if (w.valid && writes(w.i) && w.i.rd == n) return w.result;
    return otherwise;
  endfunction

  alu quick (.i(d.f.i), .a, .b, .c(immediate(d.f.i)), .y(plain));
  long_unit slow (
    .clk, .rst_n, .start(is_long && !interrupted), .kill(interrupted), .kind(long_t'(d.f.i.x)), .a, .b,
    .done(long_done), .y(long_result)
  );

  // The third stage: everything is decided here, so what is older is done and what is younger has left no trace.
  always_comb begin
    a = forwarded(d.f.i.rs, d.a);
    b = forwarded(d.f.i.rt, d.b);
    v = forwarded(d.f.i.rd, d.d);
    interrupted = irq && enabled && d.f.valid;
    is_long = d.f.valid && d.f.i.op == LONG && d.f.i.x <= REMU && !(d.f.i.x inside {DIVU, REMU} && b == 0);
    hold = is_long && !long_done && !interrupted;
    runs = d.f.valid && !hold && !interrupted;

    trap = 1'b1;
    new_cause = INTERRUPT;
    if (!interrupted) begin
      if (d.f.i.op == SYS && d.f.i.x == CALL) new_cause = CALLED;
      else if (d.f.i.op == LONG && d.f.i.x > REMU || d.f.i.op == SYS && d.f.i.x == 7) new_cause = ILLEGAL;
      else if (d.f.i.op == LONG && !is_long) new_cause = DIVIDED;
      else trap = 1'b0;
      trap &= runs;
    end

    unique case (d.f.i.op)
      BEQ: taken = v == a;
      BNE: taken = v != a;
      BLT: taken = signed'(v) < signed'(a);
      default: taken = 1'b0;
    endcase
    target = place_t'(d.f.pc + 1 + immediate(d.f.i));

    redirect = trap;
    redirected = VECTOR;
    if (!trap && runs)
      case (d.f.i.op) inside
        [BEQ:BLT]: begin
          redirect = taken != d.f.foretold;
          redirected = taken ? target : d.f.pc + 1'b1;
        end
        JMP: begin
          redirect = 1'b1;
          redirected = d.f.i.rs == 0 ? target : place_t'(a + immediate(d.f.i));
        end
        SYS: begin
          redirect = d.f.i.x == RETURN;
          redirected = return_place;
        end
      endcase

    case (d.f.i.op)
      LONG: result = long_result;
      JMP: result = d.f.pc + 1'b1;
      SYS: result = d.f.i.x == GET_CAUSE ? cause : return_place;
      default: result = plain;
    endcase
    stall = runs && d.f.i.op == LD && d.f.i.rd != 0 && f.valid && uses(f.i, d.f.i.rd);
  end

  assign acknowledge = interrupted;

  always_ff @(posedge clk or negedge rst_n)
    if (!rst_n) begin
      {pc, f, d, x, w, enabled, return_place} <= '0;
      cause <= INTERRUPT;
      r <= '{default: '0};
    end else begin
      if (redirect) begin
        pc <= redirected;
        f <= '0;
      end else if (!stall && !hold) begin
        automatic logic goes = is_branch(fetching) && foretold;
        pc <= goes ? place_t'(pc + 1 + immediate(fetching)) : pc + 1'b1;
        f <= '{valid: 1, i: fetching, pc: pc, foretold: goes};
      end

      if (redirect || stall) d <= '0;
      else if (hold) {d.a, d.b, d.d} <= {a, b, v};  // what was forwarded is gone in the next cycle
      else d <= '{f: f, a: current(f.i.rs), b: current(f.i.rt), d: current(f.i.rd)};

      if (trap) begin
        cause <= new_cause;
        return_place <= interrupted ? d.f.pc : d.f.pc + 1'b1;
        enabled <= 1'b0;
      end else if (runs && d.f.i.op == SYS)
        case (sys_t'(d.f.i.x))
          RETURN, ENABLE: enabled <= 1'b1;
          DISABLE: enabled <= 1'b0;
          SET_PLACE: return_place <= place_t'(v);
          default: ;
        endcase

      x <= '{valid: runs && !(trap && new_cause != CALLED), came: interrupted, i: d.f.i, pc: d.f.pc, result: result, d: v};
      w <= x;
      if (x.i.op == LD) w.result <= bus.read;
      if (w.valid && writes(w.i)) r[w.i.rd] <= w.result;
    end

  assign bus.we = x.valid && x.i.op == ST,
         bus.re = x.valid && x.i.op == LD,
         bus.address = x.result,
         bus.written = x.d;
  assign halted = w.valid && w.i.op == HALT,
         retired = w.valid,
         came = w.came,
         place = w.pc,
         into = writes(w.i) ? w.i.rd : '0,
         value = writes(w.i) ? w.result : '0;
endmodule

module bench;
  import cpu_pkg::*;
  timeunit 1ns;
  logic clk = 0, rst_n = 0, irq = 0, halted, acknowledge, retired, came;
  logic [15:0] image [128];
  instr_t code [128];
  place_t place;
  logic [2:0] into;
  word_t value;
  string line;
  int cycles = 0, handle, at, asked[$];

  data_bus bus ();
  data_memory memory (.clk, .bus(bus.memory));
  cpu dut (.*, .bus(bus));

  initial begin
    $readmemh("program.hex", image);
    foreach (code[i]) code[i] = instr_t'(image[i]);
    handle = $fopen("interrupts.txt", "r");
    while ($fscanf(handle, "%d", at) == 1) asked.push_back(at);
    #1ns clk = 1;
    #1ns clk = 0;
    rst_n = 1;
    while (!halted && cycles < 3000) begin
      if (asked.size() > 0 && asked[0] == cycles) begin
        irq = 1;
        void'(asked.pop_front());
      end
      #1;
      if (retired) $display("did %h %0d %h", place, into, value);
      if (came) $display("interrupt");
      at = acknowledge;
      clk = 1;
      #1 clk = 0;
      if (at) irq = 0;
      cycles++;
    end
    $display("cycles %0d", cycles);
    line = "";
    foreach (memory.cells[i]) line = {line, $sformatf("%h ", memory.cells[i])};
    $display("%s", line);
  end
endmodule
