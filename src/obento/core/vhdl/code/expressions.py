"""Typed expressions as Python text. Every value is of the form that `values` describes."""

from __future__ import annotations

from types import CodeType
from typing import Any

from obento.core.exhaustive import no_rule
from obento.core.vhdl.code.pieces import Piece
from obento.core.vhdl.model import nine_values as logic
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model import values
from obento.core.vhdl.model.scope import Object
from obento.core.vhdl.model.types import (
    ArrayType,
    EnumType,
    IntType,
    PhysType,
    RangeX,
    RealType,
    RecordType,
    Subtype,
    Type,
    default_value,
    is_scalar,
    scalar_bounds,
)
from obento.core.vhdl.model.values import Arr, Ptr, text_of
from obento.core.vhdl.runtime import operations as ops
from obento.core.vhdl.runtime.signals import View

_SHORT = 1 << 64
"""Numbers that are longer stand in hexadecimal digits, of which Python reads any number."""

_LOGICAL = frozenset(["and", "or", "nand", "nor", "xor", "xnor"])
_SHIFTS = frozenset(["sll", "srl", "sla", "sra", "rol", "ror"])
_COMPARE = {"=": "==", "/=": "!=", "<": "<", "<=": "<=", ">": ">", ">=": ">="}


def base_names() -> dict[str, Any]:
    """What emitted text may call."""
    names = {name: getattr(ops, name) for name in dir(ops) if not name.startswith("_")}
    names.update(
        Arr=Arr,
        Ptr=Ptr,
        View=View,
        put_field=values.put_field,
        text_of=text_of,
        string=values.string,
        logic=logic,
        NOT=logic.NOT,
    )
    return names


