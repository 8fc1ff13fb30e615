"""A hand-in as a drawing, driven by hand, and changed in a scratch copy."""

from __future__ import annotations

from fastapi import APIRouter

from obento.server.deps import Db, Person, ServicesDep
from obento.server.errors import Trouble
from obento.server.results.access import outcomes_of
from obento.server.review.circuit import circuit_view, hand_task, hand_view, inside_task, scratch_task, what_if_view
from obento.server.review.circuit_models import CircuitView, HandMoves, HandView, Scratch, WhatIfView
from obento.server.review.tasks import worker_task
from obento.server.review.view import review_cases

router = APIRouter(prefix="/api/tasks/{task_id}/review/{handin_id}", tags=["circuit"])


@router.get("/circuit")
def get_circuit(task_id: int, handin_id: int, c: Db, person: Person, services: ServicesDep) -> CircuitView:
    """The hand-in as a drawing, with the values of its wires in the cases that the review shows."""
    outcomes = outcomes_of(c, task_id, services)
    task = worker_task(outcomes, handin_id)
    return circuit_view(services.checks.at_hand.inside(inside_task(task, review_cases(outcomes, handin_id))))


@router.post("/circuit")
def get_scratch_circuit(
    task_id: int, handin_id: int, body: Scratch, c: Db, person: Person, services: ServicesDep
) -> CircuitView:
    """The same for a changed copy of it."""
    outcomes = outcomes_of(c, task_id, services)
    task = scratch_task(worker_task(outcomes, handin_id), body.files)
    return circuit_view(services.checks.at_hand.inside(inside_task(task, review_cases(outcomes, handin_id))))


@router.post("/hand")
def drive_by_hand(
    task_id: int, handin_id: int, body: HandMoves, c: Db, person: Person, services: ServicesDep
) -> HandView:
    """Power the hand-in up and make these moves on it."""
    outcomes = outcomes_of(c, task_id, services)
    done = services.checks.at_hand.by_hand(
        hand_task(outcomes.expectation, scratch_task(worker_task(outcomes, handin_id), body.files), body.moves)
    )
    if done is None or isinstance(done, str):
        raise Trouble(422, done or "this hand-in cannot be run")
    return hand_view(outcomes.expectation, done)


@router.post("/what-if")
def what_if(task_id: int, handin_id: int, body: Scratch, c: Db, person: Person, services: ServicesDep) -> WhatIfView:
    """Check a changed copy of a hand-in. Nothing of it is kept."""
    outcomes = outcomes_of(c, task_id, services)
    checked = services.checks.at_hand.check(scratch_task(worker_task(outcomes, handin_id), body.files))
    if isinstance(checked, str):
        raise Trouble(422, checked)
    return what_if_view(
        outcomes.expectation, outcomes.verdict_of(handin_id), checked, review_cases(outcomes, handin_id)
    )
