"""Operators on whole numbers as digits, in as many as their result can need."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Protocol

from obento.core.ir import nodes as ir
from obento.core.ir.part import RunError
from obento.core.vhdl.lanes.natives import truth
from obento.core.vhdl.lanes.values import Digits, NoLanes, both, not_, number, number_width, same, widened
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.types import Subtype
from obento.core.vhdl.packages.standard import INTEGER
from obento.core.vhdl.runtime import operations as ops

_INT = {"+": lambda a, b: a + b, "-": lambda a, b: a - b, "*": lambda a, b: a * b}
_MOST_POWER = 64
_POWER_DIGITS = 7
ORDER = {"<": ("slt", False), "<=": ("sle", False), ">": ("slt", True), ">=": ("sle", True)}
"""Signed operators, and whether their sides are exchanged."""


class Marks(Protocol):
    """Who marks the lanes that have to be run step by step."""

    def escape(self, when: ir.Expr) -> None:
        """The cases in which a condition holds are told by the timeline."""
        ...

    def inside(self, v: Digits, low: int, high: int) -> None:
        """So are those in which a number leaves a range."""
        ...


def integers(x: t.Op, args: list[Digits], marks: Marks) -> Digits:
    """An operator on whole numbers (1076-1993 clause 7.2); lanes that would end in an error are marked.

    Raises
    ------
    NoLanes
    """
    if all(a.known for a in args):
        return _known_integers(x, [a.value for a in args])
    if x.op in ("=", "/=", *ORDER):
        return _compared(x.op, args[0], args[1])
    if len(args) == 1:
        low, high = args[0].bounds
        if x.op == "-":
            return _sized(-high, -low, lambda width: ir.Unary(width, "neg", widened(args[0], width)))
        if x.op == "+":
            return args[0]
        if x.op == "abs":
            return _magnitude(args[0])
        raise NoLanes(f"`{x.op}` of numbers")
    (a, b), (c, d) = args[0].bounds, args[1].bounds
    if x.op in _INT:
        corners = [_INT[x.op](p, q) for p in (a, b) for q in (c, d)]
        name = {"+": "add", "-": "sub", "*": "mul"}[x.op]
        return _sized(
            min(corners),
            max(corners),
            lambda width: ir.Binary(width, name, widened(args[0], width), widened(args[1], width)),
        )
    if x.op in ("/", "mod", "rem"):
        if args[1].known and args[1].value > 0:
            return _divided(x, args[0], args[1].value)
        return _divided_by_any(x, args[0], args[1], marks)
    if x.op == "**" and args[0].known and args[0].value == 2 and c >= 0:
        # 2**n, the power that circuits are written with
        marks.inside(args[1], 0, _MOST_POWER)
        high = 1 << min(d, _MOST_POWER)
        return _sized(1, high, lambda width: ir.Shift(width, "shl", number(1, width), widened(args[1], _POWER_DIGITS)))
    if x.op in ("maximum", "minimum"):
        first = _compared("<", args[0], args[1]).digits
        low, high = min(a, c), max(b, d)
        width = number_width(low, high)
        p, q = widened(args[0], width), widened(args[1], width)
        return Digits(
            Subtype(x.type), e=ir.Mux(width, first, *((q, p) if x.op == "maximum" else (p, q))), low=low, high=high
        )
    raise NoLanes(f"`{x.op}` of numbers that change")


def _divided(x: t.Op, a: Digits, n: int) -> Digits:
    """By a positive constant: `/` and `rem` towards zero, `mod` never negative (9.2.7)."""
    low, high = a.bounds
    if x.op == "mod" and n & (n - 1) == 0:
        width = n.bit_length() - 1
        zero = number(0, 1)
        return Digits(
            Subtype(x.type),
            e=ir.Slice(width, widened(a, max(width, a.digits.width)), 0) if width else zero,
            low=0,
            high=n - 1,
        )
    if low >= 0:
        width = number_width(0, max(high, n))
        quotient = ir.Binary(width, "div" if x.op == "/" else "mod", widened(a, width), number(n, width))
        return Digits(Subtype(x.type), e=quotient, low=0, high=high // n if x.op == "/" else min(high, n - 1))
    width = number_width(min(low, -n), max(high, n))
    e: ir.Expr = ir.Binary(width, "sdiv" if x.op == "/" else "smod", widened(a, width), number(n, width))
    if x.op == "mod":
        negative = ir.Slice(1, e, width - 1)
        e = ir.Mux(width, negative, ir.Binary(width, "add", e, number(n, width)), e)
        return Digits(Subtype(x.type), e=ir.Slice(number_width(0, n - 1), e, 0), low=0, high=n - 1)
    if x.op == "/":
        return Digits(Subtype(x.type), e=e, low=-(-low // n), high=max(high, 0) // n)
    return Digits(Subtype(x.type), e=e, low=1 - n, high=n - 1)


def _magnitude(v: Digits) -> Digits:
    low, high = v.bounds
    if low >= 0:
        return v
    width = number_width(-max(-low, high), max(-low, high))
    e = widened(v, width)
    positive = ir.Mux(width, ir.Slice(1, e, width - 1), ir.Unary(width, "neg", e), e)
    return Digits(Subtype(INTEGER), e=positive, low=0, high=max(-low, high))


def _divided_by_any(x: t.Op, a: Digits, b: Digits, marks: Marks) -> Digits:
    """`/`, `rem` and `mod` by a number that changes; lanes in which that is 0 are run step by step, where it is an
    error (9.2.7: `rem` has the sign of the left operand, `mod` that of the right)."""
    (a_low, a_high), (b_low, b_high) = a.bounds, b.bounds
    width = number_width(min(a_low, -a_high, b_low, -1), max(a_high, -a_low, b_high))
    p, q = widened(a, width), widened(b, width)
    zero = number(0, width)
    if b_low <= 0 <= b_high:
        marks.escape(same(q, zero))
    if x.op == "/":
        most = max(a_high, -a_low)
        low = 0 if a_low >= 0 and b_low >= 0 else -most
        return Digits(Subtype(x.type), e=ir.Binary(width, "sdiv", p, q), low=low, high=most)
    e: ir.Expr = ir.Binary(width, "smod", p, q)
    most = max(abs(b_low), abs(b_high), 1) - 1
    if x.op == "rem":
        return Digits(Subtype(x.type), e=e, low=max(a_low, -most) if a_low < 0 else 0, high=max(0, min(a_high, most)))
    if a_low < 0 or b_low < 0:
        differs = ir.Binary(1, "xor", ir.Slice(1, e, width - 1), ir.Slice(1, q, width - 1))
        adjusts = both(differs, not_(same(e, zero)))
        e = ir.Mux(width, adjusts, ir.Binary(width, "add", e, q), e)
    return Digits(Subtype(x.type), e=e, low=-most if b_low < 0 else 0, high=most if b_high > 0 else 0)


def _sized(low: int, high: int, make: Callable[[int], ir.Expr]) -> Digits:
    if number_width(low, high) > 128:
        raise NoLanes("very large numbers")
    return Digits(Subtype(INTEGER), e=make(number_width(low, high)), low=low, high=high)


def _known_integers(x: t.Op, values: list[int]) -> Digits:
    try:
        if len(values) == 1:
            found: Any = {"-": -values[0], "+": values[0], "abs": abs(values[0])}[x.op]
        else:
            a, b = values
            table: dict[str, Callable[[], Any]] = {
                "+": lambda: a + b,
                "-": lambda: a - b,
                "*": lambda: a * b,
                "/": lambda: ops.divide(a, b, x.pos),
                "**": lambda: ops.power(a, b, x.pos),
                "mod": lambda: ops.modulo(a, b, x.pos),
                "rem": lambda: ops.remainder(a, b, x.pos),
                "=": lambda: a == b,
                "/=": lambda: a != b,
                "<": lambda: a < b,
                "<=": lambda: a <= b,
                ">": lambda: a > b,
                ">=": lambda: a >= b,
                "minimum": lambda: min(a, b),
                "maximum": lambda: max(a, b),
            }
            found = table[x.op]()
    except (KeyError, RunError):
        raise NoLanes(f"`{x.op}` of these numbers") from None
    return Digits(Subtype(x.type), int(found), True)


def _compared(op: str, a: Digits, b: Digits) -> Digits:
    low, high = min(a.bounds[0], b.bounds[0], -1), max(a.bounds[1], b.bounds[1])
    width = number_width(low, high)
    p, q = widened(a, width), widened(b, width)
    if op in ("=", "/="):
        holds = same(p, q)
        return truth(not_(holds) if op == "/=" else holds)
    name, swap = ORDER[op]
    return truth(ir.Binary(1, name, q, p) if swap else ir.Binary(1, name, p, q))
