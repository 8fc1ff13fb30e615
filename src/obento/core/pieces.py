"""What stands in the files of a hand-in, as trees, and each unit of it as a piece of text."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from obento.core.copies import Key, Piece
from obento.core.diagnostics import Collector
from obento.core.limits import Limits
from obento.core.pause import collector_held
from obento.core.source import SourceFile, Sources
from obento.core.verilog.syntax import ast as verilog_ast
from obento.core.verilog.syntax.read import read_modules
from obento.core.vhdl.syntax import ast as vhdl_ast
from obento.core.vhdl.syntax.units import parse as parse_vhdl
from obento.core.wiring import ast as wiring_ast
from obento.core.wiring.parser import read_wirings


@dataclass(frozen=True, slots=True)
class Text:
    """A file that can be read, and in which language."""

    file: SourceFile
    language: str
    is_copy: bool


@dataclass(slots=True)
class Parsed:
    """What stands in the files of a hand-in, as trees."""

    modules: list[verilog_ast.Module | verilog_ast.Primitive | verilog_ast.Package]
    wirings: list[wiring_ast.Wiring]
    vhdl: list[vhdl_ast.Unit]

    def pieces(self, sources: Sources) -> Iterator[Piece]:
        """Every unit, architecture, package and primitive with its words; what only differs in blanks and lines has the
        same ones."""
        for m in self.modules:
            kind = "primitive" if isinstance(m, verilog_ast.Primitive) else "unit"
            if isinstance(m, verilog_ast.Package):
                kind = "package"
                if m.name == "$unit":
                    yield _declarations(m, sources)
                    continue
            yield _piece((kind, m.name.lower()), sources, m.name_start, m.start, m.end)
        for w in self.wirings:
            yield _piece(("unit", w.name.lower()), sources, w.name_start, w.start, w.end)
        for u in self.vhdl:
            yield _vhdl_piece(u, sources)


def _declarations(unit: verilog_ast.Package, sources: Sources) -> Piece:
    """What a file declares outside of everything, which has no name: its words stand for one."""
    file = sources.file_at(unit.name_start)
    assert file is not None
    words = " ".join(" ".join(file.text[i.start - file.base : i.end - file.base].split()) for i in unit.items)
    return Piece(("declarations", words), file, words, unit.name_start, "")


def _piece(key: Key, sources: Sources, name_at: int, start: int, end: int, variant: str = "") -> Piece:
    file = sources.file_at(name_at)
    assert file is not None
    text = file.text[max(start - file.base, 0) : max(end - file.base, 0)]
    if not text.strip() or "`" in text:
        text = file.text  # macros: what they mean stands elsewhere in the file
    return Piece(key, file, " ".join(text.split()), name_at, variant)


def _vhdl_piece(unit: vhdl_ast.Unit, sources: Sources) -> Piece:
    kinds: list[tuple[type[vhdl_ast.Unit], str]] = [
        (vhdl_ast.Entity, "unit"),
        (vhdl_ast.Package, "package"),
        (vhdl_ast.PackageBody, "body"),
        (vhdl_ast.Configuration, "configuration"),
    ]
    if isinstance(unit, vhdl_ast.Architecture):
        piece = _piece(
            ("architecture", unit.entity.lower()), sources, unit.name_pos, unit.pos, unit.end, unit.name.lower()
        )
    else:
        kind = next(name for of, name in kinds if isinstance(unit, of))
        piece = _piece((kind, unit.name.lower()), sources, unit.name_pos, unit.pos, unit.end)
    around = " ".join(piece.file.text[c.pos - piece.file.base : c.end - piece.file.base] for c in unit.context)
    return replace(piece, text=f"{around} {piece.text}")


def parse_texts(texts: Sequence[Text], collector: Collector, limits: Limits) -> Parsed:
    """Parse files; what is wrong in them goes to the collector."""
    by_language: dict[str, list[SourceFile]] = {"verilog": [], "wiring": [], "vhdl": []}
    for text in texts:
        by_language[text.language].append(text.file)
    modules = read_modules(by_language["verilog"], collector, limits)
    wirings = [w for file in by_language["wiring"] for w in read_wirings(file, collector, limits)]
    with collector_held():
        vhdl = [u for file in by_language["vhdl"] for u in parse_vhdl(file, collector, limits)]
    return Parsed([m for m in modules if m.name], [w for w in wirings if w.name], vhdl)
