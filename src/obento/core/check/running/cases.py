"""What a design does in every case: fresh from power-up, and from every neighbouring case where it may remember."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial, reduce
from operator import or_

from obento.core import values
from obento.core.check.running.binding import Binding
from obento.core.check.running.case_by_case import Wires, observe_case_by_case
from obento.core.check.running.observation import BLOCK, Observation, Planes, Run
from obento.core.check.running.power_up import refused_unknown
from obento.core.ir.design import Design
from obento.core.ir.part import RunError
from obento.core.ir.unread import without_unread
from obento.core.limits import LimitReached, Limits
from obento.core.planes import set_bits
from obento.core.sim.event_driven import EventDriven
from obento.core.sim.lanes.bits import Unfit
from obento.core.sim.levelized import HasMemory, Inputs, Levelized
from obento.core.spec.cases import Cases
from obento.core.spec.model import SpecPort

_MOST_REPLAYED = 24
"""So many cases that end in an error are run one by one, though it is certain that they do."""

InputPlanes = dict[int, Planes]
"""Bit number of the design -> planes of a block."""


def observe(
    design: Design, binding: Binding, inputs: tuple[SpecPort, ...], cases: Cases, limits: Limits
) -> Observation:
    """Run a design over all cases: in lanes where that is possible, else case by case.

    Parameters
    ----------
    binding
        Which bit of the design is which of our ports.
    inputs
        Our inputs, in the order in which `cases` has their bits.
    limits
        Bounds of the whole; what comes to one is told in the answer, not raised.
    """
    design = without_unread(design)
    wires = _wires(binding, inputs)
    kind = _kind(cases)
    try:
        levelized = Levelized(design, limits, frozenset(p.name for p in binding.floating), kind)
        found = _observe_levelized(levelized, wires.place, wires.watched | _escapes(design), cases)
        alone = partial(observe_case_by_case, design, wires, cases, limits, neighbours=False)
        return _escaped_again(found, design, alone, limits.replays)
    except (HasMemory, Unfit, LimitReached):
        pass
    try:
        lanes = EventDriven(design, limits, inputs_may_float=bool(wires.floats) or kind == "any")
        refused = power_up_refused(lanes, design, limits)
        found = _observe_event_driven(lanes, wires, design, cases, refused)
    except (Unfit, LimitReached) as why:
        if not limits.replays:
            return Observation([], "timeline", stepped=cases.full)
        found = observe_case_by_case(design, wires, cases, limits)
        found.why = why.text if isinstance(why, LimitReached) else str(why)
        return found
    alone = partial(observe_case_by_case, design, wires, cases, limits)
    return _escaped_again(found, design, alone, limits.replays)


def _wires(binding: Binding, inputs: tuple[SpecPort, ...]) -> Wires:
    """How the bits of ours are those of the design."""
    place: list[int] = []
    names: list[str] = []
    for port in inputs:
        for i in range(port.width):
            theirs, offset = binding.bits[port.name, i]
            place.append(theirs.signal.offset + offset)
            names.append(port.bit_name(i))
    watched = {key: port.signal.offset + i for key, (port, i) in binding.bits.items() if port.direction == "out"}
    floats = [p.signal.offset + i for p in binding.floating for i in range(p.signal.width)]
    return Wires(place, names, floats, watched)


def _escapes(design: Design) -> dict[tuple[str, int], int]:
    return {("", i): signal.offset for i, signal in enumerate(design.escapes)}


def power_up_refused(lanes: EventDriven, design: Design, limits: Limits) -> RunError | None:
    """The error in which power-up with unknown inputs ends, where lanes say that it might."""
    lanes.power_up(1)
    if not any(lanes.planes(signal.offset)[0] for signal in design.escapes):
        return None
    return refused_unknown(design, limits)


def _errors(design: Design) -> frozenset[int]:
    """Which of a design's escapes say that a case ends in an error."""
    return frozenset(i for i, signal in enumerate(design.escapes) if any(signal is e for e in design.errors))


