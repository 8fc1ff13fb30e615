"""Predefined operations (IEEE 1076 clause 9.2, 16.2) as the emitted text calls them. Positions say where an error
belongs."""

from __future__ import annotations

import operator
from collections.abc import Callable, Iterable
from typing import Any

from obento.core.decimals import from_decimal, to_decimal
from obento.core.decimals import shown as shown_number
from obento.core.ir.part import RunError
from obento.core.limits import LimitReached
from obento.core.vhdl.model.types import ArrayType, EnumType, IntType, PhysType, RealType, Type
from obento.core.vhdl.model.values import Arr, Ptr, elements, lengths_differ

MOST_ELEMENTS = 1 << 24


def divide(a: int, b: int, position: int) -> int:
    """Towards zero (9.2.7)."""
    if b == 0:
        raise RunError("division by zero", position)
    q = abs(a) // abs(b)
    return q if (a < 0) == (b < 0) else -q


def remainder(a: int, b: int, position: int) -> int:
    """The sign of the first operand."""
    if b == 0:
        raise RunError("`rem` by zero", position)
    r = abs(a) % abs(b)
    return -r if a < 0 else r


def modulo(a: int, b: int, position: int) -> int:
    """The sign of the second operand."""
    if b == 0:
        raise RunError("`mod` by zero", position)
    return a % b


def power(a: Any, b: int, position: int) -> Any:
    """`**` of whole numbers and reals (9.2.8)."""
    if b < 0 and not isinstance(a, float):
        raise RunError("a whole number cannot be raised to a negative power", position)
    if isinstance(a, int) and abs(a) > 1 and b > 4096:
        raise RunError("the result of `**` is too large", position)
    try:
        return a**b
    except (OverflowError, ZeroDivisionError):
        raise RunError("the result of `**` cannot be represented", position) from None


def real_divide(a: float, b: float, position: int) -> float:
    """`/` of real numbers."""
    if b == 0.0:
        raise RunError("division by zero", position)
    return a / b


def shown_value(value: Any) -> str:
    """A number in a message."""
    return shown_number(value) if isinstance(value, int) else str(value)


def within(value: Any, low: Any, high: Any, position: int, shown: str = "") -> Any:
    """A value that must lie in a range."""
    if low <= value <= high:
        return value
    raise RunError(
        f"value {shown_value(value)} is outside of the range {low} to {high}{' of ' + shown if shown else ''}", position
    )


def within_enum(value: int, low: int, high: int, position: int, literals: list[str]) -> int:
    """A position of an enumeration, checked against a range."""
    if low <= value <= high:
        return value
    raise RunError(f"value {literals[value]} is outside of the range {literals[low]} to {literals[high]}", position)


def fit(array: Arr, left: int, step: int, size: int, position: int) -> Arr:
    """An array as the value of an object with these bounds (9.3.6, implicit subtype conversion)."""
    if len(array.v) != size:
        raise lengths_differ(size, len(array.v), position)
    if array.left == left and array.step == step:
        return array
    return Arr(left, step, array.v)


def fit_fields(record: tuple[Any, ...], sizes: list[int | None], position: int) -> tuple[Any, ...]:
    """A record as the value of an object whose arrays have these lengths."""
    for value, size in zip(record, sizes, strict=True):
        if size is not None and len(value.v) != size:
            raise lengths_differ(size, len(value.v), position)
    return record


def fit_range(array: Arr, left: int, right: int, down: bool, position: int) -> Arr:
    """An array with the bounds of its place; its length must be the same."""
    size = max(0, (left - right if down else right - left) + 1)
    return fit(array, left, -1 if down else 1, size, position)


def filled(left: int, right: int, down: bool, element: Any, packed: bool) -> Arr:
    """An array with the same value everywhere."""
    size = max(0, (left - right if down else right - left) + 1)
    if size > MOST_ELEMENTS:
        raise LimitReached(f"an array of {size} elements is more than can be held")
    return Arr(left, -1 if down else 1, bytes((element,)) * size if packed else (element,) * size)


def aggregate(
    left: int,
    right: int,
    down: bool,
    parts: Iterable[tuple[int, int, Any]],
    rest: Any,
    has_rest: bool,
    packed: bool,
    position: int,
) -> Arr:
    """An array with named parts: (low, high, value)."""
    step = -1 if down else 1
    size = max(0, (left - right if down else right - left) + 1)
    if size > MOST_ELEMENTS:
        raise LimitReached(f"an array of {size} elements is more than can be held")
    values: list[Any] = [rest if has_rest else None] * size
    for low, high, value in parts:
        for index in range(low, high + 1):
            offset = (index - left) * step
            if not 0 <= offset < size:
                raise RunError(
                    f"index {shown_number(index)} is outside of {left} {'downto' if down else 'to'} {right}", position
                )
            values[offset] = value
    if not has_rest and None in values:
        raise RunError("the aggregate leaves an element without a value", position)
    return Arr(left, step, elements(values, packed))


