"""The smallest change that makes every case right: one operator, gate, inversion, constant, wire or edge, found by
trying.

Each change is made in the built design, run over a few telling cases, and, where those come out right, over all of
them. Only what is then right everywhere is said. The likeliest changes are tried first; several of one kind may be
found."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass
from functools import partial

from obento.core.check.expectation.model import Expectation, with_cases
from obento.core.check.judging.ready import Ready, make_ready
from obento.core.check.judging.verdict import judge
from obento.core.check.mutation.changes import Trial, limits_of_trials, trials_of
from obento.core.check.running.cases import observe
from obento.core.check.running.observation import Observation
from obento.core.check.running.steps import observe_steps
from obento.core.handin import HandinFile
from obento.core.limits import LimitReached, Limits
from obento.core.planes import set_bits
from obento.core.spec.cases import Cases

MOST_TRIED = 400
_FEW = 48
_MOST_FOUND = 3


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
    run = observe if expectation.cases.stimulus is None else observe_steps
    if ready.design.parts and expectation.cases.stimulus is not None:
        # What is changed is the form for lanes: on the timeline a part would run as it was written.
        run = partial(observe_steps, lanes_from=1)

    tight = limits_of_trials(limits)

    def seen(cases: Cases) -> Observation:
        return run(ready.design, ready.binding, expectation.spec.inputs, cases, tight)

    def right(looked: Expectation, observation: Observation) -> bool:
        # A part that was run step by step ran as it was written: nothing is proven of the change.
        if observation.limit is not None or (
            ready.design.parts and (observation.stepped or observation.engine == "timeline")
        ):
            return False
        return judge(looked, observation).right == looked.cases.full

    first = run(ready.design, ready.binding, expectation.spec.inputs, expectation.cases, limits)
    if first.limit is not None:
        return None
    verdict = judge(expectation, first)
    if verdict.right == expectation.cases.full:
        return Repair([], 0, True)
    few = _few_cases(expectation, verdict.right)
    trials = trials_of(ready.design, ready.reading.sources)

    def mends(trial: Trial) -> bool:
        trial.make()
        try:
            return right(few, seen(few.cases)) and right(expectation, seen(expectation.cases))
        except LimitReached:
            return False
        finally:
            trial.undo()

    found, tried = _likeliest(trials, hints, mends)
    places = [(ready.reading.sources.place(t.position), t.text) for t in found]
    changes = dict.fromkeys(Change(place.file, place.line, text) for place, text in places)
    return Repair(list(changes), tried, len(trials) <= MOST_TRIED)


def _likeliest(
    trials: Sequence[Trial], hints: Collection[str], mends: Callable[[Trial], bool]
) -> tuple[list[Trial], int]:
    """Of trials, the likeliest first, the first few that mend and are equally likely, and how many were tried."""
    known: dict[int, bool] = {}

    def is_right(trial: Trial) -> bool:
        if id(trial) not in known:
            known[id(trial)] = mends(trial)
        return known[id(trial)]

    hinted = [t for t in trials if t.text in hints] if hints else []
    best = next((t.likely for t in hinted if is_right(t)), None)
    found: list[Trial] = []
    for trial in dict.fromkeys([*trials[:MOST_TRIED], *hinted]):
        if best is not None and trial.likely > best:
            continue
        if is_right(trial):
            best = trial.likely
            found.append(trial)
            if len(found) == _MOST_FOUND:
                break
    return found, len(known)


def _few_cases(expectation: Expectation, right: int) -> Expectation:
    """Some wrong cases and some right ones; of clocked labs all, since a step alone means nothing."""
    cases = expectation.cases
    if cases.stimulus is not None or cases.count <= _FEW:
        return expectation
    wrong = set_bits(cases.full & ~right)
    good = set_bits(right)
    chosen = sorted({*wrong[:: max(1, len(wrong) // (_FEW // 2))], *good[:: max(1, len(good) // (_FEW // 2) + 1)]})
    return with_cases(expectation, chosen)
