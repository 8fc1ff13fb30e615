"""Ways to a part of an object, as names."""

from __future__ import annotations

from typing import Any

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
            field = x.type.fields[step[1]][1]
            x = t.Field(field.type, o.pos, x, step[1], sub=field)
        elif step[0] == "i":
            assert isinstance(x.type, ArrayType)
            element = x.type.element
            x = t.Index(element.type, o.pos, x, [t.Const(INTEGER, o.pos, step[1])], sub=element)
        else:
            r = int_range(INTEGER, step[1], step[2], step[3] < 0)
            x = t.Slice(x.type, o.pos, x, r, sub=Subtype(x.type, [r]))
    return x
