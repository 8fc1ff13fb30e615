"""Attributes (IEEE 1076 clause 16.2)."""

from __future__ import annotations

from typing import Any

from obento.core.suggest import did_you_mean
from obento.core.vhdl.analysis.context import AnalysisError, Context
from obento.core.vhdl.analysis.meanings import Overloads
from obento.core.vhdl.analysis.names import Names
from obento.core.vhdl.analysis.operators import static_length
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import AttributeName, TypeName
from obento.core.vhdl.model.types import AccessType, ArrayType, RangeX, Subtype, Type, is_scalar
from obento.core.vhdl.model.values import string
from obento.core.vhdl.packages.standard import BOOLEAN, INTEGER, STRING, TIME, UNIVERSAL_INTEGER
from obento.core.vhdl.syntax import ast

_BOUNDS = ("left", "right", "low", "high", "length", "ascending")
_SIGNAL = {
    "event": BOOLEAN,
    "active": BOOLEAN,
    "last_event": TIME,
    "last_active": TIME,
    "stable": BOOLEAN,
    "quiet": BOOLEAN,
    "driving": BOOLEAN,
}
_SCALAR = ("image", "value", "pos", "val", "succ", "pred", "leftof", "rightof")
_ALL = (
    *_BOUNDS,
    *_SIGNAL,
    *_SCALAR,
    "last_value",
    "driving_value",
    "delayed",
    "transaction",
    "range",
    "reverse_range",
    "base",
    "simple_name",
    "path_name",
    "instance_name",
)


