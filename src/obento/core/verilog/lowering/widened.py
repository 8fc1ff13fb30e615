"""Values that are made wider."""

from __future__ import annotations

from obento.core import values
from obento.core.ir import nodes as ir


def widened(e: ir.Expr, width: int, signed: bool) -> ir.Expr:
    """A value of at least `width` digits: with zeros on the left, or with its sign."""
    if e.width >= width:
        return e
    if isinstance(e, ir.Const):
        return ir.Const(width, *values.extend((e.one, e.zero), e.width, width, signed))
    return ir.Extend(width, e, signed)
