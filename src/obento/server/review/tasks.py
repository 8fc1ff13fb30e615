"""What workers are asked about a hand-in that was checked."""

from __future__ import annotations

from obento.core import values
from obento.core.check.judging.verdict import Verdict
from obento.core.check.running.steps import OPEN_AS_ONE
from obento.runner.worker import Task, TraceTask
from obento.server.errors import not_found
from obento.server.results.outcomes import TaskOutcomes
from obento.store import handins


def worker_task(outcomes: TaskOutcomes, handin_id: int) -> Task:
    """What a worker needs to run a hand-in that was checked.

    Raises
    ------
    Trouble
        If it was not.
    """
    result = outcomes.checked(handin_id)
    files = tuple(handins.attempt_files(outcomes.c, result.attempt_id))
    return Task(
        outcomes.spec.files, files, outcomes.spec.provided, handins.choices(outcomes.c, handin_id, outcomes.task.id)
    )


def trace_task(
    outcomes: TaskOutcomes, handin_id: int, sequence: int, wanted: tuple[str, ...]
) -> tuple[TraceTask, Verdict]:
    """What a worker needs to trace one sequence of a hand-in, and the verdict it goes with.

    Raises
    ------
    Trouble
        If there is no such sequence, or the hand-in was not checked.
    """
    result = outcomes.state.by_handin.get(handin_id)
    stimulus = outcomes.expectation.cases.stimulus
    if result is None or stimulus is None or result.status != "checked" or not 0 <= sequence < len(stimulus.sequences):
        raise not_found("sequence of this hand-in")
    verdict = outcomes.verdict(result)
    of_sequence = stimulus.sequences[sequence]
    open_steps = next((mask for name, mask in verdict.failing_runs if name == OPEN_AS_ONE), 0)
    is_open = bool(open_steps >> of_sequence.first & values.ones(of_sequence.length))
    return TraceTask(worker_task(outcomes, handin_id), sequence, wanted, is_open), verdict
