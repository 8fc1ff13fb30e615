"""What a VHDL value is at run time.

Numbers, physical values (in their smallest unit) and positions of enumerations are Python ints, real numbers floats,
records tuples. An array is an `Arr`: its left bound, its direction and its elements; these stand in `bytes` where they
are positions of an enumeration of at most 256 values, which makes vectors and strings compact and fast, else in a
tuple. Values never change; an element is set by making a new array. The bounds do not belong to the value when arrays
are compared (9.2.3)."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from obento.core.decimals import shown
from obento.core.ir.part import RunError

UNDRIVEN = 255
"""Stands in a driver of a vector for an element that the process does not drive; None elsewhere."""


class Arr:
    """An array value; `step` is 1 for `to`, -1 for `downto`."""

    __slots__ = ("left", "step", "v")

    def __init__(self, left: int, step: int, v: Any) -> None:
        self.left = left
        self.step = step
        self.v = v

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Arr) and (self.v is other.v or self.v == other.v)

    def __hash__(self) -> int:
        return hash(self.v)

    def __repr__(self) -> str:
        return f"Arr({self.left}, {self.step}, {self.v!r})"

    @property
    def right(self) -> int:
        """The index of the rightmost element."""
        return self.left + self.step * (len(self.v) - 1)

    @property
    def low(self) -> int:
        """The lower of both bounds."""
        return self.left if self.step > 0 else self.right

    @property
    def high(self) -> int:
        """The higher of both bounds."""
        return self.right if self.step > 0 else self.left

    def at(self, index: int, position: int) -> Any:
        """The element at an index."""
        offset = (index - self.left) * self.step
        if 0 <= offset < len(self.v):
            return self.v[offset]
        raise self.outside(index, position)

    def put(self, index: int, value: Any, position: int) -> Arr:
        """The array with another element at an index."""
        v = self.v
        offset = (index - self.left) * self.step
        if not 0 <= offset < len(v):
            raise self.outside(index, position)
        if type(v) is bytes:
            return Arr(self.left, self.step, b"%b%c%b" % (v[:offset], value, v[offset + 1 :]))
        return Arr(self.left, self.step, v[:offset] + (value,) + v[offset + 1 :])  # noqa: RUF005  (twice as fast for memories)

    def part(self, left: int, right: int, step: int, position: int) -> Arr:
        """A slice; a null one where the bounds run against their direction."""
        size = (right - left) * step + 1
        if size <= 0:
            return Arr(left, step, self.v[:0])
        if (step != self.step and size > 1) or (step != self.step and len(self.v) > 1):
            raise RunError("the slice runs against the direction of its array", position)
        offset = (left - self.left) * self.step
        if offset < 0 or offset + size > len(self.v):
            raise self.outside(left if offset < 0 or offset >= len(self.v) else right, position)
        return Arr(left, step, self.v[offset : offset + size])

    def put_part(self, left: int, right: int, step: int, value: Arr, position: int) -> Arr:
        """The array with another slice; the lengths must agree."""
        old = self.part(left, right, step, position)
        if len(old.v) != len(value.v):
            raise lengths_differ(len(old.v), len(value.v), position)
        offset = (left - self.left) * self.step
        if not value.v:
            return self
        return Arr(self.left, self.step, self.v[:offset] + value.v + self.v[offset + len(value.v) :])

    def outside(self, index: int, position: int) -> RunError:
        """The error of an index that is outside of the bounds."""
        if not self.v:
            return RunError(f"index {shown(index)} into an array without elements", position)
        word = "to" if self.step > 0 else "downto"
        return RunError(
            f"index {shown(index)} is outside of the array's range {self.left} {word} {self.right}", position
        )


class Ptr:
    """What an access value points to; a null access value is None."""

    __slots__ = ("value",)

    def __init__(self, value: Any) -> None:
        self.value = value


def lengths_differ(wanted: int, given: int, position: int) -> RunError:
    """The error of a value that has another length than its place."""
    return RunError(f"a value of {given} elements does not fit into {wanted}", position)


def text_of(array: Arr) -> str:
    """A string value as Python text."""
    return bytes(array.v).decode("latin-1")


def string(text: str) -> Arr:
    """Python text as a string value, which begins at 1."""
    return Arr(1, 1, text.encode("latin-1", "replace"))


def put_field(record: tuple[Any, ...], number: int, value: Any) -> tuple[Any, ...]:
    """A record with one element replaced."""
    return (*record[:number], value, *record[number + 1 :])


def elements(values: Sequence[Any], packed: bool) -> Any:
    """Elements as they are kept: bytes where they are packed."""
    return bytes(values) if packed else tuple(values)
