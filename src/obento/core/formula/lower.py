"""Formulas to the intermediate representation.

Word-level arithmetic is exact: every operator gives as many digits as its result can need, with a sign where it can be
negative, and only the assignment to a name cuts to that name's width. So `(a + b) >> 1` keeps its carry, and `a - b >
3` means what it says."""

from __future__ import annotations

from collections.abc import Callable

from obento.core import values
from obento.core.diagnostics import Collector
from obento.core.formula.ast import Bits, Choice, Formula, Join, Minus, Name, Not, Number, Op
from obento.core.ir import nodes as ir
from obento.core.ir.signal import Signal
from obento.core.syntax.stream import SyntaxProblem

_WIDEST = 4096
_LOGIC = {"and": "and", "or": "or", "xor": "xor", "nand": "and", "nor": "or", "xnor": "xor"}


class Operand:
    """A signal as formulas see it: how its bits are numbered and whether it is signed."""

    def __init__(self, signal: Signal, signed: bool = False, ascending: bool = False, low: int = 0) -> None:
        self.signal = signal
        self.signed = signed
        self.ascending = ascending
        self.low = low

    def offset(self, index: int) -> int:
        """The offset of a bit from its number."""
        return self.signal.width - 1 - (index - self.low) if self.ascending else index - self.low


Typed = tuple[ir.Expr, bool]


class FormulaLowering:
    """`find` gives the operand of a name, or None."""

    def __init__(self, find: Callable[[str], Operand | None], hint: Callable[[str], str], collector: Collector) -> None:
        self._find = find
        self._hint = hint
        self._collector = collector

    def to_width(self, f: Formula, width: int) -> ir.Expr:
        """`f` cut or widened to `width` digits."""
        value, signed = self.lower(f)
        return _resize(value, width, signed)

    def condition(self, f: Formula) -> ir.Expr:
        """`f` as a truth value of one bit."""
        value, _ = self.lower(f)
        return value if value.width == 1 else ir.Unary(1, "ror", value)

    def _wrong(self, code: str, text: str, f: Formula, hint: str = "") -> SyntaxProblem:
        self._collector.error(code, text, f.start, f.end, hint)
        return SyntaxProblem()

    def _operand(self, name: str, f: Formula) -> Operand:
        operand = self._find(name)
        if operand is None:
            raise self._wrong("undeclared", f"there is no port or inner name `{name}`", f, self._hint(name))
        return operand

    def lower(self, f: Formula) -> Typed:
        """The expression and whether it is signed.

        Raises
        ------
        SyntaxProblem
            After reporting what is wrong.
        """
        match f:
            case Name():
                operand = self._operand(f.name, f)
                return ir.Ref(operand.signal.width, operand.signal), operand.signed
            case Number():
                width = f.width or max(1, f.value.bit_length())
                return ir.Const(width, *values.word(f.value, width)), False
            case Bits():
                return self._bits(f)
            case Not():
                value, _ = self.lower(f.a)
                return ir.Unary(value.width, "not", value), False
            case Minus():
                value, signed = self.lower(f.a)
                width = self._bounded(value.width + 1, f)
                return ir.Unary(width, "neg", _resize(value, width, signed)), True
            case Choice():
                cond = self.condition(f.cond)
                (a, sa), (b, sb) = self.lower(f.a), self.lower(f.b)
                width, signed = _common(a, sa, b, sb)
                return ir.Mux(width, cond, _resize(a, width, sa), _resize(b, width, sb)), signed
            case Join():
                parts = [self.lower(p)[0] for p in f.parts]
                return ir.Concat(sum(p.width for p in parts), parts), False
            case Op():
                return self._op(f)
        raise AssertionError(type(f).__name__)

    def _bits(self, f: Bits) -> Typed:
        operand = self._operand(f.name, f)
        a, b = operand.offset(f.high), operand.offset(f.low)
        if not (0 <= b <= a < operand.signal.width):
            raise self._wrong("out-of-range", f"`{f.name}` has no bits [{f.high}..{f.low}]", f)
        return ir.Slice(a - b + 1, ir.Ref(operand.signal.width, operand.signal), b), False

    def _bounded(self, width: int, f: Formula) -> int:
        if width > _WIDEST:
            raise self._wrong("too-wide", f"this would need {width} bits", f)
        return width

    def _op(self, f: Op) -> Typed:
        (a, sa), (b, sb) = self.lower(f.a), self.lower(f.b)
        op = f.op
        if op in _LOGIC:
            if a.width != b.width and not isinstance(f.a, Number) and not isinstance(f.b, Number):
                raise self._wrong(
                    "width-misfit", f"`{op}` of {a.width} and {b.width} bits", f, "both sides need the same width"
                )
            width = max(a.width, b.width)
            value: ir.Expr = ir.Binary(width, _LOGIC[op], _resize(a, width, sa), _resize(b, width, sb))
            return (ir.Unary(width, "not", value) if op in ("nand", "nor", "xnor") else value), sa and sb
        if op in ("==", "!=", "<", "<=", ">", ">="):
            width, signed = _common(a, sa, b, sb)
            x, y = _resize(a, width, sa), _resize(b, width, sb)
            if op in ("==", "!="):
                return ir.Binary(1, "eq" if op == "==" else "ne", x, y), False
            if op in (">", ">="):
                x, y = y, x
            name = ("s" if signed else "") + ("lt" if op in "<>" else "le")
            return ir.Binary(1, name, x, y), False
        if op in ("<<", ">>"):
            return self._shift(f, a, sa, b)
        width, signed = _common(a, sa, b, sb)
        if op in ("/", "%"):
            x, y = _resize(a, width, sa), _resize(b, width, sb)
            return ir.Binary(width, ("s" if signed else "") + ("div" if op == "/" else "mod"), x, y), signed
        if op == "*":
            width = self._bounded(a.width + b.width, f)
            return ir.Binary(width, "mul", _resize(a, width, sa), _resize(b, width, sb)), signed
        width = self._bounded(width + 1, f)
        name = "add" if op == "+" else "sub"
        return ir.Binary(width, name, _resize(a, width, sa), _resize(b, width, sb)), signed or op == "-"

    def _shift(self, f: Op, a: ir.Expr, sa: bool, b: ir.Expr) -> Typed:
        if f.op == ">>":
            return ir.Shift(a.width, "sar" if sa else "shr", a, b), sa
        most = f.b.value if isinstance(f.b, Number) else (1 << b.width) - 1 if b.width <= 12 else _WIDEST
        width = self._bounded(a.width + most, f)
        return ir.Shift(width, "shl", _resize(a, width, sa), b), sa


def _common(a: ir.Expr, sa: bool, b: ir.Expr, sb: bool) -> tuple[int, bool]:
    """Width and sign in which both values can be written."""
    if sa == sb:
        return max(a.width, b.width), sa
    return max(a.width + (not sa), b.width + (not sb)), True


def _resize(e: ir.Expr, width: int, signed: bool) -> ir.Expr:
    if e.width == width:
        return e
    if e.width > width:
        return ir.Slice(width, e, 0)
    return ir.Extend(width, e, signed)