def _in_error(lanes: EventDriven, watched: dict[tuple[str, int], int], errors: frozenset[int]) -> int:
    """The lanes that have certainly come to an error by now."""
    if not errors:
        return 0
    marks = {key[1]: lanes.planes(bit)[0] for key, bit in watched.items() if not key[0]}
    return _certain(marks, errors)


def _certain(marks: dict[int, int], errors: frozenset[int]) -> int:
    """The cases of which marks say that they end in an error, and nothing else."""
    in_error = reduce(or_, (plane for i, plane in marks.items() if i in errors), 0)
    return in_error & ~reduce(or_, (plane for i, plane in marks.items() if i not in errors), 0)


def _escaped_again(
    found: Observation, design: Design, step_by_step: Callable[[int], Observation], replays: bool
) -> Observation:
    """Cases in which lanes could not tell what happens are taken from the timeline.

    Of many that certainly end in an error (`Design.errors`) at one place a few are run there to hear of it; the others
    end as these do, where all of these do so alike."""
    errors = _errors(design)
    only = 0
    certain: list[int] = []
    at: dict[int, int] = dict.fromkeys(errors, 0)
    for run in found.runs:
        marks = {k[1]: run.outputs.pop(k)[0] for k in [k for k in run.outputs if not k[0]]}
        only |= reduce(or_, (plane for i, plane in marks.items() if i not in errors), 0)
        certain.append(_certain(marks, errors))
        for i in errors:
            at[i] |= marks.get(i, 0)
    ending = reduce(or_, certain, 0) & ~only
    only |= ending
    if not only:
        return found
    if not replays:
        found.stepped = only
        return found
    alike = _alike(at, ending)
    if alike:
        heard = reduce(or_, (_sample(plane) for plane in alike))
        left = reduce(or_, alike) & ~heard
        exact = step_by_step(only & ~left)
        if exact.limit is not None:
            return exact
        told = reduce(or_, (_ending_alike(exact, plane, plane & heard) for plane in alike))
        for run, end in zip(found.runs, certain, strict=True):
            run.stopped |= end & told
        found = _replaced(found, exact, only & ~left)
        only = left & ~told
        if not only:
            return found
        exact = step_by_step(only)
        return exact if exact.limit is not None else _joined(found, _replaced(found, exact, only))
    exact = step_by_step(only)
    return exact if exact.limit is not None else _replaced(found, exact, only)


def _alike(at: dict[int, int], ending: int) -> list[int]:
    """The planes of cases that are marked at the same places, of those that are too many to be run one by one."""
    groups = [ending] if ending.bit_count() > _MOST_REPLAYED else []
    for plane in at.values():
        parts = (part for group in groups for part in (group & plane, group & ~plane))
        groups = [part for part in parts if part.bit_count() > _MOST_REPLAYED]
    return groups


def _ending_alike(exact: Observation, group: int, heard: int) -> int:
    """The cases of a group besides those heard of, where these all end at one place: they end there too."""
    places = [e for e in exact.ends if e.cases & heard]
    if len(places) != 1 or heard & ~places[0].cases:
        return 0
    places[0].cases |= group & ~heard
    return group & ~heard


def _joined(before: Observation, found: Observation) -> Observation:
    """What was found when some more cases were run one by one, with what those before came to."""
    for end in before.ends:
        same = [e for e in found.ends if e.position == end.position]
        if same:
            same[0].cases |= end.cases
        else:
            found.ends.append(end)
    found.stepped |= before.stepped
    found.untried |= before.untried
    found.unjudged |= before.unjudged
    found.refused = found.refused or before.refused
    return found


