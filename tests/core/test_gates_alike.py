"""The table of docs/formats.md on counting gates: the same circuit counts alike in a wiring list, in Verilog and in
VHDL."""

from __future__ import annotations

import pytest

from obento.core.check.judging.rules import count_gates, count_levels
from tests.core.designs import build, outputs

WIRING = "wiring m\n  takes a, b, c, d\n  gives y\n{}\nend\n"
VERILOG = "module m(input a, b, c, d, output y);\n{}\nendmodule\n"
VHDL = (
    "library ieee; use ieee.std_logic_1164.all;\nentity m is port (a, b, c, d : in std_logic; y : out std_logic);"
    " end;\narchitecture g of m is\nsignal p, q, r : std_logic; signal v, w : std_logic_vector(1 downto"
    " 0);\nbegin\n{}\nend;\n"
)

ROWS: list[tuple[str, dict[str, int], int, str, str, str]] = [
    ("one operator", {"and": 1}, 1, "  y <- and(a, b)", "assign y = a & b;", "y <= a and b;"),
    (
        "one operator, several operands",
        {"and": 1},
        1,
        "  y <- and(a, b, c, d)",
        "assign y = a & b & c & d;",
        "y <= a and b and c and d;",
    ),
    ("in parentheses", {"and": 2}, 2, "  y <- and(a, and(b, c))", "assign y = a & (b & c);", "y <= a and (b and c);"),
    (
        "two operators",
        {"and": 1, "or": 1},
        2,
        "  y <- or(and(a, b), c)",
        "assign y = a & b | c;",
        "y <= (a and b) or c;",
    ),
    ("negation", {"not": 1}, 1, "  y <- not(a)", "assign y = ~a;", "y <= not a;"),
    ("two negations", {"not": 2}, 2, "  y <- not(not(a))", "assign y = ~~a;", "y <= not (not a);"),
    (
        "negation around one gate",
        {"nand": 1},
        1,
        "  y <- not(and(a, b))",
        "assign y = ~(a & b);",
        "y <= not (a and b);",
    ),
    ("inverting operator", {"nor": 1}, 1, "  y <- nor(a, b)", "assign y = ~(a | b);", "y <= a nor b;"),
    (
        "inverting operator of three",
        {"xnor": 1},
        1,
        "  y <- xnor(a, b, c)",
        "assign y = ~(a ^ b ^ c);",
        "y <= not (a xor b xor c);",
    ),
    ("inverting operator of two", {"xnor": 1}, 1, "  y <- xnor(a, b)", "assign y = a ~^ b;", "y <= a xnor b;"),
    (
        "negation around an inverting one",
        {"not": 1, "nand": 1},
        2,
        "  y <- not(nand(a, b))",
        "assign y = ~(~(a & b));",
        "y <= not (a nand b);",
    ),
    (
        "on lines of their own",
        {"and": 1, "not": 1},
        2,
        "  p <- and(a, b)\n  y <- not(p)",
        "wire p; assign p = a & b; assign y = ~p;",
        "p <= a and b; y <= not p;",
    ),
    (
        "four inverting gates",
        {"nand": 4},
        3,
        "  p <- nand(a, b)\n  y <- nand(nand(a, p), nand(p, b))",
        "wire p = ~(a & b); assign y = ~(~(a & p) & ~(p & b));",
        "p <= a nand b; y <= (a nand p) nand (p nand b);",
    ),
    ("choice", {"select": 1}, 1, "  y <- select(c, a, b)", "assign y = c ? b : a;", ""),
    ("wires", {}, 0, "", "wire p = a; assign y = p;", "p <= a; y <= p;"),
    (
        "buses",
        {"and": 1, "xor": 1},
        2,
        "  v <- and({a, b}, {c, d})\n  y <- xor(v[1], v[0])",
        "wire [1:0] v = {a, b} & {c, d}; assign y = v[1] ^ v[0];",
        "v <= (a & b) and (c & d); y <= v(1) xor v(0);",
    ),
]


