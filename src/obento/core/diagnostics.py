"""What can be wrong with a text, said to the person who wrote it."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from obento.core.source import Place, Sources

Severity = Literal["error", "warning", "note"]

MOST_SHOWN = 20
"""No file gets more messages than this; the rest is counted."""


@dataclass(frozen=True, slots=True)
class Diagnostic:
    """One message: a stable code, where it is (half-open positions), what is wrong and what to try."""

    code: str
    severity: Severity
    text: str
    start: int = 0
    end: int = 0
    hint: str = ""


@dataclass(frozen=True, slots=True)
class Message:
    """A diagnostic with its place worked out: what commands, server and letters show."""

    severity: Severity
    code: str
    file: str
    line: int
    column: int
    text: str
    hint: str = ""
    end_line: int = 0
    end_column: int = 0

    def __str__(self) -> str:
        place = f"{self.file}:{self.line}:{self.column}: " if self.line else (f"{self.file}: " if self.file else "")
        hint = f" ({self.hint})" if self.hint else ""
        return f"{place}{self.severity}: {self.text}{hint}"


class Collector:
    """Gathers diagnostics, drops repeats and stops counting out loud after `MOST_SHOWN` errors."""

    def __init__(self) -> None:
        self._items: list[Diagnostic] = []
        self._seen: set[tuple[str, int]] = set()
        self.errors = 0
        self.untold = 0

    def add(
        self, severity: Severity, code: str, text: str, start: int = 0, end: int | None = None, hint: str = ""
    ) -> None:
        """Take a diagnostic, unless the same one was said at this place before."""
        key = (code, start) if start else (code + text, 0)
        if key in self._seen:
            return
        self._seen.add(key)
        if severity == "error":
            self.errors += 1
        if (len(self._items) >= MOST_SHOWN and severity != "error") or self.errors > MOST_SHOWN:
            self.untold += 1
            return
        self._items.append(Diagnostic(code, severity, text, start, start if end is None else end, hint))

    def error(self, code: str, text: str, start: int = 0, end: int | None = None, hint: str = "") -> None:
        """Take an error: what stands there cannot be used."""
        self.add("error", code, text, start, end, hint)

    def warning(self, code: str, text: str, start: int = 0, end: int | None = None, hint: str = "") -> None:
        """Take a warning: it can be used, but is seldom meant."""
        self.add("warning", code, text, start, end, hint)

    def note(self, code: str, text: str, start: int = 0, end: int | None = None, hint: str = "") -> None:
        """Take a note: something worth knowing."""
        self.add("note", code, text, start, end, hint)

    def shows(self, severity: Severity) -> bool:
        """Whether one more message would be shown: else nobody needs its hint, which may take long to find."""
        return self.errors < MOST_SHOWN if severity == "error" else len(self._items) < MOST_SHOWN

    def has(self, code: str) -> bool:
        """Whether something with this code was said."""
        return any(d.code == code for d in self._items)

    def only(self, code: str) -> Collector:
        """A collector with nothing but the messages of one kind."""
        chosen = Collector()
        for d in self._items:
            if d.code == code:
                chosen.add(d.severity, d.code, d.text, d.start, d.end, d.hint)
        return chosen

    def take(self, other: Collector) -> None:
        """Gather what another collector has gathered."""
        for d in other._items:
            self.add(d.severity, d.code, d.text, d.start, d.end, d.hint)
        self.untold += other.untold

    def items(self) -> list[Diagnostic]:
        """In order of place; the count of what was left out comes last."""
        items = sorted(self._items, key=lambda d: d.start)
        if self.untold:
            items.append(Diagnostic("more", "note", f"and {self.untold} more messages like these"))
        return items


def to_messages(diagnostics: Iterable[Diagnostic], sources: Sources) -> list[Message]:
    """Work out the places of diagnostics for showing."""
    messages = []
    for d in diagnostics:
        at = sources.place(d.start) if d.start else Place("", 0, 0)
        to = sources.place(d.end) if d.end else at
        messages.append(
            Message(d.severity, d.code, at.file, at.line, at.column, d.text, d.hint, to.line or at.line, to.column)
        )
    return messages
