"""Random SystemVerilog with structures, packed and unpacked arrays, enumerations, casts and functions: all engines
agree, and it does what the same program says in plain Verilog, which the test writes beside it digit by digit."""

from __future__ import annotations

from dataclasses import dataclass

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.core.designs import agree, build

HEAD = """
typedef enum logic [1:0] {NONE, FILL, DRAIN, BOTH} way_t;
typedef struct packed { logic [1:0] op; logic [3:0][1:0] v; struct packed { logic p; logic [2:0] q; } in; } box_t;
typedef struct { logic [1:0] k; logic [2:0] n [0:3]; } crate_t;
"""
"""`box_t` has op in [13:12], v in [11:4], p in [3], q in [2:0]. A crate is one vector `ck` and four `cn`."""

PLACES = [
    ("s", "s", 14),
    ("s.op", "s[13:12]", 2),
    ("s.v", "s[11:4]", 8),
    ("s.v[2]", "s[9:8]", 2),
    ("s.v[2][1]", "s[9]", 1),
    ("s.v[2:1]", "s[9:6]", 4),
    ("s.in", "s[3:0]", 4),
    ("s.in.p", "s[3]", 1),
    ("s.in.q[2:1]", "s[2:1]", 2),
    ("s.v[a]", "s[4 + 2 * a +: 2]", 2),
    ("m[a]", "m[{a, 2'b00} +: 4]", 4),
    ("m[3]", "m[15:12]", 4),
    ("m[1][a]", "m[4 + a]", 1),
    ("m[2 +: 2]", "m[15:8]", 8),
    ("u[a]", "u[a]", 3),
    ("u[2]", "u[2]", 3),
    ("c.k", "ck", 2),
    ("c.n[b]", "cn[b]", 3),
    ("c.n[1]", "cn[1]", 3),
    ("d[a].in.q", "d[a][2:0]", 3),
    ("d[1].v[b]", "d[1][4 + 2 * b +: 2]", 2),
]
"""A place in SystemVerilog, the same in Verilog, its digits."""


@dataclass(frozen=True)
class Pair:
    """The same twice: in SystemVerilog, in Verilog."""

    new: str
    old: str


READ = st.sampled_from([Pair(new, old) for new, old, _ in PLACES if not new.startswith("c.n[b]")])
LEAF = st.one_of(
    READ,
    READ,
    st.sampled_from(
        [
            Pair("a", "a"),
            Pair("b", "b"),
            Pair("4'hb", "4'hb"),
            Pair("twice(a)", "twice(a)"),
            Pair("3'(b + a)", "{1'b0, b + a}"),
            Pair("signed'(b)", "$signed(b)"),
            Pair("way_t'(a)", "a"),
            Pair("w.next()", "next(w)"),
            Pair("box_t'{op: b, v: '{default: 1}, in: '{1, 2}}", "{b, 8'h55, 4'ha}"),
            Pair("4'({<<{s.in}})", "{s[0], s[1], s[2], s[3]}"),
            Pair("8'({<<2{s.v}})", "{s[5:4], s[7:6], s[9:8], s[11:10]}"),
            Pair("$countones(s.v)", "ones(s[11:4])"),
            Pair("(u == x)", "(u[0] == x[0] & u[1] == x[1] & u[2] == x[2] & u[3] == x[3])"),
        ]
    ),
)


def joined(op: str, left: Pair, right: Pair) -> Pair:
    """Two with an operator between them."""
    return Pair(f"({left.new} {op} {right.new})", f"({left.old} {op} {right.old})")


EXPR = st.one_of(
    LEAF,
    st.builds(joined, st.sampled_from(["+", "-", "&", "|", "^", "==", "<", ">>", "==="]), LEAF, LEAF),
    st.builds(
        lambda c, x, y: Pair(f"({c.new} ? {x.new} : {y.new})", f"({c.old} ? {x.old} : {y.old})"), LEAF, LEAF, LEAF
    ),
    st.builds(
        lambda e, lo: Pair(
            f"({e.new} inside {{{lo}, [4:6], 4'b1?01}})",
            f"((({e.old}) == {lo}) | (({e.old}) >= 4 & ({e.old}) <= 6) | ((({e.old}) & 4'b1011) == 4'b1001))",
        ),
        st.sampled_from([Pair("s.in", "s[3:0]"), Pair("m[3]", "m[15:12]"), Pair("m[a]", "m[{a, 2'b00} +: 4]")]),
        st.integers(0, 3),
    ),
)


