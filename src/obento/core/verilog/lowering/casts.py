"""Casts (IEEE 1800-2017 clause 6.24.1)."""

from __future__ import annotations

from obento.core.ir import nodes as ir
from obento.core.verilog.lowering.lowered import Expressions
from obento.core.verilog.lowering.widened import widened
from obento.core.verilog.model.errors import ElaborationError
from obento.core.verilog.model.scope import Broken, TypeName
from obento.core.verilog.model.types import DataType, Shape, builtin, vector
from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.expressions import CASTS


class CastLowering:
    """Casts in one scope."""

    def __init__(self, x: Expressions) -> None:
        self._x = x

    def type_of(self, e: ast.Cast) -> DataType:
        """The type of what a cast gives."""
        if e.to in ("signed", "unsigned"):
            width = 64 if self._x.reals.is_real(e.value) else self.digits_of(e.value)
            return vector("logic", e.to == "signed", width - 1, 0)
        if isinstance(e.to, str):
            named = self._x.scope.find(e.to)
            if isinstance(named, Broken):
                raise ElaborationError
            if isinstance(named, TypeName):
                if named.shape.is_aggregate:
                    raise self._x.error("cast-aggregate", f"`{e.to}` is no number, and nothing is cast to it here", e)
                return named.type
            if e.to in CASTS:
                return builtin(e.to)
        size = ast.Name(e.start, e.start + len(e.to), e.to) if isinstance(e.to, str) else e.to
        count = self._x.integer(size, "the width of a cast")
        if not 1 <= count <= self._x.limits.vector_bits:
            raise self._x.error("cast-width", f"a cast to {count} digits makes no sense", e)
        return vector("logic", not self._x.reals.is_real(e.value) and self._signed(e.value), count - 1, 0)

    def _signed(self, e: ast.Expr) -> bool:
        return not isinstance(e, ast.Pattern) and self._x.size(e)[1]

    def digits_of(self, e: ast.Expr) -> int:
        """Digits of what is cast: an aggregate is taken as it lies (1800 clause 6.24.3)."""
        shape = self._x.shape_of(e)
        if shape is not None and not shape.type.has_digits and shape.type.collected is not None:
            raise self._x.error(
                "not-yet", "a stream or cast of this is not read by this version", e, "take its elements"
            )
        return shape.width if shape is not None and shape.is_aggregate else self._x.size(e)[0]

    def lower(self, e: ast.Cast) -> ir.Expr:
        """What a cast gives."""
        to = self.type_of(e)
        if self._x.reals.is_real(e.value):
            made: ir.Expr = ir.Rounded(to.width, self._x.reals.lower(e.value))
        elif isinstance(e.value, ast.Stream):
            made = self._x.to_width(e.value, to.width)
        elif isinstance(e.value, ast.Pattern):
            made = self._x.aggregates.lower(e.value, Shape(to))
        else:
            shape = self._x.shape_of(e.value)
            if shape is not None and shape.is_aggregate:
                if shape.width != to.width:
                    text = f"this has {shape.width} digits, and the type {to.width} (1800 clause 6.24.3)"
                    raise self._x.error("cast-aggregate", text, e)
                made = self._x.digits(e.value)
            else:
                own, signed = self._x.size(e.value)
                made = self._x.lower(e.value, own, signed)
                made = ir.Slice(to.width, made, 0) if own > to.width else widened(made, to.width, signed)
        return ir.two_state(made) if to.two_state else made
