"""A design case by case on the timeline: for what cannot run in lanes, and where lanes cannot tell."""

from __future__ import annotations

from dataclasses import dataclass

from obento.core import values
from obento.core.check.running.observation import Observation, Planes, Run
from obento.core.check.running.power_up import Ended, Start, apply_words, note_end
from obento.core.ir.design import Design, Port
from obento.core.ir.part import Finished, RunError
from obento.core.limits import LimitReached, Limits
from obento.core.sim.timeline.kernel import DidNotSettle, Timeline
from obento.core.spec.cases import Cases

MOST_UNSETTLED = 16
"""A design that is run case by case, and settles in none of so many cases spread over all, is not tried in the others:
it has a clock of its own, mostly, and waiting for each case would take hours."""


@dataclass(frozen=True, slots=True)
class Wires:
    """How a design is joined to cases: the bit of the design for each input bit of ours (`place`, with its name in
    `names`), inputs that are left floating, and the bits to be looked at by ours."""

    place: list[int]
    names: list[str]
    floats: list[int]
    watched: dict[tuple[str, int], int]


def observe_case_by_case(
    design: Design, wires: Wires, cases: Cases, limits: Limits, only: int | None = None, neighbours: bool = True
) -> Observation:
    """Every case from power-up, and from its neighbours.

    Parameters
    ----------
    only
        Plane of the cases wanted, all when left out.
    neighbours
        Reach every case also from each case beside it (one input bit turned).
    """
    try:
        timeline = Timeline(design, limits)
    except LimitReached as limit:
        return Observation([Run("fresh", dict.fromkeys(wires.watched, (0, 0)), cases.full)], "timeline", limit)
    return _CaseByCase(design, timeline, wires, cases, neighbours).observe(only)


class _CaseByCase:
    """One observation while it is made."""

    def __init__(self, design: Design, timeline: Timeline, wires: Wires, cases: Cases, neighbours: bool) -> None:
        self._design = design
        self._timeline = timeline
        self._wires = wires
        self._cases = cases
        self._inputs = [p for p in design.ports if p.direction == "in"]
        self._start = Start(timeline)
        self._runs = [Run("fresh"), *(Run(f"after {name}") for name in (wires.names if neighbours else ()))]
        self._seen: list[dict[tuple[str, int], list[int]]] = [
            {key: [0, 0] for key in wires.watched} for _ in self._runs
        ]
        self._ends: list[Ended] = []
        self._limit: LimitReached | None = None
        self._unsettled = 0

    def observe(self, only: int | None) -> Observation:
        count = self._cases.count
        wanted = _spread(count) if only is None else [i for i in range(count) if only >> i & 1]
        untried = 0
        for looked, index in enumerate(wanted):
            self._case(index)
            if self._limit is not None:
                break
            if only is None and looked + 1 == MOST_UNSETTLED == self._unsettled:
                untried = self._give_up(wanted[:MOST_UNSETTLED])
                break
        for run, planes in zip(self._runs, self._seen, strict=True):
            run.outputs = {key: (one, zero) for key, (one, zero) in planes.items()}
            if self._limit is not None:
                run.stopped = self._cases.full
        return Observation(
            self._runs, "timeline", self._limit, self._ends, refused=self._start.refused, untried=untried
        )

    def _case(self, index: int) -> None:
        """One case, in every run."""
        wires, case = self._wires, 1 << index
        digits = {
            bit: (self._cases.one[i] >> index & 1, self._cases.zero[i] >> index & 1)
            for i, bit in enumerate(wires.place)
        }
        digits |= dict.fromkeys(wires.floats, (1, 1))
        for number, run in enumerate(self._runs):
            try:
                if not self._reaches(digits, number):
                    self._as_fresh(number, case)
                    continue
            except DidNotSettle:
                run.stopped |= case
                self._unsettled += not number
            except (RunError, Finished) as error:
                run.stopped |= case
                note_end(self._ends, error, case)
            except LimitReached as limit:
                run.stopped |= case
                self._limit = limit
            for key, at in wires.watched.items():
                one, zero = _digit(self._timeline, self._design, at)
                self._seen[number][key][0] |= one << index
                self._seen[number][key][1] |= zero << index

    def _reaches(self, digits: dict[int, Planes], number: int) -> bool:
        """Go to a case in one of the runs; False where the case before is no way to it."""
        if not number:
            return _arrives(self._start, self._timeline, _words(self._inputs, digits), False)
        bit = self._wires.place[number - 1]
        before = _words(self._inputs, digits | {bit: digits[bit][::-1]})
        if not _arrives(self._start, self._timeline, before, True):
            return False
        apply_words(self._timeline, _words(self._inputs, digits))
        return True

    def _as_fresh(self, number: int, case: int) -> None:
        """The case before ends the run or never settles: there is no way from it to this one, which is judged fresh."""
        self._runs[number].stopped |= self._runs[0].stopped & case
        for key, fresh in self._seen[0].items():
            for rail in (0, 1):
                self._seen[number][key][rail] |= fresh[rail] & case

    def _give_up(self, tried: list[int]) -> int:
        """None of many cases settles: the others are not run. Gives them."""
        untried = self._cases.full
        for index in tried:
            untried ^= 1 << index
        for run in self._runs:
            run.stopped |= untried
        return untried


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
