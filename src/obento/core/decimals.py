"""Decimal numbers of any length.

Python refuses to turn more than 4,300 digits into a number or back, since its own way takes time that grows with their
square. Values in a design may be longer than that. Both directions go by halves here, which is quick enough for the
widest vector; the guard stays on for everything else."""

from __future__ import annotations

from functools import cache, lru_cache

_AT_ONCE = 2_000
_SHOWN = 40


def to_decimal(number: int) -> str:
    """The decimal digits of a whole number of any size, with its sign."""
    if number.bit_length() < _AT_ONCE * 3:
        return str(number)
    if number < 0:
        return "-" + to_decimal(-number)
    half = int(number.bit_length() * 0.30103 / 2)
    high, low = divmod(number, _power(half))
    return to_decimal(high) + to_decimal(low).rjust(half, "0")


def from_decimal(digits: str) -> int:
    """The number that a text of decimal digits stands for, with a sign perhaps.

    Raises
    ------
    ValueError
        If it is anything else.
    """
    if len(digits) < _AT_ONCE:
        return int(digits)
    if digits[0] in "+-" and digits[1].isdecimal():
        number = from_decimal(digits[1:])
        return -number if digits[0] == "-" else number
    half = len(digits) // 2
    if not (digits[0].isdecimal() and digits[-half].isdecimal()):
        raise ValueError("no decimal number")
    return from_decimal(digits[:-half]) * _power(half) + from_decimal(digits[-half:])


def shown(number: int) -> str:
    """A number in a message: one of very many digits is not written out."""
    text = to_decimal(number)
    return text if len(text) <= _SHOWN else f"{text[: _SHOWN // 2]}... ({len(text.lstrip('-'))} digits)"


@cache
def digits_of(width: int) -> int:
    """How many decimal digits the largest number of so many binary ones has."""
    return len(to_decimal((1 << width) - 1))


@lru_cache(64)
def _power(exponent: int) -> int:
    power: int = 10**exponent
    return power
