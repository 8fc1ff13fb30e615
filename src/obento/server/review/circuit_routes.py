"""A hand-in as a drawing, driven by hand, and changed in a scratch copy."""

from __future__ import annotations

from fastapi import APIRouter, Request

from obento.core.check.expectation.model import Expectation
from obento.core.check.judging.verdict import Verdict
from obento.runner.worker import HandTask, Task, run_by_hand, run_inside, run_task
from obento.server.deps import OpeningRoute, Person, Services, ServicesDep, at_desk, reading
from obento.server.errors import Trouble
from obento.server.results.lookup import outcomes_of
from obento.server.review.circuit import circuit_view, hand_task, hand_view, inside_task, scratch_task, what_if_view
from obento.server.review.circuit_models import CircuitView, HandMoves, HandView, Scratch, ScratchFile, WhatIfView
from obento.server.review.tasks import worker_task
from obento.server.review.view import review_cases
from obento.store.connection import Connection

router = APIRouter(route_class=OpeningRoute, prefix="/api/tasks/{task_id}/review/{handin_id}", tags=["circuit"])


@router.get("/circuit")
async def get_circuit(
    task_id: int, handin_id: int, request: Request, person: Person, services: ServicesDep
) -> CircuitView:
    """The hand-in as a drawing, with the values of its wires in the cases that the review shows."""
    task, cases = await _at_hand(services, task_id, handin_id)
    return circuit_view(await at_desk(services, request, person, run_inside, inside_task(task, cases)))


@router.post("/circuit")
async def get_scratch_circuit(
    task_id: int, handin_id: int, body: Scratch, request: Request, person: Person, services: ServicesDep
) -> CircuitView:
    """The same for a changed copy of it."""
    task, cases = await _at_hand(services, task_id, handin_id, body.files)
    return circuit_view(await at_desk(services, request, person, run_inside, inside_task(task, cases)))


async def _at_hand(
    services: Services, task_id: int, handin_id: int, files: list[ScratchFile] | None = None
) -> tuple[Task, list[int]]:
    """A hand-in, or a changed copy of it, for a worker; with the cases that its review shows."""

    def read(c: Connection) -> tuple[Task, list[int]]:
        outcomes = outcomes_of(c, task_id, services)
        task = worker_task(outcomes, handin_id)
        return task if files is None else scratch_task(task, files), review_cases(outcomes, handin_id)

    return await reading(services, read)


@router.post("/hand")
async def drive_by_hand(
    task_id: int, handin_id: int, body: HandMoves, request: Request, person: Person, services: ServicesDep
) -> HandView:
    """Power the hand-in up and make these moves on it."""

    def read(c: Connection) -> tuple[Expectation, HandTask]:
        outcomes = outcomes_of(c, task_id, services)
        task = scratch_task(worker_task(outcomes, handin_id), body.files)
        return outcomes.expectation, hand_task(outcomes.expectation, task, body.moves)

    expectation, asked = await reading(services, read)
    done = await at_desk(services, request, person, run_by_hand, asked)
    if done is None or isinstance(done, str):
        raise Trouble(422, done or "this hand-in cannot be run")
    return hand_view(expectation, done)


@router.post("/what-if")
async def what_if(
    task_id: int, handin_id: int, body: Scratch, request: Request, person: Person, services: ServicesDep
) -> WhatIfView:
    """Check a changed copy of a hand-in. Nothing of it is kept."""

    def read(c: Connection) -> tuple[Task, Expectation, Verdict, list[int]]:
        outcomes = outcomes_of(c, task_id, services)
        task = scratch_task(worker_task(outcomes, handin_id), body.files)
        return task, outcomes.expectation, outcomes.verdict_of(handin_id), review_cases(outcomes, handin_id)

    task, expectation, verdict, cases = await reading(services, read)
    checked = await at_desk(services, request, person, run_task, task)
    if isinstance(checked, str):
        raise Trouble(422, checked)
    return what_if_view(expectation, verdict, checked, cases)
