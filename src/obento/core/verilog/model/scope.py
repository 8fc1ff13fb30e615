"""Names of a module instance and what they stand for."""

from __future__ import annotations

from dataclasses import dataclass, field

from obento.core.ir.design import ScopeOfNames
from obento.core.ir.nodes import Const, Expr, Function, Label, Ref, Slice
from obento.core.ir.signal import Signal
from obento.core.verilog.syntax import ast


@dataclass(slots=True)
class Vector:
    """A declared net or variable: its signal, its range as declared, and its array dimensions (outermost first). `enum`
    is its enumeration.

    A port that is part of a wire outside begins at digit `at` of that wire's signal.
    """

    signal: Signal
    msb: int
    lsb: int
    signed: bool
    kind: str
    dims: list[tuple[int, int]] = field(default_factory=list)
    start: int = 0
    at: int = 0
    enum: TypeName | None = None

    @property
    def width(self) -> int:
        """Bits of one element."""
        return abs(self.msb - self.lsb) + 1

    @property
    def total(self) -> int:
        """Bits of all elements."""
        total = self.width
        for left, right in self.dims:
            total *= abs(left - right) + 1
        return total

    @property
    def step(self) -> int:
        """1 where the left index is the higher one, else -1."""
        return 1 if self.msb >= self.lsb else -1

    @property
    def is_real(self) -> bool:
        """Whether it holds a real number."""
        return self.signal.real

    def whole(self) -> Expr:
        """All of it, as an expression."""
        whole = Ref(self.signal.width, self.signal)
        return whole if self.total == self.signal.width else Slice(self.total, whole, self.at)


@dataclass(slots=True)
class Parameter:
    """`real` parameters carry their number in `number`, names of an enumeration their type in `enum`."""

    value: Const
    signed: bool
    start: int = 0
    number: float | None = None
    enum: TypeName | None = None


@dataclass(slots=True, eq=False)
class TypeName:
    """A type that has a name: made by `typedef`, or an enumeration, with the names of its values."""

    name: str
    kind: str
    signed: bool
    msb: int
    lsb: int
    values: list[str] = field(default_factory=list)
    enum: TypeName | None = None
    """The enumeration that it is, or another name for."""

    @property
    def width(self) -> int:
        """Digits of a value of the type."""
        return abs(self.msb - self.lsb) + 1


@dataclass(slots=True)
class FunctionEntry:
    """A function or task as written; lowered when first called, since it may be called before its text."""

    item: ast.FunctionItem
    scope: Scope
    inner: Scope
    lowered: Function | None = None
    signed: bool = False
    done: bool = False
    enum: TypeName | None = None


@dataclass(slots=True)
class Inside:
    """A named block, a task or an instance: a level of names of its own."""

    scope: Scope | None
    start: int
    label: Label | None = None


@dataclass(slots=True)
class Genvar:
    """A name that counts in generate loops."""

    start: int


@dataclass(slots=True)
class Outside:
    """The wire that a port is connected to: digits from `at` of a signal.

    `width` digits in all, shared out among `copies` instances of an array, of which this is number `number` from the
    right."""

    signal: Signal
    at: int
    width: int
    copies: int = 1
    number: int = 0

    def place(self, width: int) -> int | None:
        """Where this instance's port of `width` digits lies in the signal; None when it does not fit."""
        if width == self.width:
            return self.at
        return self.at + self.number * width if width * self.copies == self.width else None


@dataclass(slots=True)
class Broken:
    """A name whose declaration was wrong, which has been said; its uses are passed over."""

    start: int


Entry = Broken | Vector | Parameter | TypeName | FunctionEntry | Inside | Genvar


class Scope:
    """One level of names; a name not found here is looked for outside, up to the module.

    `parent` is the level that the hierarchy has above, across module boundaries; `shown` what people see of this level.
    `reals` tells whether any module has real numbers at all; `times` are length and precision of the module's time
    unit, in ticks of the design."""

    def __init__(
        self, path: str, outer: Scope | None = None, parent: Scope | None = None, shown: ScopeOfNames | None = None
    ) -> None:
        self.path = path
        self.outer = outer
        self.parent = parent or outer
        self.entries: dict[str, Entry] = {}
        self.shown: ScopeOfNames | None = shown or (outer.shown if outer is not None else None)
        self.module = ""
        self.times: tuple[int, int] = outer.times if outer is not None else (1, 1)
        self.reals: bool = self.parent.reals if self.parent is not None else False
        self.automatic: bool = outer.automatic if outer is not None else False

    def find(self, name: str) -> Entry | None:
        """What a name means here or in a scope around (12.7)."""
        scope: Scope | None = self
        while scope is not None:
            hit = scope.entries.get(name)
            if hit is not None:
                return hit
            scope = scope.outer
        return None

    def find_callable(self, name: str) -> Entry | None:
        """As `find`; inside a function its name also means its result, which is passed over here."""
        scope: Scope | None = self
        while scope is not None:
            hit = scope.entries.get(name)
            if hit is not None and not (isinstance(hit, Vector) and hit.kind == "function"):
                return hit
            scope = scope.outer
        return None

    def find_path(self, parts: list[str]) -> Entry | None:
        """A hierarchical name: its first part is looked for here and on every level above (12.5, 12.7)."""
        scope: Scope | None = self
        while scope is not None:
            inside = scope.entries.get(parts[0])
            if isinstance(inside, Inside) and inside.scope is not None:
                found = _descend(inside.scope, parts[1:])
                if found is not None:
                    return found
            if isinstance(inside, FunctionEntry):
                found = _descend(inside.inner, parts[1:])
                if found is not None:
                    return found
            if parts[0] in (scope.module, scope.path.rpartition(".")[2]):
                found = _descend(scope, parts[1:])
                if found is not None:
                    return found
            scope = scope.parent
        return None

    def all_names(self) -> list[str]:
        """Names that can be seen from here, for suggestions."""
        names: list[str] = []
        scope: Scope | None = self
        while scope is not None:
            names += scope.entries
            scope = scope.outer
        return names


def _descend(scope: Scope, parts: list[str]) -> Entry | None:
    for i, part in enumerate(parts):
        entry = scope.entries.get(part)
        if i == len(parts) - 1:
            return entry
        if isinstance(entry, Inside) and entry.scope is not None:
            scope = entry.scope
        elif isinstance(entry, FunctionEntry):
            scope = entry.inner
        else:
            return None
    return Inside(scope, 0)
