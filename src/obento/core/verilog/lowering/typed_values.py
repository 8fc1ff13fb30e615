"""Values that have a type of their own: what they are, and what may be asked of them (IEEE 1800-2017 clauses 6.19 and
6.22)."""

from __future__ import annotations

from obento.core.ir import nodes as ir
from obento.core.verilog.lowering.aggregates import enum_method, name_of_constant
from obento.core.verilog.lowering.collections import METHODS, OF_ARRAYS
from obento.core.verilog.lowering.lowered import Expressions, Method
from obento.core.verilog.lowering.selects import ENUM_METHODS
from obento.core.verilog.model.scope import Parameter, TypeName, Vector
from obento.core.verilog.model.types import DataType, Shape, builtin
from obento.core.verilog.syntax import ast

_METHODS = ENUM_METHODS | METHODS | {"triggered", "index"}


def _asked_last(path: ast.Expr | None) -> str:
    """The last name of a path, or what is asked of what a call gives."""
    if isinstance(path, ast.Dotted):
        return path.parts[-1]
    return path.name if isinstance(path, ast.Member) and isinstance(path.base, ast.Call) else ""


class TypedValues:
    """The types of values in one scope."""

    def __init__(self, x: Expressions) -> None:
        self._x = x
        self._methods: dict[int, Method] = {}

    def shape_of(self, e: ast.Expr) -> Shape | None:
        """What a value is, where it has a type of its own: all but numbers and what operators make of them."""
        match e:
            case ast.Name() | ast.Dotted():
                method = self.method(e)
                if method is not None:
                    return self.shape_of_method(method)
                entry, used = (self._x.find(e), 1) if isinstance(e, ast.Name) else self._x.selects.along(e)
                is_typed = isinstance(entry, Vector) or (isinstance(entry, Parameter) and entry.shape is not None)
                return self._x.selects.shape(e) if is_typed and used else None
            case ast.Index() | ast.Part() | ast.Member():
                return self._x.selects.shape(e)
            case ast.Conditional():
                a, b = self.shape_of(e.a), self.shape_of(e.b)
                return a if a is not None and b is not None and a.fits(b) and a.type is b.type else None
            case ast.Cast():
                named = self._x.scope.find(e.to) if isinstance(e.to, str) else None
                return named.shape if isinstance(named, TypeName) else None
            case ast.Pattern() if e.to:
                named = self._x.scope.find(e.to)
                return named.shape if isinstance(named, TypeName) else None
            case ast.Call() if not e.name.startswith("$"):
                method = self.method(e)
                if method is not None:
                    return self.shape_of_method(method)
                entry = self._x.function(e)
                self._x.lowered_function(entry)
                return entry.shape
        return None

    def digits(self, e: ast.Expr) -> ir.Expr:
        """All digits of a value that `shape_of` knows."""
        method = self.method(e)
        if method is not None:
            return self.lower_method(method)
        shape = self.shape_of(e)
        assert shape is not None
        if isinstance(e, ast.Call) and self.method(e) is None:
            return self._x.called(e, shape.width)
        if shape.is_aggregate and isinstance(e, ast.Name | ast.Dotted | ast.Index | ast.Part | ast.Member):
            return self._x.selects.select(e)
        return self._x.aggregates.lower(e, shape) if shape.is_aggregate else self._x.self_determined(e)

    def check_enum(self, wanted: DataType, value: ast.Expr) -> None:
        """A variable of an enumeration takes values of that enumeration only (1800 clause 6.19.3)."""
        if wanted.is_enum and isinstance(value, ast.Name | ast.Dotted):
            self._x.size(value)  # a name that is none is told as that
        own = self.shape_of(value) if wanted.is_enum else None
        if not wanted.is_enum or (own is not None and own.type is wanted):
            return
        if isinstance(value, ast.Conditional):
            self.check_enum(wanted, value.a)
            self.check_enum(wanted, value.b)
            return
        name = "" if "@" in wanted.name else f" `{wanted.name}`"
        cast = f", or {wanted.name}'(...)" if name else ""
        names = list(wanted.values)
        shown = ", ".join(names[:4]) + (", ..." if len(names) > 4 else "")
        raise self._x.error(
            "enum-cast",
            f"only a value of the enumeration{name} can be given here (1800 clause 6.19.3)",
            value,
            f"write {shown}{cast}",
        )

    def method(self, e: ast.Expr) -> Method | None:
        """`state.next()`, `q.size`, `e.triggered`: what is asked, and of what; the parentheses may be left out."""
        path = e.path if isinstance(e, ast.Call) else e
        name = _asked_last(path)
        if name not in _METHODS:
            return None
        known = self._methods.get(id(e))
        if known is not None:
            return known
        if isinstance(path, ast.Member):
            base: ast.Expr | None = path.base
        else:
            base = self._x.selects.before_last(path) if isinstance(path, ast.Dotted) else None
        if base is None or not self._has(base, name):
            return None
        args, each = (list(e.args), e.each) if isinstance(e, ast.Call) else ([], None)
        found = self._methods[id(e)] = Method(base, name, args, each, e)
        return found

    def _has(self, base: ast.Expr, name: str) -> bool:
        """Whether something has a method of this name."""
        if name == "triggered":
            entry = self._x.find(base) if isinstance(base, ast.Name | ast.Dotted) else None
            return isinstance(entry, Vector) and entry.kind == "event"
        if name == "index":
            return isinstance(base, ast.Name) and self._x.scope.place_of(base.name) is not None
        of = self._x.shape_of(base)
        if of is None:
            return False
        if of.dims:
            return name in OF_ARRAYS and of.type.has_digits
        return name in METHODS if of.type.collected is not None else of.type.is_enum and name in ENUM_METHODS

    def shape_of_method(self, m: Method) -> Shape:
        """What a method gives."""
        if m.name == "triggered":
            return Shape(builtin("bit"))
        if m.name == "index":
            return self._place(m).shape
        if self._is_of_elements(m):
            return self._x.collections.shape_of_method(self._x.collections.asked(m), m)
        of = self._of(m)
        if m.name == "num":
            return Shape(builtin("int"))
        return Shape(builtin("string")) if m.name == "name" else Shape(of)

    def lower_method(self, m: Method) -> ir.Expr:
        """What a method gives, as an expression."""
        if m.name == "triggered":
            return self.triggered(m.base)
        if m.name == "index":
            return self._place(m).whole()
        if self._is_of_elements(m):
            return self._x.collections.lower_method(self._x.collections.asked(m), m)
        of, count = self._of(m), 1
        if m.args and m.args[0] is not None:
            count = self._x.integer(m.args[0], "the number of steps")
        if m.name == "name":
            return name_of_constant(of, self._x.self_determined(m.base))
        return enum_method(m.name, of, self._x.self_determined(m.base), count)

    def _is_of_elements(self, m: Method) -> bool:
        """Whether this is asked of a collection, or of an array."""
        shape = self._x.shape_of(m.base)
        return shape is not None and (bool(shape.dims) or shape.type.collected is not None)

    def _of(self, m: Method) -> DataType:
        """The type of what a method is asked of."""
        shape = self._x.shape_of(m.base)
        assert shape is not None  # it has this method
        return shape.type

    def _place(self, m: Method) -> Vector:
        """`item.index`: the place of the element that is looked at (1800 clause 7.12.4)."""
        found = self._x.scope.place_of(m.base.name) if isinstance(m.base, ast.Name) else None
        assert found is not None
        return found

    def triggered(self, event: ast.Expr) -> ir.Expr:
        """Whether an event has happened in this step of time (1800 clause 15.5.3)."""
        x = self._x
        entry = x.find(event) if isinstance(event, ast.Name | ast.Dotted) else None
        assert isinstance(entry, Vector)
        which = ir.Argument(ir.Ref(1, entry.signal), memory=(entry.signal, 0, 0))
        return ir.SystemCall(1, "$triggered", [which], x.scope.path, x.scope.times[0], event.start)
