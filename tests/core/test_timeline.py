"""The timeline: what is an event, and the order of things in and between moments (IEEE 1364-2005 clauses 9.7, 11)."""

from __future__ import annotations

import pytest

from obento.core import values as v
from obento.core.handin import HandinFile
from obento.core.limits import Limits
from obento.core.sim.timeline.events import FALL, PART, RISE, WHOLE, is_event
from obento.core.simulate import Options, simulate
from tests.core.designs import build, on_timeline

# Table 9-1: rows are the value before, columns after, each 0 1 x z; p a posedge, n a negedge, - neither.
EDGES = {"0": "-ppp", "1": "n-nn", "x": "np--", "z": "np--"}


@pytest.mark.parametrize("old", "01xz")
def test_edges_by_their_table(old: str) -> None:
    for new, what in zip("01xz", EDGES[old], strict=True):
        a, b = v.from_digits(old), v.from_digits(new)
        assert (is_event(RISE, a, b, 0, 1), is_event(FALL, a, b, 0, 1)) == (what == "p", what == "n"), (old, new)


def test_an_edge_is_one_of_its_own_digit() -> None:
    a, b = v.from_digits("0101"), v.from_digits("0011")
    assert [is_event(RISE, a, b, i, 1) for i in range(4)] == [False, True, False, False]
    assert [is_event(FALL, a, b, i, 1) for i in range(4)] == [False, False, True, False]


def test_a_part_hears_only_of_itself() -> None:
    a, b = v.from_digits("0000"), v.from_digits("0x00")
    assert [is_event(PART, a, b, low, 2) for low in range(3)] == [False, True, True]
    assert is_event(WHOLE, a, b, 0, 4)


def printed(body: str) -> list[str]:
    out: list[str] = []
    simulate([HandinFile("a.v", f"module m; {body} endmodule".encode())], out.append, Options(), Limits())
    return "".join(out).splitlines()


@pytest.mark.parametrize(
    ("body", "lines"),
    [
        # 11.3: active events, then inactive ones (#0), then non-blocking updates, then $strobe
        (
            'reg a; initial begin a = 0; a <= 1; $strobe("s%b", a); $display("d%b", a); #0 $display("z%b", a); end',
            ["d0", "z0", "s1"],
        ),
        # 9.2.2: all right sides before all left sides
        ('reg a, b; initial begin a = 0; b = 1; a <= b; b <= a; #1 $display("%b%b", a, b); end', ["10"]),
        # 9.2.2: the last of several assignments to one place wins
        ('reg a; initial begin a <= 0; a <= 1; #1 $display("%b", a); end', ["1"]),
        # 6.1.3: a pulse shorter than the delay does not come through
        (
            'reg a; wire y; assign #3 y = a; initial begin a = 0; #5 a = 1; #2 a = 0; #5 $display("%b", y); end',
            ["0"],
        ),
        # 9.7.2: an event that came before nobody waited is lost
        ('event e; initial begin -> e; #1 $display("on"); end initial begin #0 @(e) $display("heard"); end', ["on"]),
        # 9.7.6: a level is looked at, not waited for
        ('reg a; initial a = 1; initial begin #1 wait (a) $display("%0d", $time); end', ["1"]),
        # 9.7.7: a value taken now, given later
        ('reg a, b; initial begin a = 1; b = #2 a; $display("%b%0d", b, $time); end initial #1 a = 0;', ["12"]),
    ],
)
def test_the_order_of_things(body: str, lines: list[str]) -> None:
    assert printed(body) == lines


def test_what_never_settles_is_told() -> None:
    design = build("module m(input a, output y); assign y = (a === 1'b1) & (y !== 1'b1); endmodule")
    assert on_timeline(design, [{"a": v.word(0, 1)}]) == ["0"]
    assert on_timeline(design, [{"a": v.word(1, 1)}]) is None


def test_a_sequence_goes_on_from_where_it_was() -> None:
    latch = build("module m(input e, d, output reg q); always @* if (e) q = d; endmodule")
    steps = [{"e": v.word(e, 1), "d": v.word(d, 1)} for e, d in ((1, 1), (0, 0), (0, 1), (1, 0))]
    assert [on_timeline(latch, steps[: n + 1]) for n in range(4)] == [["1"], ["1"], ["1"], ["0"]]
