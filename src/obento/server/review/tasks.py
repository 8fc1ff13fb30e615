"""What workers are asked about a hand-in that was checked."""

from __future__ import annotations

from obento.core import values
from obento.core.check.judging.verdict import Verdict
from obento.core.check.running.steps import OPEN_AS_ONE
from obento.runner.worker import Task, TraceTask
from obento.server.errors import not_found
from obento.server.results.picture import TaskPicture
from obento.store import handins


def worker_task(picture: TaskPicture, handin_id: int) -> Task:
    """What a worker needs to run a hand-in that was checked.

    Raises
    ------
    Trouble
        If it was not.
    """
    result = picture.checked(handin_id)
    files = tuple(handins.attempt_files(picture.c, result.attempt_id))
    return Task(
        picture.spec.files, files, picture.spec.provided, handins.choices(picture.c, handin_id, picture.task.id)
    )


def trace_task(
    picture: TaskPicture, handin_id: int, sequence: int, wanted: tuple[str, ...]
) -> tuple[TraceTask, Verdict]:
    """What a worker needs to trace one sequence of a hand-in, and the verdict it goes with.

    Raises
    ------
    Trouble
        If there is no such sequence, or the hand-in was not checked.
    """
    result = picture.state.by_handin.get(handin_id)
    drive = picture.expectation.cases.drive
    if result is None or drive is None or result.status != "checked" or not 0 <= sequence < len(drive.sequences):
        raise not_found("sequence of this hand-in")
    verdict = picture.verdict(result)
    of_sequence = drive.sequences[sequence]
    open_steps = next((mask for name, mask in verdict.failing_runs if name == OPEN_AS_ONE), 0)
    is_open = bool(open_steps >> of_sequence.first & values.ones(of_sequence.length))
    return TraceTask(worker_task(picture, handin_id), sequence, wanted, is_open), verdict
