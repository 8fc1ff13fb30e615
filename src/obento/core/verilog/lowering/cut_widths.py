"""Values that lose their upper digits when they are assigned, where that was hardly meant."""

from __future__ import annotations

from obento.core.verilog.lowering.expressions import ExpressionLowering
from obento.core.verilog.model.scope import Parameter, Vector
from obento.core.verilog.syntax import ast

_WHOLE_NUMBERS = frozenset(["integer", "int", "time", "longint"])
_COMPARE = frozenset(["<", "<=", ">", ">=", "==", "!=", "===", "!==", "&&", "||"])


def warn_if_cut(x: ExpressionLowering, value: ast.Expr, width: int, start: int) -> None:
    """Warn when a value is naturally wider than what it is assigned to."""
    own = _width(x, value)
    if own > width:
        x.collector.warning(
            "width-cut",
            f"{own} bits are cut to {width}: the upper {'one is' if own - width == 1 else f'{own - width} are'} lost",
            start,
            value.end,
        )


def _width(x: ExpressionLowering, e: ast.Expr) -> int:
    """The width that a value has by its named parts; numbers without a width, and what counts in whole numbers, fit
    anywhere."""
    if x.texts.is_text(e):
        return 0
    match e:
        case ast.Name() | ast.Dotted():
            entry = x.find(e)
            if isinstance(entry, Parameter) or (
                isinstance(entry, Vector) and (entry.kind in _WHOLE_NUMBERS or entry.is_real or entry.dims)
            ):
                return 0
            shape = x.shape_of(e) if isinstance(entry, Vector) else None
            return shape.width if shape is not None and not shape.is_aggregate else 0
        case ast.Number():
            return 0 if e.width is None else e.width
        case ast.Binary() if e.op in _COMPARE:
            return 1
        case ast.Binary() if e.op in (">>", ">>>", "/", "%"):
            fixed = e.op in (">>", ">>>") and isinstance(e.b, ast.Number)
            return max(0, _width(x, e.a) - e.b.one) if fixed else 0  # type: ignore[attr-defined]
        case ast.Binary() if e.op in ("<<", "<<<", "**"):
            return _width(x, e.a)
        case ast.Binary() if e.op == "&":
            a, b = _width(x, e.a), _width(x, e.b)
            return min(a, b) if a and b else 0  # a mask makes it narrow
        case ast.Binary():
            return max(_width(x, e.a), _width(x, e.b))
        case ast.Unary():
            return _width(x, e.a) if e.op in "+-~" else 1
        case ast.Conditional():
            return max(_width(x, e.a), _width(x, e.b))
        case ast.Index() | ast.Part() | ast.Member():
            shape = x.shape_of(e)
            return 0 if shape is None or shape.is_aggregate or shape.type.is_real or shape.type.is_text else shape.width
        case ast.Concat() | ast.Repeat():
            return x.size(e)[0]
    return 0
