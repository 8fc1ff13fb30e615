"""Types and subtypes (IEEE 1076 clauses 5 and 6).

A type is known by identity. A `Subtype` adds a constraint, whose bounds are typed expressions, since they may depend on
what is only known in a run, and a resolution function.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any, Literal

from obento.core.vhdl.model.values import Arr, elements

INTEGER_LOW, INTEGER_HIGH = -(2**31), 2**31 - 1


@dataclass(slots=True, eq=False)
class Type:
    """Any type; types are known by identity."""

    name: str

    @property
    def shown(self) -> str:
        """The type as a message names it."""
        return self.name


@dataclass(slots=True, eq=False)
class Expr:
    """Any expression with its type settled; `typed_tree` has the kinds. `sub` is what more is known of the value: the
    constraint of the object it comes from."""

    type: Type
    pos: int
    sub: Subtype | None = field(default=None, kw_only=True)


@dataclass(slots=True, eq=False)
class Const(Expr):
    """A value that is known."""

    value: Any


@dataclass(slots=True, eq=False)
class EnumType(Type):
    """`literals` are names in lower case or characters in quotes; the position is the value."""

    literals: list[str] = field(default_factory=list)
    positions: dict[str, int] = field(default_factory=dict)
    arrays: list[ArrayType] = field(default_factory=list)

    @property
    def low(self) -> int:
        """The position of the first literal."""
        return 0

    @property
    def high(self) -> int:
        """The position of the last literal."""
        return len(self.literals) - 1

    @property
    def is_character(self) -> bool:
        """Whether one of its literals is a character (5.2.2)."""
        return any(literal[0] == "'" for literal in self.literals)


@dataclass(slots=True, eq=False)
class IntType(Type):
    """An integer type; `universal` for the type of literals."""

    low: int = INTEGER_LOW
    high: int = INTEGER_HIGH
    universal: bool = False


@dataclass(slots=True, eq=False)
class RealType(Type):
    """A floating-point type; `universal` for the type of literals."""

    low: float = -1.7976931348623157e308
    high: float = 1.7976931348623157e308
    universal: bool = False


@dataclass(slots=True, eq=False)
class PhysType(Type):
    """`units` maps each unit to its size in the first one."""

    low: int = -(2**63)
    high: int = 2**63 - 1
    units: dict[str, int] = field(default_factory=dict)


@dataclass(slots=True, eq=False)
class ArrayType(Type):
    """`indices` are the index subtypes; `constraint` the ranges of an array type that is declared with them."""

    indices: list[Subtype] = field(default_factory=list)
    element: Subtype = None  # type: ignore[assignment]

    @property
    def packed(self) -> bool:
        """Whether values are kept as bytes."""
        return len(self.indices) == 1 and is_packable(self.element.type)


@dataclass(slots=True, eq=False)
class RecordType(Type):
    """A record type with its elements in order."""

    fields: list[tuple[str, Subtype]] = field(default_factory=list)

    def number(self, name: str) -> int | None:
        """The number of an element by its name."""
        return next((i for i, (n, _) in enumerate(self.fields) if n == name), None)


@dataclass(slots=True, eq=False)
class AccessType(Type):
    """A type of pointers."""

    designated: Subtype = None  # type: ignore[assignment]


@dataclass(slots=True, eq=False)
class FileType(Type):
    """A type of files."""

    element: Subtype = None  # type: ignore[assignment]


@dataclass(slots=True, eq=False)
class ProtectedType(Type):
    """Its methods stand in `scope`; the body's declarations are `items`."""

    scope: Any = None
    make: str = ""


@dataclass(slots=True, eq=False)
class Guess(Type):
    """The type of something whose type its surroundings decide: a string, an aggregate, null, an allocator."""

    kind: Literal["string", "aggregate", "null", "new", "wrong"] = "wrong"
    letters: frozenset[str] = frozenset()
    size: int = 0
    designated: Type | None = None


def is_packable(t: Type) -> bool:
    """Whether values of a type fit into a byte."""
    return (isinstance(t, EnumType) and len(t.literals) <= 255) or (isinstance(t, EnumType) and t.name == "character")


def is_discrete(t: Type) -> bool:
    """Whether a type is one of enumerations or integers."""
    return isinstance(t, EnumType | IntType)


def is_scalar(t: Type) -> bool:
    """Whether values of a type have no parts."""
    return isinstance(t, EnumType | IntType | RealType | PhysType)


