"""Ranges of arrays in arrays and records (1076-2008 5.3.2.1, 5.3.3): each array gets its own, however deep it stands,
and what takes none is told."""

from __future__ import annotations

import pytest

from tests.core.designs import messages
from tests.core.test_vhdl_runs import bench, run

LIST = "type list is array (natural range <>) of integer;\n"
WORDS = "type words is array (natural range <>) of bit_vector;\n"
CUBE = WORDS + "type cube is array (natural range <>) of words;\n"
RECORD = (
    WORDS
    + "type rec is record a : bit_vector; n : integer; end record;\n"
    + "type recs is array (natural range <>) of rec;\n"
    + "type big is record w : words; end record;\n"
)


def sizes(declarations: str, *of: str) -> list[str]:
    """The lengths of some things, as the run prints them."""
    shown = ' & " " & '.join(f"integer'image({one}'length)" for one in of)
    printed, outcome = run(("t.vhd", bench(f"report {shown}; wait;", declarations)))
    assert not [m for m in outcome.messages if m.severity == "error"], outcome.messages
    return printed[0].removeprefix("note: ").split()


@pytest.mark.parametrize(
    ("declarations", "of", "expected"),
    [
        (LIST + "signal s : list(2 to 4) := (7, 8, 9);", ["s"], ["3"]),
        (WORDS + "signal s : words(2 to 4)(7 downto 0);", ["s", "s(2)"], ["3", "8"]),
        (CUBE + "signal s : cube(0 to 1)(0 to 2)(3 downto 0);", ["s", "s(0)", "s(1)(2)"], ["2", "3", "4"]),
        (RECORD + "signal s : rec(a(4 downto 0));", ["s.a"], ["5"]),
        (RECORD + "signal s : recs(0 to 1)(a(4 downto 0));", ["s", "s(1).a"], ["2", "5"]),
        (RECORD + "signal s : big(w(0 to 1)(4 downto 0));", ["s.w", "s.w(1)"], ["2", "5"]),
        (
            # one subtype's elements are not another's, and stay when the array gets its range later
            WORDS
            + "subtype w8 is words(open)(7 downto 0);\nsubtype w4 is words(open)(3 downto 0);\n"
            + "signal s : w8(0 to 1);\nsignal u : w4(0 to 2);",
            ["s", "s(0)", "u", "u(2)"],
            ["2", "8", "3", "4"],
        ),
    ],
)
def test_every_array_has_its_own_range(declarations: str, of: list[str], expected: list[str]) -> None:
    assert sizes(declarations, *of) == expected


@pytest.mark.parametrize(
    ("declarations", "column", "text"),
    [
        (LIST + "signal s : list(2 to 4)(7, 8, 9);", 12, "elements are of type integer"),
        (LIST + "signal s : list(2 to 4)(7 downto 0);", 12, "elements are of type integer"),
        (WORDS + "signal s : words(2 to 4)(7 downto 0)(1 to 2);", 12, "elements are of type bit"),
        (RECORD + "signal s : recs(0 to 1)(a(4 downto 0))(1 to 2);", 12, "elements are of type rec"),
        (RECORD + "signal s : rec(n(4 downto 0));", 16, "field `n` is no array"),
        (RECORD + "signal s : rec(b(4 downto 0));", 12, "a field of rec with its range"),
        (RECORD + "signal s : rec(4 downto 0);", 12, "a field of rec with its range"),
        (CUBE + "signal s : cube(0 to 1)(0 to 2);", 12, "need their range here"),
    ],
)
def test_what_takes_no_range_is_told(declarations: str, column: int, text: str) -> None:
    line = declarations.count("\n") + 3
    said = [m for m in messages(bench("wait;", declarations), "t", "t.vhd", texts=True) if " error " in m]
    assert len(said) == 1 and said[0].startswith(f"{line}:{column} error ") and text in said[0], said
