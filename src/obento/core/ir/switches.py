"""Switches that conduct both ways (IEEE 1364-2005 clause 7.6): what drives one of their nets drives all that conduct to
it.

The value of each digit that a switch touches is resolved over the drivers of all digits of its group, each behind the
condition that some way between the two conducts. A driver keeps its strength on the way; `rtran` and its kin are taken
alike."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from obento.core.ir.design import Design, Process, Switch
from obento.core.ir.drivers import stretches_read, watches_of
from obento.core.ir.nodes import Assign, Binary, Const, Expr, Ref, Resolve, Slice, Target, Tristate
from obento.core.ir.signal import Signal, Watch
from obento.core.limits import LimitReached

_MOST_IN_A_GROUP = 24
_PULLS = {"tri0": Const(1, 0, 1), "tri1": Const(1, 1, 0)}
_PULL = (5, 5)

Digit = tuple[int, int]
"""A net's number and one of its digits."""


@dataclass(slots=True)
class Drivers:
    """The drivers of a net, each on a wire of its own (see `nodes.Resolve`)."""

    wires: list[Signal]
    strengths: list[tuple[int, int]]
    might: list[Expr | None]


def join_switches(design: Design, copies: Callable[[Signal], Drivers]) -> set[int]:
    """Add the processes that resolve all nets with switches; the numbers of those nets.

    `copies` gives each driver of a net a wire of its own.

    Raises
    ------
    LimitReached
        If more digits hang together by switches than can be looked through.
    """
    signals: dict[int, Signal] = {}
    beside: dict[Digit, list[tuple[Digit, Switch]]] = {}
    for switch in design.switches:
        ends = [(signal.id, digit) for signal, digit in (switch.a, switch.b)]
        signals |= {signal.id: signal for signal, _ in (switch.a, switch.b)}
        beside.setdefault(ends[0], []).append((ends[1], switch))
        beside.setdefault(ends[1], []).append((ends[0], switch))
    drivers = {number: copies(signal) for number, signal in signals.items()}
    for number, signal in signals.items():
        for digit in range(signal.width):
            value = _resolved((number, digit), signals, drivers, beside)
            body = Assign(signal.position, [Target(signal, digit, 1)], value)
            design.processes.append(Process("continuous", body, _watches(value, signal), signal.position, "resolution"))
    return set(signals)


def _watches(value: Expr, signal: Signal) -> list[Watch]:
    """What a net follows: all that is read for it, but not the charge that it keeps itself."""
    return [w for w in watches_of(stretches_read(value)) if w.signal is not signal or signal.net != "trireg"]


def _resolved(
    here: Digit,
    signals: dict[int, Signal],
    drivers: dict[int, Drivers],
    beside: dict[Digit, list[tuple[Digit, Switch]]],
) -> Expr:
    """The value of one digit under its own drivers and those that conduct to it."""
    own = signals[here[0]]
    result = Resolve(1, own.net, [], [], [])
    for there, condition in _conducting(here, beside).items():
        for wire, strength, might in zip(
            drivers[there[0]].wires, drivers[there[0]].strengths, drivers[there[0]].might, strict=True
        ):
            value: Expr = Slice(1, Ref(wire.width, wire), there[1])
            unsure = Slice(1, might, there[1]) if might is not None else None
            result.drivers.append(value if condition is None else Tristate(1, condition, value))
            result.strengths.append(strength)
            result.might.append(unsure if condition is None or unsure is None else Tristate(1, condition, unsure))
        if signals[there[0]].net == "trireg":
            kept: Expr = Slice(1, Ref(signals[there[0]].width, signals[there[0]]), there[1])
            result.drivers.append(kept if condition is None else Tristate(1, condition, kept))
            result.strengths.append((signals[there[0]].charge, signals[there[0]].charge))
            result.might.append(None)
        pull = _PULLS.get(signals[there[0]].net)
        if pull is not None and there != here and condition is not None:
            result.drivers.append(Tristate(1, condition, pull))
            result.strengths.append(_PULL)
            result.might.append(None)
    return result if result.drivers else Const(1, 1, 1)


def _conducting(start: Digit, beside: dict[Digit, list[tuple[Digit, Switch]]]) -> dict[Digit, Expr | None]:
    """Every digit that may conduct to this one, and when: None for always."""
    ways: dict[Digit, list[Expr | None]] = {start: [None]}
    stack: list[tuple[Digit, Expr | None, frozenset[Digit]]] = [(start, None, frozenset([start]))]
    steps = 0
    while stack:
        at, condition, seen = stack.pop()
        for there, switch in beside.get(at, ()):
            steps += 1
            if steps > 1 << 12 or len(ways) > _MOST_IN_A_GROUP:
                raise LimitReached("more nets hang together by switches than can be run", switch.position)
            if there in seen:
                continue
            both = _and(condition, switch.control)
            ways.setdefault(there, []).append(both)
            stack.append((there, both, seen | {there}))
    return {digit: _any(conditions) for digit, conditions in ways.items()}


def _and(a: Expr | None, b: Expr | None) -> Expr | None:
    if a is None or b is None:
        return b if a is None else a
    return Binary(1, "and", a, b)


def _any(conditions: list[Expr | None]) -> Expr | None:
    result: Expr | None = conditions[0]
    for c in conditions[1:]:
        if result is None or c is None:
            return None
        result = Binary(1, "or", result, c)
    return result
