"""The drawing of a hand-in, the values on its wires, and the wires that could explain what is wrong."""

from __future__ import annotations

from collections import Counter

import pytest

from obento.core.check.check import open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.check.inspecting.wires import Inside, look_inside
from obento.core.circuit.draw import draw
from obento.core.circuit.model import CONSTANTS, Part, Pin
from obento.core.handin import HandinFile
from tests.core.clocked import COUNTER, VERILOG, VHDL, clocked, ready
from tests.core.designs import build

TWO_CELLS = {
    "a.v": """module cell2(input a, input b, output [1:0] y);
  wire n;
  not g0(n, a);
  and g1(y[0], n, b);
  assign y[1] = a & ~b;
endmodule
module m(input [1:0] p, input [1:0] q, output [3:0] z, output reg k);
  wire [1:0] t;
  cell2 u0(.a(p[0]), .b(q[0]), .y(t));
  cell2 u1(p[1], q[1], z[3:2]);
  assign z[1:0] = t ^ 2'b01;
  always @* begin
    case (p) 2'd0: k = 0; 2'd1: k = q[0]; default: k = ^q; endcase
  end
endmodule
""",
    "a.vhd": """library ieee; use ieee.std_logic_1164.all;
entity cell2 is port(a, b : in std_logic; y : out std_logic_vector(1 downto 0)); end;
architecture r of cell2 is signal n : std_logic; begin n <= not a; y(0) <= n and b; y(1) <= a and not b; end;
library ieee; use ieee.std_logic_1164.all;
entity m is port(p, q : in std_logic_vector(1 downto 0); z : out std_logic_vector(3 downto 0); k : out std_logic); end;
architecture r of m is signal t : std_logic_vector(1 downto 0);
begin
  u0: entity work.cell2 port map(p(0), q(0), t);
  u1: entity work.cell2 port map(p(1), q(1), z(3 downto 2));
  z(1 downto 0) <= t xor "01";
  process(p, q) begin
    case p is when "00" => k <= '0'; when "01" => k <= q(0); when others => k <= q(0) xor q(1); end case;
  end process;
end;
""",
    "a.wiring": """wiring cell2
  takes a, b
  gives y[2]
  n <- not(a)
  y[0] <- and(n, b)
  y[1] <- and(a, not(b))
end
wiring m
  takes p[2], q[2]
  gives z[4], k
  u0: t <- cell2(p[0], q[0])
  u1: w <- cell2(p[1], q[1])
  z[1..0] <- xor(t, 2b01)
  z[3..2] <- buf(w)
  k <- select(p, 0, q[0], xor(q[1], q[0]), xor(q[1], q[0]))
end
""",
}
SPEC = """obento = "spec/1"
unit = "m"
[ports]
in = "p[2] q[2]"
out = "z[4] k"
[expect]
equations = '''
low = {p[0] & !q[0], !p[0] & q[0]}
z = {p[1] & !q[1], !p[1] & q[1], low ^ 1}
k = p == 0 ? 0 : (p == 1 ? q[0] : q[0] ^ q[1])
'''
"""
SMALL = "obento = 'spec/1'\nunit = 'm'\n[ports]\nin = 'a b c'\nout = 'y z'\n[expect]\nequations = '''\nboth = a & b\ny = both | c\nz = !both\n'''\n"  # noqa: E501


@pytest.fixture(scope="module")
def cells() -> Expectation:
    return ready(open_spec("s.toml", SPEC.encode(), {}))


@pytest.fixture(scope="module")
def small() -> Expectation:
    return ready(open_spec("s.toml", SMALL.encode(), {}))


def inside(expectation: Expectation, name: str, text: str, cases: list[int] | None = None) -> Inside:
    wanted = list(range(expectation.cases.count)) if cases is None else cases
    found = look_inside(expectation, [HandinFile(name, text.encode())], (), {}, wanted, {})
    assert isinstance(found, Inside), found
    return found


def value(found: Inside, pin: Pin, at: int) -> str:
    return "".join(found.digits[b][at] if b >= 0 else CONSTANTS[b] for b in reversed(pin.bits))


def part(found: Inside, kind: str, label: str = "") -> Part:
    return next(p for p in found.circuit.parts if p.kind == kind and label in (p.label, ""))


