"""Numbers as they are written (IEEE 1364-2005 clause 3.5)."""

from __future__ import annotations

import re
from functools import lru_cache

from obento.core.decimals import from_decimal, shown
from obento.core.syntax.stream import TokenStream
from obento.core.verilog.syntax import ast
from obento.core.words import counted

_BASED = re.compile(r"([0-9_]*)\s*'([sS]?)([bBoOdDhH])\s*([0-9a-fA-FxXzZ?_]+)")
_SIZED = re.compile(r"([0-9]{1,2})'([bdh])([0-9a-f]{1,16})")
_RADIX = {"b": 2, "d": 10, "h": 16}
_DIGITS = {"b": "01", "d": "0123456789", "h": "0123456789abcdef"}
_BITS = {"b": 1, "o": 3, "h": 4}
_MOST_WIDTH = 1 << 16


@lru_cache(maxsize=4096)
def _plain(text: str) -> tuple[int | None, bool, int, int, int] | None:
    """Size, sign, digits and bits of the commonest numbers, of which nothing is to be told."""
    if len(text) <= 9 and text.isdecimal() and text.isascii():
        value = int(text)
        return None, True, value, ~value & 0xFFFFFFFF, 32
    m = _SIZED.fullmatch(text)
    if m is None:
        return None
    width, base, digits = int(m[1]), m[2], m[3]
    if not 1 <= width <= 64 or not all(d in _DIGITS[base] for d in digits):
        return None
    value = int(digits, _RADIX[base])
    return (width, False, value, ~value & (1 << width) - 1, width) if not value >> width else None


class NumberParser(TokenStream):
    """The part of the grammar that reads numbers."""

    def number(self, text: str, start: int, end: int) -> ast.Expr:
        """A number as it is written, with its size, sign and base."""
        plain = _plain(text)
        if plain is not None:
            return ast.Number(start, end, *plain)
        if text[0] == "'" and len(text) == 2:
            return ast.Fill(start, end, text[1].lower())
        m = _BASED.fullmatch(text)
        if m is None:
            if not text.replace("_", "").isdecimal():  # words that a macro has joined
                raise self.fail("bad-number", f"`{text}` is no number", "", start, end)
            value = from_decimal(text.replace("_", ""))
            bits = max(32, value.bit_length() + 1)
            return ast.Number(start, end, None, True, value, ~value & (1 << bits) - 1, bits)
        size, sign, base, digits = m[1].replace("_", ""), m[2], m[3].lower(), m[4].replace("_", "").lower()
        width = from_decimal(size) if size else None
        if width == 0 or (width or 0) > _MOST_WIDTH:
            raise self.fail("bad-number", f"a number cannot be {shown(width or 0)} bits wide", "", start, end)
        one, zero, have = self._digits(digits, base, start, end)
        if width is not None:
            if have > width and one >> width:
                self.collector.warning(
                    "number-cut",
                    f"{text} does not fit into {counted(width, 'bit')}: its upper digits are lost",
                    start,
                    end,
                )
            one, zero = self._fit(one, zero, have, width)
            return ast.Number(start, end, width, bool(sign), one, zero, width)
        bits = max(32, have)
        one, zero = self._fit(one, zero, have, bits)
        return ast.Number(start, end, None, bool(sign), one, zero, bits)

    def _digits(self, digits: str, base: str, start: int, end: int) -> tuple[int, int, int]:
        """The digits as (one, zero, how many bits they stand for)."""
        if base == "d":
            if digits in ("x", "z", "?"):
                return (0, 0, 1) if digits == "x" else (1, 1, 1)
            if not digits.isdigit():
                hint = f"write `'h{digits}`" if all(d in "0123456789abcdef" for d in digits) else ""
                raise self.fail("bad-number", f"`{digits}` is no decimal number", hint, start, end)
            value = from_decimal(digits)
            bits = max(1, value.bit_length())
            return value, ~value & (1 << bits) - 1, bits
        step = _BITS[base]
        full = (1 << step) - 1
        one = zero = 0
        for d in digits:
            if d == "x":
                a, b = 0, 0
            elif d in "z?":
                a, b = full, full
            else:
                a = int(d, 16)
                if a > full:
                    name = {"b": "binary", "o": "octal"}[base]
                    raise self.fail("bad-number", f"`{d}` is no {name} digit", "another base, or a slip", start, end)
                b = a ^ full
            one, zero = one << step | a, zero << step | b
        return one, zero, step * len(digits)

    @staticmethod
    def _fit(one: int, zero: int, have: int, width: int) -> tuple[int, int]:
        """Cut to a width, or fill up: with x or z where that is the leftmost digit, else with zeros (3.5.1)."""
        full = (1 << width) - 1
        if have >= width:
            return one & full, zero & full
        fill = full ^ ((1 << have) - 1)
        top1, top0 = one >> (have - 1) & 1, zero >> (have - 1) & 1
        if top1 == top0:
            return one | (fill if top1 else 0), zero | (fill if top0 else 0)
        return one, zero | fill
