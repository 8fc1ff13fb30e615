"""Values as digits: what a VHDL value is in the form that lanes run.

A logic value is one four-state digit (H is 1, L is 0, U, X, W and - are x); enumerations and whole numbers are as many
digits as their range needs; arrays and records are their parts side by side, the leftmost first."""

from __future__ import annotations

from dataclasses import dataclass
from math import prod
from typing import Any

from obento.core.ir import nodes as ir
from obento.core.ir.signal import Signal
from obento.core.values import Word, ones
from obento.core.vhdl.model.nine_values import H, L
from obento.core.vhdl.model.types import ArrayType, EnumType, IntType, PhysType, RecordType, Subtype, scalar_bounds
from obento.core.vhdl.model.values import Arr


class NoLanes(Exception):
    """There is no form for lanes of this; the design runs step by step instead."""


def is_logic(t: Any) -> bool:
    """Whether a type is std_ulogic."""
    return isinstance(t, EnumType) and t.name == "std_ulogic"


def number_width(low: int, high: int) -> int:
    """Digits of a two's complement number from this range; without sign where there is none."""
    if low >= 0:
        return max(1, high.bit_length())
    return max((-low - 1).bit_length(), high.bit_length()) + 1


def bits_of(s: Subtype) -> int:
    """Digits of a subtype.

    Raises
    ------
    NoLanes
        If it has no such form.
    """
    t = s.type
    if is_logic(t):
        return 1
    if isinstance(t, EnumType):
        return max(1, (len(t.literals) - 1).bit_length())
    if isinstance(t, IntType):
        bounds = scalar_bounds(s)
        if bounds is None:
            raise NoLanes("a range that is only known in the run")
        return number_width(*bounds)
    if isinstance(t, ArrayType):
        return prod(sizes_of(s)) * bits_of(s.element_subtype)
    if isinstance(t, RecordType):
        return sum(bits_of(f) for _, f in s.fields)
    what = "physical values" if isinstance(t, PhysType) else f"values of type {t.shown}"
    raise NoLanes(what)


def sizes_of(s: Subtype) -> list[int]:
    """How many places an array has in each dimension.

    Raises
    ------
    NoLanes
        If that is only known in the run.
    """
    found = [one.length() for one in s.ranges or ()]
    sizes = [size for size in found if size is not None]
    if not sizes or len(sizes) < len(found):
        raise NoLanes("an array whose size is only known in the run")
    return sizes


def _elements(value: Arr, dimensions: int) -> list[Any]:
    """The elements of an array, those of a later dimension side by side."""
    return list(value.v) if dimensions == 1 else [x for row in value.v for x in _elements(row, dimensions - 1)]


def word_of(value: Any, s: Subtype) -> Word:
    """A value as a word."""
    t = s.type
    width = bits_of(s)
    if is_logic(t):
        if value in (H, L):
            raise NoLanes("weak values")
        return (1, 0) if value == 3 else (0, 1) if value == 2 else (1, 1) if value == 4 else (0, 0)
    if isinstance(t, EnumType | IntType):
        full = ones(width)
        return int(value) & full, ~int(value) & full
    if isinstance(t, RecordType):
        pairs = [(x, f) for x, (_, f) in zip(value, s.fields, strict=True)]
    else:
        assert isinstance(value, Arr) and isinstance(t, ArrayType)
        pairs = [(x, s.element_subtype) for x in _elements(value, len(t.indices))]
    one = zero = 0
    for x, part in pairs:
        size = bits_of(part)
        p, q = word_of(x, part)
        one, zero = one << size | p, zero << size | q
    return one, zero


@dataclass(slots=True)
class Digits:
    """A value while it is lowered: a constant `value`, or digits `e`. `sub` has its bounds; numbers lie in `low` to
    `high`."""

    sub: Subtype
    value: Any = None
    known: bool = False
    e: ir.Expr | None = None
    low: int = 0
    high: int = 0

    @property
    def digits(self) -> ir.Expr:
        """The digits, also of a constant."""
        if self.e is not None:
            return self.e
        if isinstance(self.sub.type, IntType):
            width = number_width(self.value, self.value)
            full = ones(width)
            return ir.Const(width, self.value & full, ~self.value & full)
        one, zero = word_of(self.value, self.sub)
        return ir.Const(bits_of(self.sub), one, zero)

    @property
    def bounds(self) -> tuple[int, int]:
        """The least and the greatest number that it can be."""
        return (self.value, self.value) if self.known else (self.low, self.high)


def widened(v: Digits, width: int) -> ir.Expr:
    """The digits of a number in some width."""
    e = v.digits
    if e.width == width:
        return e
    if e.width > width:
        return ir.Slice(width, e, 0)
    return ir.Extend(width, e, v.bounds[0] < 0)


def exact(v: Digits, s: Subtype) -> ir.Expr:
    """Digits in exactly the width of a subtype: those of a number that is known are as few as it needs."""
    return widened(v, bits_of(s))


def bit(value: bool) -> ir.Const:
    """One digit, known."""
    return ir.Const(1, int(value), int(not value))


def number(value: int, width: int) -> ir.Const:
    """A whole number in so many digits, negative ones as twos complement."""
    full = ones(width)
    return ir.Const(width, value & full, ~value & full)


def same(a: ir.Expr, b: ir.Expr) -> ir.Expr:
    """Literal equality, 0 or 1 whatever the digits."""
    return ir.Binary(1, "ceq", a, b)


def not_(a: ir.Expr) -> ir.Expr:
    """The inverse of one digit."""
    return ir.Unary(1, "not", a)


def both(a: ir.Expr, b: ir.Expr) -> ir.Expr:
    """Whether two digits are 1."""
    return ir.Binary(1, "and", a, b)


def either(a: ir.Expr, b: ir.Expr) -> ir.Expr:
    """Whether one of two digits is 1."""
    return ir.Binary(1, "or", a, b)


def is_known(e: ir.Expr) -> ir.Expr:
    """1 where every digit is 0 or 1."""
    parity = e if e.width == 1 else ir.Unary(1, "rxor", e)
    return not_(same(ir.Unary(1, "not", parity), ir.Const(1, 0, 0)))


def none_of(flags: list[Signal]) -> ir.Expr:
    """Whether no flag is raised."""
    e: ir.Expr = ir.Ref(1, flags[0])
    for flag in flags[1:]:
        e = either(e, ir.Ref(1, flag))
    return not_(same(e, bit(True)))


def joined(parts: list[ir.Expr]) -> ir.Expr:
    """Digits side by side, the leftmost first.

    Raises
    ------
    NoLanes
        If there are none.
    """
    if not parts:
        raise NoLanes("values without digits")
    return parts[0] if len(parts) == 1 else ir.Concat(sum(p.width for p in parts), parts)
