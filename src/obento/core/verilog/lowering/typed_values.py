"""Values that have a type of their own: what they are, and what may be asked of them (IEEE 1800-2017 clauses 6.19 and
6.22)."""

from __future__ import annotations

from obento.core.ir import nodes as ir
from obento.core.verilog.lowering.aggregates import enum_method, name_of_constant
from obento.core.verilog.lowering.lowered import Expressions
from obento.core.verilog.lowering.selects import ENUM_METHODS
from obento.core.verilog.model.scope import Parameter, TypeName, Vector
from obento.core.verilog.model.types import DataType, Shape, builtin
from obento.core.verilog.syntax import ast

_METHODS = ENUM_METHODS | {"triggered"}


class TypedValues:
    """The types of values in one scope."""

    def __init__(self, x: Expressions) -> None:
        self._x = x
        self._methods: dict[int, tuple[ast.Expr, str, list[ast.Expr | None]]] = {}

    def shape_of(self, e: ast.Expr) -> Shape | None:
        """What a value is, where it has a type of its own: all but numbers and what operators make of them."""
        match e:
            case ast.Name() | ast.Dotted():
                method = self.method(e)
                if method is not None:
                    return self.shape_of_method(*method)
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
                    return self.shape_of_method(*method)
                entry = self._x.function(e)
                self._x.lowered_function(entry)
                return entry.shape
        return None

    def digits(self, e: ast.Expr) -> ir.Expr:
        """All digits of a value that `shape_of` knows."""
        method = self.method(e)
        if method is not None:
            return self.lower_method(*method)
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

    def method(self, e: ast.Expr) -> tuple[ast.Expr, str, list[ast.Expr | None]] | None:
        """`state.next()`: the value, the method, its arguments; the parentheses may be left out."""
        path = e.path if isinstance(e, ast.Call) else e
        if not isinstance(path, ast.Dotted) or path.parts[-1] not in _METHODS:
            return None
        known = self._methods.get(id(e))
        if known is not None:
            return known
        base = self._x.selects.before_last(path)
        if base is None or not (self._is_event(base) if path.parts[-1] == "triggered" else self._is_enum(base)):
            return None
        found = self._methods[id(e)] = base, path.parts[-1], list(e.args) if isinstance(e, ast.Call) else []
        return found

    def _is_enum(self, base: ast.Expr) -> bool:
        return self._x.selects.shape(base).type.is_enum

    def _is_event(self, base: ast.Expr) -> bool:
        entry = self._x.find(base) if isinstance(base, ast.Name | ast.Dotted) else None
        return isinstance(entry, Vector) and entry.kind == "event"

    def shape_of_method(self, base: ast.Expr, method: str, args: list[ast.Expr | None]) -> Shape:
        """What a method of an enumeration gives."""
        del args
        if method == "triggered":
            return Shape(builtin("bit"))
        of = self._x.selects.value_type(base)
        if method == "num":
            return Shape(builtin("int"))
        if method == "name":
            return Shape(builtin("string"))
        return Shape(of)

    def lower_method(self, base: ast.Expr, method: str, args: list[ast.Expr | None]) -> ir.Expr:
        """What a method of an enumeration gives, for the value it is asked of."""
        if method == "triggered":
            return self.triggered(base)
        of, count = self._x.selects.value_type(base), 1
        if args and args[0] is not None:
            count = self._x.integer(args[0], "the number of steps")
        if method == "name":
            return name_of_constant(of, self._x.self_determined(base))
        return enum_method(method, of, self._x.self_determined(base), count)

    def triggered(self, event: ast.Expr) -> ir.Expr:
        """Whether an event has happened in this step of time (1800 clause 15.5.3)."""
        x = self._x
        entry = x.find(event) if isinstance(event, ast.Name | ast.Dotted) else None
        assert isinstance(entry, Vector)
        which = ir.Argument(ir.Ref(1, entry.signal), memory=(entry.signal, 0, 0))
        return ir.SystemCall(1, "$triggered", [which], x.scope.path, x.scope.times[0], event.start)
