"""What is so, case by case: inputs, what is expected, what came."""

from __future__ import annotations

import re
from dataclasses import dataclass


class Unread(Exception):
    """A sentence, or a value in it, that this reader cannot read."""


@dataclass(frozen=True)
class Port:
    """A port of the spec, with the radix that its values are written in."""

    name: str
    width: int
    signed: bool = False
    radix: str = "bin"

    def as_number(self, raw: int) -> int:
        """What a word stands for: below zero where its sign says so."""
        return raw - (1 << self.width) if self.signed and raw >> self.width - 1 else raw

    def show(self, raw: int | None) -> str:
        """As it stands in a table."""
        if raw is None:
            return "-"
        if self.radix == "hex":
            return f"0x{raw:x}"
        return str(self.as_number(raw)) if self.radix == "dec" else format(raw, f"0{self.width}b")

    def read(self, text: str) -> int:
        """A value as a sentence has it."""
        if self.radix == "bin":
            if not re.fullmatch(f"[01]{{{self.width}}}", text):
                raise Unread(f"{text} is no value of {self.declared()}")
            return int(text, 2)
        if not re.fullmatch(r"-?\d+|0x[0-9a-f]+", text):
            raise Unread(f"{text} is no value of {self.declared()}")
        number = int(text, 0)
        raw = number & (1 << self.width) - 1
        if self.radix == "dec" and self.as_number(raw) != number:
            raise Unread(f"{text} is no value of {self.declared()}")
        return raw

    def declared(self) -> str:
        """As a spec declares it."""
        size = f"[{self.width}]" if self.width > 1 else ""
        return f"{self.name}{size}{'s' if self.signed else ''}{'' if self.radix == 'bin' else ':' + self.radix}"


@dataclass(frozen=True)
class Case:
    """Words without signs by port; what is not compared is None."""

    given: dict[str, int]
    wanted: dict[str, int | None]
    got: dict[str, int]

    def is_wrong(self, output: str) -> bool:
        return self.wanted[output] is not None and self.wanted[output] != self.got[output]


@dataclass(frozen=True)
class Truth:
    """All cases of one hand-in."""

    inputs: tuple[Port, ...]
    outputs: tuple[Port, ...]
    cases: list[Case]

    def spec(self) -> str:
        """As a spec that lists every case."""
        head = [
            'obento = "spec/1"',
            'unit = "m"',
            "[ports]",
            f'in = "{" ".join(p.declared() for p in self.inputs)}"',
            f'out = "{" ".join(p.declared() for p in self.outputs)}"',
            "[expect]",
            "table = '''",
            f"{' '.join(p.name for p in self.inputs)} | {' '.join(p.name for p in self.outputs)}",
        ]
        rows = [
            f"{' '.join(p.show(c.given[p.name]) for p in self.inputs)} |"
            f" {' '.join(p.show(c.wanted[p.name]) for p in self.outputs)}"
            for c in self.cases
        ]
        return "\n".join([*head, *rows, "'''", ""])

    def wrong(self) -> list[Case]:
        return [c for c in self.cases if any(c.is_wrong(p.name) for p in self.outputs)]
