"""Slices whose bounds change: the numbers that a statement is written out for, one after the other."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from obento.core.vhdl.analysis.reads import named_by
from obento.core.vhdl.analysis.subexpressions import parts_of
from obento.core.vhdl.lanes.values import Digits, NoLanes
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.types import ArrayType, IntType

_MOST_VALUES = 256
"""Of all numbers of a statement together."""
_MOST_ALONE = 64
"""Of one number, all of them; of a greater one those that an index can have."""


@dataclass(frozen=True, slots=True)
class Varying:
    """A number in the bounds of a slice: an object or a call, its digits, and the values for which the statement is
    written out; lanes in which it has another are run step by step."""

    x: t.Expr
    digits: Digits
    values: range


def varying(s: t.Stmt, value: Callable[[t.Expr], Digits]) -> list[Varying]:
    """The numbers that the slices of one statement, without those inside of it, depend on.

    Raises
    ------
    NoLanes
        If they have too many values.
    """
    if isinstance(s, t.Loop) and s.condition is not None:
        return []  # its numbers may be others in each round
    slices = [y for x in named_by(s) for y in parts_of(x) if isinstance(y, t.Slice) and not _is_fixed(y)]
    bounds = [b for y in slices for b in (y.range.left, y.range.right)]
    leaves: dict[object, tuple[t.Expr, Digits]] = {}
    for x in (leaf for b in bounds for leaf in _leaves(b)):
        v = value(x)
        if not v.known:
            leaves.setdefault(x.object if isinstance(x, t.Read) else id(x), (x, v))
    if not leaves:
        return []
    last = max((_last(value(y.prefix)) for y in slices), default=0)
    found, count = [], 1
    for x, v in leaves.values():
        low, high = v.bounds
        is_few = high - low < _MOST_ALONE
        values = range(low, high + 1) if is_few else range(max(low, -1), min(high, last + 1) + 1)
        count *= max(1, len(values))
        if count > _MOST_VALUES:
            raise NoLanes("a range that is only known in the run")
        found.append(Varying(x, v, values))
    return found


def _is_fixed(x: t.Slice) -> bool:
    return x.range.known() is not None


def _leaves(x: t.Expr) -> list[t.Expr]:
    """The objects and calls that a number is made of."""
    if isinstance(x, t.Op | t.Convert | t.Qual) and isinstance(x.type, IntType):
        args = x.args if isinstance(x, t.Op) else [x.arg]
        return [leaf for a in args for leaf in _leaves(a)]
    return [] if isinstance(x, t.Const) else [x]


def _last(v: Digits) -> int:
    """The greatest index of an array."""
    if not isinstance(v.sub.type, ArrayType) or not v.sub.ranges:
        return 0
    known = v.sub.ranges[0].known()
    return max(known[:2]) if known is not None else 0
