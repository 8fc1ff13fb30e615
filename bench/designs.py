"""Texts of known size for the benchmarks: a gate-level multiplier, and coursework of about a hundred lines."""

from __future__ import annotations

import random
import re


def multiplier_netlist(width: int = 16) -> str:
    """An array multiplier in AND, NOR and NOT gates, about 2,400 gates at 16 bits."""
    gates: list[str] = []
    counter = 0

    def gate(kind: str, *inputs: str) -> str:
        nonlocal counter
        counter += 1
        gates.append(f"  {kind} g{counter} (n{counter}, {', '.join(inputs)});")
        return f"n{counter}"

    def full_adder(a: str, b: str, c: str) -> tuple[str, str]:
        n1 = gate("nor", a, b)
        n2, n3 = gate("nor", a, n1), gate("nor", b, n1)
        n4 = gate("nor", n2, n3)
        n5 = gate("nor", n4, c)
        n6, n7 = gate("nor", n4, n5), gate("nor", c, n5)
        return gate("nor", n6, n7), gate("nor", n1, n5)

    rows = [[gate("and", f"a[{i}]", f"b[{j}]") for i in range(width)] for j in range(width)]
    zero = gate("nor", "a[0]", gate("not", "a[0]"))
    total = [*rows[0], zero]
    out = [total[0]]
    for row in rows[1:]:
        carry = zero
        new: list[str] = []
        for x, y in zip(total[1:], row, strict=True):
            s, carry = full_adder(x, y, carry)
            new.append(s)
        total = [*new, carry]
        out.append(total[0])
    out += total[1:]
    ends = [f"  buf o{i} (p[{i}], {net});" for i, net in enumerate(out[: 2 * width])]
    head = f"module mult(input [{width - 1}:0] a, input [{width - 1}:0] b, output [{2 * width - 1}:0] p);"
    return "\n".join([head, *gates, *ends, "endmodule", ""])


def coursework(seed: int) -> str:
    """A right or slightly wrong hand-in of about a hundred lines for the spec of `CLASS_SPEC`, in one of several
    styles."""
    source = random.Random(seed)
    style = seed % 3
    slip = source.random() < 0.4
    lines = ["module unit12(input [5:0] a, input [3:0] b, input [1:0] op, output reg [6:0] y, output zero);"]
    for i in range(40):
        lines.append(f"  wire [5:0] t{i} = a ^ {{2'b0, b}} & 6'd{source.randrange(64)};  // step {i}")
    if style == 0:
        lines += ["  always @(*) begin", "    case (op)"]
        arms = ["a + b", "a - b" if not slip else "b - a", "a & {2'b00, b}", "{1'b0, a} ^ 7'h2a"]
        for k, arm in enumerate(arms):
            lines += [f"      2'd{k}: begin", f"        y = {arm};", "      end"]
        lines += ["    endcase", "  end"]
    else:
        lines += [
            "  reg [6:0] r;",
            "  always @* begin",
            "    r = 0;",
            "    if (op == 0)",
            "      r = a + b;",
            "    else if (op == 1)",
            f"      r = a - b{' + 1' if slip else ''};",
            "    else if (op == 2)",
            "      r = a & {2'b00, b};",
            "    else",
            "      r = {1'b0, a} ^ 7'h2a;",
            "    y = r;",
            "  end",
        ]
    lines += ["  assign zero = y == 0;"]
    lines += [f"  // remark {i} on how it was made" for i in range(100 - len(lines))]
    return "\n".join([*lines, "endmodule", ""])


CLASS_SPEC = """obento = "spec/1"
unit = "unit12"
[ports]
in = "a[6] b[4] op[2]"
out = "y[7] zero"
[expect]
equations = '''
y = op == 0 ? a + b : op == 1 ? a - b : op == 2 ? {0, a & {2b00, b}} : {0, a} ^ 7b0101010
zero = y == 0
'''
"""


