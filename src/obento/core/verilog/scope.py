"""Names of a module instance and what they stand for."""

from __future__ import annotations

from dataclasses import dataclass, field

from obento.core.ir.design import Signal
from obento.core.ir.nodes import Const, Function
from obento.core.verilog import ast


@dataclass(slots=True)
class Vector:
    """A declared net or variable: its signal, its range as declared, and its array dimensions (outermost first)."""

    signal: Signal
    msb: int
    lsb: int
    signed: bool
    kind: str
    dims: list[tuple[int, int]] = field(default_factory=list)
    start: int = 0

    @property
    def width(self) -> int:
        """Bits of one element."""
        return abs(self.msb - self.lsb) + 1

    @property
    def step(self) -> int:
        return 1 if self.msb >= self.lsb else -1


@dataclass(slots=True)
class Parameter:
    value: Const
    signed: bool
    start: int = 0


@dataclass(slots=True)
class FunctionEntry:
    """A function as written; lowered when first called, since it may be called before its text."""

    item: ast.FunctionItem
    scope: Scope
    lowered: Function | None = None
    signed: bool = False


@dataclass(slots=True)
class Block:
    """A named block or an instance; it takes its name."""

    start: int


Entry = Vector | Parameter | FunctionEntry | Block


class Scope:
    """One level of names; a name not found here is looked for outside."""

    def __init__(self, path: str, outer: Scope | None = None) -> None:
        self.path = path
        self.outer = outer
        self.entries: dict[str, Entry] = {}

    def find(self, name: str) -> Entry | None:
        scope: Scope | None = self
        while scope is not None:
            hit = scope.entries.get(name)
            if hit is not None:
                return hit
            scope = scope.outer
        return None

    def all_names(self) -> list[str]:
        names: list[str] = []
        scope: Scope | None = self
        while scope is not None:
            names += scope.entries
            scope = scope.outer
        return names
