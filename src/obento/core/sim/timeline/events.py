"""What a change of a signal is to those that wait for it (IEEE 1364-2005 clause 9.7): anything, something in a part, an
edge."""

from __future__ import annotations

from obento.core.ir.design import Design
from obento.core.ir.signal import Watch
from obento.core.values import Word

WHOLE, PART, RISE, FALL = range(4)


def watchers_of(design: Design) -> list[list[tuple[int, int, int, list[int]]]]:
    """Of each signal what is watched of it, and the processes that do."""
    found: list[dict[tuple[int, int, int], list[int]]] = [{} for _ in design.signals]
    for index, process in enumerate(design.processes):
        if process.shadow:
            continue
        for w in process.watches:
            found[w.signal.id].setdefault(term_of(w), []).append(index)
    return [[(*term, indices) for term, indices in terms.items()] for terms in found]


def term_of(w: Watch) -> tuple[int, int, int]:
    """What is watched, in the kernel's terms: kind of event, first digit, how many."""
    if w.edge == "any":
        return (WHOLE if w.low == 0 and w.width == w.signal.width else PART), w.low, w.width
    return (RISE if w.edge == "pos" else FALL), w.low, 1


def is_event(kind: int, old: Word, new: Word, low: int, width: int) -> bool:
    """Whether a change of a signal is an event on these digits (table 9-1 for edges)."""
    if kind == WHOLE:
        return True
    if kind == PART:
        return bool((old[0] ^ new[0] | old[1] ^ new[1]) >> low & ((1 << width) - 1))
    was, becomes = old[0] >> low & 1 | (old[1] >> low & 1) << 1, new[0] >> low & 1 | (new[1] >> low & 1) << 1
    return _EDGES[kind][was][becomes]


_ONE, _ZERO = 1, 2  # a digit as its two rails, read as a number
_EDGES = {
    RISE: [[(new == _ONE and old != _ONE) or (old == _ZERO and new != _ZERO) for new in range(4)] for old in range(4)],
    FALL: [[(new == _ZERO and old != _ZERO) or (old == _ONE and new != _ONE) for new in range(4)] for old in range(4)],
}
"""Whether a digit that was and becomes these fires (table 9-1; z counts as x)."""