EFFECTS = {
    "halves": lambda v: Pair(
        f"s.v[1] = halves({v.new}, m[0]) ^ halves(m[1], m[3]);",
        f"t4 = {v.old}; t4 = t4 & 15; m[3:0] = t4[1:0]; t5 = m[7:4]; m[15:12] = t5[1:0]; s[7:6] = t4[3:2] ^ t5[3:2];",
    ),
    "after": lambda v: Pair(
        f"n = {v.new}; x[n++] = s.in; s.op = n;",
        f"n = {v.old}; x[n] = s[3:0]; n = n + 1; s[13:12] = n;",
    ),
    "before": lambda v: Pair(f"n = {v.new}; u[--n] ^= 3;", f"n = {v.old}; n = n - 1; u[n] = u[n] ^ 3;"),
    "not come to": lambda v: Pair(
        f"n = b; if ({v.new} || (n += 1) == 2) s.in.q = n;",
        f"n = b; if (|({v.old}) !== 1) n = n + 1; if (({v.old}) || n == 2) s[2:0] = n;",
    ),
    "chosen": lambda v: Pair(
        f"n = a; m[2] = ({v.new}) !== 0 ? n++ : n--;",
        f"n = a; m[11:8] = n; n = ({v.old}) !== 0 ? n + 1 : n - 1;",
    ),
    "stream": lambda v: Pair(
        f"{{>>{{s.op, s.in}}}} = 6'({{{v.new}}}); {{<<2{{m[1]}}}} = s.in;",
        f"t4 = {{{v.old}}}; s[13:12] = t4[5:4]; s[3:0] = t4[3:0]; m[7:4] = {{s[1:0], s[3:2]}};",
    ),
    "let": lambda v: Pair(f"m[3] = most({v.new}, s.in);", f"m[15:12] = ({v.old}) > s[3:0] ? ({v.old}) : s[3:0];"),
    "unique": lambda v: Pair(
        f"unique casez (m[2]) 4'b1???: x[1] = {v.new}; 4'b01??: x[2] = {v.new}; endcase",
        f"if (m[11]) x[1] = {v.old}; else if (m[10]) x[2] = {v.old};",
    ),
}
"""Statements whose expressions do something beside, and others of two forms."""


@st.composite
def statements(draw: st.DrawFn, depth: int = 2) -> Pair:
    """One statement."""
    kinds = ["place", "place", "place", "array", "pattern", "default", "copy", "box", "enum", "give", *EFFECTS]
    kind = draw(st.sampled_from([*kinds, "if", "case", "each"] if depth else kinds))
    if kind in EFFECTS:
        return EFFECTS[kind](draw(EXPR))
    if kind == "place":
        new, old, _ = draw(st.sampled_from(PLACES))
        value = draw(EXPR)
        return Pair(f"{new} = {value.new};", f"{old} = {value.old};")
    if kind == "array":
        return Pair("u = x;", "u[0] = x[0]; u[1] = x[1]; u[2] = x[2]; u[3] = x[3];")
    if kind == "pattern":
        values = [draw(EXPR) for _ in range(4)]
        old = " ".join(f"t{i} = {value.old};" for i, value in enumerate(values))
        return Pair(
            f"u = '{{{', '.join(v.new for v in values)}}};", old + " u[0] = t0; u[1] = t1; u[2] = t2; u[3] = t3;"
        )
    if kind == "default":
        value = draw(EXPR)
        return Pair(
            f"x = '{{1: a, default: {value.new}}};", f"t0 = {value.old}; x[0] = t0; x[1] = a; x[2] = t0; x[3] = t0;"
        )
    if kind == "copy":
        return Pair("c = '{b, u};", "t0 = b; ck = b; cn[0] = u[0]; cn[1] = u[1]; cn[2] = u[2]; cn[3] = u[3];")
    if kind == "box":
        return Pair("d[0] = s; s = d[1];", "d[0] = s; s = d[1];")
    if kind == "enum":
        return Pair("w = a[0] ? w.next : way_t'(b);", "w = a[0] ? next(w) : b;")
    if kind == "give":
        return Pair("s.op = halves(m[0], m[1]);", "s[13:12] = m[3:2]; m[7:4] = m[1:0];")
    inner, other = draw(statements(depth - 1)), draw(statements(depth - 1))
    cond = draw(EXPR)
    if kind == "if":
        return Pair(
            f"if ({cond.new}) begin {inner.new} end else begin {other.new} end",
            f"if ({cond.old}) begin {inner.old} end else begin {other.old} end",
        )
    if kind == "case":
        return Pair(
            f"case (w) FILL: begin {inner.new} end BOTH: begin {other.new} end default: ; endcase",
            f"case (w) 1: begin {inner.old} end 3: begin {other.old} end default: ; endcase",
        )
    return Pair(
        f"foreach (x[i]) begin x[i] += s.v[i]; {inner.new} end",
        f"for (i{depth} = 0; i{depth} < 4; i{depth} = i{depth} + 1) begin"
        f" x[i{depth}] = x[i{depth}] + s[4 + 2 * i{depth} +: 2]; {inner.old} end",
    )


