"""What stands inside a typed expression."""

from __future__ import annotations

from obento.core.exhaustive import no_rule
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.types import RangeX


def calls_in(x: t.Expr) -> list[t.Call]:
    """Every call inside an expression."""
    found: list[t.Call] = []
    for y in parts_of(x):
        if isinstance(y, t.Call):
            found.append(y)
    return found


def parts_of(x: t.Expr) -> list[t.Expr]:
    """An expression and all expressions inside it."""
    out: list[t.Expr] = [x]
    stack: list[t.Expr] = [x]
    while stack:
        for inner in children(stack.pop()):
            out.append(inner)
            stack.append(inner)
    return out


def children(x: t.Expr) -> list[t.Expr]:
    """The expressions right inside of one."""
    match x:
        case t.Index():
            return [x.prefix, *x.indices]
        case t.Slice():
            return [x.prefix, *_range_parts(x.range)]
        case t.Field() | t.Deref() | t.ArrayAttr():
            return [x.prefix]
        case t.AliasOf():
            turned = [] if isinstance(x.turned, bool) else [x.turned]
            return [x.prefix, *_range_parts(x.own), *_range_parts(x.new), *turned]
        case t.Call():
            return [*x.args, *([x.receiver] if x.receiver is not None else [])]
        case t.Op():
            return list(x.args)
        case t.ArrayAgg():
            inner = [v for _, v, _ in x.items]
            for place, _, _ in x.items:
                inner += _range_parts(place) if isinstance(place, RangeX) else [place] if place is not None else []
            return inner + ([x.others] if x.others is not None else [])
        case t.RecordAgg():
            return list(x.values)
        case t.Convert() | t.Qual() | t.ScalarAttr():
            return [x.arg]
        case t.SignalAttr():
            return [x.target, *([x.arg] if x.arg is not None else [])]
        case t.New():
            return [x.value] if x.value is not None else []
        case t.Const() | t.Read() | t.Open() | t.Now():
            return []
    raise no_rule(x)


def _range_parts(r: RangeX) -> list[t.Expr]:
    return [r.left, r.right, *([] if isinstance(r.down, bool) else [r.down])]
