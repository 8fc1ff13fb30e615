"""Several drivers on one wire (IEEE 1364-2005 clauses 7.9 to 7.12)."""

from __future__ import annotations

import itertools

import pytest

from obento.core import values
from obento.core.ir.strength import combine, resolve

SUPPLY, STRONG, PULL, WEAK, HIGHZ = 7, 6, 5, 3, 0


@pytest.mark.parametrize(
    ("a", "b", "together"),
    [
        # 7.10.1: of two unambiguous signals the stronger wins
        ((STRONG, STRONG), (-PULL, -PULL), (STRONG, STRONG)),
        ((-SUPPLY, -SUPPLY), (STRONG, STRONG), (-SUPPLY, -SUPPLY)),
        # equal strengths and values stay; unlike values leave everything between them
        ((STRONG, STRONG), (STRONG, STRONG), (STRONG, STRONG)),
        ((STRONG, STRONG), (-STRONG, -STRONG), (-STRONG, STRONG)),
        ((WEAK, WEAK), (-WEAK, -WEAK), (-WEAK, WEAK)),
        # 7.10.2: an ambiguous signal loses what is weaker than the other
        ((-STRONG, STRONG), (-PULL, -PULL), (-STRONG, STRONG)),
        ((-WEAK, STRONG), (-PULL, -PULL), (-PULL, STRONG)),
        ((0, STRONG), (-PULL, -PULL), (-PULL, STRONG)),
        # high impedance gives way to all
        ((HIGHZ, HIGHZ), (-WEAK, -WEAK), (-WEAK, -WEAK)),
        ((HIGHZ, HIGHZ), (HIGHZ, HIGHZ), (HIGHZ, HIGHZ)),
    ],
)
def test_two_signals_meet(a: tuple[int, int], b: tuple[int, int], together: tuple[int, int]) -> None:
    assert combine(a, b) == together
    assert combine(b, a) == together


def test_a_stretch_is_what_its_levels_can_come_to() -> None:
    """7.10.2 for ambiguous signals: every level of one meets every level of the other."""
    ends = [-7, -6, -5, -3, 0, 3, 5, 6, 7]
    stretches = [(low, high) for low in ends for high in ends if low <= high]

    def meet(x: int, y: int) -> tuple[int, int]:
        if abs(x) == abs(y):
            return min(x, y), max(x, y)
        return (x, x) if abs(x) > abs(y) else (y, y)

    for a, b in itertools.product(stretches, stretches):
        levels = [level for x in range(a[0], a[1] + 1) for y in range(b[0], b[1] + 1) for level in meet(x, y)]
        assert combine(a, b) == (min(levels), max(levels)), (a, b)


def resolved(net: str, *drivers: str, strengths: list[tuple[int, int]] | None = None) -> str:
    words = [values.from_digits(d) for d in drivers]
    pairs = strengths or [(STRONG, STRONG)] * len(drivers)
    return values.to_digits(resolve(net, words, [None] * len(drivers), pairs, len(drivers[0])), len(drivers[0]))


# Tables 7-2 to 7-4: the rows and columns are 0 1 x z.
TABLES = {
    "wire": "0xx0 x1x1 xxxx 01xz",
    "wand": "0000 01x1 0xxx 01xz",
    "triand": "0000 01x1 0xxx 01xz",
    "wor": "01x0 1111 x1xx 01xz",
    "trior": "01x0 1111 x1xx 01xz",
    "tri0": "0xx0 x1x1 xxxx 01x0",
    "tri1": "0xx0 x1x1 xxxx 01x1",
}


@pytest.mark.parametrize(("net", "table"), TABLES.items())
def test_each_kind_of_net_by_its_table(net: str, table: str) -> None:
    for a, row in zip("01xz", table.split(), strict=True):
        for b, wanted in zip("01xz", row, strict=True):
            assert resolved(net, a, b) == wanted, (net, a, b)


def test_bits_are_resolved_one_by_one() -> None:
    assert resolved("wire", "01xz01", "0011zz") == "0xx101"


def test_the_stronger_driver_wins_whatever_its_place() -> None:
    weak, strong = (WEAK, WEAK), (STRONG, STRONG)
    assert resolved("wire", "01", "10", strengths=[weak, strong]) == "10"
    assert resolved("wire", "01", "10", strengths=[strong, weak]) == "01"
    assert resolved("wire", "x1", "1z", strengths=[strong, weak]) == "x1"


def test_open_drain_pulls_down_and_lets_go() -> None:
    drain = (STRONG, HIGHZ)
    assert resolved("wire", "0", "1", strengths=[drain, drain]) == "0"
    assert resolved("wire", "1", "1", strengths=[drain, drain]) == "z"
    assert resolved("tri1", "1", "1", strengths=[drain, drain]) == "1"
    assert resolved("tri1", "0", "1", strengths=[drain, drain]) == "0"


def test_a_driver_that_may_let_go_is_its_value_or_nothing() -> None:
    """A tri-state buffer whose enable is unknown (7.3): H or L, which a weaker opposite turns into x."""
    open_one = ((1, 0), (1, 0))
    word = resolve("wire", [open_one[0]], [open_one[1]], [(STRONG, STRONG)], 1)
    assert values.to_digits(word, 1) == "x"
    held = resolve("wire", [(1, 0), (1, 0)], [(1, 0), None], [(STRONG, STRONG), (PULL, PULL)], 1)
    assert values.to_digits(held, 1) == "1"
    fought = resolve("wire", [(1, 0), (0, 1)], [(1, 0), None], [(STRONG, STRONG), (PULL, PULL)], 1)
    assert values.to_digits(fought, 1) == "x"
