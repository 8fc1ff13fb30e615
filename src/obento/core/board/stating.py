"""One sentence put into a wiring list: `shut = nor(safe, boat_clear)`, `alarm = key & !open_ok`, a part's name."""

from __future__ import annotations

import re
from collections.abc import Collection
from dataclasses import dataclass

from obento.core.board.formulas import FormulaToGates, NotStated
from obento.core.board.gates import NotPossible, with_only, written
from obento.core.diagnostics import Collector
from obento.core.formula.parser import FormulaParser
from obento.core.limits import Limits
from obento.core.source import Sources
from obento.core.suggest import did_you_mean
from obento.core.syntax.stream import SyntaxProblem
from obento.core.wiring.ast import Line, Wiring
from obento.core.wiring.elaborate import GATE_NAMES, wire_widths
from obento.core.wiring.kinds.registry import KINDS
from obento.core.wiring.parser import WiringParser, lex, read_wirings

_ARROW = re.compile(r"\s*(?:<-|:=|=)(?!=)\s*")
_TARGET = re.compile(r"[A-Za-z_][\w$]*(?:\[\d+(?:\.\.\d+)?\])?")
_NAME = re.compile(r"[A-Za-z_][\w$]*")
LIMITS = Limits()
MOST_LETTERS = 2_000
"""Letters of the longest sentence that is taken."""


@dataclass(frozen=True, slots=True)
class Stated:
    """A wiring list with a sentence in it: its text, the line that was written or changed (counted from 1), and where
    nothing could be done, why, and what to do."""

    text: str
    line: int = 0
    trouble: str = ""
    hint: str = ""


def state(text: str, unit: str, said: str, only: Collection[str] = ()) -> Stated:
    """Put a sentence into the wiring list `unit` of a text. With `only` given, expressions become these gates alone.

    A line that drives the same wires already is replaced; its remark stays."""
    said = said.strip()
    if len(said) > MOST_LETTERS:
        return Stated(text, 0, f"this has more than {MOST_LETTERS} letters", "state it in several lines")
    wiring = _wiring(text, unit)
    if wiring is None:
        return Stated(text, 0, f"there is no wiring list `{unit}` in this text", f"begin it with `wiring {unit}`")
    try:
        targets, value = _read(said, wiring, only)
    except NotStated as wrong:
        return Stated(text, 0, wrong.text, wrong.hint)
    except NotPossible as wrong:
        return Stated(text, 0, str(wrong), "allow more gates, or state it otherwise")
    return _put(text, wiring, targets, value)


def _wiring(text: str, unit: str) -> Wiring | None:
    sources = Sources()
    found = read_wirings(sources.add("a.wiring", text), Collector(), LIMITS)
    return next((w for w in found if w.name == unit), None)


def _read(said: str, wiring: Wiring, only: Collection[str]) -> tuple[list[str], str]:
    """What a sentence drives, and by what."""
    arrow = _ARROW.search(said)
    if arrow is None:
        return _named(said, wiring)
    left, right = said[: arrow.start()], said[arrow.end() :]
    targets = [t.strip() for t in left.split(",")]
    wrong = next((t for t in targets if not _TARGET.fullmatch(t)), None)
    if wrong is not None:
        raise NotStated(f"`{wrong}` is no name of a wire", "state it as `name = gate(a, b)`")
    if not right:
        raise NotStated("what it is made of is missing", f"for instance `{targets[0]} = and(a, b)`")
    taken = {bus.name for bus in wiring.takes} & {t.partition("[")[0] for t in targets}
    if taken:
        raise NotStated(f"`{min(taken)}` comes from outside and cannot be driven here", "take another name")
    if _is_operand(right):
        return targets, right
    if len(targets) > 1:
        raise NotStated("an expression drives one wire", "state each by itself")
    return targets, _of_formula(targets[0], right, wiring, only)