@dataclass(slots=True, eq=False)
class RangeX:
    """A range of typed bounds; `down` is itself an expression when it depends on the run."""

    left: Expr
    right: Expr
    down: bool | Expr

    def known(self) -> tuple[Any, Any, bool] | None:
        """Left, right and direction, when all are constant."""

        if isinstance(self.left, Const) and isinstance(self.right, Const) and isinstance(self.down, bool):
            return self.left.value, self.right.value, self.down
        return None

    def bounds(self) -> tuple[Any, Any] | None:
        """Low and high, when known."""
        known = self.known()
        if known is None:
            return None
        left, right, down = known
        return (right, left) if down else (left, right)

    def length(self) -> int | None:
        """The number of values, None while it is not known."""
        bounds = self.bounds()
        return None if bounds is None else max(0, bounds[1] - bounds[0] + 1)


@dataclass(slots=True, eq=False)
class Subtype:
    """A type with constraints: one range for a scalar, one per dimension for an array, None without."""

    type: Type
    ranges: list[RangeX] | None = None
    resolution: Any = None
    element: Subtype | None = None
    name: str = ""
    own_fields: list[tuple[str, Subtype]] | None = None
    """The elements of a record whose arrays were given their ranges."""

    @property
    def shown(self) -> str:
        """The subtype as a message names it."""
        return self.name or self.type.shown

    @property
    def fields(self) -> list[tuple[str, Subtype]]:
        """The elements of a record."""
        assert isinstance(self.type, RecordType)
        return self.own_fields or self.type.fields

    @property
    def element_subtype(self) -> Subtype:
        """The subtype of the elements of an array."""
        assert isinstance(self.type, ArrayType)
        return self.element or self.type.element

    def length(self) -> int | None:
        """The number of elements, None while it is not known."""
        return self.ranges[0].length() if self.ranges else None

    def static(self) -> bool:
        """Whether every bound inside is constant."""
        if self.ranges is not None and any(r.known() is None for r in self.ranges):
            return False
        if isinstance(self.type, ArrayType):
            return self.ranges is not None and self.element_subtype.static()
        if isinstance(self.type, RecordType):
            return all(s.static() for _, s in self.fields)
        return True


def scalar_bounds(subtype: Subtype) -> tuple[Any, Any] | None:
    """Low and high of a scalar subtype; None when they depend on the run."""
    if subtype.ranges is not None:
        return subtype.ranges[0].bounds()
    t = subtype.type
    assert isinstance(t, EnumType | IntType | RealType | PhysType)
    return t.low, t.high


def default_value(subtype: Subtype) -> Any:
    """The value of an object that is given none (6.4.2.3): the leftmost of each scalar. Bounds must be constant."""
    t = subtype.type
    if isinstance(t, ArrayType):
        assert subtype.ranges is not None
        return _default_array(subtype, 0)
    if isinstance(t, RecordType):
        return tuple(default_value(s) for _, s in subtype.fields)
    if isinstance(t, AccessType | FileType | ProtectedType):
        return None
    if subtype.ranges is not None:
        known = subtype.ranges[0].known()
        assert known is not None
        return known[0]
    return t.low  # type: ignore[attr-defined]


def _default_array(subtype: Subtype, dimension: int) -> Arr:
    t = subtype.type
    assert isinstance(t, ArrayType) and subtype.ranges is not None
    known = subtype.ranges[dimension].known()
    size = subtype.ranges[dimension].length()
    assert known is not None and size is not None
    if dimension + 1 < len(t.indices):
        return Arr(known[0], -1 if known[2] else 1, (_default_array(subtype, dimension + 1),) * size)
    element = default_value(subtype.element_subtype)
    return Arr(
        known[0], -1 if known[2] else 1, elements([element] * size, t.packed) if size else elements([], t.packed)
    )


def same_array_kind(a: ArrayType, b: ArrayType) -> bool:
    """Whether a conversion between two array types is possible (9.3.6): as many dimensions, alike elements."""
    if len(a.indices) != len(b.indices):
        return False
    x, y = a.element.type, b.element.type
    if x is y:
        return True
    if isinstance(x, ArrayType) and isinstance(y, ArrayType):
        return same_array_kind(x, y)
    return isinstance(x, IntType | RealType) and isinstance(y, IntType | RealType)


def is_plain(t: Type) -> bool:
    """Whether values of a type are all there is of them: nothing elsewhere is reached by one."""
    if isinstance(t, ArrayType):
        return is_plain(t.element.type)
    if isinstance(t, RecordType):
        return all(is_plain(f.type) for _, f in t.fields)
    return not isinstance(t, AccessType | FileType | ProtectedType)
