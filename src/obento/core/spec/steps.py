"""Clocked expectations as text: lists of steps, and function tables.

Both have the ports' names as a header, `|` between what is given and what is expected, and one row a line. In the
clock's column a step says what the clock does: `.` nothing, `r` it rises and stays, `f` it falls and stays, `c` a whole
cycle."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass

from obento.core.diagnostics import Collector
from obento.core.formula.ast import Formula
from obento.core.formula.parser import FormulaParser
from obento.core.spec.model import EDITION, Cell, Clock, FunctionRow, Reset, SpecPort, StepList, StepRow
from obento.core.spec.table import X_AMONG_INPUTS, BadCell, csv_words, parse_value, split_bars
from obento.core.spec.unknowns import unknown_digits
from obento.core.suggest import did_you_mean
from obento.core.syntax.stream import SyntaxProblem

_WORD = re.compile(r"\S+")
_PARTING = re.compile(r"-{3,}\s*(.*)$")
_NOTHING = Cell((0, 0), 0)
_ACTIONS = {
    ".": "the clock does nothing",
    "r": "it rises",
    "f": "it falls",
    "c": "a whole cycle",
}
_EVENTS = ("-", ".", "r", "f", "0", "1")
_EVENTS_HINT = "`-` whatever it does, `r` it rises, `f` it falls, `.` no edge, 0 or 1 its level"
_EDGE_HINT = "write `r` or `f` in the clock's column"


@dataclass(frozen=True, slots=True)
class Sides:
    """What may stand in the header of a clocked text: ports of the spec, and states that are no ports."""

    inputs: tuple[SpecPort, ...]
    outputs: tuple[SpecPort, ...]
    inner: tuple[SpecPort, ...]
    clock: Clock | None
    reset: Reset | None
    edition: int = EDITION


Words = list[tuple[str, int]]
"""The words of a line with their places in the text."""


def parse_steps(text: str, base: int, sides: Sides, collector: Collector) -> tuple[StepList, ...]:
    """All sequences of a `steps` text; what is wrong is reported cell by cell."""
    lists: list[StepList] = []
    name, rows = "", list[StepRow]()
    header: _Header | None = None
    for number, words, start in _lines(text, base):
        parting = _PARTING.match(" ".join(w for w, _ in words))
        if parting:
            if rows:
                lists.append(StepList(name or f"sequence {len(lists) + 1}", tuple(rows)))
            name, rows = parting[1].strip().strip("-").strip(), []
        elif header is None or _is_header(words, header):
            header = _read_header(words, start, sides, collector, frozenset())
            if header is None:
                return ()
        else:
            row = _step(words, number, header, sides, collector, bool(rows))
            if row is not None:
                rows.append(row)
    if rows:
        lists.append(StepList(name or f"sequence {len(lists) + 1}", tuple(rows)))
    if not lists and header is not None:
        collector.error("empty-table", "there are no steps here", base, base, "one step a line below the header")
    elif header is None:
        collector.error(
            "empty-table", "these steps have no header line", base, base, "begin with the names of the ports"
        )
    return tuple(lists)


def parse_function(text: str, base: int, sides: Sides, collector: Collector) -> tuple[FunctionRow, ...]:
    """All rows of a `function` text; what is wrong is reported cell by cell."""
    rows: list[FunctionRow] = []
    header: _Header | None = None
    states = frozenset(p.name for p in (*sides.outputs, *sides.inner))
    for number, words, start in _lines(text, base):
        if header is None:
            header = _read_header(words, start, sides, collector, states)
            if header is None:
                return ()
            if not any(header.right):
                collector.error(
                    "missing-column", "the function table has no state to the right of `|`", start, start + 1
                )
                return ()
        else:
            row = _function_row(words, number, header, sides, collector)
            if row is not None:
                rows.append(row)
    if header is None:
        collector.error(
            "empty-table", "this function table has no header line", base, base, "begin with the names of the ports"
        )
    return tuple(rows)


def _is_header(words: Words, header: _Header) -> bool:
    """Whether a line names the columns once more, as people do for every sequence."""
    names = {p.name for p in (*header.left, *header.right)}
    return all(word.split("[", 1)[0] in names or word == "|" for word, _ in split_bars(words))


def _lines(text: str, base: int) -> Iterator[tuple[int, Words, int]]:
    """The lines that hold something: number, words, place of the line. Commas may part the columns (CSV)."""
    offset = 0
    first = next(
        (line for line in text.splitlines() if line.strip() and not line.strip().startswith(("//", "---"))), ""
    )
    for number, raw in enumerate(text.split("\n"), 1):
        start = base + offset
        offset += len(raw) + 1
        content = raw.split("//", 1)[0].rstrip("\r")
        if "," in first and not content.startswith("---"):
            words = [(word, start + at) for word, at in csv_words(content)] if content.strip() else []
        else:
            words = [(m.group(), start + m.start()) for m in _WORD.finditer(content)]
        if words:
            yield number, words, start


@dataclass(slots=True)
class _Header:
    """The ports left and right of the bar."""

    left: list[SpecPort]
    right: list[SpecPort]


def _read_header(
    words: Words, start: int, sides: Sides, collector: Collector, states: frozenset[str]
) -> _Header | None:
    """The columns; `states` may stand on the left too, as their values before the step."""
    header = _Header([], [])
    given = {p.name: p for p in sides.inputs}
    wanted = {p.name: p for p in (*sides.outputs, *(sides.inner if states else ()))}
    side, seen = header.left, False
    for word, at in split_bars(words):
        if word == "|":
            if seen:
                collector.error("two-bars", "there is one `|`, between what is given and what is expected", at, at + 1)
                return None
            side, seen = header.right, True
            continue
        known = wanted if seen else given | {n: p for n, p in wanted.items() if n in states}
        port = known.get(word.split("[", 1)[0])
        if port is None:
            what = "an output" if seen else "an input"
            hint = did_you_mean(word, known)
            if word in (given if seen else wanted):
                hint = "inputs stand left of `|`, outputs right of it"
            collector.error("unknown-column", f"`{word}` is not {what} of this spec", at, at + len(word), hint)
            return None
        if port in side:
            collector.error("double-column", f"column `{word}` stands twice", at, at + len(word))
            return None
        side.append(port)
    free = {sides.clock.port} if sides.clock else set()
    if sides.reset:
        free.add(sides.reset.port)
    missing = [p.name for p in sides.inputs if p not in header.left and p.name not in free]
    if missing and not states:
        collector.error("missing-column", f"there is no column for {', '.join(missing)}", start, start + 1)
        return None
    return header


def _cells(words: Words, header: _Header, collector: Collector) -> list[tuple[SpecPort, bool, str, int]] | None:
    """The words of a row beside their columns: port, whether right of the bar, word, place."""
    words = split_bars(words)
    bar = next((i for i, (w, _) in enumerate(words) if w == "|"), None)
    left = words if bar is None else words[:bar]
    right = [] if bar is None else words[bar + 1 :]
    sides = [(left, header.left, False)]
    if right:
        sides.append((right, header.right, True))
    out: list[tuple[SpecPort, bool, str, int]] = []
    for found, columns, is_right in sides:
        found = _unpacked(found, columns)
        if len(found) != len(columns):
            where = "right" if is_right else "left"
            at = found[-1][1] if found else words[0][1]
            collector.error(
                "row-length",
                f"this row has {len(found)} values {where} of `|`, the header has {len(columns)}",
                at,
                at + 1,
            )
            return None
        out += [(port, is_right, word, at) for port, (word, at) in zip(columns, found, strict=True)]
    return out


def _unpacked(words: Words, columns: list[SpecPort]) -> Words:
    """`c01` for three one-bit columns: signs written together are taken apart where that fits exactly."""
    if len(words) == len(columns) or any(p.width > 1 for p in columns):
        return words
    apart = [(c, at + i) for word, at in words for i, c in enumerate(word)]
    return apart if len(apart) == len(columns) else words


def _bad(collector: Collector, word: str, port: SpecPort, at: int, bad: BadCell) -> None:
    collector.error("bad-value", f"`{word}` for `{port.name}`: {bad.text}", at, at + len(word), bad.hint)


def _step(
    words: Words, line: int, header: _Header, sides: Sides, collector: Collector, has_before: bool
) -> StepRow | None:
    found = _cells(words, header, collector)
    if found is None:
        return None
    clock = sides.clock.port if sides.clock else ""
    action = "c" if clock and clock not in {p.name for p in header.left} else "."
    cells: dict[str, Cell] = {}
    expects = False
    for port, is_right, word, at in found:
        expects = expects or is_right
        if port.name == clock:
            if word not in _ACTIONS:
                hint = ", ".join(f"`{sign}` {what}" for sign, what in _ACTIONS.items())
                collector.error(
                    "bad-clock", f"`{word}` says nothing about the clock `{clock}`", at, at + len(word), hint
                )
                return None
            action = word
        elif is_right and word in ("=", "!"):
            if not has_before:
                collector.error(
                    "no-before", f"`{word}` has no step before it in this sequence", at, at + 1, "write `-` or a value"
                )
                return None
            cells[port.name] = Cell((0, 0), 0, "=" if word == "=" else "!")
        else:
            try:
                cells[port.name] = parse_value(word, port, sides.edition)
            except BadCell as bad:
                _bad(collector, word, port, at, bad)
                return None
    quiet = _inactive(sides)
    inputs = tuple(cells.get(p.name, quiet.get(p.name, _NOTHING)) for p in sides.inputs)
    outputs = tuple(cells.get(p.name, _NOTHING) for p in sides.outputs) if expects else None
    return StepRow(words[0][1], line, action, inputs, outputs)


def _inactive(sides: Sides) -> Mapping[str, Cell]:
    """The reset at rest, where the text has no column for it."""
    if sides.reset is None:
        return {}
    rest = 1 - sides.reset.active
    return {sides.reset.port: Cell((rest, 1 - rest), 1)}


def _function_row(words: Words, line: int, header: _Header, sides: Sides, collector: Collector) -> FunctionRow | None:
    found = _cells(words, header, collector)
    if found is None:
        return None
    clock = sides.clock.port if sides.clock else ""
    event = "-"
    given: dict[str, Cell] = {}
    present: list[tuple[str, Cell]] = []
    then: list[tuple[str, Cell | Formula]] = []
    inputs = {p.name for p in sides.inputs}
    for port, is_right, word, at in found:
        if port.name == clock:
            if word not in _EVENTS:
                collector.error(
                    "bad-clock", f"`{word}` says nothing about the clock `{clock}`", at, at + len(word), _EVENTS_HINT
                )
                return None
            event = word
            continue
        if is_right:
            cell = _next_value(word, port, at, sides, collector)
            if cell is None:
                return None
            then.append((port.name, cell))
            continue
        try:
            cell = parse_value(word, port, sides.edition)
            if sides.edition > 1 and unknown_digits(cell):
                raise BadCell(*X_AMONG_INPUTS)
        except BadCell as bad:
            _bad(collector, word, port, at, bad)
            return None
        if port.name in inputs:
            given[port.name] = cell
        else:
            present.append((port.name, cell))
    if event not in ("r", "f") and any(isinstance(c, Cell) and c.before == "!" for _, c in then):
        at = words[0][1]
        collector.error(
            "restless", "without an edge of the clock `!` would turn it again and again", at, at + 1, _EDGE_HINT
        )
        return None
    return FunctionRow(
        words[0][1], line, event, tuple(given.get(p.name, _NOTHING) for p in sides.inputs), tuple(present), tuple(then)
    )


def _next_value(word: str, port: SpecPort, at: int, sides: Sides, collector: Collector) -> Cell | Formula | None:
    """A value, `=`, `!`, or a formula over inputs and the states before (without spaces)."""
    if word in ("=", "!"):
        return Cell((0, 0), 0, "=" if word == "=" else "!")
    try:
        return parse_value(word, port, sides.edition)
    except BadCell as bad:
        if re.search(r"[A-Za-z_({~!]", word) is None or re.fullmatch(r"0[bdx]\w+", word.lower()):
            _bad(collector, word, port, at, bad)
            return None
    return parse_formula(word, at, sides, collector)


def parse_formula(text: str, at: int, sides: Sides, collector: Collector) -> Formula | None:
    """A formula whose names are ports and states; None when it cannot be read (reported)."""
    widths = {p.name: p.width for p in (*sides.inputs, *sides.outputs, *sides.inner)}
    width_of: Callable[[str], int | None] = widths.get
    try:
        return FormulaParser(text, at, collector, width_of).single()
    except SyntaxProblem:
        return None
