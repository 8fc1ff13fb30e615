"""Types of variables, nets and values (IEEE 1364-2005 clause 4, 1800-2017 clauses 6 and 7).

A value of any type is a vector of digits here: the members of a structure, the elements of an array stand side by side
in it, the first member and the leftmost element of a packed one on the left."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

from obento.core.ir.collections import CollectionType, Element
from obento.core.ir.texts import MOST_KEPT
from obento.core.verilog.syntax.builtin_types import SIGNED_TYPES, TWO_STATE, WIDTHS

Dims = tuple[tuple[int, int], ...]
"""Left and right end of each unpacked dimension, outermost first."""


def count_of(dims: Dims) -> int:
    """Elements of an array, one where there are no dimensions."""
    count = 1
    for left, right in dims:
        count *= abs(left - right) + 1
    return count


@dataclass(slots=True, eq=False)
class DataType:
    """One type. `word` is that of a built-in one, else `struct`, `union`, `enum` or `array`.

    `width` in digits. What can be selected from: `span`, the ends of the outermost packed dimension, with an `element`
    for each index, single digits where that is None; or `members`. `values` are the constants of an enumeration by
    their names. Two types are the same when they are the same object, or `alike`."""

    word: str
    width: int
    signed: bool
    two_state: bool
    span: tuple[int, int]
    element: DataType | None = None
    members: dict[str, Member] = field(default_factory=dict)
    packed: bool = True
    values: dict[str, int] = field(default_factory=dict)
    name: str = ""
    collected: Collected | None = None
    kept: bool = False
    """Of a string or real number: that it is a member of a structure, and digits there; see `kept`."""

    @property
    def is_enum(self) -> bool:
        """Whether it is an enumeration."""
        return self.word == "enum"

    @property
    def is_real(self) -> bool:
        """Whether its values are real numbers."""
        return self.word in ("real", "realtime")

    @property
    def is_text(self) -> bool:
        """Whether its values are strings."""
        return self.word == "string"

    @property
    def has_digits(self) -> bool:
        """Whether its values are words of digits."""
        return not (self.is_real or self.is_text or self.collected is not None)

    @property
    def is_unpacked(self) -> bool:
        """Whether it is an unpacked structure or union, or a collection, which is no number."""
        return (bool(self.members) and not self.packed) or self.collected is not None

    @property
    def keeps_others(self) -> bool:
        """Whether some of its members, those of members and of elements too, are strings or real numbers."""
        if self.collected is not None:
            return self.collected.element.type.keeps_others
        return self.kept or any(m.type.keeps_others for m in self.members.values())

    @property
    def step(self) -> int:
        """1 where the left index is the higher one, else -1."""
        return 1 if self.span[0] >= self.span[1] else -1

    @property
    def variable_kind(self) -> str:
        """The word of a variable of this type."""
        if self.word in WIDTHS or self.word in ("logic", "reg", "bit", "event"):
            return self.word
        return "bit" if self.two_state else "logic"

    def is_like(self, other: DataType) -> bool:
        """Whether values of the two may stand for each other as a whole (1800 clause 6.22.2)."""
        if self is other:
            return True
        if self.collected is not None and other.collected is not None:
            return self.collected.element.fits(other.collected.element)
        if self.is_text or other.is_text or self.is_real or other.is_real:
            return self.is_text == other.is_text and self.is_real == other.is_real
        if self.is_unpacked or other.is_unpacked:
            return False
        return self.width == other.width and self.two_state == other.two_state and self.signed == other.signed

    def start_value(self) -> tuple[int, int]:
        """What a variable holds at first, as (one, zero): 0 in digits of two states, x in all others (1800 table
        6-7)."""
        if not self.is_unpacked:
            return (0, (1 << self.width) - 1) if self.two_state else (0, 0)
        one = zero = 0
        for member in self.members.values():
            inner = member.start if member.start is not None else member.shape.start_value()
            one |= inner[0] << member.low
            zero |= inner[1] << member.low
        return one, zero


@dataclass(slots=True, eq=False)
class Member:
    """A member of a structure or union: where it begins, and what it is; `start` where it has a value of its own at
    first."""

    name: str
    low: int
    type: DataType
    dims: Dims = ()
    start: tuple[int, int] | None = None

    @property
    def shape(self) -> Shape:
        """What it is, with its dimensions."""
        return Shape(self.type, self.dims)

    @property
    def width(self) -> int:
        """Digits of all of it."""
        return self.shape.width


@dataclass(frozen=True, slots=True)
class Shape:
    """What a value is: its type, and the dimensions of an array of such values."""

    type: DataType
    dims: Dims = ()

    @property
    def width(self) -> int:
        """Digits of all of it."""
        return self.type.width * count_of(self.dims)

    @property
    def is_aggregate(self) -> bool:
        """Whether it is no number: an array, or an unpacked structure."""
        return bool(self.dims) or self.type.is_unpacked

    def start_value(self) -> tuple[int, int]:
        """What a variable of this shape holds at first: that of its type in every element."""
        inner, one, zero = self.type.start_value(), 0, 0
        for at in range(count_of(self.dims)):
            one |= inner[0] << at * self.type.width
            zero |= inner[1] << at * self.type.width
        return one, zero

    def fits(self, other: Shape) -> bool:
        """Whether a value of the other may be assigned to this as a whole (1800 clause 7.6)."""
        if self.dims and self.type.kept != other.type.kept:
            return False
        sizes = [abs(left - right) for left, right in self.dims]
        return sizes == [abs(left - right) for left, right in other.dims] and self.type.is_like(other.type)


@dataclass(frozen=True, slots=True)
class Collected:
    """What a type whose size changes is made of: a queue, a dynamic array, or a map with a type of keys, 32 digits
    where that is None. `most` is the highest index of a queue that has one."""

    kind: Literal["queue", "dynamic", "map"]
    element: Shape
    key: DataType | None = None
    most: int | None = None

    def runs_as(self) -> CollectionType:
        """The same, for what runs it."""
        of = self.element.type
        blank: Element = 0.0 if of.is_real else "" if of.is_text else self.element.start_value()
        limits = {} if self.most is None else {"most": self.most + 1}
        key = self.key or builtin("int")
        return CollectionType(
            self.kind, self.element.width, of.signed, blank, **limits,
            text_keys=key.is_text, key_width=key.width, key_signed=key.signed,
        )  # fmt: skip


def collection(collected: Collected) -> DataType:
    """A type whose size changes; 64 digits by convention."""
    return DataType(collected.kind, 64, False, False, (63, 0), collected=collected)


def builtin(word: str, signed: bool | None = None) -> DataType:
    """A type that is a word."""
    width = WIDTHS.get(word, 1)
    return DataType(word, width, word in SIGNED_TYPES if signed is None else signed, word in TWO_STATE, (width - 1, 0))


def kept(of: DataType) -> DataType:
    """A string or real number as a member of a structure, which is digits throughout: the letters of a string, the
    double of a real number."""
    width = 8 * MOST_KEPT if of.is_text else 64
    return DataType(of.word, width, of.signed, True, (width - 1, 0), kept=True)


def vector(word: str, signed: bool, left: int, right: int) -> DataType:
    """A vector of single digits."""
    return DataType(word, abs(left - right) + 1, signed, word in TWO_STATE, (left, right))


def array_of(element: DataType, left: int, right: int, signed: bool = False) -> DataType:
    """A packed array."""
    width = element.width * (abs(left - right) + 1)
    return DataType("array", width, signed, element.two_state, (left, right), element)


DIGIT = builtin("logic")
"""A digit that was selected: nothing can be selected from it again."""
TWO_STATE_DIGIT = builtin("bit")
"""The same, of a vector of two states."""
