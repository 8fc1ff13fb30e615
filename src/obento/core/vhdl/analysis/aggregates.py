"""Aggregates of arrays and records (IEEE 1076 clause 9.3.3)."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from obento.core.vhdl.analysis.context import Context
from obento.core.vhdl.analysis.names import Names
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.types import (
    ArrayType,
    RangeX,
    RecordType,
    Subtype,
    Type,
)
from obento.core.vhdl.model.values import Arr
from obento.core.vhdl.syntax import ast

_MANY = 4096
"""Places of one range of an aggregate that are looked at one by one."""


class Aggregates:
    """Puts values together whose type is known from outside."""

    def __init__(self, context: Context, names: Names) -> None:
        self.context = context
        self.names = names

    def aggregate(self, e: ast.Aggregate, wanted: Type, sub: Subtype | None) -> t.Expr:
        """An aggregate of the wanted type."""
        if isinstance(wanted, RecordType):
            return self._record(e, sub if sub is not None and sub.type is wanted else Subtype(wanted))
        if isinstance(wanted, ArrayType):
            return self._array(
                e,
                wanted,
                sub.ranges if sub is not None else None,
                sub.element_subtype if sub is not None else wanted.element,
            )
        raise self.context.wrong(
            "ambiguous", "the type of this aggregate is not clear here", e, "say it with type'(...)"
        )

    def _record(self, e: ast.Aggregate, sub: Subtype) -> t.Expr:
        wanted = sub.type
        assert isinstance(wanted, RecordType)
        values: list[t.Expr | None] = [None] * len(wanted.fields)
        for i, item in enumerate(e.items):
            places = [i] if not item.choices else []
            for choice in item.choices:
                if isinstance(choice, ast.Others):
                    places += [j for j, v in enumerate(values) if v is None]
                    continue
                number = wanted.number(choice.name) if isinstance(choice, ast.Id) else None
                if number is None:
                    raise self.context.wrong("no-field", f"this is no field of {wanted.shown}", choice)
                places.append(number)
            for place in places:
                if place >= len(values) or values[place] is not None:
                    raise self.context.wrong(
                        "aggregate", f"{wanted.shown} has {len(values)} fields, each given once", item
                    )
                field = sub.fields[place][1]
                values[place] = self.context.expressions.expr(item.value, field.type, field)
        missing = [n for (n, _), v in zip(wanted.fields, values, strict=True) if v is None]
        if missing:
            raise self.context.wrong("aggregate", f"the field `{missing[0]}` has no value here", e)
        given = [v for v in values if v is not None]
        return self.context.expressions.folded(t.RecordAgg(wanted, e.pos, given, sub=sub if sub.own_fields else None))

    def _array(self, e: ast.Aggregate, wanted: ArrayType, ranges: list[RangeX] | None, element: Subtype) -> t.Expr:
        items: list[tuple[RangeX | t.Expr | None, t.Expr, bool]] = []
        others: t.Expr | None = None
        for item in e.items:
            if any(isinstance(c, ast.Others) for c in item.choices):
                others = self._element_of(item.value, wanted, ranges, element)[0]
                continue
            places: list[RangeX | t.Expr | None] = []
            for choice in item.choices:
                index = wanted.indices[0].type
                places.append(
                    self.context.expressions.try_range(choice, index) or self.context.expressions.expr(choice, index)
                )
            for place in places or [None]:
                value, is_slice = self._element_of(item.value, wanted, ranges, element)
                if is_slice and isinstance(place, t.Expr):
                    raise self.context.wrong(
                        "aggregate",
                        "one place takes one element, and this is an array",
                        item.value,
                        "give the places as a range",
                    )
                items.append((place, value, is_slice))
        own = ranges[:1] if ranges is not None else None
        if own is None and others is not None:
            raise self.context.wrong(
                "others",
                "`others` needs to know how long the array is",
                e,
                "say the range: (7 downto 0 => '0'), or name the type with its range",
            )
        if own is None and items and items[0][0] is not None:
            own = [self._named_range(items, wanted, e)]
        self._no_place_twice(e, items)
        if own is not None:
            self._count_items(e, items, others, own[0])
        sub = Subtype(wanted, own) if own is not None and len(wanted.indices) == 1 else None
        return self.context.expressions.folded(t.ArrayAgg(wanted, e.pos, items, others, own, sub=sub))

    def _no_place_twice(self, e: ast.Aggregate, items: Sequence[tuple[Any, t.Expr, bool]]) -> None:
        """Each element is given once (9.3.3.3), as far as places are known."""
        seen: set[int] = set()
        for place, _, _ in items:
            bounds = place.bounds() if isinstance(place, RangeX) else None
            if isinstance(place, t.Const) and isinstance(place.value, int):
                bounds = place.value, place.value
            if bounds is None or bounds[1] - bounds[0] >= _MANY:
                continue
            places = set(range(bounds[0], bounds[1] + 1))
            if places & seen:
                raise self.context.wrong("aggregate", f"the place {min(places & seen)} is given twice", e)
            seen |= places

    def _count_items(
        self, e: ast.Aggregate, items: Sequence[tuple[Any, t.Expr, bool]], others: t.Expr | None, own: RangeX
    ) -> None:
        size = own.length()
        if size is None or any(place is not None or is_slice for place, _, is_slice in items):
            return
        if len(items) > size or (len(items) < size and others is None):
            hint = "(others => ...) fills the rest" if len(items) < size else ""
            raise self.context.wrong("width", f"{len(items)} values are given for {size} elements", e, hint)

    def _element_of(
        self, e: ast.Expr, wanted: ArrayType, ranges: list[RangeX] | None, element: Subtype
    ) -> tuple[t.Expr, bool]:
        """A value for an element, or (since -2008) for several in a row."""
        if len(wanted.indices) > 1:
            row = row_type(wanted)
            if isinstance(e, ast.Aggregate):
                return self._array(e, row, ranges[1:] if ranges else None, element), False
            found = self.context.expressions.expr(e, row, Subtype(row, ranges[1:] if ranges else None))
            return self._with_bounds(e, found, ranges[1] if ranges and len(row.indices) == 1 else None), False
        if self.names.fits(e, element.type) or not self.names.fits(e, wanted):
            return self.context.expressions.expr(e, element.type, element), False
        return self.context.expressions.expr(e, wanted), True

    def _with_bounds(self, e: ast.Expr, row: t.Expr, own: RangeX | None) -> t.Expr:
        """A row that is a string literal, with the bounds of the array around it (9.3.3.3)."""
        known = own.known() if own is not None else None
        if known is None or not isinstance(row, t.Const) or not isinstance(row.value, Arr):
            return row
        left, right, down = known
        size = max(0, (left - right if down else right - left) + 1)
        if len(row.value.v) != size:
            raise self.context.wrong("width", f"this has {len(row.value.v)} elements, but {size} are needed", e)
        return t.Const(row.type, row.pos, Arr(left, -1 if down else 1, row.value.v), sub=row.sub)

    def _named_range(
        self, items: Sequence[tuple[RangeX | t.Expr | None, t.Expr, bool]], wanted: ArrayType, e: ast.Node
    ) -> RangeX:
        if len(items) == 1 and isinstance(items[0][0], RangeX):
            return items[0][0]
        lows: list[Any] = []
        highs: list[Any] = []
        for place, _, _ in items:
            if isinstance(place, RangeX) and place.bounds() is not None:
                low, high = place.bounds()  # type: ignore[misc]
                lows.append(low)
                highs.append(high)
            elif isinstance(place, t.Const):
                lows.append(place.value)
                highs.append(place.value)
        if not lows:
            raise self.context.wrong("aggregate", "the range of this aggregate is not known", e)
        index = wanted.indices[0].type
        return RangeX(t.Const(index, e.pos, min(lows)), t.Const(index, e.pos, max(highs)), False)

    # Ranges and conditions.


_ROWS: dict[int, tuple[ArrayType, ArrayType]] = {}


def row_type(array: ArrayType) -> ArrayType:
    """The type of one row of an array of several dimensions."""
    found = _ROWS.get(id(array))
    if found is None or found[0] is not array:
        if len(_ROWS) > 1000:
            _ROWS.clear()
        found = _ROWS[id(array)] = array, ArrayType(f"a row of {array.name}", array.indices[1:], array.element)
    return found[1]
