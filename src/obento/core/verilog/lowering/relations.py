"""Comparisons: of numbers, of real numbers and strings, of whole arrays, structures and collections (IEEE 1364-2005
clauses 5.1.7 and 5.1.8, 1800-2017 clauses 7.6 and 11.4.5)."""

from __future__ import annotations

from obento.core.ir import nodes as ir
from obento.core.verilog.lowering.aggregates import same
from obento.core.verilog.lowering.comparisons import warn_if_settled
from obento.core.verilog.lowering.effects import both_or_either
from obento.core.verilog.lowering.lowered import Expressions
from obento.core.verilog.lowering.sets import wildcard_equal
from obento.core.verilog.model.types import Shape
from obento.core.verilog.syntax import ast

EQUALITIES = frozenset(["==", "!=", "===", "!=="])
"""What compares digit by digit."""
RELATIONS = EQUALITIES | frozenset(["<", "<=", ">", ">=", "==?", "!=?"])
"""Operators whose value is true or false."""


def compares_aggregates(x: Expressions, e: ast.Binary) -> bool:
    """Whether two whole arrays or structures are compared."""
    if isinstance(e.a, ast.Number) or isinstance(e.b, ast.Number):
        return False
    a, b = x.shape_of(e.a), x.shape_of(e.b)
    if _is_beside_collection(e.a, b) or _is_beside_collection(e.b, a):
        return True
    if a is None or b is None or not (a.is_aggregate or b.is_aggregate):
        return False
    if not a.fits(b):
        raise x.error("array-differs", "these are of different types (1800 clause 7.6)", e)
    return True


def _is_beside_collection(e: ast.Expr, other: Shape | None) -> bool:
    """Whether elements in braces are compared with a collection."""
    is_collection = other is not None and not other.dims and other.type.collected is not None
    return is_collection and isinstance(e, ast.Pattern | ast.Concat)


def relation(x: Expressions, e: ast.Binary) -> ir.Expr:
    """A comparison, or `&&` and `||`."""
    op = e.op
    if op in ("&&", "||"):
        return both_or_either(x, e)
    if x.reals.is_real(e.a) or x.reals.is_real(e.b):
        return x.reals.relation(op, e)
    if x.texts.is_text(e.a) or x.texts.is_text(e.b):
        return x.texts.relation(op, e)
    if op in EQUALITIES and compares_aggregates(x, e):
        return _aggregates_equal(x, e)
    warn_if_settled(x, e)
    (wa, sa), (wb, sb) = x.size(e.a), x.size(e.b)
    width, signed = max(wa, wb), sa and sb
    a, b = x.lower(e.a, width, signed), x.lower(e.b, width, signed)
    if op in ("==", "!="):
        return ir.Binary(1, "eq" if op == "==" else "ne", a, b)
    if op in ("==?", "!=?"):
        found = wildcard_equal(a, b)
        return found if op == "==?" else ir.Unary(1, "lnot", found)
    if op in ("===", "!=="):
        same = ir.Binary(1, "ceq", a, b)
        return same if op == "===" else ir.Unary(1, "lnot", same)
    if op in (">", ">="):
        a, b = b, a
    name = "lt" if op in "<>" else "le"
    return ir.Binary(1, "s" + name if signed else name, a, b)


def _aggregates_equal(x: Expressions, e: ast.Binary) -> ir.Expr:
    of_collections = x.collections.equal(e)
    if of_collections is not None:
        return of_collections
    a, b = x.shape_of(e.a), x.shape_of(e.b)
    assert a is not None and b is not None
    made = same(x.digits(e.a), a, x.digits(e.b), b, "ceq" if len(e.op) == 3 else "eq")
    return ir.Unary(1, "lnot", made) if e.op[0] == "!" else made