WIDE_SPEC = """obento = "spec/1"
unit = "unit16"
[ports]
in = "a[8] b[6] op[2]"
out = "y[9] zero"
[expect]
equations = '''
y = op == 0 ? a + b : op == 1 ? a - b : op == 2 ? {0, a & {2b00, b}} : {0, a} ^ 9b000101010
zero = y == 0
'''
"""


def wide_coursework(seed: int) -> str:
    """Coursework for `WIDE_SPEC` with 65,536 cases; two in five have a slip, most of them one of their own."""
    source = random.Random(seed)
    slip = source.random() < 0.4
    kind, where = source.randrange(3), source.randrange(20)
    lines = ["module unit16(input [7:0] a, input [5:0] b, input [1:0] op, output reg [8:0] y, output zero);"]
    lines += [f"  wire [7:0] t{i} = a ^ {{2'b0, b}} & 8'd{source.randrange(256)};  // step {i}" for i in range(40)]
    lines += ["  always @* begin", "    y = {1'b0, a} ^ 9'h2a;"]
    lines += ["    if (op == 0) y = a + b;", f"    if (op == 1) y = {'b - a' if slip and kind == 0 else 'a - b'};"]
    lines += ["    if (op == 2) y = a & {2'b00, b};"]
    if slip and kind:
        lines += [f"    if (a == 8'd{where} && op == {kind}) y = {where};"]
    lines += ["  end", "  assign zero = y == 0;"]
    lines += [f"  // remark {i} on how it was made" for i in range(99 - len(lines))]
    return "\n".join([*lines, "endmodule", ""])


def clocked_registers(count: int) -> str:
    """A clock and so many registers that each do a little on every rise of it."""
    lines = ["module t;", "  reg clk = 0;", "  always #5 clk = ~clk;"]
    lines += [f"  reg [7:0] r{i} = {i};  always @(posedge clk) r{i} <= r{i} + 8'd{i};" for i in range(count)]
    return "\n".join([*lines, "endmodule", ""])


WORD_UNIT = """
module m(input [7:0] a, b, output [15:0] y, output flag);
  wire [8:0] sum = a + b;
  assign y = flag ? {7'd0, sum} : a * b - {8'd0, b ^ 8'h5a};
  assign flag = a > b;
endmodule
"""

PROCEDURAL_UNIT = """
module m(input [7:0] a, b, output reg [7:0] y);
  always @* begin
    y = b;
    if (a[7]) begin
      if (a[6]) begin if (b[0]) y = a & b; else y = a | b; end
      else y = a ^ b;
    end else case (a[2:0])
      0: y = b; 1: y = ~b; 2: y = {b[3:0], b[7:4]}; 3: y = b << 1;
      4: y = b >> 1; 5: y = b & 8'h3c; 6: y = b | 8'h81; default: y = a;
    endcase
  end
endmodule
"""

STATE_MACHINE = """
module m(input clk, go, output reg [2:0] state = 0, output reg [3:0] count = 0);
  always @(posedge clk) begin
    case (state)
      0: if (go) state <= 1;
      1: begin count <= count + 1; if (count == 9) state <= 2; end
      2: state <= go ? 3 : 0;
      3: begin count <= 0; state <= 0; end
      default: state <= 0;
    endcase
  end
endmodule
"""

_VHDL_HEAD = "library ieee;\nuse ieee.std_logic_1164.all;\nuse ieee.numeric_std.all;\n"

WORD_UNIT_VHDL = (
    _VHDL_HEAD
    + """
entity m is port (a, b : in unsigned(7 downto 0); y : out unsigned(15 downto 0); flag : out std_logic); end;
architecture r of m is
  signal sum : unsigned(8 downto 0);
  signal more : std_logic;
begin
  sum <= resize(a, 9) + b;
  y <= resize(sum, 16) when more = '1' else a * b - resize(b xor x"5a", 16);
  more <= '1' when a > b else '0';
  flag <= more;
end;
"""
)

