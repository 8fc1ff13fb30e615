"""Lines copied from one circuit and put into another, or once more into the same one."""

from __future__ import annotations

from obento.core.board.blocks import TextWithWirings, free_name, renamed
from obento.core.board.formulas import NotStated
from obento.core.board.stating import Stated
from obento.core.wiring.ast import Wiring

_MOST = 200
"""Lines that are pasted at once."""


def paste(text: str, unit: str, copied: str) -> Stated:
    """Put lines of some wiring list before the end of the wiring list `unit`.

    What they drive gets another name where that is taken, and they follow it themselves. Labels and places stay
    behind: both are of the circuit that they come from."""
    try:
        return _paste(TextWithWirings.read(text), unit, copied)
    except NotStated as wrong:
        return Stated(text, 0, wrong.text, wrong.hint)


def _paste(text: TextWithWirings, unit: str, copied: str) -> Stated:
    wiring = text.of(unit)
    source = TextWithWirings.read(f"wiring {unit}\n{copied}\nend\n")
    lines = source.of(unit).lines
    if not lines:
        raise NotStated("there is no line of a part in what was copied", "copy lines like `y <- and(a, b)`")
    if len(lines) > _MOST:
        raise NotStated(f"these are more than {_MOST} lines", "make them a block")
    taken = _taken(wiring)
    names: dict[str, str] = {}
    for target in (t for line in lines for t in line.targets):
        if target.name != "_" and target.name not in names:
            names[target.name] = free_name(target.name, taken) if target.name in taken else target.name
            taken.add(names[target.name])
    rows = text.file.text.splitlines()
    at = text.line(wiring.end) - 1
    is_closed = rows[at].strip() == "end"
    at = at if is_closed else len(rows)
    rows[at:at] = [f"  {renamed(source, line, names)}" for line in lines]
    return Stated("\n".join(rows) + "\n", at + 1)


def _taken(wiring: Wiring) -> set[str]:
    """Names that are driven already. An output that nothing drives yet is free: it may be meant."""
    return {t.name for line in wiring.lines for t in line.targets} | {b.name for b in wiring.takes}
