"""Changes of drawn circuits in the words of a comment, read as trees of parts that can be drawn.

A comment shows a change as a unified diff does: lines with `- ` as handed in, then lines with `+ ` as they would be
right. Where each of them is a line of a wiring list, the letter draws both; what cannot be read so stays text."""

from __future__ import annotations

from dataclasses import dataclass, field, replace

from obento.core.diagnostics import Collector
from obento.core.limits import Limits
from obento.core.source import SourceFile, Sources
from obento.core.syntax.stream import SyntaxProblem
from obento.core.wiring.ast import Join, Open, Operand, Use
from obento.core.wiring.elaborate import GATES, INVERTING, NEGATED
from obento.core.wiring.parser import WiringParser, lex

MOST_LINES = 12
"""Lines of one change that is drawn; more are no small picture."""
MOST_PARTS = 40
"""Parts of one line that is drawn."""
_LIMITS = Limits()


@dataclass(frozen=True, slots=True)
class Piece:
    """A part with what stands at its inputs, or (`kind` "name") a wire, a number or an open end called `text`."""

    kind: str
    text: str
    is_inverted: bool = False
    inputs: list[Piece] = field(default_factory=list)

    @property
    def size(self) -> int:
        """How many pieces there are in all."""
        return 1 + sum(p.size for p in self.inputs)


@dataclass(frozen=True, slots=True)
class Driven:
    """A line of a wiring list: the wires that it drives, and the piece that drives them."""

    names: list[str]
    piece: Piece


@dataclass(frozen=True, slots=True)
class Change:
    """`count` lines of a text from line `first` on (counted from 0), as they were and as they would be."""

    first: int
    count: int
    before: list[Driven]
    after: list[Driven]


def changes_in(text: str) -> list[Change]:
    """The changes that a text shows, from its beginning to its end."""
    lines = text.split("\n")
    found: list[Change] = []
    at = 0
    while at < len(lines):
        end = _run(lines, _run(lines, at, "- "), "+ ")
        change = _change(lines, at, end) if 0 < end - at <= MOST_LINES else None
        if change is not None:
            found.append(change)
        at = max(end, at + 1)
    return found


def _run(lines: list[str], at: int, sign: str) -> int:
    """The first line from `at` on that does not begin with a sign."""
    while at < len(lines) and lines[at].startswith(sign):
        at += 1
    return at


def _change(lines: list[str], first: int, end: int) -> Change | None:
    """Lines as a change; None where one of them is no line of a wiring list."""
    sides: dict[str, list[Driven]] = {"-": [], "+": []}
    for line in lines[first:end]:
        driven = _driven(line[2:])
        if driven is None:
            return None
        sides[line[0]].append(driven)
    return Change(first, end - first, sides["-"], sides["+"])


def _driven(text: str) -> Driven | None:
    """One line; None where it is none of a wiring list, or too much for a small picture."""
    collector = Collector()
    file = Sources().add("comment", text)
    try:
        line = WiringParser(lex(file, collector, _LIMITS), collector, _LIMITS).one_line()
    except SyntaxProblem:
        return None
    if line is None or collector.errors:
        return None
    reader = _Reader(file)
    piece = reader.piece(line.value)
    return Driven([reader.words(t) for t in line.targets], piece) if piece.size <= MOST_PARTS else None


class _Reader:
    """Operands of one line as pieces."""

    def __init__(self, file: SourceFile) -> None:
        self._file = file

    def words(self, node: Operand) -> str:
        """As it stands in the line."""
        return self._file.text[node.start - self._file.base : node.end - self._file.base]

    def piece(self, operand: Operand) -> Piece:
        """An operand with all that stands in it."""
        match operand:
            case Join(parts=parts):
                return Piece("join", "{ }", False, [self.piece(p) for p in parts])
            case Use(what="not", args=[Use(what=what, args=args)]) if what in NEGATED:
                return Piece(GATES[what], NEGATED[what], True, [self.piece(a) for a in args])
            case Use(what=what, args=args, pins=pins):
                kind = GATES.get(what, what if what in ("not", "buf", "select") else "part")
                inputs = [self._at_pin(a, pin) for a, pin in zip(args, pins, strict=True)]
                return Piece(kind, what, what in INVERTING or what == "not", inputs)
            case Open():
                return Piece("name", "open")
        return Piece("name", self.words(operand))

    def _at_pin(self, operand: Operand, pin: str | None) -> Piece:
        """What stands at an input, after the input's name where the line says it."""
        piece = self.piece(operand)
        return replace(piece, text=f"{pin}: {piece.text}") if pin is not None and piece.kind == "name" else piece
