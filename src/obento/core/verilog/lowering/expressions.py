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
from obento.core.ir.signal import Signal
from obento.core.limits import Limits
from obento.core.suggest import did_you_mean
from obento.core.verilog.lowering.real_numbers import RealLowering
from obento.core.verilog.lowering.system_calls import SystemLowering
from obento.core.verilog.model.errors import ElaborationError
from obento.core.verilog.model.scope import (
    Broken,
    Entry,
    FunctionEntry,
    Genvar,
    Inside,
    Parameter,
    Scope,
    TypeName,
    Vector,
)
from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.builtin_types import SIGNED_TYPES, TWO_STATE, WIDTHS
from obento.core.verilog.syntax.expressions import CASTS

_LONGEST_INTEGER = 128
"""Digits (binary) of what may count or number anything."""

_ARITHMETIC = {"+": "add", "-": "sub", "*": "mul", "/": "div", "%": "mod"}
_BITWISE = {"&": "and", "|": "or", "^": "xor"}
_SHIFTS = {"<<": "shl", "<<<": "shl", ">>": "shr", ">>>": "sar"}
_RELATIONS = frozenset(["<", "<=", ">", ">=", "==", "!=", "===", "!=="])
_REDUCTIONS = {"&": "rand", "|": "ror", "^": "rxor", "~&": "rand", "~|": "ror", "~^": "rxor", "^~": "rxor"}


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
        self.reals = RealLowering(self)
        self.system = SystemLowering(self)
        self.implicit: Callable[[ast.Name], Vector | None] | None = None

    def inside(self, scope: Scope) -> ExpressionLowering:
        """The same in an inner scope."""
        return ExpressionLowering(scope, self.collector, self.limits, self._call)

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
        own, signed = self.size(e)
        lowered = self.lower(e, max(own, width), signed)
        return ir.Slice(width, lowered, 0) if own > width else lowered

    def to_type(self, e: ast.Expr, width: int, real: bool) -> ir.Expr:
        """A right side for something that is real or `width` bits wide."""
        return self.reals.lower(e) if real else self.to_width(e, width)

    def argument(self, e: ast.Expr, param: Signal) -> ir.Expr:
        """An actual argument as the formal one takes it."""
        return ir.settled([ir.Target(param, 0, param.width)], self.to_type(e, param.width, param.real))

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

    # Enumerations (1800 clause 6.19).

    def whole_of(self, target: ast.Expr) -> Vector | None:
        """The variable that a target means as a whole, or of which it is an element."""
        if isinstance(target, ast.Name | ast.Dotted):
            entry = self.find(target)
            return entry if isinstance(entry, Vector) and not entry.dims else None
        return self.element_of(target) if isinstance(target, ast.Index) else None

    def enum_of(self, e: ast.Expr) -> TypeName | None:
        """The enumeration that a value belongs to."""
        match e:
            case ast.Name() | ast.Dotted():
                entry = self.find(e)
                return entry.enum if isinstance(entry, Vector | Parameter) else None
            case ast.Index():
                array = self.element_of(e)
                return array.enum if array is not None else None
            case ast.Conditional():
                found = self.enum_of(e.a)
                return found if found is self.enum_of(e.b) else None
            case ast.Cast():
                named = self.scope.find(e.to) if isinstance(e.to, str) else None
                return named.enum if isinstance(named, TypeName) else None
            case ast.Call() if not e.name.startswith("$"):
                self.size(e)
                return self.function(e).enum
        return None

    def check_enum(self, target: Vector | None, value: ast.Expr) -> None:
        """A variable of an enumeration takes values of that enumeration only (1800 clause 6.19.3)."""
        if target is None or target.enum is None or self.enum_of(value) is target.enum:
            return
        wanted = target.enum
        name = "" if "@" in wanted.name else f" `{wanted.name}`"
        cast = f", or {wanted.name}'(...)" if name else ""
        shown = ", ".join(wanted.values[:4]) + (", ..." if len(wanted.values) > 4 else "")
        raise self.error(
            "enum-cast",
            f"only a value of the enumeration{name} can be given here (1800 clause 6.19.3)",
            value,
            f"write {shown}{cast}",
        )

    # Casts (1800 clause 6.24.1).

    def _cast_type(self, e: ast.Cast) -> tuple[int, bool, bool]:
        """Width and sign of what a cast gives, and whether it is of two states."""
        width, signed = (64, True) if self.reals.is_real(e.value) else self.size(e.value)
        if e.to in ("signed", "unsigned"):
            return width, e.to == "signed", False
        if isinstance(e.to, str):
            named = self.scope.find(e.to)
            if isinstance(named, TypeName):
                return named.width, named.signed, named.kind in TWO_STATE
            if e.to in CASTS:
                return WIDTHS.get(e.to, 1), e.to in SIGNED_TYPES, e.to in TWO_STATE
        size = ast.Name(e.start, e.start + len(e.to), e.to) if isinstance(e.to, str) else e.to
        count = self.integer(size, "the width of a cast")
        if not 1 <= count <= self.limits.vector_bits:
            raise self.error("cast-width", f"a cast to {count} digits makes no sense", e)
        return count, signed, False

    def _lower_cast(self, e: ast.Cast) -> ir.Expr:
        width, _, is_two_state = self._cast_type(e)
        if self.reals.is_real(e.value):
            made: ir.Expr = ir.Rounded(width, self.reals.lower(e.value))
        else:
            own, signed = self.size(e.value)
            made = self.lower(e.value, own, signed)
            made = ir.Slice(width, made, 0) if own > width else self._widen(made, width, signed)
        return ir.two_state(made) if is_two_state else made

    # First pass: size and sign of an expression by itself (table 5-22, clause 5.5.1).

    def size(self, e: ast.Expr) -> tuple[int, bool]:
        """Width and sign that an expression has of itself (table 5-22)."""
        known = self._sizes.get(id(e))
        if known is None:
            known = self._sizes[id(e)] = self._size(e)
        return known

    def _size(self, e: ast.Expr) -> tuple[int, bool]:
        if self.reals.is_real(e):
            return 64, True
        match e:
            case ast.Number():
                return e.digits, e.signed
            case ast.Name() | ast.Dotted():
                entry = self.entry(e)
                if isinstance(entry, Parameter):
                    return entry.value.width, entry.signed
                if entry.dims:
                    raise self.error("whole-array", f"`{text_of(e)}` is an array: it needs an index", e)
                return entry.width, entry.signed
            case ast.Binary():
                return self._size_binary(e)
            case ast.Unary():
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
            case ast.Index() | ast.Part():
                return self._select_width(e)
            case ast.Call():
                return self.size_of_call(e)
            case ast.Cast():
                return self._cast_type(e)[:2]
            case ast.String():
                return max(8, 8 * len(e.text)), False
            case ast.Fill():
                return 1, False
        raise AssertionError(type(e).__name__)

    def _size_binary(self, e: ast.Binary) -> tuple[int, bool]:
        (wa, sa), (wb, sb) = self.size(e.a), self.size(e.b)
        if e.op in _RELATIONS or e.op in ("&&", "||"):
            return 1, False
        if e.op in _SHIFTS or e.op == "**":
            return wa, sa
        return max(wa, wb), sa and sb

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
        if e.name.startswith("$"):
            return self.system.size(e)
        entry = self.function(e)
        function = self._call(entry)
        assert function.result is not None
        if len(e.args) != len(function.params):
            raise self.error("arguments", f"`{e.name}` takes {len(function.params)} values, here are {len(e.args)}", e)
        return function.result.width, entry.signed

    def function(self, e: ast.Call) -> FunctionEntry:
        """The function that is called."""
        entry = self.find_callable(e)
        if not isinstance(entry, FunctionEntry) or entry.item.task:
            if isinstance(entry, FunctionEntry):
                raise self.error(
                    "task-in-expression", f"`{e.name}` is a task and has no value", e, "a function has one"
                )
            hint = did_you_mean(
                e.name, [n for n in self.scope.all_names() if isinstance(self.scope.find(n), FunctionEntry)]
            )
            raise self.error("no-function", f"there is no function `{e.name}`", e, hint)
        return entry

    def find_callable(self, e: ast.Call | ast.TaskCall) -> Entry | None:
        """The function or task that a call names, here or along its path."""
        return self.find(e.path) if e.path is not None else self.scope.find_callable(e.name)

    def find(self, e: ast.Name | ast.Dotted) -> Entry | None:
        """What a name stands for, if anything."""
        if isinstance(e, ast.Name):
            return self.scope.find(e.name)
        parts = [
            part if index is None else f"{part}[{self.integer(index, 'the number of a block or instance')}]"
            for part, index in zip(e.parts, e.indices, strict=True)
        ]
        return self.scope.find_path(parts)

    def entry(self, e: ast.Name | ast.Dotted) -> Vector | Parameter:
        """What a name in an expression stands for."""
        found = self.find(e)
        name = text_of(e)
        if isinstance(found, Broken):
            raise ElaborationError
        if isinstance(found, Vector | Parameter):
            return found
        if found is None and isinstance(e, ast.Dotted):
            raise self.error(
                "no-path",
                f"there is nothing called `{name}` in the hierarchy",
                e,
                "names of instances, not of modules, make the path",
            )
        if found is None and isinstance(e, ast.Name):
            if self.implicit is not None:
                made = self.implicit(e)
                if made is not None:
                    return made
            near = did_you_mean(name, self.scope.all_names()) if self.collector.shows("error") else ""
            raise self.error("undeclared", f"`{name}` is not declared", e, near or "declare it with `wire` or `reg`")
        if isinstance(found, FunctionEntry) and not found.item.task and isinstance(e, ast.Name):
            raise self.error(
                "not-a-value", f"`{name}` is a function: its arguments are missing", e, f"write `{name}(...)`"
            )
        what = {
            Inside: "a block or an instance",
            Genvar: "a genvar, which counts in generate loops only",
            TypeName: "a type",
        }.get(type(found), "a task")
        raise self.error("not-a-value", f"`{name}` is {what}, not a signal", e)

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
                cond = self.truth(e.cond)
                return ir.Mux(width, cond, self.lower(e.a, width, signed), self.lower(e.b, width, signed))
            case ast.Fill():
                full = values.ones(width)
                one, zero = {"0": (0, full), "1": (full, 0), "x": (0, 0), "z": (full, full)}[e.digit]
                return ir.Const(width, one, zero)
            case ast.Number() if e.width is None and width > e.digits:
                return self._wide_literal(e, width)
        return self._widen(self._leaf(e), width, signed)

    @staticmethod
    def _wide_literal(e: ast.Number, width: int) -> ir.Expr:
        """An unsized literal goes on with its leftmost x or z, else with zeros or its sign (3.5.1)."""
        top1, top0 = e.one >> (e.digits - 1) & 1, e.zero >> (e.digits - 1) & 1
        return ir.Const(width, *values.extend((e.one, e.zero), e.digits, width, e.signed or top1 == top0))

    @staticmethod
    def _widen(e: ir.Expr, width: int, signed: bool) -> ir.Expr:
        if e.width >= width:
            return e
        if isinstance(e, ir.Const):
            return ir.Const(width, *values.extend((e.one, e.zero), e.width, width, signed))
        return ir.Extend(width, e, signed)

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
        return self._widen(self._relation(e), width, signed)

    def _truth(self, e: ast.Expr) -> ir.Expr:
        a = self.truth(e)
        return a if a.width == 1 else ir.Unary(1, "ror", a)

    def _relation(self, e: ast.Binary) -> ir.Expr:
        op = e.op
        if op in ("&&", "||"):
            return ir.Binary(1, "and" if op == "&&" else "or", self._truth(e.a), self._truth(e.b))
        if self.reals.is_real(e.a) or self.reals.is_real(e.b):
            return self.reals.relation(op, e)
        (wa, sa), (wb, sb) = self.size(e.a), self.size(e.b)
        width, signed = max(wa, wb), sa and sb
        a, b = self.lower(e.a, width, signed), self.lower(e.b, width, signed)
        if op in ("==", "!="):
            return ir.Binary(1, "eq" if op == "==" else "ne", a, b)
        if op in ("===", "!=="):
            same = ir.Binary(1, "ceq", a, b)
            return same if op == "===" else ir.Unary(1, "lnot", same)
        if op in (">", ">="):
            a, b = b, a
        name = "lt" if op in "<>" else "le"
        return ir.Binary(1, "s" + name if signed else name, a, b)

    def _leaf(self, e: ast.Expr) -> ir.Expr:
        match e:
            case ast.Number():
                return ir.Const(e.digits, e.one, e.zero)
            case ast.Name() | ast.Dotted():
                entry = self.entry(e)
                self.size(e)
                return entry.value if isinstance(entry, Parameter) else entry.whole()
            case ast.Unary():
                return self._reduction(e)
            case ast.Concat():
                return self._concat(e.parts, 1)
            case ast.Repeat():
                self.size(e)
                return self._concat(e.parts, self.integer(e.count, "the count of a repetition"))
            case ast.Index() | ast.Part():
                return self.select(e)
            case ast.Call():
                return self._lower_call(e)
            case ast.Cast():
                return self._lower_cast(e)
            case ast.String():
                data = int.from_bytes(e.text.encode("latin-1", "replace") or b"\0", "big")
                return ir.Const(self.size(e)[0], *values.word(data, self.size(e)[0]))
        raise AssertionError(type(e).__name__)

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
        if e.name.startswith("$"):
            return self.system.lower(e)
        function = self.callee(e)
        args = [self.argument(a, p) for a, p in zip(e.args, function.params, strict=True)]
        return ir.Call(width, function, args)

    def callee(self, e: ast.Call) -> ir.Function:
        """The function that is called, lowered."""
        return self._call(self.function(e))

    # Selects (5.2).

    def _base(self, e: ast.Expr) -> tuple[Vector | Parameter, list[ast.Expr], ast.Part | None]:
        """The vector that a select is of, the indices in order, and the part select at its end."""
        indices: list[ast.Expr] = []
        part = None
        node = e
        if isinstance(node, ast.Part):
            part = node
            node = node.base
        while isinstance(node, ast.Index):
            indices.insert(0, node.index)
            node = node.base
        if not isinstance(node, ast.Name | ast.Dotted):
            raise self.error("bad-select", "only a name can be indexed", e)
        return self.entry(node), indices, part

    def element_of(self, e: ast.Expr) -> Vector | None:
        """The array that `e` selects a whole element of, else None."""
        if not isinstance(e, ast.Index):
            return None
        entry, indices, _ = self._base(e)
        return entry if isinstance(entry, Vector) and entry.dims and len(indices) == len(entry.dims) else None

    def _select_width(self, e: ast.Index | ast.Part) -> tuple[int, bool]:
        entry, indices, part = self._base(e)
        dims = entry.dims if isinstance(entry, Vector) else []
        width = entry.width if isinstance(entry, Vector) else entry.value.width
        scalar = isinstance(entry, Vector) and width == 1 and entry.msb == 0 == entry.lsb
        extra = len(indices) - len(dims)
        if extra < 0:
            raise self.error("whole-array", "this is a whole array: it needs one more index", e)
        if isinstance(entry, Vector) and entry.is_real and (extra or part):
            raise self.error(
                "real-select", "a real number has no digits to be selected", e, "assign it to an `integer` first"
            )
        if extra > 1 or (extra == 1 and part):
            raise self.error("too-many-indices", "one index too many", e)
        if scalar and (extra == 1 or part) and isinstance(entry, Vector):
            self.collector.warning(
                "select-of-bit",
                "this selects from a signal of one bit",
                e.start,
                e.end,
                "was it meant to be declared with a range?",
            )
        if part is not None:
            return self._part_size(part, entry), False
        if extra == 1:
            return 1, False
        return width, isinstance(entry, Vector) and entry.signed

    def _part_size(self, part: ast.Part, entry: Vector | Parameter) -> int:
        if part.how != ":":
            width = self.integer(part.right, "the width of a part select")
        else:
            left = self.integer(part.left, "the ends of a part select")
            right = self.integer(part.right, "the ends of a part select")
            step = entry.step if isinstance(entry, Vector) else 1
            if (left - right) * step < 0:
                raise self.error(
                    "reversed-part", f"[{left}:{right}] runs against the declaration", part, f"write [{right}:{left}]"
                )
            width = abs(left - right) + 1
        if not 1 <= width <= self.limits.vector_bits:
            raise self.error("part-width", f"a part select of {width} bits makes no sense", part)
        return width

    def select(self, e: ast.Index | ast.Part) -> ir.Expr:
        """An element, a digit or a part of a signal."""
        entry, indices, part = self._base(e)
        self.size(e)
        if isinstance(entry, Parameter):
            result: ir.Expr = entry.value
            msb, lsb, step, dims = entry.value.width - 1, 0, 1, []
        else:
            result = entry.whole()
            msb, lsb, step, dims = entry.msb, entry.lsb, entry.step, entry.dims
        inner = result.width
        for (left, right), index in zip(dims, indices, strict=False):
            inner //= abs(left - right) + 1
            result = self._pick(result, index, min(left, right), inner, inner, e)
        for index in indices[len(dims) :]:
            result = self._pick(result, index, lsb, step, 1, e)
        if part is not None:
            result = self._part(result, part, msb, lsb, step)
        return result

    def _pick(self, a: ir.Expr, index: ast.Expr, base: int, step: int, width: int, e: ast.Expr) -> ir.Expr:
        index_width, signed = self.size(index)
        lowered = self.lower(index, index_width, signed)
        try:
            one, zero = evaluate(lowered)
        except NotConstant:
            return ir.Pick(width, a, lowered, signed, base, step)
        if one ^ zero != values.ones(index_width):
            return ir.Const(width, 0, 0)
        at = values.signed_value(one, index_width) if signed else one
        low = (at - base) * step
        if not 0 <= low < a.width:
            self.collector.warning(
                "out-of-range", f"index {shown(at)} lies outside of the declared range", e.start, e.end
            )
        return ir.Slice(width, a, max(-width, min(low, a.width)))  # wherever it is out there, nothing is there

    def _part(self, a: ir.Expr, part: ast.Part, msb: int, lsb: int, step: int) -> ir.Expr:
        width = self.size(part)[0]
        if part.how == ":":
            left = self.integer(part.left, "the ends of a part select")
            right = self.integer(part.right, "the ends of a part select")
            low = (right - lsb) * step
            if low < 0 or (left - lsb) * step >= a.width:
                self.collector.warning(
                    "out-of-range",
                    f"[{left}:{right}] reaches outside of the declared [{msb}:{lsb}]",
                    part.start,
                    part.end,
                )
            return ir.Slice(width, a, low)
        return self._pick(a, part.left, self.indexed_base(part.how, width, lsb, step), step, width, part)

    @staticmethod
    def indexed_base(how: str, width: int, lsb: int, step: int) -> int:
        """The declared index that `[i +: n]` or `[i -: n]` must have to select from offset 0 (5.2.1)."""
        upwards = (how == "+:") == (step == 1)
        return lsb if upwards else lsb + (width - 1) * step

    # Targets of assignments.

    def targets(self, e: ast.Expr) -> list[ir.Target]:
        """The stretches that a left side writes, leftmost first."""
        if isinstance(e, ast.Concat):
            return [t for part in e.parts for t in self.targets(part)]
        if not isinstance(e, ast.Name | ast.Dotted | ast.Index | ast.Part):
            raise self.error("bad-target", "this cannot be written to", e)
        entry, _, _ = self._base(e)
        if isinstance(entry, Parameter):
            raise self.error("bad-target", "a parameter is a constant and cannot be written to", e)
        width, _ = self.size(e)
        if isinstance(e, ast.Name | ast.Dotted):
            return [ir.Target(entry.signal, entry.at, width)]
        selected = self.select(e)
        if isinstance(selected, ir.Const):  # a constant index with unknown digits: nothing is written (5.2.1)
            return [ir.Target(entry.signal, entry.signal.width, selected.width)]
        return [self._place(selected)]

    @staticmethod
    def _place(selected: ir.Expr) -> ir.Target:
        """A select of a signal as a place to be written."""
        low = 0
        offsets: list[ir.Offset] = []
        node = selected
        while not isinstance(node, ir.Ref):
            if isinstance(node, ir.Slice):
                low += node.low
                node = node.a
                continue
            assert isinstance(node, ir.Pick)
            # An element must lie inside its array; a part of a whole vector may reach over its ends.
            window = 0 if isinstance(node.a, ir.Ref) and not node.a.signal.element else node.a.width
            offsets.insert(0, ir.Offset(node.index, node.index_signed, node.base, node.step, node.width, window))
            node = node.a
        return ir.Target(node.signal, low, selected.width, offsets)


def text_of(e: ast.Name | ast.Dotted) -> str:
    """A name as written."""
    return e.name if isinstance(e, ast.Name) else ".".join(e.parts)