@pytest.mark.parametrize("name", TWO_CELLS)
def test_every_language_is_drawn_with_its_hierarchy(cells: Expectation, name: str) -> None:
    found = inside(cells, name, TWO_CELLS[name])
    kinds = Counter(p.kind for p in found.circuit.parts)
    assert kinds["unit"] == 2 and kinds["input"] == 2 and kinds["output"] == 2
    assert kinds["not"] == 2 and kinds["and"] == 4  # two in each cell: an inversion inside an expression is a circle
    units = [p for p in found.circuit.parts if p.kind == "unit"]
    assert [(u.label, u.unit, sorted((n.side, n.name) for n in u.pins)) for u in units] == [
        ("u0", "cell2", [("in", "a"), ("in", "b"), ("out", "y")]),
        ("u1", "cell2", [("in", "a"), ("in", "b"), ("out", "y")]),
    ]
    assert {p.within for p in found.circuit.parts if p.kind == "and"} == {u.id for u in units}
    assert found.explains == []  # it is right


@pytest.mark.parametrize("name", TWO_CELLS)
def test_wires_stay_at_one_level_and_end_where_something_takes_them(cells: Expectation, name: str) -> None:
    found = inside(cells, name, TWO_CELLS[name])
    owner = {pin.id: p for p in found.circuit.parts for pin in p.pins}
    for wire in found.circuit.wires:
        a, b = owner[wire.start], owner[wire.end]
        start, end = next(n for n in a.pins if n.id == wire.start), next(n for n in b.pins if n.id == wire.end)
        outside_a = a.id if a.kind == "unit" and start.side == "in" else a.within
        outside_b = b.id if b.kind == "unit" and end.side == "out" else b.within
        assert outside_a == outside_b
    ended = {w.end for w in found.circuit.wires}
    for p in found.circuit.parts:
        for pin in p.pins:
            if pin.side == "in" and p.kind not in ("unit", "input") and any(b >= 0 for b in pin.bits):
                assert pin.id in ended


MIXED = {
    "in a module": (
        "a.v",
        "module m(input a, b, c, output y, z); wire t; inner u0(.p(a), .q(t)); assign y = t & b | c; assign z = ~t; endmodule",  # noqa: E501
    ),
    "in a wiring list": (
        "a.wiring",
        "wiring m\n  takes a, b, c\n  gives y, z\n  u0: t <- inner(a)\n  y <- or(and(t, b), c)\n  z <- not(t)\nend\n",
    ),
}
INNER = """library ieee; use ieee.std_logic_1164.all;
entity inner is port(p : in std_logic; q : out std_logic); end;
architecture r of inner is signal n : std_logic; begin n <= not p; q <= not n; end;
"""


@pytest.mark.parametrize("where", MIXED)
def test_a_unit_of_another_language_is_a_box_too(small: Expectation, where: str) -> None:
    name, text = MIXED[where]
    files = [HandinFile(name, text.encode()), HandinFile("inner.vhd", INNER.encode())]
    found = look_inside(small, files, (), {}, [0, 7], {})
    assert isinstance(found, Inside), found
    box = part(found, "unit")
    assert (box.label, box.unit, [(n.side, n.name) for n in box.pins]) == ("u0", "inner", [("in", "p"), ("out", "q")])
    assert [p.within for p in found.circuit.parts if p.kind == "not"][:2] == [box.id, box.id]
    assert [value(found, box.pins[1], i) for i in (0, 1)] == ["0", "1"]


def test_slices_are_written_at_the_wires(cells: Expectation) -> None:
    found = inside(cells, "a.v", TWO_CELLS["a.v"])
    p = part(found, "input", "p").pins[0]
    assert sorted(w.label for w in found.circuit.wires if w.start == p.id) == [
        "",
        "0",
        "1",
    ]  # whole to the process, a digit to each cell


