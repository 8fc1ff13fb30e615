"""Programs that say in their comments what a standard, or our own formats, make of them.

The first line names the clause. A line `> text` in a comment is what is printed, or a row `inputs | outputs`; `! code`
at the end of a line is an error there, `? code` a warning, each with its code or a part of its text. `exit 1` in the
first line: the run ends with a failure."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

from obento.core.diagnostics import Message

HERE = Path(__file__).parent
COMMENTS = {".v": "//", ".sv": "//", ".vhd": "--", ".wiring": "//", ".toml": "#"}
SEVERITIES = {"!": "error", "?": "warning"}


@dataclass(frozen=True, slots=True)
class Mark:
    """A message that a line asks for; line 0 where it has no place."""

    line: int
    severity: str
    words: str


@dataclass(frozen=True, slots=True)
class Program:
    """A program with what it says of itself."""

    path: Path
    text: str
    wanted: list[str]
    marks: list[Mark]

    @property
    def head(self) -> str:
        """The line that names the clause."""
        return self.text.partition("\n")[0]

    def check_messages(self, messages: Sequence[Message]) -> None:
        """Every message that is asked for is there, and no error is at another line."""
        for mark in self.marks:
            assert any(fits(mark, m) for m in messages), (mark, [str(m) for m in messages])
        for m in messages:
            is_asked = any(mark.line in (0, m.line) and mark.severity == "error" for mark in self.marks)
            assert m.severity != "error" or is_asked, str(m)


def fits(mark: Mark, message: Message) -> bool:
    """Whether a message is the one that a mark asks for."""
    at_line = mark.line in (0, message.line)
    return at_line and message.severity == mark.severity and (mark.words in message.code or mark.words in message.text)


def read(path: Path) -> Program:
    """A program from its file; the marks of TOML files, which would stand inside of its texts, are taken out."""
    text = path.read_text(encoding="utf-8")
    comment = COMMENTS[path.suffix]
    wanted: list[str] = []
    marks: list[Mark] = []
    kept: list[str] = []
    for number, line in enumerate(text.split("\n"), 1):
        if line.startswith(f"{comment}>"):
            wanted.append(line.removeprefix(f"{comment}>").removeprefix(" "))
        m = re.search(rf"\s*{re.escape(comment)}([!?]) *(.*)$", line)
        if m is not None:
            marks.append(Mark(0 if m.start() == 0 else number, SEVERITIES[m[1]], m[2].strip()))
            line = line[: m.start()] if path.suffix == ".toml" else line
        kept.append(line)
    return Program(path, "\n".join(kept), wanted, marks)


def programs(language: str) -> list[Program]:
    """All programs of a language, in the order of their clauses."""
    return [read(p) for p in sorted((HERE / language).iterdir()) if p.suffix in COMMENTS]
