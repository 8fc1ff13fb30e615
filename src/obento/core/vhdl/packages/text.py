"""What the subprograms of textio do, for bits and the nine values too (IEEE 1076 clause 16.4).

A procedure gives back the new values of its `out` and `inout` parameters, in their order.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from obento.core.decimals import from_decimal, to_decimal
from obento.core.ir.part import RunError
from obento.core.vhdl.model import nine_values as logic
from obento.core.vhdl.model.values import Arr, Ptr, string, text_of
from obento.core.vhdl.packages.numbers import digits_text, wants_run
from obento.core.vhdl.runtime.text_files import File

_UNITS = (
    ("fs", 1),
    ("ps", 10**3),
    ("ns", 10**6),
    ("us", 10**9),
    ("ms", 10**12),
    ("sec", 10**15),
    ("min", 60 * 10**15),
    ("hr", 3600 * 10**15),
)
_SIZES = {"": 1, "b": 1, "o": 3, "h": 4}
_SPACE = " \t\xa0"
_LETTERS = {"l": logic.LETTERS, "v": logic.LETTERS, "b": "01", "B": "01"}


def _content(line: Ptr | None) -> str:
    return "" if line is None or line.value is None else text_of(line.value)


def _line(text: str) -> Ptr:
    return Ptr(string(text))


def justify(text: str, left: int, field: int) -> str:
    """A text in a field of so many characters."""
    return text.ljust(field) if left else text.rjust(field)


def find(name: str, kinds: str) -> Callable[..., Any] | None:
    """By name and kinds; `L` is a line, `F` a file, `T` time, `S` string, `c` character, `B` bit_vector, and so on."""
    if name == "readline":
        return readline
    if name in ("writeline", "tee"):
        return tee if name == "tee" else writeline
    if name == "deallocate":
        return lambda line: (None,)
    if name == "justify":
        return lambda value, side, field: string(justify(text_of(value), side, field))
    if name in ("sread", "string_read"):
        return _sread
    if name in ("write", "swrite", "bwrite", "owrite", "hwrite"):
        return _writer(kinds[1], _SIZES["" if name in ("write", "swrite") else name[0]])
    if name in ("read", "bread", "oread", "hread"):
        return _reader(kinds[1], _SIZES["" if name == "read" else name[0]], len(kinds) == 3)
    return None


@wants_run
def readline(run: Any, position: int, file: File, line: Ptr | None) -> tuple[Any, ...]:
    """READLINE: the next line of a file."""
    return (_line(run.files.line(file, position)),)


@wants_run
def writeline(run: Any, position: int, file: File, line: Ptr | None) -> tuple[Any, ...]:
    """WRITELINE: a line to a file; the line is empty afterwards."""
    run.files.put(file, _content(line) + "\n", position)
    return (_line(""),)


@wants_run
def tee(run: Any, position: int, file: File, line: Ptr | None) -> tuple[Any, ...]:
    """TEE: a line to a file and to the console."""
    run.host.bench.say(_content(line) + "\n", position)
    return writeline(run, position, file, line)  # type: ignore[no-any-return]


def _sread(line: Ptr | None, value: Arr, length: int) -> tuple[Any, ...]:
    text = _content(line).lstrip(_SPACE)
    word = re.split(r"[ \t]", text, maxsplit=1)[0][: len(value.v)]
    return _line(text[len(word) :]), Arr(value.left, value.step, word.encode("latin-1").ljust(len(value.v))), len(word)


def time_text(value: int, unit: int) -> str:
    """A time in a unit, as WRITE shows it."""
    name = next((n for n, size in _UNITS if size == unit), "fs")
    if value % unit == 0:
        return f"{value // unit} {name}"
    return f"{value / unit!r} {name}"


def _writer(kind: str, size: int) -> Callable[..., Any]:
    if kind == "r":

        def write_real(line: Ptr | None, value: float, side: int, field: int, digits: int) -> tuple[Any, ...]:
            text = f"{value:.{digits}f}" if digits else f"{value:.6e}"
            return (_line(_content(line) + justify(text, side, field)),)

        return write_real
    if kind == "T":

        def write_time(line: Ptr | None, value: int, side: int, field: int, unit: int) -> tuple[Any, ...]:
            return (_line(_content(line) + justify(time_text(value, unit), side, field)),)

        return write_time

    def write(line: Ptr | None, value: Any, side: int, field: int) -> tuple[Any, ...]:
        return (_line(_content(line) + justify(shown(kind, value, size), side, field)),)

    return write


def shown(kind: str, value: Any, size: int) -> str:
    """A value as WRITE shows it; `kind` says of which type it is."""
    if kind == "S":
        return text_of(value)
    if kind == "c":
        return chr(value)
    if kind == "z":
        return "TRUE" if value else "FALSE"
    if kind in _LETTERS:
        letters = _LETTERS[kind]
        return text_of(digits_text(value.v, letters, size, False)) if isinstance(value, Arr) else letters[value]
    return to_decimal(value) if isinstance(value, int) else str(value)


def _reader(kind: str, size: int, tells: bool) -> Callable[..., Any]:
    @wants_run
    def read(run: Any, position: int, line: Ptr | None, value: Any, *good: Any) -> tuple[Any, ...]:
        text = _content(line)
        found = _taken(kind, text, value, size)
        if found is None:
            if not tells:
                raise RunError(
                    f"`{text.strip()[:40]}` cannot be read as {_WORDS.get(kind, 'a value of this type')}", position
                )
            return line, value, False
        rest, new = found
        return (_line(rest), new, True) if tells else (_line(rest), new)

    return read


_WORDS = {
    "i": "a whole number",
    "r": "a real number",
    "T": "a time",
    "z": "a boolean",
    "b": "a bit",
    "l": "a logic value",
    "S": "so long a string",
}


def _taken(kind: str, text: str, value: Any, size: int) -> tuple[str, Any] | None:
    """What is left of a line and the value that stood first in it; None when there is none."""
    if kind == "c":
        return (text[1:], ord(text[0]) & 255) if text else None
    if kind == "S":
        length = len(value.v)
        return (
            (text[length:], Arr(value.left, value.step, text[:length].encode("latin-1", "replace")))
            if len(text) >= length
            else None
        )
    text = text.lstrip(_SPACE)
    if kind in ("v", "B", "l", "b"):
        return _taken_digits(kind, text, value, size)
    pattern = {
        "i": r"[+-]?\d[\d_]*",
        "r": r"[+-]?\d[\d_]*\.\d[\d_]*(?:[eE][+-]?\d+)?|[+-]?\d+",
        "z": r"(?i:true|false)\b",
        "T": r"[+-]?[\d.]+\s*[A-Za-z]+",
    }[kind]
    found = re.match(pattern, text)
    if found is None:
        return None
    word, rest = found.group(), text[found.end() :]
    if kind == "i":
        number = from_decimal(word.replace("_", ""))
        return (rest, number) if -(2**31) <= number < 2**31 else None
    if kind == "r":
        return rest, float(word.replace("_", ""))
    if kind == "z":
        return rest, word.lower() == "true"
    number_text, unit = re.match(r"([+-]?[\d.]+)\s*([A-Za-z]+)", word).groups()  # type: ignore[union-attr]
    units = dict(_UNITS)
    return (rest, int(float(number_text) * units[unit.lower()])) if unit.lower() in units else None


def _taken_digits(kind: str, text: str, value: Any, size: int) -> tuple[str, Any] | None:
    letters = _LETTERS[kind]
    if not isinstance(value, Arr):
        at = letters.find(text[:1].upper()) if text else -1
        return (text[1:], at) if at >= 0 else None
    length = len(value.v)
    wanted = -(-length // size)
    digits = ""
    used = 0
    for c in text:
        if len(digits) == wanted:
            break
        used += 1
        if c == "_" and digits:
            continue
        digits += c.upper()
    if len(digits) < wanted:
        return None
    bits = ""
    for c in digits:
        if size == 1:
            bits += c
        elif c in "0123456789ABCDEF" and int(c, 16) < 1 << size:
            bits += f"{int(c, 16):0{size}b}"
        else:
            bits += c * size
    if any(c not in letters for c in bits) or any(c not in "0X" for c in bits[: len(bits) - length]):
        return None
    bits = bits[len(bits) - length :]
    return text[used:], Arr(value.left, value.step, bytes(letters.index(c) for c in bits))
