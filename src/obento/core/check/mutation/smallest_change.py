"""The smallest change that makes every case right: one operator, gate, inversion, constant, wire or edge, found by
trying.

Each change is made in the built design, run over a few telling cases, and, where those come out right, over all of
them. What is right everywhere then is made in the text, which is read and run once more: only what is right there is
said, in the text's own words. The likeliest changes are tried first; several of one kind may be found."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import islice

from obento.core.check.expectation.model import Expectation, with_cases
from obento.core.check.judging.ready import Ready, make_ready
from obento.core.check.judging.verdict import judge
from obento.core.check.mutation.changes import Trial, limits_of_trials, trials_of
from obento.core.check.mutation.in_text import InText, TextChange
from obento.core.check.mutation.text_trials import text_trials
from obento.core.check.running.cases import observe
from obento.core.check.running.observation import Observation
from obento.core.check.running.steps import observe_steps
from obento.core.handin import HandinFile
from obento.core.limits import LimitReached, Limits
from obento.core.planes import set_bits

MOST_TRIED = 400
_FEW = 48
_MOST_FOUND = 3
_MOST_WAYS, _MOST_WAYS_VHDL = 24, 8
"""Texts that are read again for one change of the design; VHDL takes longer to read."""
_MOST_ALONE, _MOST_ALONE_VHDL = 160, 60
"""Texts that are read where no change of the design mends it."""


@dataclass(frozen=True, slots=True)
class Change:
    """One change and its place; `text` says what to write instead of what."""

    file: str
    line: int
    text: str


@dataclass(slots=True)
class Repair:
    """All smallest changes that were found, and how many were tried. `is_whole` unless the budget ran out first."""

    changes: list[Change]
    tried: int
    is_whole: bool


def find_repair(
    expectation: Expectation,
    files: Sequence[HandinFile],
    provided: Sequence[HandinFile],
    choices: Mapping[str, str],
    limits: Limits | None = None,
    hints: Collection[str] = (),
) -> Repair | None:
    """Look for the smallest change of a hand-in that is wrong somewhere; None where it cannot be run.

    Parameters
    ----------
    provided
        The lab's own files that every hand-in may use.
    choices
        Settled by a person: our port (or the unit's name) -> theirs.
    hints
        Texts of changes that made others right who are wrong alike: tried first, they bound how far is searched.
    """
    if expectation.spec.bench is not None:
        return None
    limits = limits or Limits()
    ready = make_ready(expectation.spec, files, provided, limits, choices)
    if not isinstance(ready, Ready):
        return None
    search = _Search(expectation, files, provided, choices, limits, ready)
    first = search.run(ready, expectation, limits)
    if first.limit is not None:
        return None
    verdict = judge(expectation, first)
    if verdict.right == expectation.cases.full:
        return Repair([], 0, True)
    search.ran_in_lanes = first.engine != "timeline" and not first.stepped
    search.few = _few_cases(expectation, verdict.right)
    trials = trials_of(ready.design, ready.reading.sources)
    found, tried = _likeliest(trials, hints, search.change_of)
    if not found:
        found, more = search.in_text_alone()
        tried += more
    places = [(ready.reading.sources.place(way.position), way.text) for way in _plainest(found)]
    changes = dict.fromkeys(Change(place.file, place.line, text) for place, text in places)
    return Repair(list(changes), tried, len(trials) <= MOST_TRIED)


class _Search:
    """What is asked of each change: whether it mends the design, and then the text. `few` are telling cases."""

    def __init__(
        self,
        expectation: Expectation,
        files: Sequence[HandinFile],
        provided: Sequence[HandinFile],
        choices: Mapping[str, str],
        limits: Limits,
        ready: Ready,
    ) -> None:
        self._expectation = self.few = expectation
        self._files = files
        self._provided = provided
        self._choices = choices
        self._tight = limits_of_trials(limits)
        self._ready = ready
        self.ran_in_lanes = False
        """As it was handed in, in every case."""
        self._words = InText(ready.reading.sources, ready.design.language, limits)

    def run(self, ready: Ready, looked: Expectation, limits: Limits) -> Observation:
        """The design as it is now, over some cases."""
        if looked.cases.stimulus is None:
            return observe(ready.design, ready.binding, looked.spec.inputs, looked.cases, limits)
        # What is changed is the form for lanes: on the timeline a part would run as it was written.
        is_changed = ready is self._ready or self.ran_in_lanes
        lanes_from = 1 if is_changed and ready.design.parts else None
        return observe_steps(ready.design, ready.binding, looked.spec.inputs, looked.cases, limits, lanes_from)

    def change_of(self, trial: Trial) -> TextChange | None:
        """What a change that mends the design comes to in the text; None where it mends nothing, or has no words."""
        trial.make()
        try:
            if not (self._is_right(self._ready, self.few) and self._is_right(self._ready, self._expectation)):
                return None
        except LimitReached:
            return None
        finally:
            trial.undo()
        return next((way for way in self._ways(trial) if self._stands(way)), None)

    def in_text_alone(self) -> tuple[list[TextChange], int]:
        """What mends the text of what no design shows as one change, and how many were tried."""
        found: list[TextChange] = []
        tried = 0
        most = _MOST_ALONE_VHDL if self._ready.design.language == "vhdl" else _MOST_ALONE
        for way in islice(text_trials(self._ready, self._expectation.spec, self._words), most):
            tried += 1
            if self._stands(way):
                found.append(way)
                if len(found) == _MOST_FOUND:
                    break
        return found, tried

    def _is_right(self, ready: Ready, looked: Expectation) -> bool:
        # A part that is run step by step runs as it was written: nothing would be proven of the change. What ran in
        # lanes and would not with the change is no small one, and takes too long.
        in_lanes_only = self.ran_in_lanes or (ready is self._ready and bool(ready.design.parts))
        found = self.run(ready, looked, replace(self._tight, replays=not in_lanes_only))
        if found.limit is not None or (in_lanes_only and (found.stepped or found.engine == "timeline")):
            return False
        return judge(looked, found).right == looked.cases.full

    def _ways(self, trial: Trial) -> Iterator[TextChange]:
        most = _MOST_WAYS_VHDL if self._ready.design.language == "vhdl" else _MOST_WAYS
        return islice(self._words.ways(trial.position, trial.text), most)

    def _stands(self, way: TextChange) -> bool:
        """Whether the text with the change made in it is read, and right, too."""
        file = self._ready.reading.sources.file_at(way.position)
        own = [f for f in self._files if file is not None and f.path == file.name]
        if file is None or len(own) != 1:
            return False  # a file of the lab's own, which nobody can change
        data = way.applied(file).encode()
        changed = [replace(f, data=data) if f is own[0] else f for f in self._files]
        again = make_ready(self._expectation.spec, changed, self._provided, self._tight, self._choices)
        return isinstance(again, Ready) and self._is_right(again, self.few) and self._is_right(again, self._expectation)


def _plainest(found: Sequence[TextChange]) -> list[TextChange]:
    """Of changes of one and the same place the shortest: nobody writes 4294967295 who can write 0."""
    best: dict[tuple[tuple[int, int], ...], TextChange] = {}
    for way in found:
        place = tuple((e.start, e.end) for e in way.edits)
        if place not in best or _weight(way) < _weight(best[place]):
            best[place] = way
    return list(best.values())


def _weight(way: TextChange) -> tuple[int, str]:
    news = "".join(e.new for e in way.edits)
    return len(news), news


def _likeliest(
    trials: Sequence[Trial], hints: Collection[str], mends: Callable[[Trial], TextChange | None]
) -> tuple[list[TextChange], int]:
    """Of trials, the likeliest first, what the first few that mend and are equally likely come to in the text, and how
    many were tried."""
    known: dict[int, TextChange | None] = {}

    def change_of(trial: Trial) -> TextChange | None:
        if id(trial) not in known:
            known[id(trial)] = mends(trial)
        return known[id(trial)]

    hinted = [t for t in trials if t.text in hints] if hints else []
    best = next((t.likely for t in hinted if change_of(t) is not None), None)
    found: dict[TextChange, None] = {}
    for trial in dict.fromkeys([*trials[:MOST_TRIED], *hinted]):
        if best is not None and trial.likely > best:
            continue
        change = change_of(trial)
        if change is not None:
            best = trial.likely
            found[change] = None
            if len(found) == _MOST_FOUND:
                break
    return list(found), len(known)


def _few_cases(expectation: Expectation, right: int) -> Expectation:
    """Some wrong cases and some right ones; of clocked labs all, since a step alone means nothing."""
    cases = expectation.cases
    if cases.stimulus is not None or cases.count <= _FEW:
        return expectation
    wrong = set_bits(cases.full & ~right)
    good = set_bits(right)
    chosen = sorted({*wrong[:: max(1, len(wrong) // (_FEW // 2))], *good[:: max(1, len(good) // (_FEW // 2) + 1)]})
    return with_cases(expectation, chosen)