class Attributes:
    """Makes the value of `prefix'name`."""

    def __init__(self, context: Context, names: Names) -> None:
        self.context = context
        self.names = names

    def attribute(self, e: ast.Attribute) -> t.Expr:
        """The value of an attribute of a type, an array, a signal or anything with a name."""
        if e.name in ("simple_name", "path_name", "instance_name"):
            return self._path(e)
        try:
            prefix: Any = self.names.denote(e.prefix)
        except AnalysisError:
            raise
        if isinstance(prefix, TypeName):
            return self._of_type(prefix, e)
        if isinstance(prefix, Overloads):
            own = self._own_attribute(e)
            if own is not None:
                return own
            prefix = self.context.expressions.expr(e.prefix)
        if isinstance(prefix, t.Expr):
            if isinstance(prefix.type, AccessType) and e.name in _BOUNDS:
                prefix = self.names.dereferenced(prefix)
            return self._of_value(prefix, e)
        own = self._own_attribute(e)
        if own is not None:
            return own
        raise self.context.wrong("attribute", f"`'{e.name}` does not belong to this", e)

    def _own_attribute(self, e: ast.Attribute) -> t.Expr | None:
        """An attribute that the text itself declares."""
        for found in self.context.scope.find(e.name):
            name = (
                e.prefix.name
                if isinstance(e.prefix, ast.Id)
                else e.prefix.suffix
                if isinstance(e.prefix, ast.Selected)
                else ""
            )
            if isinstance(found, AttributeName) and name in found.values:
                return found.values[name]
        return None

    def _path(self, e: ast.Attribute) -> t.Expr:
        name = (
            e.prefix.name
            if isinstance(e.prefix, ast.Id)
            else e.prefix.suffix
            if isinstance(e.prefix, ast.Selected)
            else ""
        )
        if e.name != "simple_name":
            name = self.context.signals.place_of(name, e.name == "instance_name")
        return t.Const(STRING, e.pos, string(name))

    def _of_type(self, prefix: TypeName, e: ast.Attribute) -> t.Expr:
        s, name = prefix.subtype, e.name
        if name in _BOUNDS and isinstance(s.type, ArrayType):
            return self._of_ranges(s, e)
        if not is_scalar(s.type):
            raise self.context.wrong(
                "attribute", f"`'{name}` does not belong to the type {s.shown}", e, did_you_mean(name, _ALL)
            )
        if name in _BOUNDS:
            r = self.context.expressions.subtype_range(s)
            if name == "ascending":
                return t.Const(BOOLEAN, e.pos, not r.down)
            if name == "length":
                raise self.context.wrong("attribute", "a type has no length", e)
            return self._bound(r, name, e.pos)
        if name in _SCALAR:
            if e.arg is None:
                raise self.context.wrong(
                    "attribute", f"`'{name}` needs a value in brackets", e, f"{s.shown}'{name}(value)"
                )
            return self._scalar(s, name, e.arg, e)
        own = self._own_attribute(e)
        if own is not None:
            return own
        raise self.context.wrong("attribute", f"there is no attribute `'{name}` of a type", e, did_you_mean(name, _ALL))

    @staticmethod
    def _bound(r: RangeX, name: str, pos: int) -> t.Expr:
        known = r.bounds()
        if name in ("low", "high") and known is not None:
            return t.Const(r.left.type, pos, known[0] if name == "low" else known[1])
        if name in ("left", "right"):
            x = r.left if name == "left" else r.right
        else:
            x = r.left if (name == "low") != bool(r.down) else r.right
        return t.Const(x.type, pos, x.value) if isinstance(x, t.Const) else x

    def _scalar(self, s: Subtype, name: str, arg: ast.Expr, e: ast.Attribute) -> t.Expr:
        wanted: Type = STRING if name == "value" else s.type
        if name == "val":
            wanted = INTEGER
        x = self.context.expressions.expr(arg, wanted)
        result: Type = s.type
        if name == "image":
            result = STRING
        elif name == "pos":
            result = UNIVERSAL_INTEGER
            if isinstance(x, t.Const):
                return t.Const(INTEGER, e.pos, int(x.value))
            return t.ScalarAttr(INTEGER, e.pos, name, s, x)
        return self.context.expressions.folded(t.ScalarAttr(result, e.pos, name, s, x))

    # Arrays.

    def _dimension(self, e: ast.Attribute, count: int) -> int:
        """The dimension that is asked about, from 0, of an array that has so many."""
        if e.arg is None:
            return 0
        x = self.context.expressions.expr(e.arg, INTEGER)
        if not isinstance(x, t.Const) or x.value < 1:
            raise self.context.wrong("attribute", "the number of a dimension is a constant from 1", e)
        if x.value > count:
            raise self.context.wrong("attribute", f"this array has only {count} dimension(s)", e)
        return int(x.value) - 1

    def _of_ranges(self, s: Subtype, e: ast.Attribute) -> t.Expr:
        if s.ranges is None:
            raise self.context.wrong(
                "attribute", f"`{s.shown}` has no range of its own", e, "ask a signal or variable of this type"
            )
        return self._from_range(s.ranges[self._dimension(e, len(s.ranges))], e)

    def _from_range(self, r: RangeX, e: ast.Attribute) -> t.Expr:
        if e.name == "length":
            size = r.length()
            if size is not None:
                return t.Const(UNIVERSAL_INTEGER, e.pos, size)
            first, last = (r.right, r.left) if r.down is True else (r.left, r.right)
            difference = t.Op(INTEGER, e.pos, "-", [last, first])
            one = t.Const(INTEGER, e.pos, 1)
            length = t.Op(INTEGER, e.pos, "+", [difference, one])
            return t.Op(INTEGER, e.pos, "maximum", [length, t.Const(INTEGER, e.pos, 0)])
        if e.name == "ascending":
            return t.Const(BOOLEAN, e.pos, not r.down)
        return self._bound(r, e.name, e.pos)

    def _of_value(self, prefix: t.Expr, e: ast.Attribute) -> t.Expr:
        name = e.name
        if name in _BOUNDS:
            return self._array_bound(prefix, e)
        if name in _SIGNAL or name in ("last_value", "driving_value"):
            return self._signal(prefix, e)
        if name in ("delayed", "transaction"):
            return self.context.signals.implicit_signal(prefix, e)
        own = self._own_attribute(e)
        if own is not None:
            return own
        if name == "image" and is_scalar(prefix.type) and e.arg is None:
            return self.context.expressions.folded(t.ScalarAttr(STRING, e.pos, "image", Subtype(prefix.type), prefix))
        if name in ("range", "reverse_range"):
            raise self.context.wrong("misplaced", "a range cannot stand here", e)
        raise self.context.wrong("attribute", f"there is no attribute `'{name}`", e, did_you_mean(name, _ALL))

    def _array_bound(self, prefix: t.Expr, e: ast.Attribute) -> t.Expr:
        if not isinstance(prefix.type, ArrayType):
            raise self.context.wrong("attribute", f"`'{e.name}` belongs to arrays, and this is {prefix.type.shown}", e)
        dimension = self._dimension(e, len(prefix.type.indices))
        if (
            prefix.sub is not None
            and prefix.sub.ranges is not None
            and prefix.sub.ranges[dimension].known() is not None
        ):
            return self._from_range(prefix.sub.ranges[dimension], e)
        if e.name == "length" and dimension == 0:
            size = static_length(prefix)
            if size is not None:
                return t.Const(UNIVERSAL_INTEGER, e.pos, size)
        index = prefix.type.indices[dimension].type
        result: Type = BOOLEAN if e.name == "ascending" else UNIVERSAL_INTEGER if e.name == "length" else index
        return t.ArrayAttr(result, e.pos, e.name, prefix, dimension)

    def range_attribute(self, e: ast.Attribute) -> RangeX:
        """`'range` and `'reverse_range`."""
        prefix: Any = self.names.denote(e.prefix)
        if isinstance(prefix, Overloads):
            prefix = self.context.expressions.expr(e.prefix)
        found: RangeX | None = None
        if isinstance(prefix, TypeName):
            s = prefix.subtype
            if isinstance(s.type, ArrayType) and s.ranges is not None:
                found = s.ranges[self._dimension(e, len(s.ranges))]
            elif is_scalar(s.type):
                found = self.context.expressions.subtype_range(s)
        elif isinstance(prefix, t.Expr):
            if isinstance(prefix.type, AccessType):
                prefix = self.names.dereferenced(prefix)
            if isinstance(prefix.type, ArrayType):
                found = self._range_of(prefix, self._dimension(e, len(prefix.type.indices)), e)
        if found is None:
            raise self.context.wrong("attribute", "only arrays and scalar types have a range", e)
        if e.name == "range":
            return found
        down: bool | t.Expr = (
            not found.down if isinstance(found.down, bool) else t.Op(BOOLEAN, e.pos, "not", [found.down])
        )
        return RangeX(found.right, found.left, down)

    @staticmethod
    def _range_of(prefix: t.Expr, dimension: int, e: ast.Attribute) -> RangeX:
        assert isinstance(prefix.type, ArrayType)
        if prefix.sub is not None and prefix.sub.ranges is not None:
            return prefix.sub.ranges[dimension]
        index = prefix.type.indices[dimension].type
        parts = [t.ArrayAttr(index, e.pos, name, prefix, dimension) for name in ("left", "right")]
        return RangeX(parts[0], parts[1], t.ArrayAttr(BOOLEAN, e.pos, "descending", prefix, dimension))

    # Signals.

    def _signal(self, prefix: t.Expr, e: ast.Attribute) -> t.Expr:
        if not self.names.is_signal(prefix):
            raise self.context.wrong("attribute", f"`'{e.name}` belongs to signals, and this is none", e)
        arg = (
            self.context.expressions.expr(e.arg, TIME) if e.arg is not None and e.name in ("stable", "quiet") else None
        )
        result = _SIGNAL.get(e.name, prefix.type)
        return t.SignalAttr(result, e.pos, e.name, prefix, arg)
