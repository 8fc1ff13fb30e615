"""Expressions to the intermediate representation: widths and signs by IEEE 1364-2005 clause 5.4 and 5.5.

Two passes, as the standard describes them: first the size and sign that an expression has of itself, then its operands
widened to the size and sign that its context gives it.
"""

from __future__ import annotations

from collections.abc import Callable

from obento.core import values
from obento.core.decimals import shown
from obento.core.diagnostics import Collector
from obento.core.ir import nodes as ir
from obento.core.ir.evaluate import NotConstant, evaluate
from obento.core.ir.interpret import Interpreter
from obento.core.limits import Limits
from obento.core.verilog.lowering.aggregates import AggregateLowering
from obento.core.verilog.lowering.arguments import bound, gives_back
from obento.core.verilog.lowering.casts import CastLowering
from obento.core.verilog.lowering.collections import VALUELESS, CollectionLowering
from obento.core.verilog.lowering.effects import Effects, chosen
from obento.core.verilog.lowering.names import no_value
from obento.core.verilog.lowering.no_callable import no_callable
from obento.core.verilog.lowering.real_numbers import RealLowering
from obento.core.verilog.lowering.relations import EQUALITIES, RELATIONS, compares_aggregates, relation
from obento.core.verilog.lowering.selects import SelectLowering
from obento.core.verilog.lowering.sets import is_inside
from obento.core.verilog.lowering.system_calls import SystemLowering
from obento.core.verilog.lowering.text_values import TextLowering
from obento.core.verilog.lowering.typed_values import TypedValues
from obento.core.verilog.lowering.types import TypeLowering
from obento.core.verilog.lowering.widened import widened
from obento.core.verilog.model.errors import ElaborationError
from obento.core.verilog.model.scope import (
    Broken,
    Entry,
    Formal,
    FunctionEntry,
    Parameter,
    Scope,
    Vector,
)
from obento.core.verilog.model.types import Shape, vector
from obento.core.verilog.syntax import ast

_LONGEST_INTEGER = 128
"""Digits (binary) of what may count or number anything."""

_ARITHMETIC = {"+": "add", "-": "sub", "*": "mul", "/": "div", "%": "mod"}
_BITWISE = {"&": "and", "|": "or", "^": "xor"}
_SHIFTS = {"<<": "shl", "<<<": "shl", ">>": "shr", ">>>": "sar"}
_REDUCTIONS = {"&": "rand", "|": "ror", "^": "rxor", "~&": "rand", "~|": "ror", "~^": "rxor", "^~": "rxor"}


_NOT_OF_REALS = frozenset(["%", "&", "|", "^", "~^", "^~", "<<", "<<<", ">>", ">>>", "===", "!==", "==?", "!=?"])
"""What works on digits alone (1364-2005 table 5-3)."""


