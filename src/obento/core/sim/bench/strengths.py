"""How strongly a net is driven, for %v (IEEE 1364-2005 clause 17.1.1.5)."""

from __future__ import annotations

from collections.abc import Sequence

from obento.core.ir.design import Design, Process
from obento.core.ir.drivers import targets
from obento.core.ir.evaluate import NotConstant, evaluate
from obento.core.ir.nodes import Assign, Expr, Ref, Resolve, Slice
from obento.core.ir.signal import STRONG, Signal
from obento.core.ir.strength import Stretch, level_of, stretch
from obento.core.values import Word


def level(design: Design, words: Sequence[Word], value: Expr) -> Stretch | None:
    """The strength and value of the digit that an argument is; None where it is no net."""
    signal, at = _digit(value)
    if signal is None or signal.kind != "net":
        return None
    word = words[signal.id]
    one, zero = word[0] >> at & 1, word[1] >> at & 1
    driver = _driver(design, signal, at)
    if driver is None:
        strength = signal.charge if signal.net == "trireg" else 6
        return stretch(one, zero, (strength, strength))
    body = driver.body
    if isinstance(body, Assign) and isinstance(body.value, Resolve) and body.value.width == body.targets[0].width:
        found = _resolved(body.value, words, at - body.targets[0].low)
        if found is not None:
            return found
    return stretch(one, zero, driver.strengths if driver.origin != "resolution" else STRONG)


def _digit(value: Expr) -> tuple[Signal | None, int]:
    low = 0
    while isinstance(value, Slice):
        low, value = low + value.low, value.a
    return (value.signal, low) if isinstance(value, Ref) else (None, 0)


def _driver(design: Design, signal: Signal, at: int) -> Process | None:
    for process in design.processes:
        if process.kind == "continuous":
            for t in targets(process.body):
                if t.signal is signal and t.low <= at < t.low + t.width:
                    return process
    return None


def _resolved(e: Resolve, words: Sequence[Word], at: int) -> Stretch | None:
    def bit(part: Expr) -> tuple[int, int]:
        word = evaluate(part, lambda s: words[s.id])
        return word[0] >> at & 1, word[1] >> at & 1

    try:
        maybe = [(1, 1) if m is None else bit(m) for m in e.might]
        return level_of(e.net, [bit(d) for d in e.drivers], maybe, e.strengths)
    except NotConstant:
        return None
