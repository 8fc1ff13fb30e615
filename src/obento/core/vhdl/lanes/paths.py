"""Ways to a part of an object, as names."""

from __future__ import annotations

from math import prod
from typing import Any

from obento.core.values import ones
from obento.core.vhdl.lanes.values import NoLanes, bits_of, sizes_of
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Object
from obento.core.vhdl.model.types import ArrayType, RecordType, Subtype
from obento.core.vhdl.packages.standard import INTEGER, int_range


def by_path(o: Object, path: tuple[Any, ...]) -> t.Expr:
    """A part of an object as an expression."""
    x: t.Expr = t.Read(o.subtype.type, o.pos, o, sub=o.subtype)
    for step in path:
        if step[0] == "f":
            assert isinstance(x.type, RecordType)
            field = (x.sub or Subtype(x.type)).fields[step[1]][1]
            x = t.Field(field.type, o.pos, x, step[1], sub=field)
        elif step[0] == "i":
            assert isinstance(x.type, ArrayType)
            element = x.type.element
            x = t.Index(element.type, o.pos, x, [t.Const(INTEGER, o.pos, step[1])], sub=element)
        else:
            r = int_range(INTEGER, step[1], step[2], step[3] < 0)
            x = t.Slice(x.type, o.pos, x, r, sub=Subtype(x.type, [r]))
    return x


def digits_at(s: Subtype, path: tuple[Any, ...]) -> int:
    """The digits of a value that a path leads to, one bit each.

    Raises
    ------
    NoLanes
        If where it leads is only known in the run.
    """
    low, width, dimension = 0, bits_of(s), 0
    for step in path:
        if step[0] == "f":
            assert isinstance(s.type, RecordType)
            fields = [f for _, f in s.fields]
            low += sum(bits_of(f) for f in fields[step[1] + 1 :])
            s, dimension = fields[step[1]], 0
            width = bits_of(s)
            continue
        assert isinstance(s.type, ArrayType)
        known = s.ranges[dimension].known() if s.ranges else None
        if known is None:
            raise NoLanes("an array whose size is only known in the run")
        each = prod(sizes_of(s)[dimension + 1 :]) * bits_of(s.element_subtype)
        if step[0] == "i":
            low += abs(known[1] - step[1]) * each
            width, dimension = each, dimension + 1
            if dimension == len(s.type.indices):
                s, dimension = s.element_subtype, 0
        else:
            low += abs(known[1] - step[2]) * each
            width = (abs(step[1] - step[2]) + 1) * each
            s = Subtype(s.type, [int_range(INTEGER, step[1], step[2], step[3] < 0)], None, s.element)
    return ones(width) << low