class ExpressionLowering:
    """Lowers expressions in one scope. `call` lowers a function the first time it is used."""

    def __init__(
        self, scope: Scope, collector: Collector, limits: Limits, call: Callable[[FunctionEntry], ir.Function]
    ) -> None:
        self.scope = scope
        self.collector = collector
        self.limits = limits
        self._call = call
        self._sizes: dict[int, tuple[int, bool]] = {}
        self.alive: list[ast.Expr] = []
        """Expressions of which something is known by their identity, which nothing else may get meanwhile."""
        self.reals = RealLowering(self)
        self.texts = TextLowering(self)
        self.system = SystemLowering(self)
        self.selects = SelectLowering(self)
        self.aggregates = AggregateLowering(self)
        self.collections = CollectionLowering(self)
        self.types = TypeLowering(self)
        self.typed = TypedValues(self)
        self.casts = CastLowering(self)
        self.implicit: Callable[[ast.Name], Vector | None] | None = None
        self.effects: Effects | None = None

    def inside(self, scope: Scope) -> ExpressionLowering:
        """The same in an inner scope."""
        made = ExpressionLowering(scope, self.collector, self.limits, self._call)
        made.effects = self.effects
        return made

    def error(self, code: str, text: str, node: ast.Node, hint: str = "") -> ElaborationError:
        """Report an error at a node; raise what is given back to leave off there."""
        self.collector.error(code, text, node.start, node.end, hint)
        return ElaborationError()

    # What callers ask for.

    def self_determined(self, e: ast.Expr) -> ir.Expr:
        """An expression as wide as it is of itself (5.4.1)."""
        width, signed = self.size(e)
        return self.lower(e, width, signed)

    def to_width(self, e: ast.Expr, width: int) -> ir.Expr:
        """A right side for a target of `width` bits (5.4.1: the larger of both rules inside)."""
        if self.reals.is_real(e):
            return ir.Rounded(width, self.reals.lower(e))
        if self.texts.is_text(e):
            return ir.TextValue(width, "digits", [self.texts.lower(e)])
        own, signed = self.size(e)
        if isinstance(e, ast.Stream):
            return self._on_the_left(e, own, width)
        lowered = self.lower(e, max(own, width), signed)
        return ir.Slice(width, lowered, 0) if own > width else lowered

    def _on_the_left(self, e: ast.Stream, own: int, width: int) -> ir.Expr:
        """A stream for a target with at least as many digits: the rest of it is 0 (1800 clause 11.4.14.3)."""
        if own > width:
            raise self.error("stream-wide", f"a stream of {own} digits does not fit into {width}", e)
        value = self.aggregates.streamed(e)
        rest = ir.Const(width - own, *values.word(0, width - own))
        return value if own == width else ir.Concat(width, [value, rest])

    def to_shape(self, e: ast.Expr, shape: Shape) -> ir.Expr:
        """A right side for something of this shape; digits of two states are so afterwards where all of them are."""
        if shape.type.is_real and not shape.dims:
            number = self.reals.lower(e)
            return ir.RealDigits(64, number) if shape.type.kept else number
        if shape.type.is_text and not shape.dims:
            text = self.texts.lower(e)
            return ir.TextValue(shape.width, "kept", [text]) if shape.type.kept else text
        if shape.type.collected is not None and not shape.dims:
            return self.collections.lower(e, shape.type.collected)
        if shape.dims and not self.scope.system_verilog:
            raise self.error("whole-array", "an array as a whole is no value: it needs an index (4.9.3)", e)
        if shape.is_aggregate or (isinstance(e, ast.Pattern) and not e.to):
            return self.aggregates.lower(e, shape)
        self.typed.check_enum(shape.type, e)
        value = self.to_width(e, shape.width)
        return ir.two_state(value) if shape.type.two_state else value

    def given(self, e: ast.Call) -> list[ir.Expr]:
        """The arguments of a call, as the function takes them."""
        return [self.to_shape_in(scope, a, formal.shape) for formal, a, scope in self.bound(e, self.function(e))]

    def to_shape_in(self, scope: Scope, e: ast.Expr, shape: Shape) -> ir.Expr:
        """A right side that stands in this scope or, as what an argument is by default, in another one."""
        return (self if scope is self.scope else self.inside(scope)).to_shape(e, shape)

    def bound(self, e: ast.Call | ast.TaskCall, entry: FunctionEntry) -> list[tuple[Formal, ast.Expr, Scope]]:
        """Each argument of a function or task with what it is given, and where that stands."""
        return bound(self, e, entry)

    def truth(self, e: ast.Expr) -> ir.Expr:
        """A condition, as wide as it is of itself."""
        if self.reals.is_real(e):
            return ir.RealRelation(1, "ne", self.reals.lower(e), ir.RealConst(64, 0.0))
        return self.self_determined(e)

    def constant(self, e: ast.Expr, what: str) -> tuple[ir.Const, bool]:
        """A constant expression and its sign."""
        width, signed = self.size(e)
        try:
            one, zero = Interpreter(self.limits).value(self.lower(e, width, signed))
        except NotConstant:
            raise self.error("not-constant", f"{what} must be a constant", e, "a number or a parameter") from None
        return ir.Const(width, one, zero), signed

    def integer(self, e: ast.Expr, what: str) -> int:
        """A constant as a whole number."""
        const, signed = self.constant(e, what)
        if const.one ^ const.zero != values.ones(const.width):
            raise self.error("not-constant", f"{what} has unknown digits", e)
        number = values.signed_value(const.one, const.width) if signed else const.one
        if number.bit_length() > _LONGEST_INTEGER:
            raise self.error("too-large", f"{what} cannot be {shown(number)}", e)
        return number

    # Types of values.

    def shape_of(self, e: ast.Expr) -> Shape | None:
        """What a value is, where it has a type of its own."""
        return self.typed.shape_of(e)

    def digits(self, e: ast.Expr) -> ir.Expr:
        """All digits of a value that `shape_of` knows."""
        return self.typed.digits(e)

    def type_shape(self, e: ast.TypeArgument) -> Shape:
        """A type where a value could stand."""
        return self.types.shape(e.type)

    # First pass: size and sign of an expression by itself (table 5-22, clause 5.5.1).

    def size(self, e: ast.Expr) -> tuple[int, bool]:
        """Width and sign that an expression has of itself (table 5-22)."""
        known = self._sizes.get(id(e))
        if known is None:
            known = self._sizes[id(e)] = self._size(e)
            self.alive.append(e)
        return known

    def _size(self, e: ast.Expr) -> tuple[int, bool]:
        if self.reals.is_real(e):
            return 64, True
        if self.texts.asks(e):
            return self.texts.size(e)
        if self.texts.is_text(e):
            raise self.error("string-as-number", "this is a string, no number", e, "ask it: `s.len()`, `s.atoi()`")
        match e:
            case ast.Number():
                return e.digits, e.signed
            case ast.Name() | ast.Dotted() | ast.Index() | ast.Part() | ast.Member():
                return self._size_of_selected(e)
            case ast.Binary():
                return self._size_binary(e)
            case ast.Unary():
                if e.op not in ("+", "-", "!") and self.reals.is_real(e.a):
                    raise self._no_digits(e)
                width, signed = self.size(e.a)
                return (width, signed) if e.op in "+-~" else (1, False)
            case ast.Conditional():
                self.size(e.cond)
                (wa, sa), (wb, sb) = self.size(e.a), self.size(e.b)
                return max(wa, wb), sa and sb
            case ast.Concat():
                width = sum(self._part_width(p) for p in e.parts)
                if not width:
                    raise self.error(
                        "repeat-count", "nothing is left here: something must stand beside what is repeated 0 times", e
                    )
                return width, False
            case ast.Repeat():
                width = self._repeat_width(e)
                if not width:
                    raise self.error(
                        "repeat-count", "a repetition of 0 times stands inside `{ }`, beside something else", e.count
                    )
                return width, False
            case ast.Call():
                return self.size_of_call(e)
            case ast.Cast():
                made = self.casts.type_of(e)
                return made.width, made.signed
            case ast.Inside():
                return 1, False
            case ast.Effect():
                assigned = self._shape_of_effect(e)
                return assigned.width, assigned.type.signed
            case ast.Stream():
                return sum(self.casts.digits_of(p) for p in e.parts), False
            case ast.TimeLiteral() | ast.Last():
                return (64, False) if isinstance(e, ast.TimeLiteral) else (32, True)
            case ast.Pattern():
                shape = self.shape_of(e)
                if shape is None or shape.is_aggregate:
                    text = "nothing says here of what type this is"
                    raise self.error("untyped-pattern", text, e, "write its type before it: `name'{...}`")
                return shape.width, shape.type.signed
            case ast.TypeArgument() | ast.New():
                what = "a type" if isinstance(e, ast.TypeArgument) else "a dynamic array"
                raise self.error("type-as-value", f"this is {what}, not a value", e)
            case ast.String():
                return max(8, 8 * len(e.text)), False
            case ast.Fill():
                return 1, False
        raise AssertionError(type(e).__name__)

    def _size_of_selected(self, e: ast.Expr) -> tuple[int, bool]:
        method = self.typed.method(e)
        of = self.typed.shape_of_method(method).type if method is not None else self.selects.value_type(e)
        return of.width, of.signed

    def _size_binary(self, e: ast.Binary) -> tuple[int, bool]:
        if e.op in RELATIONS and (self.texts.is_text(e.a) or self.texts.is_text(e.b)):
            return 1, False
        if e.op in _NOT_OF_REALS and (self.reals.is_real(e.a) or self.reals.is_real(e.b)):
            raise self._no_digits(e)
        if e.op in EQUALITIES and compares_aggregates(self, e):
            return 1, False
        (wa, sa), (wb, sb) = self.size(e.a), self.size(e.b)
        if e.op in RELATIONS or e.op in ("&&", "||"):
            return 1, False
        if e.op in _SHIFTS or e.op == "**":
            return wa, sa
        return max(wa, wb), sa and sb

    def _no_digits(self, e: ast.Unary | ast.Binary) -> ElaborationError:
        text = f"`{e.op}` works on digits, and a real number has none (1364-2005 clause 5.1.1)"
        return self.error("real-operator", text, e, "take `$rtoi(...)` of it, or an `integer`")

    def _repeat_width(self, e: ast.Repeat) -> int:
        """Digits of a repetition; none where it is repeated 0 times (5.1.14)."""
        count = self.integer(e.count, "the count of a repetition")
        if not 0 <= count <= self.limits.vector_bits:
            raise self.error("repeat-count", f"a repetition of {count} times makes no sense", e.count)
        width = count * sum(self._part_width(p) for p in e.parts)
        if width > self.limits.vector_bits:
            raise self.error("too-wide", f"this is {width} bits wide, more than can be taken", e)
        return width

    def _part_width(self, e: ast.Expr) -> int:
        if isinstance(e, ast.Repeat):
            return self._repeat_width(e)
        if isinstance(e, ast.Number) and e.width is None:
            raise self.error(
                "unsized", "a number inside `{ }` needs a width", e, "write for instance 1'b0 instead of 0"
            )
        return self.size(e)[0]

    def size_of_call(self, e: ast.Call) -> tuple[int, bool]:
        """Size and sign of what a function gives; its arguments are counted."""
        if e.name == "$cast":
            return 32, True
        if e.name.startswith("$"):
            return self.system.size(e)
        method = self.typed.method(e)
        if method is not None:
            if method.name in VALUELESS:
                raise self.error("void-value", f"`{method.name}` gives no value", e, "call it as a statement")
            of = self.typed.shape_of_method(method).type
            return of.width, of.signed
        entry = self.function(e)
        if entry.item.type.word == "void":
            raise self.error("void-value", f"`{e.name}` is `void`: it has no value", e, "call it as a statement")
        self.bound(e, entry)
        shape = entry.shape
        assert shape is not None
        if shape.is_aggregate:
            raise self.error("whole-array", f"`{e.name}` gives {'an array' if shape.dims else 'a structure'}", e)
        return shape.width, shape.type.signed

    def function(self, e: ast.Call) -> FunctionEntry:
        """The function that is called."""
        entry = self.find_callable(e)
        if not isinstance(entry, FunctionEntry) or entry.item.task:
            if isinstance(entry, FunctionEntry):
                raise self.error(
                    "task-in-expression", f"`{e.name}` is a task and has no value", e, "a function has one"
                )
            if e.name.rpartition("::")[2] == "randomize":
                raise self.error("not-yet", "`randomize` is not read by this version", e, "take `$urandom_range(a, b)`")
            raise no_callable(self, e, entry, "function")
        return entry

    def find_callable(self, e: ast.Call | ast.TaskCall) -> Entry | None:
        """The function or task that a call names, here or along its path. What follows a name that is wrong is not
        told."""
        if isinstance(e.path, ast.Member):
            return None  # a method, where it is one
        if e.path is not None and isinstance(self.scope.find(e.path.parts[0]), Broken):
            raise ElaborationError
        return self.find(e.path) if e.path is not None else self.scope.find_callable(e.name)

    def find(self, e: ast.Name | ast.Dotted) -> Entry | None:
        """What a name stands for, if anything."""
        if isinstance(e, ast.Name):
            return self.scope.find(e.name)
        found, used = self.selects.along(e)
        return found if used == len(e.parts) or isinstance(found, Vector | Parameter) else None

    def entry(self, e: ast.Name | ast.Dotted) -> Vector | Parameter:
        """What a name in an expression stands for."""
        found = self.find(e)
        if found is None and isinstance(e, ast.Dotted):
            found = self.scope.find(e.parts[0])  # what follows a name that is wrong is not told
            found = found if isinstance(found, Broken) else None
        if isinstance(found, Broken):
            raise ElaborationError
        if isinstance(found, Vector | Parameter):
            return found
        if found is None and isinstance(e, ast.Name) and self.implicit is not None and "::" not in e.name:
            made = self.implicit(e)
            if made is not None:
                return made
        raise no_value(self, e, found)

    # Second pass: lowered in the size and sign of the context.

    def lower(self, e: ast.Expr, width: int, signed: bool) -> ir.Expr:
        """`e` as `width` bits; `signed` is the sign of the whole expression it stands in."""
        if self.reals.is_real(e):
            return ir.Rounded(width, self.reals.lower(e))
        match e:
            case ast.Binary():
                return self._lower_binary(e, width, signed)
            case ast.Unary() if e.op in "+-~":
                a = self.lower(e.a, width, signed)
                return a if e.op == "+" else ir.Unary(width, "neg" if e.op == "-" else "not", a)
            case ast.Conditional():
                return chosen(self, e, width, signed)
            case ast.Pattern():
                self.size(e)
            case ast.Stream():
                raise self.error(
                    "stream-operand", "a stream is a whole right side, or stands in a cast (1800 clause 11.4.14)", e
                )
            case ast.Fill():
                full = values.ones(width)
                one, zero = {"0": (0, full), "1": (full, 0), "x": (0, 0), "z": (full, full)}[e.digit]
                return ir.Const(width, one, zero)
            case ast.Number() if e.width is None and width > e.digits:
                return self._wide_literal(e, width)
        return widened(self._leaf(e), width, signed)

    @staticmethod
    def _wide_literal(e: ast.Number, width: int) -> ir.Expr:
        """An unsized literal goes on with its leftmost x or z, else with zeros or its sign (3.5.1)."""
        top1, top0 = e.one >> (e.digits - 1) & 1, e.zero >> (e.digits - 1) & 1
        return ir.Const(width, *values.extend((e.one, e.zero), e.digits, width, e.signed or top1 == top0))

    def _lower_binary(self, e: ast.Binary, width: int, signed: bool) -> ir.Expr:
        op = e.op
        if op in _BITWISE:
            return ir.Binary(width, _BITWISE[op], self.lower(e.a, width, signed), self.lower(e.b, width, signed))
        if op in ("~^", "^~"):
            inner = ir.Binary(width, "xor", self.lower(e.a, width, signed), self.lower(e.b, width, signed))
            return ir.Unary(width, "not", inner)
        if op in _ARITHMETIC:
            name = _ARITHMETIC[op]
            if signed and name in ("div", "mod"):
                name = "s" + name
            return ir.Binary(width, name, self.lower(e.a, width, signed), self.lower(e.b, width, signed))
        if op in _SHIFTS:
            name = _SHIFTS[op]
            if name == "sar" and not signed:
                name = "shr"
            return ir.Shift(width, name, self.lower(e.a, width, signed), self.self_determined(e.b))
        if op == "**":
            b_signed = self.size(e.b)[1]
            return ir.Power(width, self.lower(e.a, width, signed), self.self_determined(e.b), signed, b_signed)
        return widened(relation(self, e), width, signed)

    def _with_effects(self, e: ast.Expr) -> Effects:
        if self.effects is None:
            text = "this writes to a variable, which only a process, a function or a task does"
            raise self.error("effect-outside", text, e, "write it as a statement of its own")
        return self.effects

    def _shape_of_effect(self, e: ast.Effect) -> Shape:
        shape = self.target_shape(e.done.target)
        if shape.is_aggregate or shape.type.is_real or shape.type.is_text:
            raise self.error("not-yet", "only vectors and numbers are assigned inside an expression here", e)
        return shape

    def _leaf(self, e: ast.Expr) -> ir.Expr:
        if self.texts.asks(e):
            return self.texts.asked(e)
        match e:
            case ast.Number():
                return ir.Const(e.digits, e.one, e.zero)
            case ast.Name() | ast.Dotted() | ast.Index() | ast.Part() | ast.Member():
                return self._selected(e)
            case ast.Unary():
                return self._reduction(e)
            case ast.Concat():
                return self._concat(e.parts, 1)
            case ast.Repeat():
                self.size(e)
                return self._concat(e.parts, self.integer(e.count, "the count of a repetition"))
            case ast.Call():
                return self._lower_call(e)
            case ast.Cast():
                return self.casts.lower(e)
            case ast.Inside():
                return is_inside(self, e)
            case ast.Last():
                return self.collections.last(e)
            case ast.Effect():
                return self._with_effects(e).value_of(self, e)
            case ast.Pattern():
                shape = self.shape_of(e)
                assert shape is not None
                return self.aggregates.lower(e, shape)
            case ast.TimeLiteral():
                return ir.Const(64, *values.word(self.reals.whole_units(e) or 0, 64))
            case ast.String():
                data = int.from_bytes(e.text.encode("latin-1", "replace") or b"\0", "big")
                return ir.Const(self.size(e)[0], *values.word(data, self.size(e)[0]))
        raise AssertionError(type(e).__name__)

    def _selected(self, e: ast.Expr) -> ir.Expr:
        method = self.typed.method(e)
        if method is not None:
            return self.typed.lower_method(method)
        of = self.selects.value_type(e)
        entry = self.selects.base(e)
        value = self.selects.select(e)
        keeps_unknown = of.two_state and isinstance(entry, Vector) and not entry.signal.two_state
        return ir.two_state(value) if keeps_unknown else value

    def select(self, e: ast.Expr) -> ir.Expr:
        """A name or a selection, as what it is."""
        return self.selects.select(e)

    def _reduction(self, e: ast.Unary) -> ir.Expr:
        if e.op == "!":
            return ir.Unary(1, "lnot", self.truth(e.a))
        a = self.self_determined(e.a)
        result = ir.Unary(1, _REDUCTIONS[e.op], a)
        return ir.Unary(1, "not", result) if len(e.op) == 2 else result

    def _concat(self, parts: list[ast.Expr], count: int) -> ir.Expr:
        lowered = [self.self_determined(p) for p in parts if self._part_width(p)] * count
        if len(lowered) == 1:
            return lowered[0]
        made = ir.Concat(sum(p.width for p in lowered), lowered)
        return ir.Const(made.width, *evaluate(made)) if all(isinstance(p, ir.Const) for p in lowered) else made

    def _lower_call(self, e: ast.Call) -> ir.Expr:
        width, _ = self.size(e)
        if e.name == "$cast":
            return self._with_effects(e).cast(self, e)
        if e.name.startswith("$"):
            return self.system.lower(e)
        method = self.typed.method(e)
        if method is not None:
            return self.typed.lower_method(method)
        return self.called(e, width)

    def called(self, e: ast.Call, width: int) -> ir.Expr:
        """The value of a function that the text has."""
        entry = self.function(e)
        if gives_back(entry.item):
            return self._with_effects(e).called(self, e, entry)
        return ir.Call(width, self.callee(e), self.given(e))

    def lowered_function(self, entry: FunctionEntry) -> ir.Function:
        """A function, lowered the first time it is asked for."""
        return self._call(entry)

    def callee(self, e: ast.Call) -> ir.Function:
        """The function that is called, lowered."""
        return self._call(self.function(e))

    # Targets of assignments.

    def targets(self, e: ast.Expr) -> list[ir.Target]:
        """The stretches that a left side writes, leftmost first."""
        if isinstance(e, ast.Concat):
            return [t for part in e.parts for t in self.targets(part)]
        if not isinstance(e, ast.Name | ast.Dotted | ast.Index | ast.Part | ast.Member):
            raise self.error("bad-target", "this cannot be written to", e)
        return [self.selects.target(e)]

    def places(self, e: ast.Expr) -> list[ir.Target]:
        """Where something is written to that is not made for the place: no string or real number of a structure."""
        targets = self.targets(e)
        of = self.target_shape(e).type
        if of.kept:
            text = f"a {of.word} in a structure is written by an assignment only in this version"
            raise self.error("not-yet", text, e, "take a variable, and assign that to the member")
        return targets

    def target_shape(self, e: ast.Expr) -> Shape:
        """What a left side takes."""
        if isinstance(e, ast.Concat):
            width = sum(self.target_shape(part).width for part in e.parts)
            return Shape(vector("logic", False, width - 1, 0))
        return self.selects.shape(e)

    def settled(self, target: ast.Expr, targets: list[ir.Target], value: ir.Expr) -> ir.Expr:
        """A value as its targets keep it: what is of two states takes x and z for 0 (1800 clause 6.3.1)."""
        value = ir.settled(targets, value)
        if not isinstance(target, ast.Concat):
            return value
        shapes = [self.selects.shape(part) for part in _flat(target)]
        if not any(s.type.two_state and not t.signal.two_state for s, t in zip(shapes, targets, strict=True)):
            return value
        parts, low = list[ir.Expr](), value.width
        for shape, t in zip(shapes, targets, strict=True):
            low -= t.width
            part = ir.Slice(t.width, value, low)
            parts.append(ir.two_state(part) if shape.type.two_state else part)
        return ir.Concat(value.width, parts)


def _flat(target: ast.Expr) -> list[ast.Expr]:
    return [e for p in target.parts for e in _flat(p)] if isinstance(target, ast.Concat) else [target]
