"""A design case by case on the timeline: for what cannot run in lanes, and where lanes cannot tell."""

from __future__ import annotations

from dataclasses import dataclass

from obento.core.check.running.observation import Observation, Planes, Run
from obento.core.check.running.power_up import Ended, Start, apply_words, note_end
from obento.core.ir.design import Design
from obento.core.ir.part import Finished, RunError
from obento.core.ir.signal import Signal
from obento.core.limits import LimitReached, Limits, TimeIsUp
from obento.core.planes import case_flags, set_bits
from obento.core.sim.timeline.idle import Idle
from obento.core.sim.timeline.kernel import DidNotSettle, Timeline
from obento.core.spec.cases import Cases
from obento.core.values import Word

_MOST_WORDS = 1 << 23
"""So many words of signals are kept of states to come back to: some hundred megabytes at most."""

MOST_UNSETTLED = 16
"""A design that is run case by case, and comes to rest in none of so many cases spread over all, is not tried in the
others: it has a clock of its own or a loop without end, mostly, and waiting for each case would take hours."""


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
    """Every case from power-up, and from its neighbours, as far as the time that `limits` allow reaches.

    Parameters
    ----------
    only
        Plane of the cases wanted, all when left out.
    neighbours
        Reach every case also from each case beside it (one input bit turned).
    """
    try:
        timeline = Timeline(design, limits.alone())
    except LimitReached as limit:
        return Observation([Run("fresh", dict.fromkeys(wires.watched, (0, 0)), cases.full)], "timeline", limit)
    return _CaseByCase(design, timeline, wires, cases, neighbours).observe(only)


