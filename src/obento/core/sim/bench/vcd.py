"""Value change dump: what changed when, in the open text format of IEEE 1364-2005 clause 18."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import cast

from obento.core import values as v
from obento.core.ir.design import ScopeOfNames, Variable
from obento.core.values import Word

_VARIABLE = {
    "integer": "integer",
    "time": "time",
    "real": "real",
    "realtime": "real",
    "event": "event",
    "parameter": "parameter",
}


def identifier(number: int) -> str:
    """Printable characters, the shortest first (18.2.1)."""
    text = chr(33 + number % 94)
    while number >= 94:
        number = number // 94 - 1
        text = chr(33 + number % 94) + text
    return text


def value_text(word: Word | float, width: int, code: str) -> str:
    """One line of a value change; the leading digits that filling would restore are left out (table 18-1)."""
    if isinstance(word, float):
        return f"r{word:.16g} {code}\n"
    digits = v.to_digits(word, width)
    if width == 1:
        return f"{digits}{code}\n"
    short = digits.lstrip(digits[0]) if digits[0] in "0xz" else digits
    if not short or (digits[0] in "xz") or (digits[0] == "0" and short[0] in "xz"):
        short = digits[0] + short
    return f"b{short} {code}\n"


def timescale(precision: int) -> str:
    """A power of ten of a second as `$timescale` writes it, such as 10ns."""
    unit = {0: "s", -1: "ms", -2: "us", -3: "ns", -4: "ps", -5: "fs"}[precision // 3]
    return f"{10 ** (precision % 3)}{unit}"


class Dump:
    """Writes the changes of chosen variables; `write` takes the text, `read` gives a signal's word."""

    def __init__(self, write: Callable[[str], None], read: Callable[[int], Word], precision: int) -> None:
        self._write = write
        self._read = read
        self._precision = precision
        self._codes: dict[tuple[int, int, int], str] = {}
        self._by_signal: dict[int, list[tuple[Variable, str]]] = {}
        self._last: dict[str, Word | float] = {}
        self._header: list[str] = []
        self._open = False
        self._time = -1
        self.on = True

    def choose(self, scopes: Iterable[ScopeOfNames], wanted: Callable[[str, Variable], bool]) -> None:
        """Add the variables of these scopes, and of those inside, for which `wanted(path, variable)` holds."""
        for scope in scopes:
            self._scope(scope, wanted)

    def _scope(self, scope: ScopeOfNames, wanted: Callable[[str, Variable], bool]) -> None:
        before = len(self._header)
        kind = "module" if scope.kind == "interface" else scope.kind  # 18.2.3.5 knows no other
        self._header.append(f"$scope {kind} {scope.name} $end\n")
        for variable in scope.variables:
            if (
                variable.signal.element == 0
                and (variable.signal.has_digits or variable.signal.real)
                and not variable.signal.automatic
                and wanted(scope.path, variable)
            ):
                self._variable(variable)
        for child in scope.children:
            self._scope(child, wanted)
        if len(self._header) == before + 1:
            self._header.pop()
        else:
            self._header.append("$upscope $end\n")

    def _variable(self, variable: Variable) -> None:
        width = abs(variable.msb - variable.lsb) + 1
        key = variable.signal.id, variable.low, width
        code = self._codes.get(key)
        if code is None:
            code = self._codes[key] = identifier(len(self._codes))
            self._by_signal.setdefault(variable.signal.id, []).append((variable, code))
        kind = _VARIABLE.get(variable.kind, "reg" if variable.signal.kind == "variable" else "wire")
        kind = "real" if variable.signal.real else kind
        span = f" [{variable.msb}:{variable.lsb}]" if width > 1 and kind in ("reg", "wire") else ""
        self._header.append(f"$var {kind} {width} {code} {variable.name}{span} $end\n")

    def begin(self, now: int) -> None:
        """The header and the values everything starts with (18.2.3.5)."""
        self._write("$version Obento $end\n")
        self._write(f"$timescale {timescale(self._precision)} $end\n")
        for line in self._header:
            self._write(line)
        self._write("$enddefinitions $end\n")
        self._open = True
        self._at(now)
        self.all("$dumpvars")

    def all(self, keyword: str) -> None:
        """A checkpoint of every value; all unknown for `$dumpoff`."""
        self._write(f"{keyword}\n")
        for entries in self._by_signal.values():
            for variable, code in entries:
                word = self._word(variable)
                if keyword == "$dumpoff" and not isinstance(word, float):
                    word = v.X1
                self._write(value_text(word, abs(variable.msb - variable.lsb) + 1, code))
                self._last[code] = word
        self._write("$end\n")

    def _word(self, variable: Variable) -> Word | float:
        word = self._read(variable.signal.id)
        if variable.signal.real:
            return cast(float, word)
        return v.select(word, variable.signal.width, variable.low, abs(variable.msb - variable.lsb) + 1)

    def _at(self, now: int) -> None:
        if now != self._time:
            self._time = now
            self._write(f"#{now}\n")

    def step(self, now: int, changed: Iterable[int]) -> None:
        """The values that changed in a step of time."""
        if not self.on:
            return
        for signal in sorted(changed):
            for variable, code in self._by_signal.get(signal, ()):
                word = self._word(variable)
                if self._last.get(code) == word:
                    continue
                self._last[code] = word
                self._at(now)
                self._write(value_text(word, abs(variable.msb - variable.lsb) + 1, code))

    def end(self, now: int) -> None:
        """The time at which it all stopped."""
        if self._open:
            self._at(now)
