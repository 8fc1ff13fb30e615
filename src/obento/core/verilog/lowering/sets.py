"""`==?`, and `inside` with its values and ranges (IEEE 1800-2017 clauses 11.4.6 and 11.4.13)."""

from __future__ import annotations

from obento.core import values
from obento.core.ir import nodes as ir
from obento.core.verilog.lowering.lowered import Expressions
from obento.core.verilog.lowering.widened import widened
from obento.core.verilog.syntax import ast


def wildcard_equal(a: ir.Expr, b: ir.Expr) -> ir.Expr:
    """`a ==? b`: digits of `b` that are x or z match anything; unknown digits of `a` elsewhere make it unknown."""
    width = b.width
    if isinstance(b, ir.Const):
        known = b.one ^ b.zero
        one = b.one & known
        mask = ir.Const(width, known, known ^ values.ones(width))
        wanted: ir.Expr = ir.Const(width, one, one ^ values.ones(width))
        return ir.Binary(1, "eq", ir.Binary(width, "and", a, mask), wanted)
    digits = [ir.Slice(1, b, i) for i in reversed(range(width))]
    is_known: list[ir.Expr] = [
        ir.Binary(
            1,
            "or",
            ir.Binary(1, "ceq", d, ir.Const(1, 1, 0)),
            ir.Binary(1, "ceq", d, ir.Const(1, 0, 1)),
        )
        for d in digits
    ]
    mask_of_known = ir.Concat(width, is_known) if width > 1 else is_known[0]
    return ir.Binary(
        1,
        "eq",
        ir.Binary(width, "and", a, mask_of_known),
        ir.Binary(width, "and", ir.two_state(b), mask_of_known),
    )


def is_inside(x: Expressions, e: ast.Inside) -> ir.Expr:
    """`value inside {...}`: 1 where one of the values or ranges has it."""
    return among(x, e.value, e.among)


def among(x: Expressions, value: ast.Expr, wanted: list[ast.Expr | ast.Range]) -> ir.Expr:
    """Whether a value is one of several, or lies in a range of them."""
    found: ir.Expr | None = None
    for item in wanted:
        for one in _tests(x, value, item):
            found = one if found is None else ir.Binary(1, "or", found, one)
    assert found is not None
    return found


def _tests(x: Expressions, value: ast.Expr, item: ast.Expr | ast.Range) -> list[ir.Expr]:
    (width, signed) = x.size(value)
    if isinstance(item, ast.Range):
        above = None if isinstance(item.left, ast.Last) else _at_least(x, value, item.left)
        below = None if isinstance(item.right, ast.Last) else _at_least(x, item.right, value)
        if above is None or below is None:
            return [above or below or ir.Const(1, 1, 0)]
        return [ir.Binary(1, "and", above, below)]
    shape = x.shape_of(item)
    if shape is not None and shape.dims:
        elements = x.digits(item)
        most = max(width, shape.type.width)
        a = x.lower(value, most, signed and shape.type.signed)
        return [
            wildcard_equal(a, widened(ir.Slice(shape.type.width, elements, low), most, signed and shape.type.signed))
            for low in range(0, shape.width, shape.type.width)
        ]
    own, sign = x.size(item)
    most, both = max(width, own), signed and sign
    return [wildcard_equal(x.lower(value, most, both), x.lower(item, most, both))]


def _at_least(x: Expressions, a: ast.Expr, b: ast.Expr) -> ir.Expr:
    """Whether `a >= b`."""
    (wa, sa), (wb, sb) = x.size(a), x.size(b)
    width, signed = max(wa, wb), sa and sb
    return ir.Binary(1, "sle" if signed else "le", x.lower(b, width, signed), x.lower(a, width, signed))