NEW = """
module m (input [1:0] a, b, output box_t y, output [3:0][3:0] z, output [2:0] o, p, output [1:0] r, output way_t e);
  box_t s, d [0:1];
  logic [3:0][3:0] m;
  logic [2:0] u [0:3], x [0:3];
  crate_t c;
  way_t w;
  logic [1:0] n;
  let most(k, l) = k > l ? k : l;
  function automatic logic [3:0] twice(logic [1:0] k); return 2 * k; endfunction
  function automatic logic [1:0] halves(input logic [3:0] k, output logic [3:0] rest);
    rest = k[1:0]; return k[3:2];
  endfunction
  always_comb begin
    s = '{op: a, v: '{b, a, 2'd1, 2'd2}, in: '{p: b[0], q: 3'd5}};
    d = '{default: 14'h1234}; m = 16'h8421; u = '{1, 2, 3, 4}; x = '{default: b}; w = way_t'(a);
    c = '{k: 1, n: '{default: a}}; n = 0;
    {}
    {}
    {}
  end
  assign y = s, z = m, o = u[0] ^ u[1] ^ x[2] ^ x[3], p = c.n[0] ^ c.n[1] ^ c.n[b];
  assign r = c.k ^ d[0].op ^ d[1].v[0], e = w;
endmodule
"""
OLD = """
module m (input [1:0] a, b, output [13:0] y, output [15:0] z, output [2:0] o, p, output [1:0] r, e);
  reg [13:0] s, d [0:1];
  reg [15:0] m;
  reg [2:0] u [0:3], x [0:3], cn [0:3], t0, t1, t2, t3;
  reg [1:0] ck, w, n;
  reg [63:0] t4, t5;
  integer i1, i2;
  function [3:0] twice(input [1:0] k); twice = 2 * k; endfunction
  function [1:0] next(input [1:0] k); next = k === 0 ? 1 : k === 1 ? 2 : k === 2 ? 3 : k === 3 ? 0 : 2'bx; endfunction
  function signed [31:0] ones(input [7:0] k); integer j; begin
    ones = 0; for (j = 0; j < 8; j = j + 1) if (k[j]) ones = ones + 1; end endfunction
  always @* begin
    s = {a, b, a, 4'b0110, b[0], 3'd5};
    d[0] = 14'h1234; d[1] = 14'h1234; m = 16'h8421; u[0] = 1; u[1] = 2; u[2] = 3; u[3] = 4;
    x[0] = b; x[1] = b; x[2] = b; x[3] = b; w = a; ck = 1; cn[0] = a; cn[1] = a; cn[2] = a; cn[3] = a; n = 0;
    {}
    {}
    {}
  end
  assign y = s, z = m, o = u[0] ^ u[1] ^ x[2] ^ x[3], p = cn[0] ^ cn[1] ^ cn[b];
  assign r = ck ^ d[0][13:12] ^ d[1][5:4], e = w;
endmodule
"""


def filled(frame: str, parts: list[str]) -> str:
    """A frame with its statements."""
    for part in parts:
        frame = frame.replace("    {}\n", f"    {part}\n", 1)
    return frame


@settings(max_examples=150, deadline=None, suppress_health_check=list(HealthCheck))
@given(st.lists(statements(), min_size=3, max_size=3))
def test_it_does_what_plain_verilog_does(parts: list[Pair]) -> None:
    new = HEAD + filled(NEW, [p.new for p in parts])
    old = filled(OLD, [p.old for p in parts])
    assert agree(build(new, name="a.sv")) == agree(build(old)), new