def positional(
    left: int, right: int, down: bool, given: list[Any], rest: Any, has_rest: bool, packed: bool, position: int
) -> Arr:
    """An array from values in order, filled up with `others`."""
    size = max(0, (left - right if down else right - left) + 1)
    if len(given) > size or (len(given) < size and not has_rest):
        raise RunError(f"an aggregate of {len(given)} values does not fit into {size} elements", position)
    return Arr(left, -1 if down else 1, elements(given + [rest] * (size - len(given)), packed))


def pieces(given: list[tuple[bool, Any]]) -> list[Any]:
    """The elements of a positional aggregate, some of which stand for several in a row (1076-2008 clause 9.3.3.3)."""
    values: list[Any] = []
    for is_array, piece in given:
        if is_array:
            values.extend(piece.v)
        else:
            values.append(piece)
    return values


def in_places(left: int, right: int, down: bool, value: Arr, position: int) -> list[tuple[int, int, Any]]:
    """The elements of an array at the places of a range in an aggregate, from left to right (1076-2008 clause
    9.3.3.3)."""
    places = rounds(left, right, down)
    if len(places) != len(value.v):
        raise lengths_differ(len(places), len(value.v), position)
    return [(index, index, element) for index, element in zip(places, value.v, strict=True)]


def joined(first: int, step: int, given: list[tuple[bool, Any]], packed: bool) -> Arr:
    """Elements, and whole arrays where the first of a pair says so, one after the other."""
    return Arr(first, step, elements(pieces(given), packed))


def concat(low: int, *given: Arr) -> Arr:
    """`&` of arrays (9.2.5): the left bound of the first one that is not null."""
    first = next((a for a in given if a.v), given[-1])
    if sum(len(a.v) for a in given) > MOST_ELEMENTS:
        raise LimitReached("an array grows beyond what can be held")
    v = first.v[:0]
    v = v.join(a.v for a in given) if isinstance(v, bytes) else sum((a.v for a in given), v)
    if first.step < 0 and first.left - len(v) + 1 < low:
        return Arr(low + len(v) - 1, -1, v)
    return Arr(first.left, first.step, v)


def single(low: int, element: Any, packed: bool) -> Arr:
    """One element as an array."""
    return Arr(low, 1, bytes((element,)) if packed else (element,))


_BITWISE: dict[str, Callable[[int, int], int]] = {
    "and": operator.and_,
    "or": operator.or_,
    "xor": operator.xor,
    "nand": lambda a, b: 1 - (a & b),
    "nor": lambda a, b: 1 - (a | b),
    "xnor": lambda a, b: 1 - (a ^ b),
}


def array_logic(op: str, a: Arr, b: Arr, position: int) -> Arr:
    """Logic on arrays of bit or boolean, element by element."""
    if len(a.v) != len(b.v):
        raise RunError(f"`{op}` of {len(a.v)} and {len(b.v)} elements", position)
    f = _BITWISE[op]
    return Arr(a.left, a.step, bytes(f(x, y) for x, y in zip(a.v, b.v, strict=True)))


def array_scalar_logic(op: str, a: Any, b: Any) -> Arr:
    """A logical operator between an array and an element (9.2.2)."""
    f = _BITWISE[op]
    if isinstance(a, Arr):
        return Arr(a.left, a.step, bytes(f(x, b) for x in a.v))
    return Arr(b.left, b.step, bytes(f(a, x) for x in b.v))


def array_not(a: Arr) -> Arr:
    """`not` of an array of bits."""
    return Arr(a.left, a.step, bytes(1 - x for x in a.v))


def reduce_bits(op: str, a: Arr) -> int:
    """A logical operator over all elements of an array (9.2.2)."""
    base = {"nand": "and", "nor": "or", "xnor": "xor"}.get(op, op)
    value = 1 if base == "and" else 0
    for x in a.v:
        value = _BITWISE[base](value, x)
    return value if base == op else 1 - value


