"""Names of a module instance and what they stand for."""

from __future__ import annotations

from collections.abc import Callable, Collection
from dataclasses import dataclass, field

from obento.core.ir.design import ScopeOfNames
from obento.core.ir.nodes import Const, Expr, Function, Label, Ref, Slice
from obento.core.ir.signal import Signal
from obento.core.verilog.model.types import DataType, Dims, Shape
from obento.core.verilog.syntax import ast


@dataclass(slots=True)
class Vector:
    """A declared net or variable: its signal, the type of one element, and its array dimensions (outermost first).
    `kind` is the word of its declaration: what it is, not of what type.

    A port that is part of a wire outside begins at digit `at` of that wire's signal. Where the declaration of a port is
    completed later, its type is another one from then on."""

    signal: Signal
    type: DataType
    kind: str
    dims: Dims = ()
    start: int = 0
    at: int = 0
    is_constant: bool = False
    """Whether it keeps the value that its declaration gives it."""

    @property
    def is_void(self) -> bool:
        """Whether it is the result of a function that has none."""
        return self.type.word == "void"

    @property
    def msb(self) -> int:
        """The left end of its range."""
        return self.type.span[0]

    @property
    def lsb(self) -> int:
        """The right end of its range."""
        return self.type.span[1]

    @property
    def signed(self) -> bool:
        """Whether its values have a sign."""
        return self.type.signed

    @property
    def width(self) -> int:
        """Bits of one element."""
        return self.type.width

    @property
    def shape(self) -> Shape:
        """What its value is."""
        return Shape(self.type, self.dims)

    @property
    def total(self) -> int:
        """Bits of all elements."""
        return self.shape.width

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
    """`real` parameters carry their number in `number`, those whose type matters the shape of it."""

    value: Const
    signed: bool
    start: int = 0
    number: float | None = None
    shape: Shape | None = None


@dataclass(slots=True, eq=False)
class TypeName:
    """A type that has a name, with its unpacked dimensions."""

    shape: Shape
    start: int = 0

    @property
    def type(self) -> DataType:
        """The type without its unpacked dimensions."""
        return self.shape.type


@dataclass(frozen=True, slots=True)
class Formal:
    """An argument of a function or task: its direction is `in`, `out`, `inout`, or `same` for what is another name of
    the variable that is given."""

    name: str
    direction: str
    vector: Vector
    default: ast.Expr | None

    @property
    def shape(self) -> Shape:
        """What it takes."""
        return self.vector.shape


@dataclass(slots=True)
class FunctionEntry:
    """A function or task as written; lowered when first called, since it may be called before its text."""

    item: ast.FunctionItem
    scope: Scope
    inner: Scope
    lowered: Function | None = None
    shape: Shape | None = None
    """What it gives, once it is lowered; None for a task."""
    formals: list[Formal] = field(default_factory=list)
    """Its arguments in order, once it is lowered."""
    same_as: dict[str, Vector] = field(default_factory=dict)
    """For arguments by reference, the variables that they are here (1800 clause 13.5.2)."""
    asked_at: ast.Node | None = None
    """Where it is called with these variables."""
    by_reference: dict[tuple[int, ...], FunctionEntry] = field(default_factory=dict)
    """The same task for other variables by reference."""


@dataclass(slots=True)
class Inside:
    """A named block, a task or an instance: a level of names of its own."""

    scope: Scope | None
    start: int
    label: Label | None = None
    interface: str = ""
    """Of which interface it is an instance."""
    view: dict[str, str] | None = None
    """The directions of the modport through which it is seen."""

    def shows(self, parts: list[str]) -> bool:
        """Whether a path may go on in it: through a modport only to its names, and to what is constant."""
        if self.view is None or not parts or parts[0] in self.view or self.scope is None:
            return True
        return isinstance(self.scope.entries.get(parts[0]), Parameter | TypeName)


@dataclass(slots=True)
class View:
    """A modport of an interface: the direction of each of its names."""

    directions: dict[str, str]
    start: int


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


Entry = Broken | Vector | Parameter | TypeName | FunctionEntry | Inside | Genvar | View


