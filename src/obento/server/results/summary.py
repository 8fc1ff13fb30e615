"""The class at a glance: clusters, and how many fail each case."""

from __future__ import annotations

import numpy as np

from obento.server.course.task_state import missing_students
from obento.server.results.clusters import clusters_of
from obento.server.results.models import ResultsView
from obento.server.results.outcomes import TaskOutcomes
from obento.server.specs.cases import case_labels, port_views
from obento.store.packing import pack
from obento.store.results import Result

_MOST_CASES = 256
_LEAST_CHECKED = 4
"""In a smaller class nothing is said of how many fail one case."""


def failures_by_case(outcomes: TaskOutcomes) -> np.ndarray[tuple[int], np.dtype[np.int64]]:
    """How many hand-ins go wrong in each case, of themselves."""
    count = outcomes.expectation.cases.count
    failures = np.zeros(count, dtype=np.int64)
    alike: dict[str, int] = {}
    first: dict[str, Result] = {}
    for result in outcomes.state.by_handin.values():
        if result.status == "checked":
            alike[result.planes] = alike.get(result.planes, 0) + 1
            first.setdefault(result.planes, result)
    for planes, number in alike.items():
        bad = np.frombuffer(pack(outcomes.astray(first[planes]), count), dtype=np.uint8)
        failures += number * np.unpackbits(bad, bitorder="little", count=count).astype(np.int64)
    return failures


def _doubtful(outcomes: TaskOutcomes, failures: np.ndarray[tuple[int], np.dtype[np.int64]]) -> str:
    """After a new version: a case that over half of the class fails, with how many; empty where there is none. So many
    are rarely wrong in one place by themselves."""
    checked = sum(r.status == "checked" for r in outcomes.state.by_handin.values())
    if outcomes.spec.number < 2 or checked < _LEAST_CHECKED:
        return ""
    worst = int(failures.argmax())
    if 2 * int(failures[worst]) <= checked:
        return ""
    return f"{failures[worst]} of {checked} fail the same case, {case_labels(outcomes.expectation, [worst])[0]}"


def results_view(outcomes: TaskOutcomes) -> ResultsView:
    """Clusters with the cases that most go wrong in; of many steps only those that tell something."""
    cases, spec = outcomes.expectation.cases, outcomes.expectation.spec
    failures = failures_by_case(outcomes)
    shown = min(cases.count, _MOST_CASES)
    order = list(range(shown)) if cases.count <= _MOST_CASES else np.argsort(-failures, kind="stable")[:shown].tolist()
    if cases.stimulus is not None:
        order = sorted(i for i in order if failures[i])
    clusters = clusters_of(outcomes)
    planes = [
        (n, outcomes.astray(outcomes.state.by_handin[c.members[0].handin_id]))
        for n, c in enumerate(clusters)
        if c.kind == "wrong"
    ]
    return ResultsView(
        task_id=outcomes.task.id,
        version=outcomes.spec.number,
        unit=spec.unit,
        inputs=[p.name for p in spec.inputs],
        outputs=[p.name for p in spec.outputs],
        ports=port_views(spec),
        cases=cases.count,
        clocked=cases.stimulus is not None,
        case_labels=case_labels(outcomes.expectation, order),
        case_failures=[int(failures[i]) for i in order],
        case_clusters=[[n for n, plane in planes if plane >> int(i) & 1] for i in order],
        clusters=clusters,
        missing=[s.name for s in missing_students(outcomes.c, outcomes.lab, outcomes.every, outcomes.state.attempts)],
        waiting=outcomes.state.waiting,
        doubtful=_doubtful(outcomes, failures),
        checked_at=max((r.at for r in outcomes.state.by_handin.values()), default=None),
    )
