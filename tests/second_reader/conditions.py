"""Conditions in words, read by rules of their own and asked of one case at a time."""

from __future__ import annotations

import re
from collections.abc import Callable

from tests.second_reader.truth import Case, Port, Unread

Condition = Callable[[Case], bool]

_TOKEN = re.compile(
    r"\s*(differs from|equals|is at least|is at most|is less than|is more than|is negative|is not negative"
    r"|is 1|an odd number of"
    r"|an even number of|0[xb][0-9a-f]+|-?\d+|[a-z]\w*\[\d+\]|[a-z]\w*|[=(),])"
)
_COMPARED: dict[str, Callable[[int, int], bool]] = {
    "differs from": lambda a, b: a != b,
    "equals": lambda a, b: a == b,
    "is at least": lambda a, b: a >= b,
    "is at most": lambda a, b: a <= b,
    "is less than": lambda a, b: a < b,
    "is more than": lambda a, b: a > b,
}


def read_condition(text: str, ports: tuple[Port, ...]) -> Condition:
    """What a condition on the inputs says.

    Raises
    ------
    Unread
    """
    reader = _Reader(text, {p.name: p for p in ports})
    condition = reader.either()
    reader.end()
    return condition


class _Reader:
    """Recursive descent: `or` binds less than `and`; values after `=` may be joined by `or` and `to`."""

    def __init__(self, text: str, ports: dict[str, Port]) -> None:
        self._text, self._ports = text, ports
        self._tokens: list[str] = []
        at = 0
        while at < len(text):
            m = _TOKEN.match(text, at)
            if m is None:
                raise Unread(f"{text!r} at {at}")
            self._tokens.append(m[1])
            at = m.end()

    def _next(self, ahead: int = 0) -> str:
        return self._tokens[ahead] if len(self._tokens) > ahead else ""

    def _take(self, wanted: str = "") -> str:
        if not self._tokens or (wanted and self._tokens[0] != wanted):
            raise Unread(f"{self._text!r}: {wanted or 'more'} expected before {self._tokens}")
        return self._tokens.pop(0)

    def end(self) -> None:
        if self._tokens:
            raise Unread(f"{self._text!r}: {self._tokens} is left")

    def either(self) -> Condition:
        parts = [self._both()]
        while self._next() == "or":
            self._take()
            parts.append(self._both())
        return lambda case: any(p(case) for p in parts)

    def _both(self) -> Condition:
        parts = [self._one()]
        while self._next() == "and":
            self._take()
            parts.append(self._one())
        return lambda case: all(p(case) for p in parts)

    def _one(self) -> Condition:
        word = self._take()
        if word == "always":
            return lambda case: True
        if word == "not":
            inner = self._one()
            return lambda case: not inner(case)
        if word == "(":
            inner = self.either()
            self._take(")")
            return inner
        if word in ("an odd number of", "an even number of"):
            return self._parity(word == "an odd number of")
        name, bit = self._named(word)
        following = self._next()
        if following in ("is negative", "is not negative"):
            return self._sign(name, self._take() == "is negative")
        if following == "=":
            self._take()
            return self._values(name, bit)
        if following in _COMPARED:
            return self._relation(name, bit, self._take())
        return lambda case: bool(_bit_of(case, name, bit))

    def _named(self, word: str) -> tuple[Port, int | None]:
        m = re.fullmatch(r"(\w+)(?:\[(\d+)\])?", word)
        if m is None or m[1] not in self._ports:
            raise Unread(f"{self._text!r}: {word!r} is no input")
        return self._ports[m[1]], int(m[2]) if m[2] else None

    @staticmethod
    def _sign(port: Port, is_negative: bool) -> Condition:
        return lambda case: (port.as_number(case.given[port.name]) < 0) == is_negative

    def _parity(self, is_odd: bool) -> Condition:
        bits = [self._named(self._take())]
        while self._next() in (",", "and"):
            self._take()
            bits.append(self._named(self._take()))
        self._take("is 1")
        return lambda case: sum(_bit_of(case, n, b) for n, b in bits) % 2 == is_odd

    def _values(self, port: Port, bit: int | None) -> Condition:
        spans: list[tuple[int, int]] = []
        one = Port("", 1) if bit is not None else port
        while True:
            low = high = self._order(one, self._take())
            if self._next() == "to":
                self._take()
                high = self._order(one, self._take())
                if low >= high:
                    raise Unread(f"{self._text!r}: {low} to {high}")
            spans.append((low, high))
            if self._next() != "or" or not re.match(r"-?\d", self._next(1)):
                break
            self._take()

        def holds(case: Case) -> bool:
            raw = _word_of(case, port, bit)
            number = one.as_number(raw) if one.radix == "dec" else raw
            return any(low <= number <= high for low, high in spans)

        return holds

    @staticmethod
    def _order(port: Port, text: str) -> int:
        """A value as what it is counted by: as a number where it stands as one, else by its digits."""
        raw = port.read(text)
        return port.as_number(raw) if port.radix == "dec" else raw

    def _relation(self, port: Port, bit: int | None, relation: str) -> Condition:
        compare = _COMPARED[relation]
        word = self._take()
        if word == "(":
            inner = self.either()
            self._take(")")
            return lambda case: compare(_bit_of(case, port, bit), int(inner(case)))
        if re.match(r"-?\d", word):
            number = port.as_number(port.read(word))
            return lambda case: compare(port.as_number(case.given[port.name]), number)
        other, at = self._named(word)

        def holds(case: Case) -> bool:
            if bit is None and at is None:
                return compare(port.as_number(case.given[port.name]), other.as_number(case.given[other.name]))
            return compare(_bit_of(case, port, bit), _bit_of(case, other, at))

        return holds


def _word_of(case: Case, port: Port, bit: int | None) -> int:
    return case.given[port.name] if bit is None else case.given[port.name] >> bit & 1


def _bit_of(case: Case, port: Port, bit: int | None) -> int:
    if bit is None and port.width > 1:
        raise Unread(f"{port.name} is taken for one bit")
    return _word_of(case, port, bit)
