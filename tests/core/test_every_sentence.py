"""Every sentence on behaviour has a hand-in here of which it is said, and beside it the right one, of which nothing is
said."""

from __future__ import annotations

from collections.abc import Iterator

import pytest

from obento.core.check.check import check_handin, open_spec
from obento.core.check.judging.outcome import Finding
from obento.core.handin import HandinFile
from obento.core.sentences.said import ENGLISH, Said, table
from tests.core.clocked import COUNTER, SYNC_COUNTER, VERILOG, clocked, ready

HEAD = 'obento = "spec/1"\nunit = "m"\n[ports]\n'


def spec(inputs: str, outputs: str, equations: str = "", table_rows: str = "") -> str:
    body = f"equations = '''\n{equations}\n'''" if equations else f"table = '''\n{table_rows}\n'''"
    return f'{HEAD}in = "{inputs}"\nout = "{outputs}"\n[expect]\n{body}\n'


def module(ports: str, body: str) -> str:
    return f"module m({ports});\n  {body}\nendmodule\n"


GATES = spec("a b c", "y z w[2]", "y = a & b | c\nz = a ^ c\nw = {a & b, c}")
GATES_PORTS = "input a, b, c, output y, z, output [1:0] w"


def gates(y: str = "a & b | c", z: str = "a ^ c", w: str = "{a & b, c}") -> str:
    return module(GATES_PORTS, f"assign y = {y};\n  assign z = {z};\n  assign w = {w};")


WORDS = spec("op a[4]:dec b[4]:dec", "y[5]:dec zero more", "y = op == 0 ? a + b : a - b\nzero = y == 0\nmore = a > b")


def words(y: str = "op ? a - b : a + b", zero: str = "(op ? a - b : a + b) == 5'd0", more: str = "a > b") -> str:
    ports = "input op, input [3:0] a, b, output [4:0] y, output zero, more"
    full = f"wire [4:0] full = op ? a - b : a + b;\n  assign y = {y};\n  assign zero = {zero};\n  assign more = {more};"
    return module(ports, full)


SIGNED = spec("a[4]s:dec b[4]s:dec", "y[6]s:dec less", "y = a + b\nless = a < b")


def signed(y: str = "$signed(a) + $signed(b)", less: str = "$signed(a) < $signed(b)") -> str:
    ports = "input [3:0] a, b, output signed [5:0] y, output less"
    return module(ports, f"assign y = {y};\n  assign less = {less};")


CODES = spec("n[3]", "code[3]:dec any", "code = n ^ (n >> 1)\nany = n > 0")


def codes(code: str = "n ^ (n >> 1)", any_: str = "|n") -> str:
    return module("input [2:0] n, output [2:0] code, output any", f"assign code = {code};\n  assign any = {any_};")


TABLE = spec("a b c", "y", table_rows="a b c | y\n1 - - | 1\n0 1 1 | 1\n0 0 - | 0\n0 1 0 | 0")


def one(y: str) -> str:
    return module("input a, b, c, output y", f"assign y = {y};")


LATCH = module("input a, b, c, output reg y", "always @* if (a) y = 1; else if (b) y = c; else if (!c) y = 0;")
LISTED = module("input a, b, c, output reg y", "always @(a or b) y = a | b & c;")
WIDE = spec("a[3]:dec b[3]:dec c", "y", "y = c & (a > 4)")


def wide(y: str) -> str:
    return module("input [2:0] a, b, input c, output y", f"assign y = {y};")


