"""Array aggregates on digits (1076-2008 clause 9.3.3.3)."""

from __future__ import annotations

from typing import Protocol

from obento.core.ir import nodes as ir
from obento.core.vhdl.lanes.values import Digits, NoLanes, bits_of, exact, joined, number, number_width, same, widened
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.types import ArrayType, RangeX, Subtype
from obento.core.vhdl.model.values import Arr
from obento.core.vhdl.packages.standard import INTEGER, int_range
from obento.core.vhdl.runtime import operations as ops


class Writer(Protocol):
    """Who lowers the values inside of an aggregate."""

    def value(self, x: t.Expr) -> Digits:
        """The digits, or the constant, that an expression gives."""
        ...

    def fitted(self, v: Digits, s: Subtype) -> Digits:
        """A value for an object of a subtype."""
        ...

    def range(self, r: RangeX) -> tuple[int, int, bool]:
        """Bounds that must be known here."""
        ...

    def inside(self, v: Digits, low: int, high: int) -> None:
        """Lanes in which a number leaves its range end in an error."""
        ...

    def constant(self, value: Arr, sub: Subtype) -> Digits:
        """A constant as digits."""
        ...


def array(x: t.ArrayAgg, w: Writer) -> Digits:
    """An array, or rows of several dimensions.

    Raises
    ------
    NoLanes
    """
    assert isinstance(x.type, ArrayType)
    if x.ranges is None:
        return _side_by_side(x, x.type, w)
    left, right, down = w.range(x.ranges[0])
    step = -1 if down else 1
    size = max(0, (right - left) * step + 1)
    digits: list[ir.Expr | None] = [None] * size
    at = 0
    for place, v, is_slice in x.items:
        row = _elements(w.value(v)) if is_slice else [_part(v, x.type, w)]
        if place is None:
            places = [left + (at + i) * step for i in range(len(row))]
            at += len(row)
        elif isinstance(place, RangeX):
            places = list(ops.rounds(*w.range(place)))
            row = row if is_slice else row * len(places)
        else:
            known = w.value(place)
            if not known.known:
                return _one_of(x, known, row[0], (left, right, down), w)
            places = [known.value]
        if len(places) != len(row) or not all(0 <= (i - left) * step < size for i in places):
            raise NoLanes("an aggregate whose places are not those of its array")
        for index, one in zip(places, row, strict=True):
            digits[(index - left) * step] = one
    rest = _part(x.others, x.type, w) if x.others is not None else None
    filled = [d if d is not None else rest for d in digits]
    ranges = [int_range(INTEGER, left, right, down), *_inner_ranges(x, w)]
    if not filled:
        return w.constant(Arr(left, step, ()), Subtype(x.type, ranges))
    if any(d is None for d in filled):
        raise NoLanes("an aggregate with gaps")
    return Digits(Subtype(x.type, ranges), e=joined([d for d in filled if d is not None]))


def _side_by_side(x: t.ArrayAgg, of: ArrayType, w: Writer) -> Digits:
    """An array of which only its parts are known."""
    if len(of.indices) > 1:
        raise NoLanes("arrays of several dimensions whose sizes are only known in the run")
    e = joined([w.value(v).digits if is_slice else _part(v, of, w) for _, v, is_slice in x.items])
    return Digits(Subtype(of, [int_range(INTEGER, 0, e.width // max(1, bits_of(of.element)) - 1)]), e=e)


def _part(x: t.Expr, of: ArrayType, w: Writer) -> ir.Expr:
    """An element, or a row where there are several dimensions."""
    return w.value(x).digits if len(of.indices) > 1 else exact(w.fitted(w.value(x), of.element), of.element)


def _inner_ranges(x: t.ArrayAgg, w: Writer) -> list[RangeX]:
    """The ranges of all dimensions but the first: those of the rows."""
    assert isinstance(x.type, ArrayType) and x.ranges is not None
    if len(x.type.indices) == 1 or len(x.ranges) > 1:
        return x.ranges[1:]
    first = x.items[0][1] if x.items else x.others
    row = w.value(first) if first is not None else None
    if row is None or row.sub.ranges is None:
        raise NoLanes("arrays of several dimensions whose sizes are only known in the run")
    return row.sub.ranges


def _one_of(x: t.ArrayAgg, at: Digits, value: ir.Expr, bounds: tuple[int, int, bool], w: Writer) -> Digits:
    """`(n => value, others => rest)`, where n changes."""
    assert isinstance(x.type, ArrayType)
    if len(x.items) > 1 or x.others is None or len(x.type.indices) > 1:
        raise NoLanes("an aggregate by an index that changes")
    left, right, down = bounds
    w.inside(at, min(left, right), max(left, right))
    rest = _part(x.others, x.type, w)
    width = number_width(min(at.bounds[0], left, right, -1), max(at.bounds[1], left, right))
    here = widened(at, width)
    parts: list[ir.Expr] = [ir.Mux(value.width, same(here, number(n, width)), value, rest) for n in ops.rounds(*bounds)]
    return Digits(Subtype(x.type, [int_range(INTEGER, left, right, down)]), e=joined(parts))


def _elements(v: Digits) -> list[ir.Expr]:
    """The digits of each element of an array, leftmost first."""
    width = bits_of(v.sub.element_subtype)
    e = v.digits
    return [ir.Slice(width, e, low) for low in range(e.width - width, -1, -width)] if width else []
