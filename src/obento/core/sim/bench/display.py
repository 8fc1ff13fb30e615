"""Text of $display and its kin (IEEE 1364-2005 clause 17.1): formats, widths, and how unknown digits show."""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from obento.core import values as v
from obento.core.decimals import digits_of, to_decimal
from obento.core.ir.evaluate import round_half_away, to_real
from obento.core.ir.layout import Elements, InCollection, Members, pattern
from obento.core.ir.nodes import Argument, Expr, SystemCall
from obento.core.ir.strength import Stretch, shown
from obento.core.ir.texts import to_digits
from obento.core.values import Word

Value = Word | float | str | None

_SPEC = re.compile(r"%([-+ #]*)(0*)(\d*)(?:\.(\d+))?([a-zA-Z%])")
_WIDEST_FIELD = 4_096
_DIGIT_BITS = {"b": 1, "o": 3, "h": 4, "x": 4}
_STRENGTH = {(0, 1): "St0", (1, 0): "St1", (1, 1): "HiZ", (0, 0): "StX"}


@dataclass(slots=True)
class TimeFormat:
    """What %t prints (17.3.2): the unit as a power of ten, digits after the point, suffix and least width."""

    unit: int
    digits: int = 0
    suffix: str = ""
    width: int = 20

    def text(self, ticks: float, precision: int, width: int | None) -> str:
        """A time as this format writes it, at least `width` characters wide."""
        shift = precision - self.unit
        if isinstance(ticks, int) and shift >= 0:
            body = to_decimal(ticks * 10**shift) + (f".{'0' * self.digits}" if self.digits else "")
        else:
            body = f"{ticks * 10.0**shift:.{self.digits}f}"
        return (body + self.suffix).rjust(self.width if width is None else width)


def decimal(word: Word, width: int, signed: bool, field: int | None, zeros: bool = False) -> str:
    """%d: right in a field as wide as the largest value of this width needs (17.1.1.2); `field` sets another."""
    if field is None:
        field = digits_of(width) if not signed else len(to_decimal(1 << (width - 1))) + 1
    if v.is_known(word, width):
        number = v.signed_value(word[0], width) if signed else word[0]
        return (
            f"{'-' * (number < 0)}{to_decimal(abs(number)).rjust(field - (number < 0), '0')}"
            if zeros
            else to_decimal(number).rjust(field)
        )
    return _unknown(word, width).rjust(field)


def _unknown(word: Word, width: int) -> str:
    """One letter for a group with unknown digits: small when all are alike, capital when some only (17.1.1.4)."""
    full = v.ones(width)
    floating = word[0] & word[1] & full
    unknown = full & ~(word[0] | word[1])
    if unknown == full:
        return "x"
    if floating == full:
        return "z"
    return "X" if unknown else "Z"


def digits(word: Word, width: int, bits: int, field: int | None) -> str:
    """%b, %o and %h: all digits, or as few as there are when `field` is given."""
    out = []
    for low in range(0, width, bits):
        size = min(bits, width - low)
        part = v.select(word, width, low, size)
        out.append(f"{part[0]:x}" if v.is_known(part, size) else _unknown(part, size))
    text = "".join(reversed(out))
    if field is None:
        return text
    text = text.lstrip("0") or "0"
    return text.rjust(field, "0")