class ExpressionEmitter:
    """Makes text; values that cannot be written down get names in `names`."""

    def __init__(self, prefix: str = "") -> None:
        self._prefix = prefix
        self.names: dict[str, Any] = base_names()
        self._known: dict[Any, str] = {}
        self.pieces: list[CodeType | Piece] = []
        self._count = 0

    def fresh(self, letter: str) -> str:
        """A name that nothing else has."""
        self._count += 1
        return f"{self._prefix}{letter}{self._count}"

    def constant(self, value: Any) -> str:
        """A value as text, or the name it is kept under."""
        if value is None or isinstance(value, bool | int):
            return repr(value) if not isinstance(value, int) else f"{value}" if 0 <= value < _SHORT else f"({value:#x})"
        if isinstance(value, Arr) and type(value.v) is bytes:
            key: Any = (value.left, value.step, value.v)
            if key not in self._known:
                self._known[key] = self.keep(value)
            return self._known[key]
        return self.keep(value)

    def keep(self, value: Any) -> str:
        """A name for a value of ours in the emitted text."""
        name = self.fresh("K")
        self.names[name] = value
        return name

    # Expressions.

    def value(self, x: t.Expr) -> str:
        """The text that computes an expression."""
        match x:
            case t.Const():
                return self.constant(x.value)
            case t.Read():
                return self.read(x.object)
            case t.Index():
                text = self.value(x.prefix)
                for index in x.indices:
                    text = f"{text}.at({self.value(index)}, {x.pos})"
                return text
            case t.Slice():
                return f"{self.value(x.prefix)}.part({self.slice_bounds(x.range)}, {x.pos})"
            case t.Field():
                return f"{self.value(x.prefix)}[{x.number}]"
            case t.Deref():
                return f"deref({self.value(x.prefix)}, {x.pos})"
            case t.Call():
                return self.call(x)
            case t.Op():
                return self.operation(x)
            case t.ArrayAgg():
                return self.array(x)
            case t.RecordAgg():
                assert isinstance(x.type, RecordType)
                parts = [
                    self.fitted(v, s) for v, (_, s) in zip(x.values, (x.sub or Subtype(x.type)).fields, strict=True)
                ]
                return f"({', '.join(parts)},)"
            case t.Convert():
                return self.conversion(x)
            case t.Qual():
                return self.fitted(x.arg, x.target, x.pos)
            case t.ArrayAttr():
                return self.array_attribute(x)
            case t.ScalarAttr():
                return self.scalar_attribute(x)
            case t.SignalAttr():
                return self.signal_attribute(x)
            case t.New():
                return f"Ptr({self.fitted(x.value, x.subtype) if x.value is not None else self.default(x.subtype)})"
            case t.AliasOf():
                return f"fit_range({self.value(x.prefix)}, {self.bounds(x.new)}, {x.pos})"
            case t.Now():
                return "R.now()"
            case t.Open():
                return "None"
        raise no_rule(x)

    def read(self, o: Object) -> str:
        """The value of an object."""
        if o.known:
            return self.constant(o.value)
        return f"{o.py}.value" if o.kind == "signal" else o.py

    def step(self, r: RangeX) -> str:
        """1 for `to`, -1 for `downto`."""
        if isinstance(r.down, bool):
            return "-1" if r.down else "1"
        return f"(-1 if {self.value(r.down)} else 1)"

    def down(self, r: RangeX) -> str:
        """Whether a range goes down."""
        return repr(r.down) if isinstance(r.down, bool) else self.value(r.down)

    def slice_bounds(self, r: RangeX) -> str:
        """Left, right and step of a slice."""
        return f"{self.value(r.left)}, {self.value(r.right)}, {self.step(r)}"

    def bounds(self, r: RangeX) -> str:
        """Left, right, whether downto: three arguments."""
        return f"{self.value(r.left)}, {self.value(r.right)}, {self.down(r)}"

    def low_high(self, r: RangeX) -> tuple[str, str]:
        """The bounds of a range, lower one first."""
        known = r.bounds()
        if known is not None:
            return self.constant(known[0]), self.constant(known[1])
        left, right = self.value(r.left), self.value(r.right)
        if isinstance(r.down, bool):
            return (right, left) if r.down else (left, right)
        return f"min({left}, {right})", f"max({left}, {right})"

    def default(self, s: Subtype) -> str:
        """The first value of an object that is given none."""
        if s.static():
            return self.constant(default_value(s))
        if isinstance(s.type, ArrayType) and s.ranges is not None:
            return self._default_array(s, 0)
        if isinstance(s.type, RecordType):
            return f"({', '.join(self.default(f) for _, f in s.fields)},)"
        if s.ranges is not None:
            return self.value(s.ranges[0].left)
        return "None"

    def _default_array(self, s: Subtype, dimension: int) -> str:
        assert isinstance(s.type, ArrayType) and s.ranges is not None
        inner = (
            self.default(s.element_subtype)
            if dimension + 1 == len(s.type.indices)
            else self._default_array(s, dimension + 1)
        )
        return f"filled({self.bounds(s.ranges[dimension])}, {inner}, {s.type.packed})"

    # Fitting a value into a subtype.

    def fitted(self, x: t.Expr, s: Subtype, position: int | None = None) -> str:
        """An expression as a value of a subtype, with whatever check that needs."""
        text = self.value(x)
        position = x.pos if position is None else position
        if is_scalar(s.type):
            return self._checked(text, x, s, position)
        if s.own_fields is not None and not (
            isinstance(x, t.RecordAgg) or (x.sub and x.sub.own_fields == s.own_fields)
        ):
            sizes = [f.length() if isinstance(f.type, ArrayType) else None for _, f in s.own_fields]
            return f"fit_fields({text}, {sizes}, {position})"
        if not isinstance(s.type, ArrayType) or s.ranges is None:
            return text
        wanted = [r.known() for r in s.ranges]
        if x.sub is not None and x.sub.ranges is not None and None not in wanted:
            if [r.known() for r in x.sub.ranges] == wanted:
                return text
        if isinstance(x, t.Const) and wanted[0] is not None and isinstance(x.value, Arr) and len(s.ranges) == 1:
            size = s.ranges[0].length()
            if size == len(x.value.v):
                return self.constant(Arr(wanted[0][0], -1 if wanted[0][2] else 1, x.value.v))
        if len(s.ranges) > 1:
            return text
        if wanted[0] is not None:
            return f"fit({text}, {wanted[0][0]}, {-1 if wanted[0][2] else 1}, {s.ranges[0].length()}, {position})"
        return f"fit_range({text}, {self.bounds(s.ranges[0])}, {position})"

    def _checked(self, text: str, x: t.Expr, s: Subtype, position: int) -> str:
        bounds = scalar_bounds(s)
        if bounds is not None and self._surely_within(x, s, bounds):
            return text
        if isinstance(s.type, EnumType):
            low, high = (self.constant(b) for b in bounds) if bounds is not None else self.low_high(s.ranges[0])  # type: ignore[index]
            return f"within_enum({text}, {low}, {high}, {position}, {self.keep(s.type.literals)})"
        low, high = (self.constant(b) for b in bounds) if bounds is not None else self.low_high(s.ranges[0])  # type: ignore[index]
        return f"within({text}, {low}, {high}, {position}, {s.shown!r})"

    @staticmethod
    def _surely_within(x: t.Expr, s: Subtype, bounds: tuple[Any, Any]) -> bool:
        if isinstance(x, t.Const):
            return bool(bounds[0] <= x.value <= bounds[1])
        if isinstance(s.type, EnumType) and s.ranges is None:
            return True
        if isinstance(s.type, RealType) and s.ranges is None:
            return True
        known = scalar_bounds(x.sub) if x.sub is not None else None
        if known is None:
            return False
        return bool(bounds[0] <= known[0] and known[1] <= bounds[1])

    # Calls.

    def call(self, x: t.Call) -> str:
        """A call of a function."""
        f = x.function
        args = self.arguments(f.params, x.args)
        return self.invocation(x, args)

    def invocation(self, x: t.Call | t.CallProcedure, args: list[str]) -> str:
        """A call of a subprogram, ours or the user's."""
        f = x.function if isinstance(x, t.Call) else x.procedure
        if f.native is not None:
            if f.py not in self.names:
                self.names[f.py] = f.native
            if getattr(f.native, "wants_run", False):
                args = ["R", str(x.pos), *args]
        if f.waits:
            args = ["P", *args]
        receiver = f"{self.value(x.receiver)}.{f.py}" if x.receiver is not None else f.py
        return f"{receiver}({', '.join(args)})"

    def arguments(self, params: list[Object], args: list[t.Expr]) -> list[str]:
        """Arguments as the parameters take them."""
        out: list[str] = []
        for p, a in zip(params, args, strict=True):
            if p.kind == "signal":
                out.append(self.signal(a) if p.mode != "out" or not isinstance(a, t.Open) else "None")
                if p.mode in ("out", "inout"):
                    out.append(self.driver(a))
            elif p.kind == "file" or (p.kind == "variable" and p.mode == "out"):
                out.append(self.value(a))
            else:
                out.append(self.fitted(a, p.subtype))
        return out

    # Signals.

    def signal(self, x: t.Expr) -> str:
        """A signal itself, or a view of a part of it."""
        if isinstance(x, t.Read) and x.object.kind == "signal":
            return x.object.py
        root, path = self.path(x)
        if root is None:
            return "None"
        return f"View({root.py}, {path})"

    def driver(self, x: t.Expr) -> str:
        """The driver of a signal, or of a part of one."""
        root, path = self.path(x)
        assert root is not None
        name = driver_name(root)
        return name if path == "()" else f"{name}.part({path}, {x.pos})"

    def path(self, x: t.Expr) -> tuple[Object | None, str]:
        """The object that a name is a part of, and the way to that part."""
        steps: list[str] = []
        while not isinstance(x, t.Read):
            match x:
                case t.Index():
                    for index in reversed(x.indices):
                        steps.append(f"('i', {self.value(index)})")
                    x = x.prefix
                case t.Slice():
                    steps.append(f"('s', {self.slice_bounds(x.range)})")
                    x = x.prefix
                case t.Field():
                    steps.append(f"('f', {x.number})")
                    x = x.prefix
                case t.Convert() | t.Qual():
                    x = x.arg
                case t.AliasOf():
                    x = x.prefix
                case _:
                    return None, "()"
        text = "".join(f"{s}, " for s in reversed(steps))
        return x.object, f"({text})"

    def signal_attribute(self, x: t.SignalAttr) -> str:
        """An attribute of a signal (16.2.4)."""
        s = self.signal(x.target)
        match x.name:
            case "event":
                return f"({s}.event == R.cycle)"
            case "active":
                return f"({s}.active == R.cycle)"
            case "last_value":
                return self._last_value(x.target, s)
            case "last_event":
                return f"R.since({s}.last_event)"
            case "last_active":
                return f"R.since({s}.last_active)"
            case "stable" | "quiet":
                when = "last_event" if x.name == "stable" else "last_active"
                now = "event" if x.name == "stable" else "active"
                if x.arg is None:
                    return f"({s}.{now} != R.cycle)"
                return f"({s}.{now} != R.cycle and R.since({s}.{when}) >= {self.value(x.arg)})"
            case "driving":
                return "True"
            case "driving_value":
                return f"{self.driver(x.target)}.value"
        return "None"

    def _last_value(self, target: t.Expr, signal: str) -> str:
        """A part of a signal has a history of its own, which is kept only where somebody asks for it."""
        root, path = self.path(target)
        if path == "()" or root is None or root.is_param:
            return f"{signal}.last"
        self.pieces.append(Piece(f"{root.py}.keeps_history = True\n", root.name))
        return f"{signal}.last_value"

    # Operations.

    def operation(self, x: t.Op) -> str:
        """A predefined operation."""
        op = x.op
        if len(x.args) == 1:
            return self._unary(x)
        if op == "&":
            return self._concatenation(x)
        a, b = x.args
        p, q = self.value(a), self.value(b)
        if op in _COMPARE:
            if (isinstance(a.type, ArrayType) and a.type.packed) or (
                isinstance(a.type, ArrayType) and op not in ("=", "/=")
            ):
                return f"({p}.v {_COMPARE[op]} {q}.v)"
            return f"({p} {_COMPARE[op]} {q})"
        if op in _LOGICAL:
            return self._logical(op, a, b, p, q, x.pos)
        if op in _SHIFTS:
            return f"shift({op!r}, {p}, {q}, 0)"
        if op in ("minimum", "maximum"):
            return f"pick({op!r}, {p}, {q})"
        if op.startswith("?"):
            compared = (
                f"({p}.v {_COMPARE[op[1:]]} {q}.v)"
                if isinstance(a.type, ArrayType)
                else f"({p} {_COMPARE[op[1:]]} {q})"
            )
            return f"int({compared})"
        return self._arithmetic(op, a, b, p, q, x.pos)

    def _arithmetic(self, op: str, a: t.Expr, b: t.Expr, p: str, q: str, position: int) -> str:
        real_a, real_b = isinstance(a.type, RealType), isinstance(b.type, RealType)
        if op in ("+", "-"):
            return f"({p} {op} {q})"
        if op == "*":
            if (isinstance(a.type, PhysType) and real_b) or (isinstance(b.type, PhysType) and real_a):
                return f"int({p} * {q})"
            return f"({p} * {q})"
        if op == "/":
            if real_a:
                return f"real_divide({p}, {q}, {position})"
            if real_b:
                return f"int(real_divide({p}, {q}, {position}))"
            return f"divide({p}, {q}, {position})"
        name = {"mod": "modulo", "rem": "remainder", "**": "power"}[op]
        return f"{name}({p}, {q}, {position})"

    def _logical(self, op: str, a: t.Expr, b: t.Expr, p: str, q: str, position: int) -> str:
        if isinstance(a.type, ArrayType) and isinstance(b.type, ArrayType):
            return f"array_logic({op!r}, {p}, {q}, {position})"
        if isinstance(a.type, ArrayType) or isinstance(b.type, ArrayType):
            return f"array_scalar_logic({op!r}, {p}, {q})"
        if a.type.name == "boolean":
            forms = {
                "and": "({} and {})",
                "or": "({} or {})",
                "nand": "(not ({} and {}))",
                "nor": "(not ({} or {}))",
                "xor": "({} != {})",
                "xnor": "({} == {})",
            }
            return forms[op].format(p, q)
        forms = {
            "and": "({} & {})",
            "or": "({} | {})",
            "xor": "({} ^ {})",
            "nand": "(1 - ({} & {}))",
            "nor": "(1 - ({} | {}))",
            "xnor": "(1 - ({} ^ {}))",
        }
        return forms[op].format(p, q)

    def _unary(self, x: t.Op) -> str:
        (a,) = x.args
        p = self.value(a)
        match x.op:
            case "-":
                return f"(-{p})"
            case "+":
                return p
            case "abs":
                return f"abs({p})"
            case "not":
                if isinstance(a.type, ArrayType):
                    return f"array_not({p})"
                return f"(not {p})" if a.type.name == "boolean" else f"(1 - {p})"
            case "??":
                return f"({p} == 1)"
            case "to_string":
                return f"string(to_text({p}, {self.keep(a.type)}))"
            case "minimum" | "maximum":
                assert isinstance(a.type, ArrayType)
                bounds = scalar_bounds(a.type.element) or (0, 0)
                return f"pick_of({x.op!r}, {p}, {self.constant(bounds[0])}, {self.constant(bounds[1])})"
            case "deallocate":
                return "(None,)"
            case "endfile":
                return f"R.files.ended({p})"
        return f"reduce_bits({x.op!r}, {p})"

    def _concatenation(self, x: t.Op) -> str:
        assert isinstance(x.type, ArrayType)
        low = self._index_low(x.type)
        operands: list[t.Expr] = []
        left: t.Expr = x
        while isinstance(left, t.Op) and left.op == "&" and left.type is x.type:
            operands.append(left.args[1])
            left = left.args[0]
        # The type of each operand says whether it is an element or a whole array.
        given = [
            self.value(a) if a.type is x.type else f"single({low}, {self.value(a)}, {x.type.packed})"
            for a in (left, *reversed(operands))
        ]
        return f"concat({low}, {', '.join(given)})"

    @staticmethod
    def _index_low(array: ArrayType) -> int:
        bounds = scalar_bounds(array.indices[0])
        return int(bounds[0]) if bounds is not None else 0

    # Aggregates.

    def array(self, x: t.ArrayAgg) -> str:
        """An array aggregate (9.3.3.3)."""
        assert isinstance(x.type, ArrayType)
        packed = x.type.packed
        rest = self._rest(x)
        has_rest = x.others is not None
        element = self._element(x)
        if x.ranges is None:
            pieces = ", ".join(
                f"({is_slice}, {self.value(v) if is_slice else element(v)})" for _, v, is_slice in x.items
            )
            return f"joined({self._index_low(x.type)}, 1, [{pieces}], {packed})"
        r = self.bounds(x.ranges[0])
        if not x.items:
            return f"filled({r}, {rest}, {packed})"
        if all(place is None for place, _, _ in x.items):
            if any(is_slice for _, _, is_slice in x.items):
                pieces = ", ".join(
                    f"({is_slice}, {self.value(v) if is_slice else element(v)})" for _, v, is_slice in x.items
                )
                return f"positional({r}, pieces([{pieces}]), {rest}, {has_rest}, {packed}, {x.pos})"
            given = ", ".join(element(v) for _, v, _ in x.items)
            return f"positional({r}, [{given}], {rest}, {has_rest}, {packed}, {x.pos})"
        parts: list[str] = []
        for place, v, is_slice in x.items:
            if isinstance(place, RangeX) and is_slice:
                parts.append(f"*in_places({self.bounds(place)}, {self.value(v)}, {v.pos})")
            elif isinstance(place, RangeX):
                low, high = self.low_high(place)
                parts.append(f"({low}, {high}, {element(v)})")
            elif place is not None:
                index = self.value(place)
                parts.append(f"({index}, {index}, {element(v)})")
        return f"aggregate({r}, [{', '.join(parts)}], {rest}, {has_rest}, {packed}, {x.pos})"

    def _element(self, x: t.ArrayAgg) -> Any:
        assert isinstance(x.type, ArrayType)
        if len(x.type.indices) > 1:
            return self.value
        subtype = x.type.element
        return lambda v: self.fitted(v, subtype)

    def _rest(self, x: t.ArrayAgg) -> str:
        return "None" if x.others is None else str(self._element(x)(x.others))

    # Attributes and conversions.

    def conversion(self, x: t.Convert) -> str:
        """A type conversion, with its checks."""
        text = self.value(x.arg)
        target = x.target
        if is_scalar(target.type):
            if isinstance(target.type, IntType | RealType) and type(x.arg.type) is not type(target.type):
                text = f"convert({text}, {self.keep(target.type)}, {x.pos})"
            inner = t.Convert(target.type, x.pos, x.arg, target)
            return self._checked(text, inner if x.sub is None else x, target, x.pos)
        if isinstance(target.type, ArrayType) and isinstance(x.arg.type, ArrayType):
            a, b = x.arg.type.element.type, target.type.element.type
            if a is not b and isinstance(b, IntType | RealType):
                each = f"convert(_e, {self.keep(b)}, {x.pos})"
                text = f"(lambda _a: Arr(_a.left, _a.step, tuple({each} for _e in _a.v)))({text})"
            if target.ranges is not None:
                return f"fit_range({text}, {self.bounds(target.ranges[0])}, {x.pos})"
        return text

    def array_attribute(self, x: t.ArrayAttr) -> str:
        """An attribute of an array (16.2.3)."""
        text = self.value(x.prefix)
        for _ in range(x.dimension):
            text += ".v[0]"
        match x.name:
            case "length":
                return f"len({text}.v)"
            case "ascending":
                return f"({text}.step > 0)"
            case "descending":
                return f"({text}.step < 0)"
        return f"{text}.{x.name}"

    def scalar_attribute(self, x: t.ScalarAttr) -> str:
        """An attribute of a scalar type (16.2.2)."""
        arg = self.value(x.arg)
        base = x.subtype.type
        match x.name:
            case "image":
                return f"string(image({arg}, {self.keep(base)}))"
            case "value":
                return f"value_of({self.keep(base)}, {arg}, {x.pos})"
            case "pos":
                return f"int({arg})"
            case "val":
                low, high = self._type_bounds(base)
                return f"within({arg}, {low}, {high}, {x.pos}, {x.subtype.shown!r})"
        known = x.subtype.ranges[0].known() if x.subtype.ranges else None
        down = known[2] if known is not None else False
        by = 1 if (x.name == "succ") or (x.name == "rightof" and not down) or (x.name == "leftof" and down) else -1
        return f"neighbour({arg}, {by}, {self.keep(base)}, {x.pos})"

    @staticmethod
    def _type_bounds(base: Type) -> tuple[Any, Any]:
        return (base.low, base.high) if isinstance(base, EnumType | IntType | PhysType) else (0, 0)


def driver_name(o: Object) -> str:
    """The name of the driver that a process has for a signal."""
    return f"d_{o.py}"
