"""What a kind of part is, and what one of them is given where it stands."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Protocol

from obento.core import values
from obento.core.ir import nodes as ir
from obento.core.ir.design import Process
from obento.core.ir.signal import Signal

Pin = tuple[Signal, int]
"""A wire: signal and bit."""

Sizes = Mapping[str, int]
"""How many bits each operand and pin has, by its name; `bits` is the number written behind that word."""


class Misfit(Exception):
    """Something that a part is given does not fit: `at` is the name of the operand or pin, empty for the whole."""

    def __init__(self, code: str, text: str, at: str = "", hint: str = "") -> None:
        super().__init__(text)
        self.code, self.text, self.at, self.hint = code, text, at, hint


class Place(Protocol):
    """Where a part is put: the design around it, as far as the part needs it."""

    position: int
    label: str
    path: str

    def held(self, name: str, width: int) -> Signal:
        """A variable that keeps digits, unknown at power-up."""

    def memory(self, name: str, width: int, count: int, first: tuple[int, int]) -> Signal:
        """A memory of so many words, with what it holds at first."""

    def wire(self, value: ir.Expr, name: str) -> Pin:
        """The wire that has this value; what is no wire gets one."""

    def process(self, process: Process) -> None:
        """A process of the part."""


@dataclass(frozen=True, slots=True)
class Values:
    """What a part is given: expressions by the names of operands and pins, and their sizes."""

    given: Mapping[str, ir.Expr]
    sizes: Sizes

    def __getitem__(self, name: str) -> ir.Expr:
        return self.given[name]

    def get(self, name: str) -> ir.Expr | None:
        """What a pin is given, if it is connected."""
        return self.given.get(name)


@dataclass(frozen=True, slots=True)
class Kind:
    """One kind of part.

    `operands` are given in order, `pins` by their names and only where they are wanted; those in `wide` take more than
    one bit. `gives` are the outputs in order. `sizes` says how wide they are, or raises `Misfit`; where an operand is
    not known yet it is not there. `build` gives their values, and adds what remembers to the place."""

    name: str
    operands: tuple[str, ...]
    gives: tuple[str, ...]
    sizes: Callable[[Sizes], Sequence[int]]
    build: Callable[[Values, Place], Sequence[ir.Expr]]
    pins: tuple[str, ...] = ()
    wide: frozenset[str] = frozenset()
    stores: bool = False
    check: Callable[[set[str]], str] = lambda pins: ""
    """What is wrong with the pins that are connected; empty when nothing is."""


def constant(width: int, value: int) -> ir.Const:
    """A known number."""
    return ir.Const(width, *values.word(value, width))


def unknown(width: int) -> ir.Const:
    """Digits that nobody knows."""
    return ir.Const(width, 0, 0)


def bit(e: ir.Expr, at: int) -> ir.Expr:
    """One digit."""
    return e if e.width == 1 else ir.Slice(1, e, at)


def widened(e: ir.Expr, width: int, signed: bool = False) -> ir.Expr:
    """With more digits on the left."""
    return e if e.width == width else ir.Extend(width, e, signed)


def alike(sizes: Sizes, *names: str) -> int:
    """The one size that all these have, of those that are known.

    Raises
    ------
    Misfit
        They differ.
    """
    known = {name: sizes[name] for name in names if name in sizes}
    if not known:
        raise Misfit("", "")
    widest = max(known.values())
    for name, size in known.items():
        if size != widest:
            many = " and ".join(str(s) for s in dict.fromkeys(known.values()))
            raise Misfit("width-misfit", f"here meet {many} bits", name, f"make all {widest}: widen(…, bits: {widest})")
    return widest


def known(sizes: Sizes, name: str) -> int:
    """The size of one operand.

    Raises
    ------
    Misfit
        It is not known yet; nothing is to be told.
    """
    if name not in sizes:
        raise Misfit("", "")
    return sizes[name]
