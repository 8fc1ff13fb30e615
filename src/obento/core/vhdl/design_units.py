"""All design units of a hand-in, and the packages of the libraries (IEEE 1076 clause 13)."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field
from functools import cache
from pathlib import Path
from typing import TypeVar

from obento.core.diagnostics import Collector
from obento.core.limits import Limits
from obento.core.source import SourceFile
from obento.core.vhdl.syntax import ast
from obento.core.vhdl.syntax.units import parse

U = TypeVar("U", bound=ast.Unit)

_FOLDER = Path(__file__).parent / "packages"
_FAR = 1 << 40
"""Where positions of our own packages begin; no text of a hand-in is there."""

LIBRARIES = {
    "std": ("standard", "textio", "env"),
    "ieee": (
        "std_logic_1164",
        "numeric_std",
        "numeric_bit",
        "math_real",
        "std_logic_arith",
        "std_logic_unsigned",
        "std_logic_signed",
        "std_logic_textio",
        "numeric_std_unsigned",
        "std_logic_misc",
    ),
}
TAUGHT = frozenset(["std_logic_arith", "std_logic_unsigned", "std_logic_signed", "std_logic_misc"])


@dataclass(slots=True)
class DesignUnits:
    """Units by name. Every library that is not one of ours is taken for the one that all hand-ins share."""

    entities: dict[str, ast.Entity] = field(default_factory=dict)
    architectures: dict[str, list[ast.Architecture]] = field(default_factory=dict)
    packages: dict[str, ast.Package] = field(default_factory=dict)
    bodies: dict[str, ast.PackageBody] = field(default_factory=dict)
    configurations: dict[str, ast.Configuration] = field(default_factory=dict)

    def add(self, units: Iterable[ast.Unit], collector: Collector) -> None:
        """Take in the units of a file; one that is there already is reported."""
        for unit in units:
            match unit:
                case ast.Entity():
                    self._one(self.entities, unit, "the entity", collector)
                case ast.Architecture():
                    known = self.architectures.setdefault(unit.entity, [])
                    if any(a.name == unit.name for a in known):
                        text = f"the architecture `{unit.name}` of `{unit.entity}` stands here a second time"
                        collector.error(
                            "duplicate", text, unit.name_pos, unit.name_pos + len(unit.name), "keep one of them"
                        )
                    known.append(unit)
                case ast.Package():
                    self._one(self.packages, unit, "the package", collector)
                case ast.PackageBody():
                    self._one(self.bodies, unit, "the package body", collector)
                case ast.Configuration():
                    self._one(self.configurations, unit, "the configuration", collector)

    @staticmethod
    def _one(known: dict[str, U], unit: U, what: str, collector: Collector) -> None:
        if unit.name in known:
            text = f"{what} `{unit.name}` stands here a second time"
            collector.error("duplicate", text, unit.name_pos, unit.name_pos + len(unit.name), "keep one of them")
            return
        known[unit.name] = unit


@cache
def library_package(name: str) -> ast.Package:
    """One of our packages, read from its text."""
    text = _expanded((_FOLDER / f"{name}.vhd").read_text(encoding="ascii"))
    collector = Collector()
    index = [n for names in LIBRARIES.values() for n in names].index(name)
    units = parse(SourceFile(f"{name}.vhd", text, _FAR + index * (1 << 24)), collector, Limits())
    assert not collector.errors, f"{name}: {collector.items()[:1]}"
    package = units[0]
    assert isinstance(package, ast.Package)
    return package


def _expanded(text: str) -> str:
    """Lines between `@V a b` and `@E` once for every word, with `@` for the word."""
    out: list[str] = []
    block: list[str] = []
    words: list[str] = []
    for line in text.splitlines():
        if line.startswith("@V "):
            words = line.split()[1:]
        elif line == "@E":
            out += [b.replace("@", word) for word in words for b in block]
            block, words = [], []
        elif words:
            block.append(line)
        else:
            out.append(line)
    return "\n".join(out)