@pytest.mark.parametrize("row", ROWS, ids=lambda row: row[0])
def test_all_languages_count_alike(row: tuple[str, dict[str, int], int, str, str, str]) -> None:
    _, gates, levels, *texts = row
    truth = None
    for body, frame, name in zip(texts, (WIRING, VERILOG, VHDL), ("a.wiring", "a.v", "a.vhd"), strict=True):
        if not body:
            continue
        design = build(frame.format(body), name=name)
        assert dict(count_gates(design)) == gates, (name, count_gates(design))
        assert count_levels(design) == levels, (name, count_levels(design))
        got = outputs(frame.format(body), name=name)
        truth = truth or got
        assert got == truth, name


CELLS = [
    (
        "a.wiring",
        (
            "wiring m\n takes a, b, c, d\n gives y\n p <- part(a, b)\n y <- part(p, c)\nend\nwiring part\n takes x, y\n"
            " gives z\n z <- nor(x, not(y))\nend\n"
        ),
    ),
    (
        "a.v",
        VERILOG.format("wire p; part u(a, b, p), v(p, c, y);")
        + "module part(input x, y, output z); assign z = ~(x | ~y); endmodule\n",
    ),
    (
        "a.v",
        VERILOG.format("wire p; part u(a, b, p), v(p, c, y);")
        + "module part(input x, y, output z); wire n; not (n, y); nor (z, x, n); endmodule\n",
    ),
    (
        "a.vhd",
        VHDL.format("u : entity work.part port map (a, b, p); v0 : entity work.part port map (p, c, y);")
        + "library ieee; use ieee.std_logic_1164.all;\nentity part is port (x, y : in std_logic; z : out std_logic);"
        " end;\narchitecture g of part is begin z <= x nor (not y); end;\n",
    ),
]


@pytest.mark.parametrize(("name", "text"), CELLS)
def test_a_cell_counts_what_stands_in_it_for_every_use(name: str, text: str) -> None:
    design = build(text, name=name)
    assert dict(count_gates(design)) == {"nor": 2, "not": 2} and count_levels(design) == 3


@pytest.mark.parametrize(
    ("body", "gates"),
    [
        ("assign y = &{a, b};", {"and": 1}),
        ("assign y = ~|{a, b};", {"nor": 1}),
        ("assign y = !{a, b};", {"nor": 1}),
        ("assign y = !(a && b);", {"nand": 1}),
        ("assign y = a == b;", {"behaviour": 1}),
        ("wire [1:0] k; and g[1:0] (k, {a, b}, {c, d}); or (y, k[0], k[1]);", {"and": 2, "or": 1}),
        ("buf (y, a);", {"buf": 1}),
        ("xnor (y, a, b, c);", {"xnor": 1}),
    ],
)
def test_what_only_verilog_has(body: str, gates: dict[str, int]) -> None:
    design = build(VERILOG.format(body))
    assert dict(count_gates(design)) == gates


@pytest.mark.parametrize(
    ("body", "gates", "levels"),
    [
        ("  y <- buf(a)", {"buf": 1}, 1),
        ("  y <- and(buf(a), b)", {"buf": 1, "and": 1}, 2),
        ("  y <- and(and(a, b), and(c, d))", {"and": 3}, 2),
        ("  y <- and(and(and(a, b), c), d)", {"and": 3}, 3),
        ("  y <- not(buf(a))", {"not": 1, "buf": 1}, 2),
        ("  y <- flipflop(xor(a, b), rise: c, enable: d)", {"flipflop": 1, "xor": 1}, 1),
        ("  y <- flipflop(select(d, a, b), rise: c, clear: not(d))", {"flipflop": 1, "select": 1, "not": 1}, 1),
        ("  p <- latch(and(a, b), open: or(c, d))\n  y <- not(p)", {"latch": 1, "and": 1, "or": 1, "not": 1}, 1),
    ],
)
def test_what_only_wiring_lists_have(body: str, gates: dict[str, int], levels: int) -> None:
    design = build(WIRING.format(body), name="a.wiring")
    assert dict(count_gates(design)) == gates and count_levels(design) == levels


def test_nested_gates_of_one_kind_stay_two_in_every_engine() -> None:
    assert outputs(WIRING.format("  y <- xor(xor(a, b), xor(c, d))"), name="a.wiring") == [
        str(n.bit_count() & 1) for n in range(16)
    ]
