"""What wakes a process, where that can be told from its text."""

from __future__ import annotations

from collections.abc import Iterable

from obento.core.ir.signal import Watch
from obento.core.vhdl.code.bodies import walk
from obento.core.vhdl.lanes.values import NoLanes
from obento.core.vhdl.model import typed_tree as t


def woken_by(p: t.Process) -> tuple[list[t.Expr], t.Expr | None, list[t.Stmt]]:
    """What wakes a process, the condition it waits until, and what it does then.

    A wait at the end of a process is a sensitivity list (1076-1993 clause 9.2); one at its beginning, until a condition
    holds, is a list whose process does nothing unless it goes on."""
    if p.sensitivity is not None:
        return p.sensitivity, None, p.body
    waits = [s for s in walk(p.body) if isinstance(s, t.Wait)]
    if len(waits) == 1 and waits[0].time is None and waits[0].signals:
        wait = waits[0]
        if p.body[-1] is wait and wait.until is None:
            return wait.signals, None, p.body[:-1]
        if p.body[0] is wait and wait.until is not None:
            return wait.signals, wait.until, p.body[1:]
    raise NoLanes("a process that waits")


def watched_bits(watches: Iterable[Watch]) -> set[int]:
    """Numbers of the bits at whose events a process wakes."""
    return {w.signal.offset + w.low + i for w in watches for i in range(w.width)}
