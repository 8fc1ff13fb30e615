"""Lines of a wiring list made a block of their own, and a block put back in the place where it is used."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from obento.core.board.formulas import NotStated
from obento.core.board.heading import bus
from obento.core.board.stating import LIMITS, Stated
from obento.core.diagnostics import Collector
from obento.core.source import SourceFile, Sources
from obento.core.wiring.ast import Bus, Join, Line, Operand, Use, Wire, Wiring
from obento.core.wiring.elaborate import GATE_NAMES, wire_widths
from obento.core.wiring.parser import KEYWORDS, lex, read_wirings


@dataclass(slots=True)
class TextWithWirings:
    """A text with its wiring lists."""

    file: SourceFile
    wirings: list[Wiring]

    @classmethod
    def read(cls, text: str) -> TextWithWirings:
        """A text with what of it can be read."""
        file = Sources().add("a.wiring", text)
        return cls(file, read_wirings(file, Collector(), LIMITS))

    def of(self, unit: str) -> Wiring:
        """The wiring list of that name.

        Raises
        ------
        NotStated
            There is none.
        """
        found = next((w for w in self.wirings if w.name == unit), None)
        if found is None:
            raise NotStated(f"there is no wiring list `{unit}` in this text")
        return found

    def line(self, position: int) -> int:
        """The number of a position's line, from 1."""
        return self.file.text.count("\n", 0, position - self.file.base) + 1

    def written(self, start: int, end: int) -> str:
        """What stands between two positions."""
        return self.file.text[start - self.file.base : end - self.file.base]


def to_block(text: str, unit: str, numbers: Iterable[int], name: str) -> Stated:
    """Make these lines (numbered from 1) a block `name` of its own, used where the first of them stood."""
    try:
        return _to_block(TextWithWirings.read(text), unit, set(numbers), name)
    except NotStated as wrong:
        return Stated(text, 0, wrong.text, wrong.hint)


def _to_block(text: TextWithWirings, unit: str, numbers: set[int], name: str) -> Stated:
    wiring = text.of(unit)
    chosen = [line for line in wiring.lines if text.line(line.start) in numbers]
    if not chosen:
        raise NotStated("no line of a part is chosen", "click parts, with Shift for more than one")
    if not name.isidentifier() or name in KEYWORDS or name in GATE_NAMES:
        raise NotStated(f"`{name}` cannot be the name of a block", "take a word that no part has")
    if any(w.name == name for w in text.wirings):
        raise NotStated(f"there is a wiring list `{name}` already", "take another name")
    takes, gives = _sides(wiring, chosen)
    widths = wire_widths(wiring, LIMITS)
    unknown = next((n for n in (*takes, *gives) if n not in widths), None)
    if unknown is not None:
        raise NotStated(f"how wide `{unknown}` is is not known", "give it a line that says so")
    ends = {b.name: (b.left, b.right) for b in [*wiring.takes, *wiring.gives]}
    sides = [", ".join(bus(n, *ends.get(n, (widths[n] - 1, 0))) for n in side) for side in (takes, gives)]
    lines = text.file.text.splitlines()
    body = [lines[text.line(line.start) - 1] for line in chosen]
    block = "\n".join(["", f"wiring {name}", f"  takes {sides[0]}", f"  gives {sides[1]}", "", *body, "end", ""])
    first = text.line(chosen[0].start)
    gone = {text.line(line.start) for line in chosen}
    kept = [
        f"  {', '.join(gives)} <- {name}({', '.join(takes)})" if n == first else row
        for n, row in enumerate(lines, 1)
        if n == first or n not in gone
    ]
    return Stated("\n".join(kept) + "\n" + block, first)


def _sides(wiring: Wiring, chosen: list[Line]) -> tuple[list[str], list[str]]:
    """What the chosen lines take from the others, and what the others take from them."""
    inside = {t.name for line in chosen for t in line.targets if t.name != "_"}
    others = [line for line in wiring.lines if line not in chosen]
    shared = inside & {t.name for line in others for t in line.targets}
    if shared:
        raise NotStated(f"other bits of `{min(shared)}` are driven elsewhere", "choose those lines too")
    takes = dict.fromkeys(n for line in chosen for n in _read_by(line.value) if n not in inside)
    wanted = {n for line in others for n in _read_by(line.value)} | {b.name for b in wiring.gives}
    gives = [n for n in dict.fromkeys(t.name for line in chosen for t in line.targets) if n in wanted]
    if not gives:
        raise NotStated("nothing outside uses what these lines drive", "choose lines that something depends on")
    return list(takes), gives