def test_values_of_all_wires_in_the_cases_wanted(small: Expectation) -> None:
    text = (
        "module m(input a, b, c, output y, z);\n  wire t = a & b;\n  assign y = t | c;\n  assign z = ~t;\nendmodule\n"
    )
    found = inside(small, "a.v", text, [7, 0, 6])
    gate = part(found, "and")
    assert found.cases == [7, 0, 6]
    assert [value(found, gate.pins[-1], i) for i in range(3)] == ["1", "0", "1"]
    assert [value(found, part(found, "output", "z").pins[0], i) for i in range(3)] == ["0", "1", "0"]
    assert [(k.name, k.how, k.differs) for k in found.likeness][:1] == [
        ("both", "same", ())
    ]  # `t` does what `both` of the reference does


def test_a_wire_of_the_same_name_is_held_against_the_reference(small: Expectation) -> None:
    text = "module m(input a, b, c, output y, z);\n  wire both = a | b;\n  assign y = both | c;\n  assign z = ~both;\nendmodule\n"  # noqa: E501
    found = inside(small, "a.v", text)
    assert [(k.name, k.how, k.differs) for k in found.likeness if k.name == "both"] == [("both", "name", (2, 3, 4, 5))]
    [pin] = found.explains
    assert pin == part(found, "or").pins[-1].id and found.places[part(found, "or").id][0].line == 2


@pytest.mark.parametrize(
    ("text", "explaining"),
    [
        ("assign y = (a & b) | c; assign z = ~(a | b);", ["z"]),  # nothing before the last gate
        ("wire t = a ^ b; assign y = t | c; assign z = ~t;", ["t"]),
        ("wire t = a ^ b; wire n = t; assign y = n | c; assign z = ~n;", ["t"]),  # a plain assignment is the same wire
        ("assign y = ~((a & b) | c); assign z = (a & b);", []),  # two places are wrong
        ("reg t; always @* t = a | b; assign y = t | c; assign z = ~t;", ["t"]),  # a process can be turned as well
    ],
)
def test_the_earliest_wire_that_explains_everything(small: Expectation, text: str, explaining: list[str]) -> None:
    found = inside(small, "a.v", f"module m(input a, b, c, output y, z); {text} endmodule\n")
    pins = {pin.id: pin for p in found.circuit.parts for pin in p.pins}
    assert [found.circuit.names[pins[i].bits[0]][0] for i in found.explains] == explaining


def test_steps_of_a_clocked_hand_in_have_values_inside() -> None:
    expectation = ready(clocked(COUNTER))
    steps = [expectation.cases.count - 1, 3, 4]
    found = inside(expectation, "a.v", VERILOG, steps)
    box = part(found, "process")
    assert [p.edge for p in box.pins if p.edge] and found.explains == []
    got = [value(found, part(found, "output", "q").pins[0], i) for i in range(3)]
    assert got == ["".join(str(expectation.bits["q", i].one >> s & 1) for i in (1, 0)) for s in steps]


def test_inner_signals_of_vhdl_are_those_of_the_step() -> None:
    """With few sequences they are run one after the other, where a part shows its inner signals only when asked."""
    expectation = ready(clocked("steps = '''\nclk rst en | q\n. 1 0 | 0\nc 0 1 | 1\nc 0 1 | 2\nc 0 0 | 2\n'''"))
    found = inside(expectation, "a.vhd", VHDL, [0, 1, 2, 3])
    pin = part(found, "process").pins[-1]
    assert pin.name == "n" and [value(found, pin, i) for i in range(4)] == ["00", "01", "10", "10"]


@pytest.mark.parametrize(
    ("name", "text", "told"),
    [
        ("a.v", "module m(input a, b, c, output y, z); assign y = ; endmodule", None),
        ("a.vhd", "entity m is port(a, b, c : in bit; y, z : out bit); end;\narchitecture r of m is begin process begin wait for 1 ns; y <= a; wait; end process; end;", "no drawing"),  # noqa: E501
    ],
)  # fmt: skip
def test_what_cannot_be_drawn_says_so(small: Expectation, name: str, text: str, told: str | None) -> None:
    found = look_inside(small, [HandinFile(name, text.encode())], (), {}, [0], {})
    assert found is None if told is None else told in str(found)


def test_a_loop_of_gates_is_drawn_and_run(small: Expectation) -> None:
    text = "module m(input a, b, c, output y, z); wire q; nand(q, z, c); nand(z, q, b); or(y, a, q); endmodule"
    found = inside(small, "a.v", text)
    assert Counter(p.kind for p in found.circuit.parts)["and"] == 2 and found.explains == []