def characters(word: Word, width: int) -> str:
    """%s: eight bits a character; leading zero bytes are left out here."""
    known = word[0] & ~word[1]
    data = known.to_bytes((width + 7) // 8, "big").lstrip(b"\0")
    return data.decode("latin-1")


def _no_net(value: Expr) -> Stretch | None:
    del value
    return None


class Formatter:
    """Makes the text of one call."""

    def __init__(
        self, time_format: TimeFormat, precision: int, level_of: Callable[[Expr], Stretch | None] = _no_net
    ) -> None:
        self.level_of = level_of
        self.time_format = time_format
        self.precision = precision

    def text(self, call: SystemCall, arguments: Sequence[Argument], given: Sequence[Value], radix: str) -> str:
        """All arguments of a display task from the first to be printed on."""
        out: list[str] = []
        at = 0
        while at < len(arguments):
            a = arguments[at]
            if a.text is not None:
                text, used = self._formatted(call, a.text, arguments[at + 1 :], given[at + 1 :])
                out.append(text)
                at += used
            elif a.value is None:
                out.append(" ")
            else:
                out.append(self._plain(a, given[at], radix))
            at += 1
        return "".join(out)

    def _plain(self, a: Argument, value: Value, radix: str) -> str:
        if isinstance(a.layout, InCollection | Elements | Members):
            return pattern(a.layout, value)
        if isinstance(value, float):
            return _general(value, None)
        if isinstance(value, str):
            return value
        assert value is not None and a.value is not None
        return (
            decimal(value, a.value.width, a.signed, None)
            if radix == "d"
            else digits(value, a.value.width, _DIGIT_BITS[radix], None)
        )

    def _formatted(
        self, call: SystemCall, text: str, arguments: Sequence[Argument], given: Sequence[Value]
    ) -> tuple[str, int]:
        """A format string with the arguments it uses up; how many those were."""
        out: list[str] = []
        used = 0
        at = 0
        for m in _SPEC.finditer(text):
            out.append(text[at : m.start()])
            at = m.end()
            letter = m[5].lower()
            if letter == "%":
                out.append("%")
            elif letter == "m":
                out.append(call.scope)
            elif letter == "l":
                out.append(f"work.{call.scope}")
            elif used >= len(arguments):
                out.append(m.group())
            else:
                out.append(self._one(call, m, arguments[used], given[used]))
                used += 1
        out.append(text[at:])
        return "".join(out), used

    def _one(self, call: SystemCall, m: re.Match[str], a: Argument, value: Value) -> str:
        letter = m[5].lower()
        left, zeros = "-" in m[1], bool(m[2])
        field = min(int(m[3]), _WIDEST_FIELD) if m[3] else (0 if zeros else None)
        places = min(int(m[4]), _WIDEST_FIELD) if m[4] else None
        if isinstance(value, str) and left:
            return value.ljust(field or 0)
        if isinstance(value, float | tuple) and letter in "efg" and a.text is None and a.value is not None:
            number = value if isinstance(value, float) else to_real(value, a.value.width, a.signed)
            return _like_c(m, number, letter, field or 0, places)
        if letter == "p" and a.layout is not None:
            text = pattern(a.layout, value)
            return text.ljust(field or 0) if left else text.rjust(field or 0)
        if letter == "v" and a.value is not None:
            level = self.level_of(a.value)
            if level is not None:
                return shown(level).rjust(field or 0)
        text = self._value(call, letter, field, zeros and bool(m[3]), a, value)
        return text.strip().ljust(field or 0) if left else text

    def _value(
        self,
        call: SystemCall,
        letter: str,
        field: int | None,
        zeros: bool,
        a: Argument,
        value: Value,
    ) -> str:
        if a.text is not None:
            text = a.text
            if letter == "s":
                return text.rjust(field or 0)
            data = text.encode("latin-1", "replace") or b"\0"
            value, width, signed = v.word(int.from_bytes(data, "big"), 8 * len(data)), 8 * len(data), False
        elif a.value is None or value is None:
            return ""
        else:
            width, signed = a.value.width, a.signed
        if isinstance(value, str):
            return self._of_string(letter, field, zeros, value)
        if letter == "t":
            return self._time(call, field, value, width)
        if isinstance(value, float):
            value, width, signed = v.word(round_half_away(value), 64), 64, True
            field = field or 0
        return self._bits(letter, field, zeros, value, width, signed)

    def _of_string(self, letter: str, field: int | None, zeros: bool, text: str) -> str:
        if letter not in "bodhxc":
            return text.rjust(field or 0)
        width = 8 * max(1, len(text))
        return self._bits(letter, field, zeros, to_digits(text, width), width, False)

    def _bits(self, letter: str, field: int | None, zeros: bool, value: Word, width: int, signed: bool) -> str:
        match letter:
            case "d":
                return decimal(value, width, signed, field, zeros)
            case "b" | "o" | "h" | "x":
                return digits(value, width, _DIGIT_BITS[letter], field)
            case "c":
                return chr(value[0] & ~value[1] & 255)
            case "s":
                return characters(value, width).rjust((width + 7) // 8 if field is None else field)
            case "v":
                return _STRENGTH[value[0] & 1, value[1] & 1]
            case "u" | "z":
                return (value[0] & ~value[1]).to_bytes((width + 31) // 32 * 4, "little").decode("latin-1")
        return decimal(value, width, signed, field)

    def _time(self, call: SystemCall, field: int | None, value: Word | float, width: int) -> str:
        if isinstance(value, float):
            return self.time_format.text(value * call.tick, self.precision, field)
        if not v.is_known(value, width):
            return decimal(value, width, False, self.time_format.width if field is None else field)
        return self.time_format.text(value[0] * call.tick, self.precision, field)


def _like_c(m: re.Match[str], number: float, letter: str, field: int, places: int | None) -> str:
    """%e, %f and %g as the C library prints them, with its flags (17.1.1.2)."""
    sign = "+" if "+" in m[1] else " " if " " in m[1] else "-"
    align = "<" if "-" in m[1] else "=" if m[2] else ">"
    fill = "0" if m[2] and align == "=" else " "
    return f"{number:{fill}{align}{sign}{field}.{6 if places is None else places}{letter}}"


def _general(number: float, places: int | None) -> str:
    """%g as the C library prints it."""
    return f"{number:.{6 if places is None else places}g}"