def _read_by(e: Operand) -> Iterator[str]:
    match e:
        case Wire():
            yield e.name
        case Join():
            for part in e.parts:
                yield from _read_by(part)
        case Use():
            for arg in e.args:
                yield from _read_by(arg)


# And back.


def from_block(text: str, unit: str, number: int) -> Stated:
    """Put what is in a block in the place of the line that uses it. The block itself stays."""
    try:
        return _from_block(TextWithWirings.read(text), unit, number)
    except NotStated as wrong:
        return Stated(text, 0, wrong.text, wrong.hint)


def _from_block(text: TextWithWirings, unit: str, number: int) -> Stated:
    wiring = text.of(unit)
    line = next((one for one in wiring.lines if text.line(one.start) == number), None)
    use = line.value if line is not None else None
    if line is None or not isinstance(use, Use):
        raise NotStated("no block is chosen")
    block = next((w for w in text.wirings if w.name == use.what and w is not wiring), None)
    if block is None:
        raise NotStated(f"`{use.what}` is no block in this text", "what comes from another file is opened there")
    label = line.label or line.targets[0].name
    taken = {n for one in wiring.lines for n in (*_read_by(one.value), *(t.name for t in one.targets))}
    taken |= {b.name for b in [*wiring.takes, *wiring.gives]}
    names: dict[str, str] = {}
    before, after = list[str](), list[str]()
    given = _arguments(use, block)
    for port in block.takes:
        arg = given.get(port.name)
        if arg is None:
            raise NotStated(f"input `{port.name}` of `{block.name}` is not connected", "connect it first")
        names[port.name] = _passed(arg, port, wiring, text, f"{label}_{port.name}", taken, before)
    for port, target in zip(block.gives, line.targets, strict=False):
        written = text.written(target.start, target.end)
        if _is_same(target, port, wiring):
            names[port.name] = target.name
        else:
            names[port.name] = free_name(f"{label}_{port.name}", taken)
            if target.name != "_":
                after.append(f"  {written} <- {names[port.name]}")
    for one in block.lines:
        for t in one.targets:
            if t.name not in names:
                names[t.name] = t.name if t.name == "_" else free_name(f"{label}_{t.name}", taken)
    body = [f"  {renamed(text, one, names)}" for one in block.lines]
    rows = text.file.text.splitlines()
    rows[number - 1 : number] = [*before, *body, *after]
    return Stated("\n".join(rows) + "\n", number)


def _arguments(use: Use, block: Wiring) -> dict[str, Operand]:
    found: dict[str, Operand] = {}
    for i, (arg, pin) in enumerate(zip(use.args, use.pins, strict=True)):
        if pin is not None:
            found[pin] = arg
        elif i < len(block.takes):
            found[block.takes[i].name] = arg
    return found


def _passed(
    arg: Operand, port: Bus, wiring: Wiring, text: TextWithWirings, name: str, taken: set[str], before: list[str]
) -> str:
    """What an input is called outside: the wire that it is given, or one that is made for it."""
    if isinstance(arg, Wire) and _is_same(arg, port, wiring):
        return arg.name
    made = free_name(name, taken)
    before.append(f"  {made} <- {text.written(arg.start, arg.end)}")
    return made


def _is_same(wire: Wire, port: Bus, wiring: Wiring) -> bool:
    """Whether a wire is a whole one of which every bit has the number that it has in the block."""
    outer = next((b for b in [*wiring.takes, *wiring.gives] if b.name == wire.name), None)
    if wire.left is not None or wire.name == "_":
        return False
    left, right = (outer.left, outer.right) if outer is not None else (port.width - 1, 0)
    return (left, right) == (port.left, port.right)


def free_name(name: str, taken: set[str]) -> str:
    """A name that nothing has; it is taken then."""
    made, number = name, 1
    while made in taken:
        number += 1
        made = f"{name}{number}"
    taken.add(made)
    return made


def renamed(text: TextWithWirings, line: Line, names: dict[str, str]) -> str:
    """A line with its wires called otherwise; its label is left out, since it may be used more than once."""
    start = line.targets[0].start
    written = text.written(start, line.end)
    tokens = lex(Sources().add("line", written), Collector(), LIMITS)
    out, at = "", 0
    for i, (kind, word) in enumerate(zip(tokens.kinds, tokens.texts, strict=True)):
        is_wire = kind == "i" and tokens.texts[i + 1] not in ("(", ":")
        if is_wire and word in names:
            out += written[at : tokens.starts[i] - 1] + names[word]
            at = tokens.ends[i] - 1
    return out + written[at:]