PROCEDURAL_UNIT_VHDL = (
    _VHDL_HEAD
    + """
entity m is port (a, b : in std_logic_vector(7 downto 0); y : out std_logic_vector(7 downto 0)); end;
architecture r of m is
begin
  process (all) begin
    y <= b;
    if a(7) = '1' then
      if a(6) = '1' then
        if b(0) = '1' then y <= a and b; else y <= a or b; end if;
      else
        y <= a xor b;
      end if;
    else
      case a(2 downto 0) is
        when "000" => y <= b;
        when "001" => y <= not b;
        when "010" => y <= b(3 downto 0) & b(7 downto 4);
        when "011" => y <= b(6 downto 0) & '0';
        when "100" => y <= '0' & b(7 downto 1);
        when "101" => y <= b and x"3c";
        when "110" => y <= b or x"81";
        when others => y <= a;
      end case;
    end if;
  end process;
end;
"""
)

STATE_MACHINE_VHDL = (
    _VHDL_HEAD
    + """
entity m is port (clk, go : in std_logic; state : out unsigned(2 downto 0); count : out unsigned(3 downto 0)); end;
architecture r of m is
  type state_t is (idle, counting, asked, done);
  signal now_in : state_t := idle;
  signal n : unsigned(3 downto 0) := "0000";
begin
  process (clk) begin
    if rising_edge(clk) then
      case now_in is
        when idle => if go = '1' then now_in <= counting; end if;
        when counting => n <= n + 1; if n = 9 then now_in <= asked; end if;
        when asked => if go = '1' then now_in <= done; else now_in <= idle; end if;
        when done => n <= (others => '0'); now_in <= idle;
      end case;
    end if;
  end process;
  state <= to_unsigned(state_t'pos(now_in), 3);
  count <= n;
end;
"""
)


def clocked_registers_vhdl(count: int) -> str:
    """As `clocked_registers`."""
    lines = [_VHDL_HEAD, "entity t is end;", "architecture r of t is", "  signal clk : std_logic := '0';"]
    lines += [f"  signal r{i} : unsigned(7 downto 0) := to_unsigned({i}, 8);" for i in range(count)]
    lines += ["begin", "  clk <= not clk after 5 ns;"]
    lines += [
        f"  process (clk) begin if rising_edge(clk) then r{i} <= r{i} + {i}; end if; end process;" for i in range(count)
    ]
    return "\n".join([*lines, "end;", ""])


def coursework_vhdl(seed: int) -> str:
    """A hand-in of about a hundred lines: a decoder, an arithmetic unit and a register with a state machine."""
    lines = [
        _VHDL_HEAD,
        f"entity unit{seed} is",
        "  port (clk : in std_logic; a, b : in unsigned(7 downto 0); op : in std_logic_vector(2 downto 0);",
    ]
    lines += ["        y : out unsigned(7 downto 0));", "end entity;", f"architecture rtl of unit{seed} is"]
    lines += [f"  signal t{i} : unsigned(7 downto 0);  -- step {i}" for i in range(20)]
    lines += ["begin", "  t0 <= a when op(0) = '1' else b;"]
    lines += [f"  t{i} <= (t{i - 1} xor shift_left(b, {i % 3})) + {(seed + i) % 99};" for i in range(1, 20)]
    lines += ["  process (all)", "    variable v : unsigned(7 downto 0);", "  begin", "    v := t19;", "    case op is"]
    lines += [
        f'      when "{i:03b}" =>\n        v := t{i + 1} + t{i + 2};\n        if a > {i + seed % 50} then\n          v'
        " := not v;\n        end if;"
        for i in range(7)
    ]
    lines += [
        "      when others =>\n        v := (others => '0');",
        "    end case;",
        "    y <= v;",
        "  end process;",
        "end architecture;",
        "",
    ]
    return "\n".join(lines)


