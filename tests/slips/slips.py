"""The commonest slips of beginners: small texts, each with the line at which the first message must stand.

A file holds those of one language. `=== ` begins a slip and says what it is; `!` in a comment at the end of a line asks
for an error there that nothing comes before, `?` for a warning there."""

from __future__ import annotations

import re
from dataclasses import dataclass
from pathlib import Path

from obento.core.diagnostics import Message
from obento.core.handin import HandinFile, read_handin
from obento.core.limits import Limits

HERE = Path(__file__).parent
LANGUAGES = {"verilog": (".v", "//"), "sv": (".sv", "//"), "vhdl": (".vhd", "--")}


@dataclass(frozen=True, slots=True)
class Slip:
    """A slip: what it is, its text without the mark, the line of the mark, and whether it is an error."""

    language: str
    title: str
    text: str
    line: int
    is_error: bool

    @property
    def shown(self) -> str:
        """The line with the slip."""
        return self.text.split("\n")[self.line - 1].strip()

    def messages(self) -> list[Message]:
        """What is said of it: errors, or warnings where it is none."""
        reading = read_handin([HandinFile("a" + LANGUAGES[self.language][0], self.text.encode())], Limits())
        if "m" in reading.units and not reading.collector.errors:
            reading.elaborate("m")
        wanted = "error" if self.is_error else "warning"
        return [m for m in reading.messages() if m.severity == wanted]


def read(language: str) -> list[Slip]:
    """All slips of a language."""
    mark = re.compile(rf"\s*{re.escape(LANGUAGES[language][1])}([!?])$", re.MULTILINE)
    found = []
    for block in (HERE / f"{language}.txt").read_text(encoding="utf-8").split("=== ")[1:]:
        title, _, text = block.partition("\n")
        m = mark.search(text)
        assert m is not None, title
        line = text.count("\n", 0, m.start()) + 1
        found.append(Slip(language, title.strip(), mark.sub("", text), line, m[1] == "!"))
    return found
