// A pipelined processor of five stages with forwarding, a stall after loads and branches decided in the third stage.
package cpu_pkg;
  typedef logic [15:0] word_t;
  typedef logic [5:0] place_t;
  typedef enum logic [3:0] {NOP, ADD, SUB, AND_, OR_, XOR_, SLT, ADDI, LD, ST, BEQ, LUI, HALT = 15} op_t;
  typedef struct packed {
    op_t op;
    logic [2:0] rd, rs, rt, x;
  } instr_t;

  function automatic word_t immediate(instr_t i);
    return word_t'(signed'({i.rt, i.x}));
  endfunction

  function automatic logic writes(instr_t i);
    return (i.op inside {[ADD:LD], LUI}) && i.rd != 0;
  endfunction

  function automatic logic uses(instr_t i, logic [2:0] n);
    case (i.op) inside
      [ADD:SLT]: return i.rs == n || i.rt == n;
      ADDI, LD: return i.rs == n;
      ST, BEQ: return i.rs == n || i.rd == n;
      default: return 0;
    endcase
  endfunction
endpackage

interface data_bus;
  logic we;
  cpu_pkg::word_t address, written, read;
  modport cpu (output we, address, written, input read);
  modport memory (input we, address, written, output read);
endinterface

module data_memory #(parameter int N = 64) (input logic clk, data_bus.memory bus);
  cpu_pkg::word_t cells [N];
  initial foreach (cells[i]) cells[i] = 16'(i * 3);
  always @(posedge clk) if (bus.we) cells[bus.address % N] <= bus.written;
  assign bus.read = cells[bus.address % N];
endmodule

module alu import cpu_pkg::*; (input op_t op, input word_t a, b, c, output word_t y);
  always_comb
    unique case (op)
      ADD: y = a + b;
      SUB: y = a - b;
      AND_: y = a & b;
      OR_: y = a | b;
      XOR_: y = a ^ b;
      SLT: y = signed'(a) < signed'(b) ? 16'd1 : '0;
      ADDI, LD, ST: y = a + c;
      LUI: y = c << 7;
      default: y = '0;
    endcase
endmodule

module cpu import cpu_pkg::*; (
  input logic clk, rst_n,
  input instr_t code [64],
  data_bus.cpu bus,
  output logic halted,
  output word_t registers [8]
);
  typedef struct packed { logic valid; instr_t i; place_t pc; } fetched_t;
  typedef struct packed { logic valid; instr_t i; place_t pc; word_t a, b, d; } decoded_t;
  typedef struct packed { logic valid; instr_t i; word_t result, d; } executed_t;
  typedef struct packed { logic valid; instr_t i; word_t value; } done_t;

  place_t pc;
  fetched_t f;
  decoded_t d;
  executed_t x;
  done_t w;
  word_t r [8];
  word_t a, b, v, result;
  logic stall, taken;

  function automatic word_t read(logic [2:0] n);
    if (n == 0) return '0;
    return w.valid && writes(w.i) && w.i.rd == n ? w.value : r[n];
  endfunction

  function automatic word_t forwarded(logic [2:0] n, word_t plain);
    if (n == 0) return '0;
    if (x.valid && writes(x.i) && x.i.rd == n) return x.result;
    if (w.valid && writes(w.i) && w.i.rd == n) return w.value;
    return plain;
  endfunction

  always_comb begin
    a = forwarded(d.i.rs, d.a);
    b = forwarded(d.i.rt, d.b);
    v = forwarded(d.i.rd, d.d);
    taken = d.valid && d.i.op == BEQ && v == a;
    stall = d.valid && d.i.op == LD && d.i.rd != 0 && f.valid && uses(f.i, d.i.rd);
  end

  alu unit (.op(d.i.op), .a, .b, .c(d.i.op == LUI ? word_t'({d.i.rs, d.i.rt, d.i.x}) : immediate(d.i)), .y(result));

  assign bus.we = x.valid && x.i.op == ST,
         bus.address = x.result,
         bus.written = x.d;

  always_ff @(posedge clk or negedge rst_n)
    if (!rst_n) begin
      {pc, f, d, x, w} <= '0;
      r <= '{default: '0};
    end else begin
      if (taken) begin
        pc <= place_t'(d.pc + 1 + immediate(d.i));
        f <= '0;
      end else if (!stall) begin
        pc <= pc + 1'b1;
        f <= '{valid: 1, i: code[pc], pc: pc};
      end
      d <= taken || stall ? '0 : decoded_t'{f.valid, f.i, f.pc, read(f.i.rs), read(f.i.rt), read(f.i.rd)};
      x <= '{valid: d.valid, i: d.i, result: result, d: v};
      w <= '{x.valid, x.i, x.i.op == LD ? bus.read : x.result};
      if (w.valid && writes(w.i)) r[w.i.rd] <= w.value;
    end

  assign halted = w.valid && w.i.op == HALT;
  assign registers = r;
endmodule

module bench;
  import cpu_pkg::*;
  timeunit 1ns;
  logic clk = 0, rst_n = 0, halted;
  logic [15:0] image [64];
  instr_t code [64];
  word_t registers [8];
  string line;
  int cycles = 0;

  data_bus bus ();
  data_memory memory (.clk, .bus(bus.memory));
  cpu dut (.*, .bus(bus));

  initial begin
    $readmemh("program.hex", image);
    foreach (code[i]) code[i] = instr_t'(image[i]);
    #1ns clk = 1;
    #1ns clk = 0;
    rst_n = 1;
    while (!halted && cycles < 500) begin
      #1 clk = 1;
      #1 clk = 0;
      cycles++;
    end
    line = "";
    foreach (registers[i]) line = {line, $sformatf("%h ", registers[i])};
    $display("%s", line);
    line = "";
    foreach (memory.cells[i]) line = {line, $sformatf("%h ", memory.cells[i])};
    $display("%s", line);
  end
endmodule