def _named(said: str, wiring: Wiring) -> tuple[list[str], str]:
    """A part alone, with everything at its pins left open."""
    name = said.removesuffix("()").strip()
    if not _NAME.fullmatch(name):
        raise NotStated("a sentence reads `name = …`", "for instance `shut = nor(safe, boat_clear)`")
    if name in KINDS:
        kind = KINDS[name]
        taken = {t.name for line in wiring.lines for t in line.targets} | {b.name for b in wiring.takes}
        targets = [_free(give, taken) for give in kind.gives]
        pins = [f"{p}: _" for p in ("rise", "open") if p in kind.pins] + (["bits: 4"] if "bits" in kind.pins else [])
        return targets, f"{name}({', '.join(['_'] * len(kind.operands) + pins)})"
    if name in GATE_NAMES:
        taken = {t.name for line in wiring.lines for t in line.targets} | {b.name for b in wiring.takes}
        count = 1 if name in ("not", "buf") else 3 if name == "select" else 2
        return [_free("w", taken)], f"{name}({', '.join(['_'] * count)})"
    near = did_you_mean(name, GATE_NAMES)
    raise NotStated(f"there is no part `{name}`", near or "a sentence reads `name = …`")


def _free(name: str, taken: Collection[str]) -> str:
    """A name that nothing has."""
    made, number = name, 1
    while made in taken:
        number += 1
        made = f"{name}{number}"
    return made


def _is_operand(text: str) -> bool:
    """Whether this is written as a wiring list writes it."""
    sources, collector = Sources(), Collector()
    parser = WiringParser(lex(sources.add("a.wiring", text), collector, LIMITS), collector, LIMITS)
    return parser.is_one_operand() and not collector.errors


def _of_formula(target: str, text: str, wiring: Wiring, only: Collection[str]) -> str:
    """An expression as gates and parts."""
    widths = wire_widths(wiring, LIMITS)
    collector = Collector()
    sources = Sources()
    file = sources.add("sentence", text)
    parser = FormulaParser(text, file.base, collector, widths.get)
    try:
        formula = parser.single()
    except SyntaxProblem:
        formula = None
    if formula is None or collector.errors:
        first = collector.items()[0]
        raise NotStated(first.text, first.hint)
    name, bracket, part = target.partition("[")
    if bracket:
        ends = [int(n) for n in part.rstrip("]").split("..")]
        width: int | None = abs(ends[0] - ends[-1]) + 1
    else:
        width = next((bus.width for bus in wiring.gives if bus.name == name), None)
    gates = FormulaToGates(widths.get)
    tree = gates.tree(formula, width if width is not None else gates.width(formula))
    return with_only(tree, only) if only else written(tree)


def _put(text: str, wiring: Wiring, targets: list[str], value: str) -> Stated:
    """The line in the text: in the place of one that drives the same, or before `end`."""
    sentence = f"{', '.join(targets)} <- {value}"
    base = Sources().add("a.wiring", text).base
    same = next((line for line in wiring.lines if _drives(line, targets, text, base)), None)
    if same is not None:
        start = (same.targets[0].start if same.label is not None else same.start) - base
        end = same.value.end - base
        return Stated(text[:start] + sentence + text[end:], text.count("\n", 0, start) + 1)
    end = wiring.end - base
    at = text.rfind("\n", 0, max(0, end - 1)) + 1
    if text[at:end].strip() != "end":  # it is not closed yet, or not on a line of its own
        at = len(text) if not text or text.endswith("\n") else len(text) + 1
        text = text if not text or text.endswith("\n") else text + "\n"
    return Stated(f"{text[:at]}  {sentence}\n{text[at:]}", text.count("\n", 0, at) + 1)


def _drives(line: Line, targets: list[str], text: str, base: int) -> bool:
    return [text[t.start - base : t.end - base].replace(" ", "") for t in line.targets] == [
        t.replace(" ", "") for t in targets
    ]