def shift(op: str, a: Arr, count: int, fill: int) -> Arr:
    """`sll` and its kin on arrays of bit, boolean or logic; `fill` is what comes in."""
    v, size = a.v, len(a.v)
    if not size:
        return a
    if count < 0:
        op, count = {"sll": "srl", "srl": "sll", "sla": "sra", "sra": "sla", "rol": "ror", "ror": "rol"}[op], -count
    if op in ("rol", "ror"):
        count %= size
        v = v[count:] + v[:count] if op == "rol" else v[size - count :] + v[: size - count]
        return Arr(a.left, a.step, v)
    count = min(count, size)
    if op in ("sll", "sla"):
        return Arr(a.left, a.step, v[count:] + bytes((fill if op == "sll" else v[-1],)) * count)
    return Arr(a.left, a.step, bytes((fill if op == "srl" else v[0],)) * count + v[: size - count])


def pick(op: str, a: Any, b: Any) -> Any:
    """minimum and maximum."""
    if isinstance(a, Arr):
        smaller = a if a.v < b.v else b
        return smaller if op == "minimum" else (b if smaller is a else a)
    return min(a, b) if op == "minimum" else max(a, b)


def pick_of(op: str, a: Arr, subtype_low: Any, subtype_high: Any) -> Any:
    """The least or greatest element of an array (5.3.2.4)."""
    if not a.v:
        return subtype_high if op == "minimum" else subtype_low
    return min(a.v) if op == "minimum" else max(a.v)


def deref(pointer: Ptr | None, position: int) -> Any:
    """What a pointer points to; a null pointer is an error of the run."""
    if pointer is None:
        raise RunError("a null pointer is followed", position)
    return pointer.value


# Text of values.


def real_image(value: float) -> str:
    """A real number in the form the standard gives for writing: with exponent."""
    text = f"{value:.15e}"
    mantissa, _, exponent = text.partition("e")
    whole, _, fraction = mantissa.partition(".")
    fraction = fraction.rstrip("0") or "0"
    power10 = int(exponent)
    if -4 <= power10 <= 15:
        plain = repr(value)
        if "e" not in plain:
            return plain
    return f"{whole}.{fraction}e{power10:+03d}"


def image(value: Any, t: Type) -> str:
    """`T'image` (16.2)."""
    if isinstance(t, EnumType):
        return str(t.literals[value])
    if isinstance(t, PhysType):
        return f"{to_decimal(value)} {next(iter(t.units))}"
    if isinstance(t, RealType):
        return real_image(value)
    return to_decimal(value)


def value_of(t: Type, text: Arr, position: int) -> Any:
    """`T'value`: the text of a value, spaces around it allowed."""
    word = bytes(text.v).decode("latin-1").strip()
    try:
        if isinstance(t, EnumType):
            literal = word if word.startswith("'") else word.lower()
            return t.positions[literal]
        if isinstance(t, PhysType):
            number, _, unit = word.partition(" ")
            return int(float(number) * t.units[unit.strip().lower()])
        if isinstance(t, RealType):
            return float(word.replace("_", ""))
        if "#" in word:
            base, digits, *_ = word.split("#")
            return int(digits.replace("_", ""), from_decimal(base))
        return from_decimal(word.replace("_", ""))
    except (KeyError, ValueError):
        raise RunError(f"`{word}` is no value of {t.shown}", position) from None


def neighbour(value: int, by: int, t: Type, position: int) -> int:
    """The value one further on; it must exist in the type."""
    low, high = (t.low, t.high) if isinstance(t, EnumType | IntType | PhysType) else (0, 0)
    found = value + by
    if not low <= found <= high:
        raise RunError(f"{image(value, t)} has no {'next' if by > 0 else 'previous'} value", position)
    return found


def to_text(value: Any, t: Type) -> str:
    """`to_string` for every type (5.7 of -2008)."""
    if isinstance(value, Arr) and isinstance(t, ArrayType) and isinstance(t.element.type, EnumType):
        return "".join(
            t.element.type.literals[x].strip("'") if t.element.type.literals[x] != "'''" else "'" for x in value.v
        )
    if isinstance(t, EnumType) and t.literals[value].startswith("'"):
        return str(t.literals[value])[1:-1]
    return image(value, t)


def convert(value: Any, t: Type, position: int) -> Any:
    """A type conversion of a number."""
    if isinstance(t, RealType):
        return float(value)
    if isinstance(value, float):
        return int(value + 0.5) if value >= 0 else -int(-value + 0.5)
    return value


def fit_like(array: Arr, like: Arr, position: int) -> Arr:
    """An array with the bounds of another one, which it must be as long as."""
    return fit(array, like.left, like.step, len(like.v), position)


def rounds(left: int, right: int, down: bool) -> range:
    """The values of a loop's parameter."""
    return range(left, right - 1, -1) if down else range(left, right + 1)
