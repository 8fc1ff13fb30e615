"""Source texts in one space of positions.

Every text added to a `Sources` gets a stretch of whole numbers of its own, so that a single integer names a file and an
offset in it. Syntax trees and designs carry such integers only; lines and columns are worked out when a message is
shown."""

from __future__ import annotations

from bisect import bisect_right
from dataclasses import dataclass, field


@dataclass(frozen=True, slots=True)
class Place:
    """A position as a person reads it: file name, line and column, both from 1 (columns count characters)."""

    file: str
    line: int
    column: int


@dataclass(slots=True)
class SourceFile:
    """One text with the first position it owns."""

    name: str
    text: str
    base: int
    line_starts: list[int] = field(default_factory=list)

    def __post_init__(self) -> None:
        starts = [0]
        find = self.text.find
        at = find("\n")
        while at >= 0:
            starts.append(at + 1)
            at = find("\n", at + 1)
        self.line_starts = starts


class Sources:
    """All texts of one run. Position 0 belongs to no file and means "nowhere in particular"."""

    def __init__(self) -> None:
        self.files: list[SourceFile] = []
        self._bases: list[int] = []
        self._next = 1

    def add(self, name: str, text: str) -> SourceFile:
        """Take in a text; the position one past its end belongs to it too (end of input)."""
        file = SourceFile(name, text, self._next)
        self.files.append(file)
        self._bases.append(file.base)
        self._next += len(text) + 1
        return file

    def file_at(self, position: int) -> SourceFile | None:
        """The file that a position lies in."""
        index = bisect_right(self._bases, position) - 1
        return self.files[index] if index >= 0 else None

    def place(self, position: int) -> Place:
        """Where a position is; file name empty and line 0 when it belongs to no file."""
        file = self.file_at(position)
        if file is None:
            return Place("", 0, 0)
        offset = position - file.base
        line = bisect_right(file.line_starts, offset)
        return Place(file.name, line, offset - file.line_starts[line - 1] + 1)
