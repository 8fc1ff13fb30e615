"""Slips in numbers: each design has one that was put in, and is told that one and no other."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from obento.core.check.check import check_handin, open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.check.explaining.word_slips import WORD_SLIPS, add, differ
from obento.core.check.judging.outcome import Checked
from obento.core.handin import HandinFile
from obento.core.planes import count_plane
from tests.core.clocked import COUNTER, VERILOG, clocked, ready

SPEC = """obento = "spec/1"
unit = "m"
[ports]
in = "op a[4]:dec b[4]:dec"
out = "y[5]:dec zero more"
[expect]
equations = '''
y = op == 0 ? a + b : a - b
zero = y == 0
more = a > b
'''
"""
SIGNED = (
    "obento = 'spec/1'\nunit = 'm'\n[ports]\nin = 'a[4]s:dec b[4]s:dec'\nout = 'y[6]s:dec less'\n[expect]\nequations ="
    " '''\ny = a + b\nless = a < b\n'''\n"
)
DECODER = (
    "obento = 'spec/1'\nunit = 'm'\n[ports]\nin = 'n[3]'\nout = 'code[3]:dec'\n[expect]\nequations = 'code = n ^ (n >>"
    " 1)'\n"
)
TABLE = (
    "obento = 'spec/1'\nunit = 'm'\n[ports]\nin = 'a b c'\nout = 'y'\n[expect]\ntable = '''\na b c | y\n1 - - | 1\n0 1"
    " 1 | 1\n0 0 - | 0\n0 1 0 | 0\n'''\n"
)


def spec(text: str) -> Expectation:
    return ready(open_spec("s.toml", text.encode(), {}))


@pytest.fixture(scope="module")
def sums() -> Expectation:
    return spec(SPEC)


def told(checked: Checked) -> list[tuple[str, str]]:
    return [(f.kind, f.text) for f in checked.findings if f.kind in WORD_SLIPS | {"ignores", "constant", "dont-care"}]


def of_sums(
    expectation: Expectation, y: str = "op ? a - b : a + b", zero: str = "y == 0", more: str = "a > b"
) -> list[tuple[str, str]]:
    text = (
        f"module m(input op, input [3:0] a, b, output [4:0] y, output zero, more); assign y = {y}; assign zero ="
        f" {zero}; assign more = {more}; endmodule"
    )
    return told(check_handin(expectation, [HandinFile("m.v", text.encode())]))


@pytest.mark.parametrize(
    ("wrong", "kind", "sentence"),
    [
        ({"y": "op ? a - b : a + b + 1", "zero": "(op ? a - b : a + b) == 5'd0"},
        "off-by-one", "y is 1 too large in all 256 wrong cases"),
        ({"y": "op ? a - b - 1 : a + b", "zero": "(op ? a - b : a + b) == 5'd0"},
        "off-by-one", "y is 1 too small in all 256 wrong cases"),
        ({"y": "op ? a - b : {1'b0, a ^ b}", "zero": "op ? a == b : a == 0 & b == 0"},
        "no-carries", "y adds a and b without carries in all 175 wrong cases"),
        (
            {"y": "op ? a - b : {1'b0, a[3:0] + b[3:0]}", "zero": "op ? a == b : a == 0 & b == 0"},
            "carry-lost",
            "y is 16 too small in all 120 wrong cases: a carry into bit 4 is lost",
        ),
        ({"y": "op ? b - a : a + b"}, "other-operation", "y is b - a, with op = 1, and should be a - b"),
        ({"y": "op ? a - b : a - b", "zero": "op ? a == b : a == 0 & b == 0"},
        "ignores", "y does not depend on op, and should"),
        ({"y": "op ? a - b : a + a", "zero": "op ? a == b : a == 0 & b == 0"},
        "other-operation", "y is a + a, with op = 0, and should be a + b"),
        ({"zero": "y[3:0] == 0"}, "", ""),  # of part of a word: nothing that could be said for sure
        ({"zero": "a == 0"}, "ignores", "zero does not depend on op or b, and should"),
        ({"zero": "y != 0"}, "inverted", ""),
        ({"more": "a >= b"}, "boundary", "more is wrong just where a = b: equality counted on the wrong side"),
        ({"more": "a < b"}, "other-operation", "more says whether a < b, and should be a > b"),
        ({"more": "$signed(a) > $signed(b)"},
        "sign", "more is wrong just where the signs of a and b differ: signed taken as unsigned, or the other way round"),  # noqa: E501
    ],
)  # fmt: skip
def test_a_slip_in_numbers_is_called_by_its_name(
    sums: Expectation, wrong: dict[str, str], kind: str, sentence: str
) -> None:
    found = of_sums(sums, **wrong)
    if sentence:
        assert (kind, sentence) in found
    else:
        assert [k for k, _ in found if k in WORD_SLIPS] == []


def test_what_is_right_gets_no_sentence(sums: Expectation) -> None:
    assert of_sums(sums) == []


def test_a_flag_taken_from_another_word() -> None:
    text = SPEC.replace("y[5]:dec zero more", "y[4]:dec over zero").replace(
        "y = op == 0 ? a + b : a - b\nzero = y == 0\nmore = a > b",
        "wide = a + b\ny = wide\nover = wide > 15\nzero = wide[3..0] == 0",
    )
    design = (
        "module m(input op, input [3:0] a, b, output [3:0] y, output over, zero); assign {over, y} = a + b; assign zero"
        " = ~|{over, y}; endmodule"
    )
    found = told(check_handin(spec(text), [HandinFile("m.v", design.encode())]))
    assert found == [("wrong-flag", "zero says whether over and y together is zero, and should say so of y")]


@pytest.mark.parametrize(
    ("body", "kind", "words"),
    [
        ("assign y = {{2'b0, a}} + {{2'b0, b}}; assign less = $signed(a) < $signed(b);", "sign", ""),
        (
            "assign y = $signed(a) + $signed(b); assign less = a < b;",
            "sign",
            "less is wrong just where the signs of a and b differ",
        ),
        ("wire [3:0] s = a + b; assign y = s; assign less = $signed(a) < $signed(b);", "cut", ""),
    ],
)
def test_signs(body: str, kind: str, words: str) -> None:
    text = (
        f"module m(input [3:0] a, b, output [5:0] y, output less); {body.replace('{{', '{').replace('}}', '}')}"
        " endmodule"
    )
    found = told(check_handin(spec(SIGNED), [HandinFile("m.v", text.encode())]))
    if words:
        assert [k for k, _ in found] == [kind] and found[0][1].startswith(words)
    else:
        assert all(k in WORD_SLIPS for k, _ in found)


def test_two_values_exchanged() -> None:
    text = (
        "module m(input [2:0] n, output reg [2:0] code); always @* begin code = n ^ (n >> 1); if (n == 2) code = 7; if"
        " (n == 5) code = 3; end endmodule"
    )
    found = told(check_handin(spec(DECODER), [HandinFile("m.v", text.encode())]))
    assert found == [("values-exchanged", "code has 3 and 7 exchanged in all 2 wrong cases")]


def test_cut_to_its_lower_digits() -> None:
    text = "module m(input [2:0] n, output [2:0] code); wire [1:0] low = n ^ (n >> 1); assign code = low; endmodule"
    found = told(check_handin(spec(DECODER), [HandinFile("m.v", text.encode())]))
    assert ("cut", "code is cut to its lowest 2 bits: code[2] always 0") in found


@pytest.mark.parametrize(
    ("formula", "kind", "sentence"),
    [
        (
            "a & ~b & ~c | ~a & b & c",
            "dont-care",
            "right in every row of the table read with 0 for `-`, wrong only where a `-` is 1",
        ),
        ("a & b | b & c", "term-missing", "y lacks a product term: it should be 1 whenever a = 1 and b = 0"),
        ("a | b & c | ~a & ~b", "term-added", "y has a product term too many: it is 1 also whenever a = 0 and b = 0"),
    ],
)
def test_products_and_dont_cares(formula: str, kind: str, sentence: str) -> None:
    text = f"module m(input a, b, c, output y); assign y = {formula}; endmodule"
    found = told(check_handin(spec(TABLE), [HandinFile("m.v", text.encode())]))
    assert (kind, sentence) in found


def test_structure_is_told_when_something_is_wrong() -> None:
    expectation = spec(TABLE)
    text = "module m(input a, b, c, output y); wire t; assign y = a | t; endmodule"
    kinds = [f.kind for f in check_handin(expectation, [HandinFile("m.v", text.encode())]).findings]
    assert "undriven" in kinds
    fine = "module m(input a, b, c, output y); wire t; assign y = a | b & c; endmodule"
    assert check_handin(expectation, [HandinFile("m.v", fine.encode())]).findings == []


@settings(max_examples=60, deadline=None)
@given(st.lists(st.integers(0, 255), min_size=8, max_size=8), st.lists(st.integers(0, 255), min_size=8, max_size=8))
def test_sums_of_planes_are_sums(a: list[int], b: list[int]) -> None:
    def planes(numbers: list[int]) -> list[int]:
        return [sum((n >> i & 1) << case for case, n in enumerate(numbers)) for i in range(8)]

    total = add(planes(a), planes(b), 255)
    assert total == planes([(x + y) % 256 for x, y in zip(a, b, strict=True)])
    assert differ(planes(a), planes(b)) == sum((x != y) << case for case, (x, y) in enumerate(zip(a, b, strict=True)))
    assert count_plane(0, 8) == 0b10101010


def test_two_steps_of_a_sequence_in_exchanged_order() -> None:
    """A machine that should go 0 1 2 3 and goes 0 1 3 2: every wrong step has the one for the other."""
    expectation = ready(clocked(COUNTER))
    order = "case (q) 0: q <= 1; 1: q <= 3; 3: q <= 2; 2: q <= 0; endcase"
    found = told(check_handin(expectation, [HandinFile("a.v", VERILOG.replace("q <= q + 1;", order).encode())]))
    assert found == [("values-exchanged", found[0][1])] and found[0][1].startswith("q has 2 and 3 exchanged in all")
