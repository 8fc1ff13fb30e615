"""What a design does in every case: fresh from power-up, and from every neighbouring case where it may remember."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

from obento.core import values
from obento.core.check.running.bind import Binding
from obento.core.check.running.power_up import Ended, Start, apply_words, note_end, refused_unknown
from obento.core.ir.design import Design, Port
from obento.core.ir.part import Finished, RunError
from obento.core.limits import LimitReached, Limits
from obento.core.sim.event_driven import Woken
from obento.core.sim.lanes.bits import Unfit
from obento.core.sim.levelized import HasMemory, Inputs, Levelled
from obento.core.sim.timeline.kernel import DidNotSettle, Timeline
from obento.core.spec.cases import Cases
from obento.core.spec.model import SpecPort

MOST_UNSETTLED = 16
"""A design that is run case by case, and settles in none of so many cases spread over all, is not tried in the others:
it has a clock of its own, mostly, and waiting for each case would take hours."""

BLOCK = 65_536
"""Cases that run together."""

Planes = tuple[int, int]


@dataclass(slots=True)
class Run:
    """One way of reaching all cases. `name` is `fresh` or `after PORT[BIT]`; `stopped` are the cases that never
    settled.

    `outputs` maps (port, offset) of ours to planes over all cases.
    """

    name: str
    outputs: dict[tuple[str, int], Planes] = field(default_factory=dict)
    stopped: int = 0


@dataclass(slots=True)
class Observation:
    """All runs, the fresh one first. `engine` is levelled, woken or timeline; `limit` says what stopped the whole,
    `ends` the errors that ended cases, by place. `stepped` are the cases that lanes could not tell and the timeline
    did. `refused` is the error in which power-up ended as long as the inputs were unknown: every case was begun with
    its own values then. `untried` are cases that were not run since none of many others settles."""

    runs: list[Run]
    engine: str
    limit: LimitReached | None = None
    ends: list[Ended] = field(default_factory=list)
    stepped: int = 0
    refused: RunError | None = None
    untried: int = 0


InputPlanes = dict[int, Planes]
"""Bit number of the design -> planes of a block."""


def observe(
    design: Design, binding: Binding, inputs: tuple[SpecPort, ...], cases: Cases, limits: Limits
) -> Observation:
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
        return _escaped_again(
            found, lambda only: _observe_timeline(design, place, [], [], watched, cases, limits, only)
        )
    except (HasMemory, Unfit):
        pass
    except LimitReached as limit:
        return Observation([Run("fresh", stopped=cases.full)], "levelled", limit)
    floats = [p.signal.offset + i for p in binding.floating for i in range(p.signal.width)]
    try:
        woken = Woken(design, limits, inputs_may_float=bool(floats) or kind == "any")
    except (Unfit, LimitReached):
        return _observe_timeline(design, place, floats, names, watched, cases, limits)
    try:
        refused = woken_refused(woken, design, limits)
        found = _observe_woken(woken, place, floats, names, watched | _escapes(design), cases, refused)
    except Unfit:
        return _observe_timeline(design, place, floats, names, watched, cases, limits)
    return _escaped_again(
        found, lambda only: _observe_timeline(design, place, floats, names, watched, cases, limits, only)
    )


def _escapes(design: Design) -> dict[tuple[str, int], int]:
    return {("", i): signal.offset for i, signal in enumerate(design.escapes)}


def woken_refused(woken: Woken, design: Design, limits: Limits) -> RunError | None:
    """The error in which power-up with unknown inputs ends, where lanes say that it might."""
    woken.power_up(1)
    if not any(woken.planes(signal.offset)[0] for signal in design.escapes):
        return None
    return refused_unknown(design, limits)


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
    return Observation(found.runs, found.engine, None, exact.ends, only, found.refused or exact.refused)


def _blocks(count: int) -> list[tuple[int, int]]:
    return [(start, min(BLOCK, count - start)) for start in range(0, count, BLOCK)]


def _slice(plane: int, start: int, size: int) -> int:
    return plane >> start & values.ones(size) if start or plane.bit_length() > size else plane


def _observe_levelled(
    levelled: Levelled, place: list[int], watched: dict[tuple[str, int], int], cases: Cases
) -> Observation:
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
    woken: Woken,
    place: list[int],
    floats: list[int],
    names: list[str],
    watched: dict[tuple[str, int], int],
    cases: Cases,
    refused: RunError | None,
) -> Observation:
    runs = [Run("fresh"), *(Run(f"after {name}") for name in names)]
    for start, size in _blocks(cases.count):
        full = values.ones(size)
        planes = {
            bit: (_slice(cases.one[i], start, size), _slice(cases.zero[i], start, size)) for i, bit in enumerate(place)
        }
        floating = dict.fromkeys(floats, (full, full))
        for number, run in enumerate(runs):
            first = dict(planes)
            if number:
                one, zero = planes[place[number - 1]]
                first[place[number - 1]] = (zero, one)
            first |= floating
            stopped = woken.power_up(full) | woken.apply(first) if refused is None else woken.begin(full, first)
            lost = 0
            if number:
                # A case that never settles is no way to another one, which is judged fresh.
                lost, stopped = stopped, woken.apply(planes) & ~stopped
                stopped |= lost & _slice(runs[0].stopped, start, size)
            run.stopped |= stopped << start
            for key, bit in watched.items():
                one, zero = woken.planes(bit)
                if lost and key[0]:
                    fresh = runs[0].outputs[key]
                    one = one & ~lost | fresh[0] >> start & lost
                    zero = zero & ~lost | fresh[1] >> start & lost
                before = run.outputs.get(key, (0, 0))
                run.outputs[key] = (before[0] | one << start, before[1] | zero << start)
    return Observation(runs, "woken", refused=refused)


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
    ends: list[Ended] = []
    start = Start(timeline)
    unsettled = untried = 0
    collected: list[dict[tuple[str, int], list[int]]] = [{key: [0, 0] for key in watched} for _ in runs]
    inputs = [p for p in design.ports if p.direction == "in"]
    wanted = _spread(cases.count) if only is None else [i for i in range(cases.count) if only >> i & 1]
    for looked, index in enumerate(wanted):
        case = 1 << index
        digits = {bit: (cases.one[i] >> index & 1, cases.zero[i] >> index & 1) for i, bit in enumerate(place)}
        digits |= dict.fromkeys(floats, (1, 1))
        for number, run in enumerate(runs):
            bit = place[number - 1] if number else -1
            first = _words(inputs, digits | {bit: digits[bit][::-1]} if number else digits)
            try:
                if not _arrives(start, timeline, first, number > 0):
                    # The case before ends the run or never settles: there is no way from it to this one, which is
                    # judged fresh.
                    run.stopped |= runs[0].stopped & case
                    for key, fresh in collected[0].items():
                        for rail in (0, 1):
                            collected[number][key][rail] |= fresh[rail] & case
                    continue
                if number:
                    apply_words(timeline, _words(inputs, digits))
            except DidNotSettle:
                run.stopped |= case
                unsettled += not number
            except (RunError, Finished) as error:
                run.stopped |= case
                note_end(ends, error, case)
            except LimitReached as limit:
                run.stopped |= case
                limit_hit = limit
            for key, at in watched.items():
                one, zero = _digit(timeline, design, at)
                collected[number][key][0] |= one << index
                collected[number][key][1] |= zero << index
        if limit_hit is not None:
            break
        if only is None and looked + 1 == MOST_UNSETTLED == unsettled:
            untried = cases.full
            for done in wanted[:MOST_UNSETTLED]:
                untried ^= 1 << done
            for run in runs:
                run.stopped |= untried
            break
    for run, planes in zip(runs, collected, strict=True):
        run.outputs = {key: (one, zero) for key, (one, zero) in planes.items()}
        if limit_hit is not None:
            run.stopped = cases.full
    return Observation(runs, "timeline", limit_hit, ends, refused=start.refused, untried=untried)


def _spread(count: int) -> list[int]:
    """All cases, the first few spread evenly over them: what those have in common is not that their first inputs are
    0."""
    first = [i * count // MOST_UNSETTLED for i in range(MOST_UNSETTLED)] if count > MOST_UNSETTLED else []
    seen = set(first)
    return first + [i for i in range(count) if i not in seen]


def _arrives(start: Start, timeline: Timeline, given: dict[int, values.Word], is_way: bool) -> bool:
    """Power up and apply inputs. On the way to another case an error, or no end, only means that there is no such
    way."""
    try:
        start.begin(given)
        apply_words(timeline, given)
    except (RunError, Finished, DidNotSettle):
        if not is_way:
            raise
        return False
    return True


def _words(inputs: list[Port], digits: dict[int, Planes]) -> dict[int, values.Word]:
    words: dict[int, values.Word] = {}
    for port in inputs:
        one = zero = 0
        for i in range(port.signal.width - 1, -1, -1):
            a, b = digits.get(port.signal.offset + i, (0, 0))
            one, zero = one << 1 | a, zero << 1 | b
        words[port.signal.id] = one, zero
    return words


def _digit(timeline: Timeline, design: Design, bit: int) -> Planes:
    for port in design.ports:
        offset = bit - port.signal.offset
        if 0 <= offset < port.signal.width:
            one, zero = timeline.words[port.signal.id]
            return one >> offset & 1, zero >> offset & 1
    raise KeyError(bit)