def coursework_system_verilog(seed: int) -> str:
    """A hand-in of about a hundred lines: a package of types, a state machine of structures, a bench with a table."""
    lines = [
        f"package tides{seed};",
        "  typedef enum logic [1:0] {SHUT, FILLING, OPEN, DRAINING} state_t;",
        "  typedef struct packed { logic [7:0] level; logic gate; state_t state; } lock_t;",
        "endpackage",
        f"module unit{seed} import tides{seed}::*; #(parameter int W = 8) (",
        "  input logic clk, reset_n, input logic [W-1:0] a, b, output logic [W-1:0] y, output lock_t now);",
        "  lock_t next;",
    ]
    lines += [f"  logic [W-1:0] t{i};  // step {i}" for i in range(20)]
    lines += ["  assign t0 = a[0] ? a : b;"]
    lines += [f"  assign t{i} = (t{i - 1} ^ (b << {i % 3})) + 8'd{(seed + i) % 99};" for i in range(1, 20)]
    lines += ["  always_comb begin", "    next = now;", "    unique case (now.state)"]
    lines += [
        f"      {state}: if (a > {i + seed % 50}) begin\n        next.state = {after};\n        next.level += t{i};\n"
        "      end"
        for i, (state, after) in enumerate([("SHUT", "FILLING"), ("FILLING", "OPEN"), ("OPEN", "DRAINING")])
    ]
    lines += [
        "      default: next = '{level: '0, gate: 1'b0, state: SHUT};",
        "    endcase",
        "  end",
        "  always_ff @(posedge clk or negedge reset_n)",
        "    if (!reset_n) now <= '0;",
        "    else now <= next;",
        "  assign y = t19 + now.level;",
        "endmodule",
        f"module bench{seed};",
        "  typedef struct { string name; logic [7:0] a, b; } vector_t;",
        "  vector_t vectors [] = '{",
    ]
    lines += [f"    '{{\"vector {i}\", 8'h{i:02x}, 8'd{7 * i % 256}}}," for i in range(20)]
    lines += ["    '{\"last\", 8'hff, 8'h00}", "  };", "  initial foreach (vectors[i]) begin"]
    lines += ['    assert (vectors[i].a !== 8\'hxx) else $error("%s", vectors[i].name);', "  end", "endmodule", ""]
    return "\n".join(lines)


TICKETS = """// a small clocked hand-in
module ticket_counter(input clk, clr_n, take, output reg [3:0] ticket, output last);
  always @(negedge clk or negedge clr_n)
    if (!clr_n) ticket <= 0;
    else if (take) ticket <= ticket == 11 ? 0 : ticket + 1;
  assign last = ticket == 11;
endmodule
"""


def hundred_operators() -> tuple[str, str]:
    """A spec over 12 inputs whose model is 100 gates in levels, and the same with one gate in the middle exchanged."""
    source = random.Random(3)
    wires = [f"a[{i}]" for i in range(12)]
    lines = []
    for i in range(100):
        x, y = wires[-4], f"a[{source.randrange(12)}]"  # four chains side by side
        lines.append(f"  assign w[{i}] = {source.choice(['', '~'])}{x} {source.choice('^^&|')} {y};")
        wires.append(f"w[{i}]")
    outputs = "  assign y = {w[99], w[98], w[97], w[96]};"
    head = ["module net(input [11:0] a, output [3:0] y);", "  wire [99:0] w;"]
    right = "\n".join([*head, *lines, outputs, "endmodule", ""])
    at = next(i for i in range(90, 0, -1) if " & " in lines[i])
    wrong = "\n".join([*head, *lines[:at], lines[at].replace(" & ", " | "), *lines[at + 1 :], outputs, "endmodule", ""])
    rows = "\n".join(f"w{i} = {_as_formula(line)}" for i, line in enumerate(lines))
    equations = f"{rows}\ny = {{w99, w98, w97, w96}}"
    spec = (
        "obento = 'spec/1'\nunit = 'net'\n[ports]\nin = 'a[12]'\nout = 'y[4]'\n[expect]\nequations ="
        f" '''\n{equations}\n'''\n"
    )
    assert right != wrong
    return spec, wrong


def _as_formula(line: str) -> str:
    """The right side of an assignment in the spec's own notation."""
    text = line.partition("= ")[2].rstrip(";")
    return re.sub(r"w\[(\d+)\]", r"w\1", text)