COMBINATIONAL: list[tuple[str, str, str, str]] = [
    # of the spec, what is right, what is said, of what
    (GATES, gates(), "wrong-whenever", gates(y="a | b | c")),
    (GATES, gates(), "exchanged-outputs", gates(y="a ^ c", z="a & b | c")),
    (GATES, gates(), "exchanged-inputs", gates("b & c | a", "c ^ a", "{c & b, a}")),
    (GATES, gates(), "constant", gates(y="1'b1")),
    (GATES, gates(), "inverted", gates(y="~(a & b | c)")),
    (GATES, gates(), "wrong-always", gates(y="~(a & b | c)")),
    (GATES, gates(), "inverted-word", gates(w="~{a & b, c}")),
    (GATES, gates(), "reversed", gates(w="{c, a & b}")),
    (GATES, gates(), "ignores", gates(y="a | c")),
    (GATES, gates(), "undefined-always", gates(y="1'bx")),
    (GATES, gates(), "undefined-whenever", gates(y="a ? b | c : c ? 1'b1 : 1'bx")),
    (WORDS, words(), "off-by-one-large", words(y="full + 1")),
    (WORDS, words(), "off-by-one-small", words(y="full - 1")),
    (WORDS, words(), "carry-lost", words(y="op ? a - b : {1'b0, a[3:0] + b[3:0]}")),
    (WORDS, words(), "no-carries", words(y="op ? a - b : {1'b0, a ^ b}")),
    (WORDS, words(), "other-operation", words(y="op ? b - a : a + b")),
    (WORDS, words(), "with", words(y="op ? b - a : a + b")),
    (WORDS, words(), "digit-by-digit", words(y="op ? a - b : {1'b0, a & b}")),
    (WORDS, words(), "boundary", words(more="a >= b")),
    (WORDS, words(), "constant-in", words(y="op ? 5'd7 : a + b")),
    (WORDS, words(), "too-large", words(y="!op & a < 8 & b < 8 ? a + b + 5'd16 : full")),
    (WORDS, words(), "borrow-lost", words(y="!op & a < 8 & b < 8 ? a + b + 5'd16 : full")),
    (SIGNED, signed(), "sign-lost", signed(y="{2'b00, a} + {{2{b[3]}}, b}")),
    (CODES, codes(), "wrong-property", codes(any_="n[0]")),
    (CODES, codes(), "is-full", codes(any_="&n")),
    (WORDS, words(), "other-test", words(more="a < b")),
    (SIGNED, signed(), "signs", signed(less="a < b")),
    (CODES, codes(), "cut", codes("(n ^ (n >> 1)) & 3'b011")),
    (CODES, codes(), "cut-to-one", codes("(n ^ (n >> 1)) & 3'b001")),
    (CODES, codes(), "values-exchanged", codes("n == 1 ? 3 : n == 2 ? 1 : n ^ (n >> 1)")),
    (TABLE, one("a | b & c"), "latch", LATCH),
    (TABLE, one("a | b & c"), "sensitivity", LISTED),
    (WIDE, wide("c & (a > 4)"), "wrong-whenever", wide("c & (a > 5)")),
]

CLOCKED: list[tuple[dict[str, str], str, str, str]] = [
    ({}, VERILOG, "acts-on-falling", VERILOG.replace("posedge clk", "negedge clk")),
    ({}, VERILOG, "wrong-in-steps", VERILOG.replace("q + 1", "q + 2")),
    ({}, VERILOG, "goes-wrong", VERILOG.replace("q + 1", "q + 2")),
    ({}, VERILOG, "some-follow", VERILOG.replace("else if (en)", "else")),
    ({}, VERILOG, "reset-level", VERILOG.replace("posedge rst", "negedge rst").replace("(rst)", "(!rst)")),
    ({}, VERILOG, "falling-and-level",
     VERILOG.replace("posedge", "negedge").replace("(rst)", "(!rst)")),
    ({}, VERILOG, "reset-sync", VERILOG.replace(" or posedge rst", "")),
    ({}, VERILOG, "reset-value", VERILOG.replace("q <= 0", "q <= 2")),
    ({}, VERILOG, "does-not-react", VERILOG.replace("else if (en)", "else")),
    ({}, VERILOG, "wraps-too-early", VERILOG.replace("q <= q + 1", "q <= q == 2 ? 0 : q + 1")),
    ({}, VERILOG, "constant", VERILOG.replace("q <= q + 1", "q <= q")),
    ({}, VERILOG, "reset-edge", VERILOG.replace("posedge rst", "negedge rst")),
    ({"kind": "sync"}, VERILOG.replace(" or posedge rst", ""), "reset-async-rising", VERILOG),
    ({"kind": "sync", "edge": "fall"}, VERILOG.replace("posedge clk or posedge rst", "negedge clk"),
     "reset-async-falling", VERILOG.replace("posedge clk", "negedge clk")),
    ({"edge": "fall"}, VERILOG.replace("posedge clk", "negedge clk"), "acts-on-rising", VERILOG),
    ({"edge": "fall"}, VERILOG.replace("posedge clk", "negedge clk"), "rising-and-level",
     VERILOG.replace("posedge rst", "negedge rst").replace("(rst)", "(!rst)")),
]  # fmt: skip


