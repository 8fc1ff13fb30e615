"""What a design does in every case: fresh from power-up, and from every neighbouring case where it may remember."""

from __future__ import annotations

from collections.abc import Callable

from obento.core import values
from obento.core.check.running.binding import Binding
from obento.core.check.running.case_by_case import Wires, observe_case_by_case
from obento.core.check.running.observation import BLOCK, Observation, Planes, Run
from obento.core.check.running.power_up import refused_unknown
from obento.core.ir.design import Design
from obento.core.ir.part import RunError
from obento.core.ir.unread import without_unread
from obento.core.limits import LimitReached, Limits
from obento.core.sim.event_driven import EventDriven
from obento.core.sim.lanes.bits import Unfit
from obento.core.sim.levelized import HasMemory, Inputs, Levelized
from obento.core.spec.cases import Cases
from obento.core.spec.model import SpecPort

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
        return _escaped_again(found, lambda only: observe_case_by_case(design, wires, cases, limits, only, False))
    except (HasMemory, Unfit):
        pass
    except LimitReached as limit:
        return Observation([Run("fresh", stopped=cases.full)], "levelized", limit)
    try:
        lanes = EventDriven(design, limits, inputs_may_float=bool(wires.floats) or kind == "any")
    except (Unfit, LimitReached):
        return observe_case_by_case(design, wires, cases, limits)
    try:
        refused = power_up_refused(lanes, design, limits)
        found = _observe_event_driven(lanes, wires, wires.watched | _escapes(design), cases, refused)
    except Unfit:
        return observe_case_by_case(design, wires, cases, limits)
    return _escaped_again(found, lambda only: observe_case_by_case(design, wires, cases, limits, only))


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
    watched: dict[tuple[str, int], int],
    cases: Cases,
    refused: RunError | None,
) -> Observation:
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
            lost = 0
            if number:
                # A case that never settles is no way to another one, which is judged fresh.
                lost, stopped = stopped, lanes.apply(planes) & ~stopped
                stopped |= lost & _slice(runs[0].stopped, start, size)
            run.stopped |= stopped << start
            for key, bit in watched.items():
                one, zero = lanes.planes(bit)
                if lost and key[0]:
                    fresh = runs[0].outputs[key]
                    one = one & ~lost | fresh[0] >> start & lost
                    zero = zero & ~lost | fresh[1] >> start & lost
                before = run.outputs.get(key, (0, 0))
                run.outputs[key] = (before[0] | one << start, before[1] | zero << start)
    return Observation(runs, "event-driven", refused=refused)
