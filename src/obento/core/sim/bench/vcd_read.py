"""Reading a value change dump (IEEE 1364-2005 clause 18), ours or a lab instrument's."""

from __future__ import annotations

from bisect import bisect_right
from dataclasses import dataclass, field

from obento.core.values import Word, from_digits, ones

MOST_CHANGES = 4_000_000
MOST_SIGNALS = 20_000
WIDEST = 1 << 16


class BadDump(Exception):
    """The text is no dump; `line` from 1 on."""

    def __init__(self, text: str, line: int) -> None:
        super().__init__(text)
        self.text = text
        self.line = line


@dataclass(slots=True)
class Dumped:
    """One variable: `path` of its scope, its name without range, the number of its leftmost and rightmost bit, and its
    changes."""

    path: str
    name: str
    width: int
    left: int
    right: int
    at: list[int] = field(default_factory=list)
    words: list[Word] = field(default_factory=list)

    def word(self, time: int) -> Word:
        """The value at a time; unknown before the first change."""
        i = bisect_right(self.at, time) - 1
        return self.words[i] if i >= 0 else (0, 0)


@dataclass(slots=True)
class DumpFile:
    """All variables; `end` is the last time told."""

    variables: list[Dumped]
    timescale: str
    end: int


def read_dump(text: str) -> DumpFile:
    """Read a dump. Real variables are passed over; several names for one code share their changes.

    Raises
    ------
    BadDump
        Where something cannot be read.
    """
    return _Reader(text).read()


class _Reader:
    def __init__(self, text: str) -> None:
        self._words: list[tuple[str, int]] = [
            (word, n) for n, line in enumerate(text.split("\n"), 1) for word in line.split()
        ]
        self._at = 0
        self._scopes: list[str] = []
        self._variables: list[Dumped] = []
        self._by_code: dict[str, list[Dumped]] = {}
        self._reals: set[str] = set()
        self._timescale = ""

    def read(self) -> DumpFile:
        if not any(word == "$enddefinitions" for word, _ in self._words[:200_000]):
            raise BadDump("this is no value change dump: `$enddefinitions` is missing", 1)
        while self._at < len(self._words):
            word, line = self._next()
            if word == "$enddefinitions":
                self._until_end()
                break
            if word.startswith("$"):
                self._declaration(word, line)
        return DumpFile(self._variables, self._timescale, self._changes())

    def _next(self) -> tuple[str, int]:
        if self._at >= len(self._words):
            raise BadDump("the dump ends in the middle of something", self._words[-1][1] if self._words else 1)
        self._at += 1
        return self._words[self._at - 1]

    def _until_end(self) -> list[str]:
        found: list[str] = []
        while True:
            word, _ = self._next()
            if word == "$end":
                return found
            found.append(word)

    def _declaration(self, keyword: str, line: int) -> None:
        given = self._until_end()
        if keyword == "$scope" and len(given) >= 2:
            self._scopes.append(given[1])
        elif keyword == "$upscope":
            if self._scopes:
                self._scopes.pop()
        elif keyword == "$timescale":
            self._timescale = "".join(given)
        elif keyword == "$var":
            self._variable(given, line)

    def _variable(self, given: list[str], line: int) -> None:
        if len(given) < 4 or not given[1].isdigit() or not 0 < int(given[1]) <= WIDEST:
            raise BadDump("this `$var` cannot be read: it needs a type, a width, a code and a name", line)
        kind, width, code = given[0], int(given[1]), given[2]
        if kind in ("real", "realtime"):
            self._reals.add(code)
            return
        name, _, span = "".join(given[3:]).partition("[")
        left, right = width - 1, 0
        if span:
            ends = span.rstrip("]").split(":")
            try:
                left, right = int(ends[0]), int(ends[-1])
            except ValueError:
                raise BadDump(f"`[{span}` is no range", line) from None
        known = self._by_code.setdefault(code, [])
        variable = Dumped(".".join(self._scopes), name, width, left, right)
        if known:
            variable.at, variable.words = known[0].at, known[0].words
        known.append(variable)
        self._variables.append(variable)
        if len(self._variables) > MOST_SIGNALS:
            raise BadDump(f"more than {MOST_SIGNALS} variables", line)

    def _changes(self) -> int:
        now, count = 0, 0
        while self._at < len(self._words):
            word, line = self._next()
            first = word[0]
            if first == "#":
                if not word[1:].isdigit():
                    raise BadDump(f"`{word}` is no time", line)
                if int(word[1:]) < now:
                    raise BadDump(f"time goes back from {now} to {word[1:]}", line)
                now = int(word[1:])
            elif first == "$":
                if word == "$comment":
                    self._until_end()
            elif first in "01xXzZ":
                self._change(word[1:], word[0], now, line)
                count += 1
            elif first in "bB":
                code, _ = self._next()
                self._change(code, word[1:], now, line)
                count += 1
            elif first in "rR":
                self._next()
            else:
                raise BadDump(f"`{word}` is neither a time nor a value", line)
            if count > MOST_CHANGES:
                raise BadDump(f"more than {MOST_CHANGES} changes", line)
        return now

    def _change(self, code: str, digits: str, now: int, line: int) -> None:
        known = self._by_code.get(code)
        if known is None:
            if code in self._reals:
                return
            raise BadDump(f"`{code}` is the code of no variable", line)
        variable = known[0]
        digits = digits.lower()
        if not digits or digits.strip("01xz"):
            raise BadDump(f"`{digits}` is no value", line)
        # Left digits that were left out: 0 before 0 and 1, else the leftmost one again (table 18-1).
        digits = digits.rjust(variable.width, digits[0] if digits[0] in "xz" else "0")[-variable.width :]
        one, zero = from_digits(digits)
        full = ones(variable.width)
        word = one & full, zero & full
        if variable.at and variable.at[-1] == now:
            variable.words[-1] = word
        elif not variable.words or variable.words[-1] != word:
            variable.at.append(now)
            variable.words.append(word)
