"""Syntax tree of formulas."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(slots=True)
class Formula:
    """Any formula, with its stretch of positions."""

    start: int
    end: int


@dataclass(slots=True)
class Name(Formula):
    """A port, or a name given by an earlier equation."""

    name: str


@dataclass(slots=True)
class Number(Formula):
    """`width` is None for a plain number."""

    value: int
    width: int | None


@dataclass(slots=True)
class Bits(Formula):
    """`name[high..low]`; a single bit has high equal to low."""

    name: str
    high: int
    low: int


@dataclass(slots=True)
class Not(Formula):
    """The inverse, digit by digit."""

    a: Formula


@dataclass(slots=True)
class Minus(Formula):
    """The negative, in two's complement."""

    a: Formula


@dataclass(slots=True)
class Op(Formula):
    """`op` is one of and or xor nand nor xnor + - * / % << >> == != < <= > >=."""

    op: str
    a: Formula
    b: Formula


@dataclass(slots=True)
class Choice(Formula):
    """`cond ? a : b`."""

    cond: Formula
    a: Formula
    b: Formula


@dataclass(slots=True)
class Join(Formula):
    """Parts put together, the leftmost first."""

    parts: list[Formula]


@dataclass(slots=True)
class Equation:
    """A name and the formula that it stands for."""

    target: Name
    value: Formula
    start: int
    end: int
