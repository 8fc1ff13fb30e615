"""Real numbers in expressions (IEEE 1364-2005 clauses 3.9, 4.8 and 5.1.1)."""

from __future__ import annotations

from fractions import Fraction

from obento.core.ir import nodes as ir
from obento.core.verilog.lowering.lowered import Expressions
from obento.core.verilog.model.scope import FunctionEntry, Parameter, Vector
from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.builtin_types import REAL_FUNCTIONS

_OPERATORS = {"+": "add", "-": "sub", "*": "mul", "/": "div", "**": "pow"}


class RealLowering:
    """The expressions whose value is a real number: any arithmetic one with a real operand."""

    def __init__(self, x: Expressions) -> None:
        self._x = x
        self._any = x.scope.reals
        self._known: dict[int, bool] = {}

    def is_real(self, e: ast.Expr) -> bool:
        """Whether the value of an expression is a real number (4.8, 5.1.1)."""
        kind = type(e)
        if not self._any or kind is ast.Number or kind is ast.Concat:
            return False
        known = self._known.get(id(e))
        if known is None:
            known = self._known[id(e)] = self._is_real(e)
            self._x.alive.append(e)
        return known

    def _is_real(self, e: ast.Expr) -> bool:
        match e:
            case ast.Real():
                return True
            case ast.Name() | ast.Dotted():
                found = self._x.find(e)
                if isinstance(found, Vector) and not found.type.keeps_others:
                    return found.is_real and not found.dims
                if isinstance(found, Parameter) and found.number is not None:
                    return True
                return (
                    isinstance(e, ast.Dotted) and self._x.selects.is_kept(e) and self._x.selects.shape(e).type.is_real
                )
            case ast.Index() | ast.Member():
                shape = self._x.shape_of(e)
                return shape is not None and shape.type.is_real and not shape.dims
            case ast.TimeLiteral():
                return self.whole_units(e) is None
            case ast.Unary():
                return e.op in "+-" and self.is_real(e.a)
            case ast.Binary():
                return e.op in _OPERATORS and (self.is_real(e.a) or self.is_real(e.b))
            case ast.Conditional():
                return self.is_real(e.a) or self.is_real(e.b)
            case ast.Cast():
                return e.to in ("real", "realtime")
            case ast.Call():
                if e.name.startswith("$"):
                    return e.name in REAL_FUNCTIONS
                found = self._x.find_callable(e)
                return isinstance(found, FunctionEntry) and found.item.type.word in ("real", "realtime")
        return False

    def lower(self, e: ast.Expr) -> ir.Expr:
        """`e` as a real number, converted where it is none of itself."""
        x = self._x
        if not self.is_real(e):
            lowered = x.self_determined(e)
            return ir.ToReal(64, lowered, x.size(e)[1])
        match e:
            case ast.Real():
                return ir.RealConst(64, float(e.text.replace("_", "")))
            case ast.Name() | ast.Dotted():
                if isinstance(e, ast.Dotted) and x.selects.is_kept(e):
                    return x.select(e)
                entry = x.entry(e)
                if isinstance(entry, Parameter):
                    return ir.RealConst(64, entry.number or 0.0)
                return ir.Ref(64, entry.signal)
            case ast.Unary():
                a = self.lower(e.a)
                return a if e.op == "+" else ir.RealOp(64, "neg", [a])
            case ast.Binary():
                return ir.RealOp(64, _OPERATORS[e.op], [self.lower(e.a), self.lower(e.b)])
            case ast.Conditional():
                return ir.RealMux(64, x.truth(e.cond), self.lower(e.a), self.lower(e.b))
            case ast.Cast():
                return self.lower(e.value)
            case ast.Call() if e.name.startswith("$"):
                return x.system.lower_real(e)
            case ast.Call():
                x.size_of_call(e)
                return x.called(e, 64)
            case ast.TimeLiteral():
                return ir.RealConst(64, float(self._units(e)))
            case ast.Index() | ast.Member():
                return x.select(e)
        raise AssertionError(type(e).__name__)

    def whole_units(self, e: ast.TimeLiteral) -> int | None:
        """A time in units of the module, where it is a whole number of them."""
        units = self._units(e)
        return units.numerator if units.denominator == 1 else None

    def _units(self, e: ast.TimeLiteral) -> Fraction:
        """A time in units of the module (1800 clause 5.8)."""
        length, ticks = self._x.scope.times[0], Fraction(10) ** (e.unit - self._x.scope.precision)
        return Fraction(e.text.replace("_", "")) * ticks / length

    def relation(self, op: str, e: ast.Binary) -> ir.Expr:
        """A comparison with a real operand."""
        a, b = self.lower(e.a), self.lower(e.b)
        if op in (">", ">="):
            a, b = b, a
        return ir.RealRelation(1, {"==": "eq", "!=": "ne"}.get(op, "lt" if op in "<>" else "le"), a, b)