BUNDLES = """interface bus;
  logic [3:0] data;
  logic valid, ready;
endinterface
typedef struct packed { logic [1:0] op; struct packed { logic [2:0] v; logic w; } in; } item;
module prod (bus b, input logic [3:0] a, input logic go);
  assign b.data = ~a;
  assign b.valid = go & b.ready;
endmodule
module cons (bus b, output logic [3:0] y);
  assign y = b.valid ? b.data : 4'd0;
  assign b.ready = 1'b1;
endmodule
module m (input item p, input logic go, output logic [3:0] y, output logic [1:0] z, output logic n);
  bus b1 ();
  prod u1 (.b(b1), .a(p.in), .go);
  cons u2 (.b(b1), .y);
  assign z = ~p.op, n = ~p.in.w;
endmodule
"""


def test_structures_and_interfaces_are_bundles() -> None:
    design = build(BUNDLES, name="a.sv")
    circuit = draw(design, lambda at: "").circuit
    owners = {pin.id: (part.label or part.kind, pin) for part in circuit.parts for pin in part.pins}
    wires = {(owners[w.start][0], owners[w.end][0], w.label) for w in circuit.wires}
    assert {("p", "u1", "in"), ("u1", "u2", ""), ("p", "1", "op")} <= wires
    unit = next(p for p in circuit.parts if p.label == "u1")
    assert {(pin.side, pin.name, len(pin.bits)) for pin in unit.pins} >= {("out", "b1", 5), ("in", "go", 1)}
    labels = {w.label for w in circuit.wires if owners[w.start][0] == "u2"}
    assert {"valid", "data"} <= labels


def test_parts_of_a_library_are_boxes_with_the_names_of_their_pins() -> None:
    text = """wiring m
  takes a[4], b[4], clk, stop
  gives q[4], over
  s, over <- add(a, and(b, !a))
  q <- register(s, fall: and(clk, !stop), clear_low: stop)
end
"""
    drawing = draw(build(text, name="a.wiring"), lambda position: "")
    parts = {p.label: p for p in drawing.circuit.parts if p.kind == "part"}
    assert sorted(parts) == ["add", "register"]
    assert [(p.side, p.name, len(p.bits)) for p in parts["add"].pins] == [
        ("in", "a", 4), ("in", "b", 4), ("out", "sum", 4), ("out", "carry", 1),
    ]  # fmt: skip
    assert [(p.name, p.edge, p.inverted) for p in parts["register"].pins] == [
        ("d", "", False), ("", "fall", False), ("clear", "", True), ("q", "", False),
    ]  # fmt: skip
    gates = [p for p in drawing.circuit.parts if p.kind == "and"]
    assert len(gates) == 2 and all(any(pin.inverted for pin in g.pins) for g in gates)
    ends = {w.end for w in drawing.circuit.wires}
    assert all(pin.id in ends for part in parts.values() for pin in part.pins if pin.side == "in")


def test_a_selector_of_many_is_one_symbol() -> None:
    text = "wiring m\n  takes s[2], a, b, c\n  gives y\n  y <- and(select(s, a, b, !c), a)\nend\n"
    drawing = draw(build(text, name="a.wiring"), lambda position: "")
    (selector,) = [p for p in drawing.circuit.parts if p.kind == "part"]
    assert (selector.label, [p.name for p in selector.pins]) == ("select", ["s", "0", "1", "2", "y"])
    assert not [p for p in drawing.circuit.parts if p.kind == "select"]


def test_each_output_of_a_part_may_explain(small: Expectation) -> None:
    """`less` of a comparison is the first of three; the one that is taken wrongly explains all, the others nothing."""
    body = "  both, _, w <- compare({0, a}, {0, b})\n  y <- or(both, c)\n  z <- not(both)\n"
    text = f"wiring m\n  takes a, b, c\n  gives y, z\n{body}end\n"
    found = inside(small, "a.wiring", text)
    pins = {n.id: (p.label, n.name) for p in found.circuit.parts for n in p.pins}
    assert ("compare", "less") in {pins[i] for i in found.explains}