def _sample(plane: int) -> int:
    """Some cases of a plane: the first, the last, and some between."""
    cases = set_bits(plane)
    chosen = {cases[i * (len(cases) - 1) // (_MOST_REPLAYED - 1)] for i in range(_MOST_REPLAYED)}
    return sum(1 << case for case in chosen)


def _replaced(found: Observation, exact: Observation, only: int) -> Observation:
    """What was found, with some cases as they were run one by one."""
    for run, again in zip(found.runs, exact.runs, strict=True):
        run.stopped = run.stopped & ~only | again.stopped & only
        for key, (one, zero) in run.outputs.items():
            p, q = again.outputs[key]
            run.outputs[key] = one & ~only | p & only, zero & ~only | q & only
    return Observation(
        found.runs,
        found.engine,
        None,
        exact.ends,
        only,
        found.refused or exact.refused,
        untried=exact.untried & only,
        unjudged=exact.unjudged & only,
    )


def _blocks(count: int) -> list[tuple[int, int]]:
    return [(start, min(BLOCK, count - start)) for start in range(0, count, BLOCK)]


def _slice(plane: int, start: int, size: int) -> int:
    return plane >> start & values.ones(size) if start or plane.bit_length() > size else plane


def _observe_levelized(
    levelized: Levelized, place: list[int], watched: dict[tuple[str, int], int], cases: Cases
) -> Observation:
    run = Run("fresh", dict.fromkeys(watched, (0, 0)))
    case_bit = {bit: i for i, bit in enumerate(place)}
    rails = (cases.one,) if levelized.inputs == "known" else (cases.one, cases.zero)
    planes = [rail[case_bit[bit]] for bit in levelized.input_bits for rail in rails]
    for start, size in _blocks(cases.count):
        found = levelized.run([_slice(plane, start, size) for plane in planes], values.ones(size))
        for key, bit in watched.items():
            one, zero = found[bit]
            before = run.outputs[key]
            run.outputs[key] = (before[0] | one << start, before[1] | zero << start) if start else (one, zero)
    return Observation([run], "levelized")


def _kind(cases: Cases) -> Inputs:
    if cases.all_known:
        return "known"
    return "any" if any(one & zero for one, zero in zip(cases.one, cases.zero, strict=True)) else "unknown"


def _observe_event_driven(
    lanes: EventDriven,
    wires: Wires,
    design: Design,
    cases: Cases,
    refused: RunError | None,
) -> Observation:
    watched = wires.watched | _escapes(design)
    errors = _errors(design)
    runs = [Run("fresh"), *(Run(f"after {name}") for name in wires.names)]
    for start, size in _blocks(cases.count):
        full = values.ones(size)
        planes = {
            bit: (_slice(cases.one[i], start, size), _slice(cases.zero[i], start, size))
            for i, bit in enumerate(wires.place)
        }
        floating = dict.fromkeys(wires.floats, (full, full))
        for number, run in enumerate(runs):
            first = dict(planes)
            if number:
                one, zero = planes[wires.place[number - 1]]
                first[wires.place[number - 1]] = (zero, one)
            first |= floating
            stopped = lanes.power_up(full) | lanes.apply(first) if refused is None else lanes.begin(full, first)
            lost = ended = 0
            if number:
                # A case that never settles or ends in an error is no way to another one, which is judged fresh.
                ended = _in_error(lanes, watched, errors)
                lost, stopped = stopped | ended, lanes.apply(planes) & ~(stopped | ended)
                stopped |= lost & _slice(runs[0].stopped, start, size)
            run.stopped |= (stopped | _in_error(lanes, watched, errors) & ~ended) << start
            for key, bit in watched.items():
                one, zero = lanes.planes(bit)
                if lost and key[0]:
                    fresh = runs[0].outputs[key]
                    one = one & ~lost | fresh[0] >> start & lost
                    zero = zero & ~lost | fresh[1] >> start & lost
                elif ended:
                    one = one & ~ended | runs[0].outputs[key][0] >> start & ended
                before = run.outputs.get(key, (0, 0))
                run.outputs[key] = (before[0] | one << start, before[1] | zero << start)
    return Observation(runs, "event-driven", refused=refused)
