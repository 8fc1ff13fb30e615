"""Syntax tree of formulas."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(slots=True)
class Formula:
    start: int
    end: int


@dataclass(slots=True)
class Name(Formula):
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
    a: Formula


@dataclass(slots=True)
class Minus(Formula):
    a: Formula


@dataclass(slots=True)
class Op(Formula):
    """`op` is one of and or xor nand nor xnor + - * / % << >> == != < <= > >=."""

    op: str
    a: Formula
    b: Formula


@dataclass(slots=True)
class Choice(Formula):
    cond: Formula
    a: Formula
    b: Formula


@dataclass(slots=True)
class Join(Formula):
    parts: list[Formula]


@dataclass(slots=True)
class Equation:
    target: Name
    value: Formula
    start: int
    end: int
