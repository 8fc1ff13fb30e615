"""What a design does in every case: fresh from power-up, and from every neighbouring case where it may remember."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

from obento.core import values
from obento.core.check.bind import Binding
from obento.core.ir.design import Design, Port
from obento.core.ir.part import Finished, RunError
from obento.core.limits import LimitReached, Limits
from obento.core.sim.bits import Unfit
from obento.core.sim.levelled import HasMemory, Inputs, Levelled
from obento.core.sim.timeline import DidNotSettle, Timeline
from obento.core.sim.woken import Woken
from obento.core.spec.cases import Cases
from obento.core.spec.model import SpecPort

MOST_UNSETTLED = 8
"""A design that is run case by case, and does not settle in so many of the first cases, will not in the others: a clock of its
own, mostly. Waiting for each would take hours."""

BLOCK = 65_536
"""Cases that run together."""

Planes = tuple[int, int]


@dataclass(slots=True)
class Run:
    """One way of reaching all cases. `name` is `fresh` or `after PORT[BIT]`; `stopped` are the cases that never settled.

    `outputs` maps (port, offset) of ours to planes over all cases.
    """

    name: str
    outputs: dict[tuple[str, int], Planes] = field(default_factory=dict)
    stopped: int = 0


@dataclass(slots=True)
class Observation:
    """All runs, the fresh one first. `engine` is levelled, woken or timeline; `limit` says what stopped the whole, `trouble` the
    first value out of range that ended a case. `stepped` are the cases that lanes could not tell and the timeline did."""

    runs: list[Run]
    engine: str
    limit: LimitReached | None = None
    trouble: RunError | None = None
    stepped: int = 0


InputPlanes = dict[int, Planes]
"""Bit number of the design -> planes of a block."""


def observe(design: Design, binding: Binding, inputs: tuple[SpecPort, ...], cases: Cases, limits: Limits) -> Observation:
    """Run a design over all cases."""
    place: list[int] = []
    names: list[str] = []
    for port in inputs:
        for i in range(port.width):
            theirs, offset = binding.bits[port.name, i]
            place.append(theirs.signal.offset + offset)
            names.append(port.bit_name(i))
    watched = {key: port.signal.offset + i for key, (port, i) in binding.bits.items() if port.direction == "out"}
    kind = _kind(cases)
    try:
        levelled = Levelled(design, limits, frozenset(p.name for p in binding.floating), kind)
        found = _observe_levelled(levelled, place, watched | _escapes(design), cases)
        return _escaped_again(found, lambda only: _observe_timeline(design, place, [], [], watched, cases, limits, only))
    except (HasMemory, Unfit):
        pass
    except LimitReached as limit:
        return Observation([Run("fresh", stopped=cases.full)], "levelled", limit)
    floats = [p.signal.offset + i for p in binding.floating for i in range(p.signal.width)]
    try:
        woken = Woken(design, limits, inputs_may_float=bool(floats) or kind == "any")
    except (Unfit, LimitReached):
        return _observe_timeline(design, place, floats, names, watched, cases, limits)
    found = _observe_woken(woken, place, floats, names, watched | _escapes(design), cases)
    return _escaped_again(found, lambda only: _observe_timeline(design, place, floats, names, watched, cases, limits, only))


def _escapes(design: Design) -> dict[tuple[str, int], int]:
    return {("", i): signal.offset for i, signal in enumerate(design.escapes)}


def _escaped_again(found: Observation, step_by_step: Callable[[int], Observation]) -> Observation:
    """Cases in which lanes could not tell what happens are taken from the timeline."""
    only = 0
    for run in found.runs:
        for key in [k for k in run.outputs if not k[0]]:
            only |= run.outputs.pop(key)[0]
    if not only:
        return found
    exact = step_by_step(only)
    if exact.limit is not None:
        return exact
    for run, again in zip(found.runs, exact.runs, strict=True):
        run.stopped = run.stopped & ~only | again.stopped & only
        for key, (one, zero) in run.outputs.items():
            p, q = again.outputs[key]
            run.outputs[key] = one & ~only | p & only, zero & ~only | q & only
    return Observation(found.runs, found.engine, None, exact.trouble, only)


def _blocks(count: int) -> list[tuple[int, int]]:
    return [(start, min(BLOCK, count - start)) for start in range(0, count, BLOCK)]


def _slice(plane: int, start: int, size: int) -> int:
    return plane >> start & values.ones(size) if start or plane.bit_length() > size else plane


def _observe_levelled(levelled: Levelled, place: list[int], watched: dict[tuple[str, int], int], cases: Cases) -> Observation:
    run = Run("fresh", dict.fromkeys(watched, (0, 0)))
    case_bit = {bit: i for i, bit in enumerate(place)}
    rails = (cases.one,) if levelled.inputs == "known" else (cases.one, cases.zero)
    planes = [rail[case_bit[bit]] for bit in levelled.input_bits for rail in rails]
    for start, size in _blocks(cases.count):
        found = levelled.run([_slice(plane, start, size) for plane in planes], values.ones(size))
        for key, bit in watched.items():
            one, zero = found[bit]
            before = run.outputs[key]
            run.outputs[key] = (before[0] | one << start, before[1] | zero << start) if start else (one, zero)
    return Observation([run], "levelled")


def _kind(cases: Cases) -> Inputs:
    if cases.all_known:
        return "known"
    return "any" if any(one & zero for one, zero in zip(cases.one, cases.zero, strict=True)) else "unknown"


def _observe_woken(
    woken: Woken, place: list[int], floats: list[int], names: list[str], watched: dict[tuple[str, int], int], cases: Cases
) -> Observation:
    runs = [Run("fresh"), *(Run(f"after {name}") for name in names)]
    for start, size in _blocks(cases.count):
        full = values.ones(size)
        planes = {bit: (_slice(cases.one[i], start, size), _slice(cases.zero[i], start, size)) for i, bit in enumerate(place)}
        floating = dict.fromkeys(floats, (full, full))
        for number, run in enumerate(runs):
            stopped = woken.power_up(full)
            if number:
                turned = dict(planes)
                one, zero = planes[place[number - 1]]
                turned[place[number - 1]] = (zero, one)
                stopped |= woken.apply(turned | floating)
                stopped |= woken.apply(planes)
            else:
                stopped |= woken.apply(planes | floating)
            run.stopped |= stopped << start
            for key, bit in watched.items():
                one, zero = woken.planes(bit)
                before = run.outputs.get(key, (0, 0))
                run.outputs[key] = (before[0] | one << start, before[1] | zero << start)
    return Observation(runs, "woken")


def _observe_timeline(
    design: Design,
    place: list[int],
    floats: list[int],
    names: list[str],
    watched: dict[tuple[str, int], int],
    cases: Cases,
    limits: Limits,
    only: int | None = None,
) -> Observation:
    """Case by case; for what cannot run in lanes. `only` are the cases wanted, if not all."""
    runs = [Run("fresh"), *(Run(f"after {name}") for name in names)]
    try:
        timeline = Timeline(design, limits)
    except LimitReached as limit:
        return Observation([Run("fresh", dict.fromkeys(watched, (0, 0)), cases.full)], "timeline", limit)
    limit_hit: LimitReached | None = None
    trouble: RunError | None = None
    collected: list[dict[tuple[str, int], list[int]]] = [{key: [0, 0] for key in watched} for _ in runs]
    inputs = [p for p in design.ports if p.direction == "in"]
    wanted = range(cases.count) if only is None else [i for i in range(cases.count) if only >> i & 1]
    for looked, index in enumerate(wanted):
        digits = {bit: (cases.one[i] >> index & 1, cases.zero[i] >> index & 1) for i, bit in enumerate(place)}
        digits |= dict.fromkeys(floats, (1, 1))
        for number, run in enumerate(runs):
            try:
                timeline.power_up()
                if number:
                    bit = place[number - 1]
                    if not _survives(timeline, _words(inputs, digits | {bit: digits[bit][::-1]})):
                        # The case before ends the run: there is no way from it to this one, which is judged fresh.
                        run.stopped |= runs[0].stopped & 1 << index
                        for key, fresh in collected[0].items():
                            for rail in (0, 1):
                                collected[number][key][rail] |= fresh[rail] & 1 << index
                        continue
                timeline.apply(_words(inputs, digits))
            except (DidNotSettle, Finished):
                run.stopped |= 1 << index
            except RunError as error:
                run.stopped |= 1 << index
                trouble = trouble or error
            except LimitReached as limit:
                run.stopped |= 1 << index
                limit_hit = limit
            for key, at in watched.items():
                one, zero = _digit(timeline, design, at)
                collected[number][key][0] |= one << index
                collected[number][key][1] |= zero << index
        if limit_hit is not None:
            break
        if only is None and looked + 1 == MOST_UNSETTLED and runs[0].stopped == values.ones(MOST_UNSETTLED):
            for run in runs:
                run.stopped = cases.full
            break
    for run, planes in zip(runs, collected, strict=True):
        run.outputs = {key: (one, zero) for key, (one, zero) in planes.items()}
        if limit_hit is not None:
            run.stopped = cases.full
    return Observation(runs, "timeline", limit_hit, trouble)


def _survives(timeline: Timeline, inputs: dict[str, values.Word]) -> bool:
    """Apply inputs; whether the design still runs afterwards."""
    try:
        timeline.apply(inputs)
    except (RunError, Finished):
        return False
    return True


def _words(inputs: list[Port], digits: dict[int, Planes]) -> dict[str, values.Word]:
    words: dict[str, values.Word] = {}
    for port in inputs:
        one = zero = 0
        for i in range(port.signal.width - 1, -1, -1):
            a, b = digits.get(port.signal.offset + i, (0, 0))
            one, zero = one << 1 | a, zero << 1 | b
        words[port.name] = one, zero
    return words


def _digit(timeline: Timeline, design: Design, bit: int) -> Planes:
    for port in design.ports:
        offset = bit - port.signal.offset
        if 0 <= offset < port.signal.width:
            one, zero = timeline.words[port.signal.id]
            return one >> offset & 1, zero >> offset & 1
    raise KeyError(bit)