class Scope:
    """One level of names; a name not found here is looked for outside, up to the module.

    `parent` is the level that the hierarchy has above, across module boundaries; `shown` what people see of this level.
    `reals` and `texts` tell whether any module has real numbers or strings at all; `times` are length and precision of
    the module's time unit, in ticks of the design, and `precision` the length of such a tick as a power of ten of a
    second."""

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
        self.precision: int = outer.precision if outer is not None else 0
        self.reals: bool = self.parent.reals if self.parent is not None else False
        self.texts: bool = self.parent.texts if self.parent is not None else False
        self.automatic: bool = outer.automatic if outer is not None else False
        self.system_verilog: bool = outer.system_verilog if outer is not None else False
        self.places: dict[str, Vector] = {}
        """The place of the element that a name of `with (...)` stands for."""
        self.imports: list[Scope] = []
        """Packages of which every name can be seen here (1800 clause 26.3)."""
        self.package: Callable[[str], Scope | None] = outer.package if outer is not None else _no_package
        """Gives the names of a package."""
        self.packages: Collection[str] = outer.packages if outer is not None else ()
        """The packages of the hand-in."""
        self.nameless: list[Scope] = []
        """The blocks in it that have no name."""

    def find(self, name: str) -> Entry | None:
        """What a name means here or in a scope around (12.7), or behind the name of its package (none for `$unit`)."""
        scope: Scope | None = self
        while scope is not None:
            hit = scope.entries.get(name) or scope.imported(name)
            if hit is not None:
                return hit
            scope = scope.outer
        package, colons, inner = name.partition("::")
        found = self.package(package or "$unit") if colons else None
        return found.entries.get(inner) if found is not None else None

    def place_of(self, name: str) -> Vector | None:
        """The place of an element that a name stands for."""
        scope: Scope | None = self
        while scope is not None:
            if name in scope.entries or name in scope.places:
                return scope.places.get(name)
            scope = scope.outer
        return None

    def imported(self, name: str) -> Entry | None:
        """What a name means in the packages whose names can be seen here."""
        for package in self.imports:
            hit = package.entries.get(name)
            if hit is not None:
                return hit
        return None

    def find_callable(self, name: str) -> Entry | None:
        """As `find`; inside a function its name also means its result, which is passed over here."""
        scope: Scope | None = self
        while scope is not None:
            hit = scope.entries.get(name) or scope.imported(name)
            if hit is not None and not (isinstance(hit, Vector) and hit.kind == "function"):
                return hit
            scope = scope.outer
        return self.find(name) if "::" in name else None

    def find_path(self, parts: list[str]) -> Entry | None:
        """A hierarchical name: its first part is looked for here and on every level above (12.5, 12.7)."""
        found, used = self.find_along(parts)
        return found if used == len(parts) else None

    def find_along(self, parts: list[str]) -> tuple[Entry | None, int]:
        """What the longest beginning of a hierarchical name means that leads somewhere, and how many parts it has: what
        follows a variable are members of it."""
        own = self.find(parts[0])
        if isinstance(own, Vector) and (own.type.members or own.type.is_enum):
            return own, 1
        scope: Scope | None = self
        while scope is not None:
            inside = scope.entries.get(parts[0]) or scope.imported(parts[0])
            found: tuple[Entry | None, int] = (None, 0)
            if isinstance(inside, Inside) and inside.scope is not None:
                if not inside.shows(parts[1:]):
                    return None, 0
                found = _descend(inside.scope, parts[1:], inside)
            elif isinstance(inside, FunctionEntry):
                found = _descend(inside.inner, parts[1:])
            if found[0] is None and parts[0] in (scope.module, scope.path.rpartition(".")[2]):
                found = _descend(scope, parts[1:])
            if found[0] is not None:
                return found[0], found[1] + 1
            scope = scope.parent
        return (own, 1) if isinstance(own, Vector | Parameter) else (None, 0)

    def all_names(self) -> list[str]:
        """Names that can be seen from here, for suggestions."""
        names: list[str] = []
        scope: Scope | None = self
        while scope is not None:
            names += scope.entries
            names += [name for package in scope.imports for name in package.entries]
            scope = scope.outer
        return names

    def is_inside(self, name: str) -> bool:
        """Whether a block without a name, here or around, has this name for itself."""
        scope: Scope | None = self
        while scope is not None:
            below = list(scope.nameless)
            while below:
                inner = below.pop()
                if name in inner.entries:
                    return True
                below += inner.nameless
            scope = scope.outer
        return False

    def package_with(self, name: str) -> str:
        """A package of the hand-in that has this name; empty where none has."""
        for package in self.packages:
            inside = self.package(package) if package != "$unit" else None
            if inside is not None and name in inside.entries:
                return package
        return ""


def _no_package(name: str) -> Scope | None:
    del name
    return None


def _descend(scope: Scope, parts: list[str], begin: Inside | None = None) -> tuple[Entry | None, int]:
    for i, part in enumerate(parts):
        entry = scope.entries.get(part)
        if i == len(parts) - 1 or isinstance(entry, Vector | Parameter):
            return entry, i + 1
        if isinstance(entry, Inside) and entry.scope is not None:
            scope = entry.scope
        elif isinstance(entry, FunctionEntry):
            scope = entry.inner
        else:
            return None, 0
    return begin or Inside(scope, 0), 0
