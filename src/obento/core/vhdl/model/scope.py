"""What names mean: declared things, and the scopes they are visible in (IEEE 1076 clause 12)."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from typing import Any, Literal

from obento.core.vhdl.model.types import EnumType, Expr, PhysType, Subtype
from obento.core.vhdl.syntax import ast


@dataclass(slots=True, eq=False)
class Stmt:
    """Any statement or declaration, settled; `typed_tree` has the kinds."""

    pos: int


@dataclass(slots=True, eq=False)
class Object:
    """A signal, variable, constant, file or loop parameter. `py` is its name in what is run; `value` a constant's
    value."""

    name: str
    kind: Literal["signal", "variable", "constant", "file"]
    subtype: Subtype
    pos: int
    py: str
    mode: str = ""
    value: Any = None
    known: bool = False
    default: Expr | None = None
    level: int = 0
    shared: bool = False
    is_port: bool = False
    is_param: bool = False
    loop: bool = False
    implicit: bool = False
    guard: str = ""
    disconnect: int = 0
    read_at: int = 0
    written_at: int = 0
    sources: list[tuple[int, int, tuple[Any, ...]]] = field(default_factory=list)
    ports_joined: int = 0
    design_signal: Any = None
    of_process: Any = None


@dataclass(slots=True, eq=False)
class Subprogram:
    """A function or procedure. `native` is what computes it when it is one of ours; `py` its name in what is run."""

    name: str
    params: list[Object]
    result: Subtype | None
    pos: int
    py: str
    native: Callable[..., Any] | None = None
    pure: bool = True
    node: ast.SubprogramDecl | None = None
    decls: list[Stmt] = field(default_factory=list)
    body: list[Stmt] | None = None
    level: int = 0
    waits: bool = False
    emitted: bool = False
    analysed: bool = False
    scope: Scope | None = None
    package: str = ""
    foreign: bool = False
    calls: list[Subprogram] = field(default_factory=list)
    drives: list[tuple[Expr, int]] = field(default_factory=list)
    reads: dict[Object, int] = field(default_factory=dict)
    outer: Subprogram | None = None
    local: bool = False

    @property
    def is_function(self) -> bool:
        """Whether it gives a value back."""
        return self.result is not None

    def profile(self) -> tuple[Any, ...]:
        """The types of its parameters and of its result: what tells overloads apart (4.5.1)."""
        return (*(p.subtype.type for p in self.params), self.result.type if self.result else None)

    def outs(self) -> list[int]:
        """Numbers of the parameters that give a value back."""
        return [i for i, p in enumerate(self.params) if p.kind == "variable" and p.mode in ("out", "inout")]

    def shown(self) -> str:
        """Its profile as a message shows it."""
        name = self.name if self.name.startswith('"') else f"{self.name}"
        given = ", ".join(p.subtype.shown for p in self.params)
        back = f" return {self.result.shown}" if self.result else ""
        return f"{name}({given}){back}"


@dataclass(slots=True, eq=False)
class EnumLiteral:
    """A value of an enumeration."""

    name: str
    type: EnumType
    value: int
    pos: int = 0


@dataclass(slots=True, eq=False)
class PhysUnit:
    """A unit of a physical type; `value` is its size in the first unit."""

    name: str
    type: PhysType
    value: int


@dataclass(slots=True, eq=False)
class TypeName:
    """A type or subtype by name."""

    name: str
    subtype: Subtype
    pos: int = 0
    incomplete: bool = False


@dataclass(slots=True, eq=False)
class Alias:
    """Another name for part of an object."""

    name: str
    target: Expr
    pos: int


@dataclass(slots=True, eq=False)
class Component:
    """A component, and the scope that it was declared in."""

    name: str
    node: ast.ComponentDecl
    scope: Scope


@dataclass(slots=True, eq=False)
class AttributeName:
    """An attribute of the user, and its values by what has it."""

    name: str
    subtype: Subtype
    values: dict[str, Expr] = field(default_factory=dict)


@dataclass(slots=True, eq=False)
class PackageName:
    """A package as a name; `needs_body` are its subprograms, where it stands inside of another unit."""

    name: str
    scope: Scope
    needs_body: list[Subprogram] = field(default_factory=list)


@dataclass(slots=True, eq=False)
class LibraryName:
    """A library as a name."""

    name: str


@dataclass(slots=True, eq=False)
class Labelled:
    """A label, for messages about clashes and for path names."""

    name: str
    pos: int


Declared = (
    Object
    | Subprogram
    | EnumLiteral
    | PhysUnit
    | TypeName
    | Alias
    | Component
    | AttributeName
    | PackageName
    | LibraryName
    | Labelled
)


def overloads(d: Declared) -> bool:
    """Whether several things declared so can share a name."""
    return isinstance(d, Subprogram | EnumLiteral)


class Scope:
    """Names declared in one region. `uses` are scopes made visible by use clauses, or single names of them."""

    def __init__(self, outer: Scope | None, name: str = "") -> None:
        self.outer = outer
        self.name = name
        self.names: dict[str, list[Declared]] = {}
        self.uses: list[tuple[Scope, str | None]] = []
        self.suffix_of: str = ""

    def add(self, name: str, declared: Declared) -> Declared | None:
        """Declare; gives back what stands in the way, if anything."""
        known = self.names.get(name)
        if known is None:
            self.names[name] = [declared]
            return None
        if all(overloads(k) for k in known) and overloads(declared):
            known.append(declared)
            return None
        return known[0]

    def chain(self) -> Iterator[Scope]:
        """This scope and those around it, innermost first."""
        scope: Scope | None = self
        while scope is not None:
            yield scope
            scope = scope.outer

    def find(self, name: str) -> list[Declared]:
        """Everything that a simple name can mean here: one thing, or several that overload each other."""
        found: list[Declared] = []
        for scope in self.chain():
            here = scope.names.get(name)
            if here is None:
                continue
            if not overloads(here[0]):
                return found or [here[0]]
            found += here
        visible: list[Declared] = []
        for scope in self.chain():
            for used, only in scope.uses:
                if only is None or only == name:
                    visible += used.names.get(name, ())
        if not visible:
            return found
        plain = [d for d in visible if not overloads(d)]
        if found:
            return found + [d for d in visible if overloads(d)]
        if plain and not any(overloads(d) for d in visible):
            return [plain[0]] if all(d is plain[0] for d in plain) or _same_type(plain) else _distinct(plain)
        return [d for d in visible if overloads(d)]

    def all_names(self) -> set[str]:
        """Names that can be seen from here, for suggestions."""
        found: set[str] = set()
        for scope in self.chain():
            found.update(scope.names)
            for used, only in scope.uses:
                found.update(used.names if only is None else (only,))
        return found


def _same_type(plain: list[Declared]) -> bool:
    return all(
        isinstance(d, TypeName) and isinstance(plain[0], TypeName) and d.subtype.type is plain[0].subtype.type
        for d in plain
    )


def _distinct(plain: list[Declared]) -> list[Declared]:
    found: list[Declared] = []
    for d in plain:
        if not any(d is f for f in found):
            found.append(d)
    return found