def keys(said: object) -> Iterator[str]:
    """The templates that a sentence and its parts are made by."""
    if isinstance(said, Said):
        yield said.key
        for value in said.values.values():
            yield from keys(value)
    elif isinstance(said, list | tuple):
        for value in said:
            yield from keys(value)


def said_of(findings: list[Finding]) -> set[str]:
    return {key for f in findings for key in keys(f.text)}


@pytest.mark.parametrize(("text", "right", "key", "wrong"), COMBINATIONAL, ids=[f"{c[2]}" for c in COMBINATIONAL])
def test_it_is_said_of_the_wrong_one_and_not_of_the_right_one(text: str, right: str, key: str, wrong: str) -> None:
    expectation = ready(open_spec("s.toml", text.encode(), {}))
    assert check_handin(expectation, [HandinFile("m.v", right.encode())]).findings == []
    found = check_handin(expectation, [HandinFile("m.v", wrong.encode())])
    assert key in said_of(found.findings), [f.text for f in found.findings]


@pytest.mark.parametrize(("terms", "right", "key", "wrong"), CLOCKED, ids=[c[2] for c in CLOCKED])
def test_it_is_said_of_what_is_clocked(terms: dict[str, str], right: str, key: str, wrong: str) -> None:
    function = SYNC_COUNTER if terms.get("kind") == "sync" else COUNTER
    if terms.get("edge") == "fall":
        function = function.replace("\nr ", "\nf ")
    expectation = ready(clocked(function, **terms))  # type: ignore[arg-type]
    assert check_handin(expectation, [HandinFile("m.v", right.encode())]).findings == []
    found = check_handin(expectation, [HandinFile("m.v", wrong.encode())])
    assert key in said_of(found.findings), [f.text for f in found.findings]


ELSEWHERE = frozenset(
    [
        "dont-care", "bits-to", "together", "late", "early", "stuck", "blocking",
        "counts-too-far", "start-values", "ripple-clock", "race", "other-edge-rising",
        "other-edge-falling", "wrong", "wrong-only-when", "undefined-in-steps",
        "all-follow", "run-ends", "run-ends-whenever", "run-ends-in-steps", "ends-nowhere",
        "does-not-settle-in-steps", "latch-no-else", "latch-one-side", "latch-one-arm", "latch-no-arm",
        "too-small", "wrong-flag", "term-missing",
        "term-added", "remembers", "does-not-settle",
    ]
)  # fmt: skip
"""Said in the tests of their own rooms, or to the second reader."""
SELDOM = frozenset(["undefined", "undefined-only-when", "settles-nowhere", "latch-somewhere"])
"""No hand-in here has them said: only their words are tested (`test_said`)."""


def test_no_sentence_is_left_out() -> None:
    every = {k for name in ("findings", "slips", "timing", "structure") for k in table(name, ENGLISH)}
    assert every == {c[2] for c in (*COMBINATIONAL, *CLOCKED)} - {"with", "is-full"} | ELSEWHERE | SELDOM
