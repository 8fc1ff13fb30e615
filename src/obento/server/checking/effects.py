"""What another text of a spec would change, before it is applied."""

from __future__ import annotations

from collections.abc import Mapping

from obento.core.check.check import LoadedSpec
from obento.core.check.judging.marking import mark_of
from obento.core.check.judging.outcome import Checked
from obento.core.handin import HandinFile
from obento.runner.worker import SpecFiles, Task
from obento.server.errors import Trouble, not_found
from obento.server.results.clusters import member_of
from obento.server.results.outcomes import TaskOutcomes
from obento.server.specs.models import Effect
from obento.store import handins, specs


def tasks_under(outcomes: TaskOutcomes, files: SpecFiles, handin_ids: list[int]) -> list[Task]:
    """Some hand-ins to be checked by another text. A text that is not saved yet goes with the files that lie beside it
    now, not with those of the version in use."""
    provided = tuple(
        HandinFile(name, data) for name, data in specs.task_files(outcomes.c, outcomes.task.id, provided=True)
    )
    tasks = []
    for handin_id in handin_ids:
        result = outcomes.state.by_handin.get(handin_id)
        if result is None:
            raise not_found("checked hand-in")
        own = tuple(handins.attempt_files(outcomes.c, result.attempt_id))
        tasks.append(Task(files, own, provided, handins.choices(outcomes.c, handin_id, outcomes.task.id)))
    return tasks


def effects_of(outcomes: TaskOutcomes, loaded: LoadedSpec, checked: Mapping[int, Checked | str]) -> list[Effect]:
    """What another text would change for hand-ins that were checked by it.

    Raises
    ------
    Trouble
        If one of them could not be.
    """
    effects: list[Effect] = []
    for handin_id, outcome in checked.items():
        if isinstance(outcome, str) or outcome.status == "not_checked":
            raise Trouble(503, "the machine is too busy to check these; look again later")
        effects.append(_effect(outcomes, handin_id, loaded, outcome))
    return effects


def _effect(outcomes: TaskOutcomes, handin_id: int, loaded: LoadedSpec, checked: Checked) -> Effect:
    assert loaded.expectation is not None
    result = outcomes.state.by_handin[handin_id]
    mark = outcomes.mark(handin_id)
    verdict = checked.verdict if checked.status == "checked" else None
    passed = verdict.right.bit_count() if verdict is not None else 0
    total = loaded.expectation.cases.count
    kind = (
        "unchecked"
        if verdict is None
        else "wrong"
        if passed < total
        else "right"
        if all(r.ok for r in checked.rules)
        else "rules"
    )
    earned = None
    if verdict is not None:
        earned = mark_of(loaded.expectation, verdict, checked.rules).value
        attempt = outcomes.state.counting[handin_id]
        late = outcomes.due.lateness(handin_id, attempt.received_at) if attempt.late else None
        if late is not None:
            earned = round(earned * (1 - late.share), 2)
    return Effect(
        handin_id=handin_id,
        name=member_of(outcomes, handin_id).name,
        kind=outcomes.state.kind(result),
        passed=result.passed,
        total=result.total,
        mark=mark.value,
        new_kind=kind,
        new_passed=passed,
        new_total=total,
        new_mark=mark.value if mark.by_hand else earned,
        by_hand=mark.by_hand,
    )