class _CaseByCase:
    """One observation while it is made."""

    def __init__(self, design: Design, timeline: Timeline, wires: Wires, cases: Cases, neighbours: bool) -> None:
        self._timeline = timeline
        self._expired = timeline.limits.expired
        self._cases = cases
        self._ways = Ways(timeline, wires, [p.signal for p in design.ports if p.direction == "in"])
        self._runs = [Run("fresh"), *(Run(f"after {name}") for name in (wires.names if neighbours else ()))]
        self._digits = [
            (case_flags(one, cases.count), case_flags(zero, cases.count))
            for one, zero in zip(cases.one, cases.zero, strict=True)
        ]
        self._places = {key: _place(design, at) for key, at in wires.watched.items()}
        self._seen: list[dict[tuple[str, int], list[bytearray]]] = [
            {key: [bytearray(cases.count // 8 + 1), bytearray(cases.count // 8 + 1)] for key in wires.watched}
            for _ in self._runs
        ]
        self._stopped = [0] * len(self._runs)
        self._ends: list[Ended] = []
        self._unfinished = 0

    def observe(self, only: int | None) -> Observation:
        count = self._cases.count
        wanted = _spread(count) if only is None else set_bits(only)
        untried = unjudged = 0
        for looked, index in enumerate(wanted):
            try:
                if self._expired():
                    raise TimeIsUp("the time for one hand-in is up")
                self._case(index)
            except TimeIsUp:
                unjudged = _plane(wanted[looked:])
                break
            if only is None and looked + 1 == MOST_UNSETTLED == self._unfinished:
                untried = _plane(wanted[MOST_UNSETTLED:])
                break
        for run, planes, stopped in zip(self._runs, self._seen, self._stopped, strict=True):
            run.outputs = {
                key: (int.from_bytes(one, "little"), int.from_bytes(zero, "little"))
                for key, (one, zero) in planes.items()
            }
            run.stopped = stopped | untried | unjudged
        return Observation(
            self._runs, "timeline", None, self._ends, refused=self._ways.refused, untried=untried, unjudged=unjudged
        )

    def _case(self, index: int) -> None:
        """One case, in every run.

        Raises
        ------
        TimeIsUp
            Before it was judged; nothing is kept of it then.
        """
        timeline = self._timeline
        digits = [(one[index], zero[index]) for one, zero in self._digits]
        given = self._ways.words(digits)
        ends: list[tuple[int, RunError | Finished | LimitReached | None]] = []
        words: list[list[Word]] = []
        for number in range(len(self._runs)):
            try:
                if not number:
                    self._ways.arrive(digits, given)
                elif self._ways.arrive_before(digits, number - 1):
                    apply_words(timeline, given)
                else:  # there is no way from the case before to this one, which is judged fresh
                    words.append(words[0])
                    ends += [(number, error) for run, error in ends if not run]
                    continue
            except TimeIsUp:
                raise
            except (RunError, Finished, LimitReached) as error:
                ends.append((number, error))
            except DidNotSettle:
                ends.append((number, None))
            words.append([timeline.words[signal] for signal, _ in self._places.values()])
        self._keep(index, words, ends)

    def _keep(
        self, index: int, words: list[list[Word]], ends: list[tuple[int, RunError | Finished | LimitReached | None]]
    ) -> None:
        byte, bit = divmod(index, 8)
        for seen, row in zip(self._seen, words, strict=True):
            for (ones, zeros), (_, offset), (one, zero) in zip(seen.values(), self._places.values(), row, strict=True):
                ones[byte] |= (one >> offset & 1) << bit
                zeros[byte] |= (zero >> offset & 1) << bit
        for number, error in ends:
            self._stopped[number] |= 1 << index
            if error is not None:
                note_end(self._ends, error, 1 << index)
            self._unfinished += not number and not isinstance(error, RunError | Finished)


class Ways:
    """Arrives at inputs from power-up, and at those beside them; where a state can be kept, each of these is reached
    once and come back to."""

    def __init__(self, timeline: Timeline, wires: Wires, inputs: list[Signal]) -> None:
        self._timeline = timeline
        self._wires = wires
        self._inputs = inputs
        self._start = Start(timeline)
        self._begun: Idle | None = None
        self._known: dict[tuple[int, int], Idle | None] = {}
        self._most = max(1, _MOST_WORDS // max(1, len(timeline.design.signals)))

    @property
    def refused(self) -> RunError | None:
        """The error in which power-up ended as long as the inputs were unknown."""
        return self._start.refused

    def arrive(self, digits: list[Planes], given: dict[int, Word]) -> None:
        """Power up and apply inputs: digits, and the words that they make.

        Raises
        ------
        RunError, Finished, DidNotSettle, LimitReached
        """
        if self._begun is not None:
            self._timeline.go_back(self._begun)
        else:
            self._start.begin(given)
            if self._start.refused is None:
                self._begun = self._timeline.idle()
        apply_words(self._timeline, given)
        if self._begun is not None:
            idle = self._timeline.idle()
            if idle is not None:
                self._note(_key(digits), idle)

    def arrive_before(self, digits: list[Planes], turned: int) -> bool:
        """Power up and apply inputs with one digit turned. False where that is no way to anything: it ends in an error,
        or does not end."""
        before = digits.copy()
        before[turned] = digits[turned][::-1]
        key = _key(before) if self._begun is not None else (0, 0)
        if self._begun is not None and key in self._known:
            idle = self._known[key]
            if idle is not None:
                self._timeline.go_back(idle)
            return idle is not None
        try:
            self.arrive(before, self.words(before))
        except TimeIsUp:
            raise
        except (RunError, Finished, DidNotSettle, LimitReached):
            if self._begun is not None:
                self._note(key, None)
            return False
        return True

    def _note(self, key: tuple[int, int], idle: Idle | None) -> None:
        """Keep what inputs lead to; None where they lead nowhere."""
        if len(self._known) >= self._most:
            self._known.clear()
        self._known[key] = idle

    def words(self, digits: list[Planes]) -> dict[int, Word]:
        """The words of all inputs, by the numbers of their signals."""
        of_bit = dict(zip(self._wires.place, digits, strict=True)) | dict.fromkeys(self._wires.floats, (1, 1))
        words: dict[int, Word] = {}
        for signal in self._inputs:
            one = zero = 0
            for i in range(signal.width - 1, -1, -1):
                a, b = of_bit.get(signal.offset + i, (0, 0))
                one, zero = one << 1 | a, zero << 1 | b
            words[signal.id] = one, zero
        return words


def _spread(count: int) -> list[int]:
    """All cases, the first few spread evenly over them: what those have in common is not that their first inputs are
    0."""
    first = [i * count // MOST_UNSETTLED for i in range(MOST_UNSETTLED)] if count > MOST_UNSETTLED else []
    seen = set(first)
    return first + [i for i in range(count) if i not in seen]


def _key(digits: list[Planes]) -> tuple[int, int]:
    one = zero = 0
    for a, b in digits:
        one, zero = one << 1 | a, zero << 1 | b
    return one, zero


def _plane(cases: list[int]) -> int:
    flags = bytearray(max(cases, default=0) // 8 + 1)
    for case in cases:
        flags[case >> 3] |= 1 << (case & 7)
    return int.from_bytes(flags, "little")


def _place(design: Design, bit: int) -> tuple[int, int]:
    """The signal of a port that a bit belongs to, and where in it."""
    for port in design.ports:
        if 0 <= bit - port.signal.offset < port.signal.width:
            return port.signal.id, bit - port.signal.offset
    raise KeyError(bit)
