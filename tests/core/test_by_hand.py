"""Inputs set by hand, beside what is expected then."""

from __future__ import annotations

from obento.core.check.check import open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.check.inspecting.by_hand import ByHand, Move, drive_by_hand
from obento.core.handin import HandinFile
from obento.core.values import from_digits, to_digits
from tests.core.clocked import COUNTER, VERILOG, VHDL, clocked, ready

SPEC = (
    "obento = 'spec/1'\nunit = 'm'\n[ports]\nin = 'a b[2]'\nout = 'y'\n[expect]\ntable = '''\na b  | y\n1 -- | 1\n0 00"
    " | 0\n0 01 | -\n0 1- | 1\n'''\n"
)
LATCH = "module m(input a, input [1:0] b, output reg y); always @* if (a) y = 1; else if (b == 0) y = 0; endmodule"


def moved(expectation: Expectation, text: str, *moves: tuple[str, ...], name: str = "a.v") -> ByHand:
    made = [Move(tuple(from_digits(d) for d in m[1:]), m[0]) for m in moves]
    found = drive_by_hand(expectation, [HandinFile(name, text.encode())], (), {}, made, {})
    assert isinstance(found, ByHand), found
    return found


def texts(found: ByHand, width: int = 1) -> list[tuple[str, str]]:
    out = []
    for got, expected, care in found.outputs:
        wanted = "".join(d if care >> (width - 1 - i) & 1 else "-" for i, d in enumerate(to_digits(expected, width)))
        out.append((to_digits(got, width), wanted))
    return out


def test_one_move_after_the_other_on_the_same_power_up() -> None:
    expectation = ready(open_spec("s.toml", SPEC.encode(), {}))
    assert texts(moved(expectation, LATCH, (".", "0", "10"))) == [("x", "1")]  # nothing was ever put in
    assert texts(moved(expectation, LATCH, (".", "1", "00"), (".", "0", "10"))) == [
        ("1", "1")
    ]  # what was there before stays
    assert texts(moved(expectation, LATCH, (".", "0", "00"), (".", "0", "10"))) == [("0", "1")]
    assert texts(moved(expectation, LATCH, (".", "0", "01"))) == [("x", "-")]  # not compared


def test_unknown_and_floating_inputs() -> None:
    expectation = ready(open_spec("s.toml", SPEC.encode(), {}))
    text = "module m(input a, input [1:0] b, output y); assign y = a | b[1]; endmodule"
    assert texts(moved(expectation, text, (".", "x", "10")))[0][0] == "1"
    assert texts(moved(expectation, text, (".", "z", "00")))[0][0] == "x"
    assert texts(moved(expectation, text, (".", "1", "xz"))) == [("1", "1")]


def test_pulses_on_a_counter_in_both_languages() -> None:
    expectation = ready(clocked(COUNTER))
    reset, count, hold = (".", "0", "1", "0"), ("c", "0", "0", "1"), ("c", "0", "0", "0")
    for text, name in ((VERILOG, "a.v"), (VHDL, "a.vhd")):
        assert texts(moved(expectation, text, reset, count, count, name=name), 2) == [("10", "10")]
        assert texts(moved(expectation, text, reset, count, hold, name=name), 2) == [("01", "01")]
    wrong = VERILOG.replace("posedge clk", "negedge clk")
    assert texts(moved(expectation, wrong, reset, count), 2) == [("00", "01")]


def test_inner_wires_are_there_too() -> None:
    expectation = ready(open_spec("s.toml", SPEC.encode(), {}))
    found = moved(
        expectation,
        "module m(input a, input [1:0] b, output y); wire t = a & b[0]; assign y = ~t; endmodule",
        (".", "1", "01"),
    )
    assert sorted(found.digits.values()) == ["0", "0", "1", "1", "1"]  # a, b[0], b[1], t, y


def test_what_ends_or_never_settles_says_so() -> None:
    expectation = ready(open_spec("s.toml", SPEC.encode(), {}))
    ring = (
        "module m(input a, input [1:0] b, output y); wire q; assign q = ~(q & a); assign y = q; reg r; always @* r = ~r"
        " & a; endmodule"
    )
    assert "does not settle" in moved(expectation, ring, (".", "0", "00"), (".", "1", "00")).trouble
    unread = drive_by_hand(
        expectation, [HandinFile("a.v", b"module m(")], (), {}, [Move((from_digits("0"), from_digits("00")))], {}
    )
    assert unread is None
