"""One hand-in in review."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated

from fastapi import APIRouter, Query, Request, Response

from obento.core.check.inspecting.trace import to_vcd
from obento.server.deps import Db, Person, ServicesDep
from obento.server.results.access import outcomes_of
from obento.server.review.models import ChangeView, RepairView, ReviewView, WavesView
from obento.server.review.tasks import trace_task, worker_task
from obento.server.review.view import review_view
from obento.server.review.waves import waves_view

MOST_INNER = 400
"""Inner signals that a dump holds at most."""


router = APIRouter(prefix="/api", tags=["review"])


@router.get("/tasks/{task_id}/review/{handin_id}", response_model=ReviewView)
def get_review(
    task_id: int, handin_id: int, c: Db, person: Person, request: Request, services: ServicesDep
) -> Response:
    """One hand-in beside its spec."""
    return services.answers.of(c, request, lambda: review_view(outcomes_of(c, task_id, services), handin_id))


_WANTED = Query(max_length=64, description="inner signals to be shown as well")


@router.get("/tasks/{task_id}/review/{handin_id}/waves")
def get_waves(
    task_id: int,
    handin_id: int,
    c: Db,
    person: Person,
    services: ServicesDep,
    sequence: int = 0,
    wanted: Annotated[list[str] | None, _WANTED] = None,
) -> WavesView:
    """One sequence of a clocked hand-in as a waveform, traced anew."""
    outcomes = outcomes_of(c, task_id, services)
    asked, verdict = trace_task(outcomes, handin_id, sequence, tuple(wanted or ()))
    return waves_view(outcomes.expectation, verdict, sequence, services.checks.trace(asked))


@router.get("/tasks/{task_id}/review/{handin_id}/waves.vcd", response_class=Response)
def get_vcd(
    task_id: int,
    handin_id: int,
    c: Db,
    person: Person,
    services: ServicesDep,
    sequence: int = 0,
    wanted: Annotated[list[str] | None, _WANTED] = None,
) -> Response:
    """The same as a value change dump (IEEE 1364 clause 18); with `wanted` left out, all inner signals."""
    outcomes = outcomes_of(c, task_id, services)
    asked, _ = trace_task(outcomes, handin_id, sequence, tuple(wanted or ()))
    trace = services.checks.trace(asked)
    if wanted is None and trace.inner:
        trace = services.checks.trace(replace(asked, wanted=tuple(trace.inner[:MOST_INNER])))
    stimulus = outcomes.expectation.cases.stimulus
    assert stimulus is not None
    text = to_vcd(trace, outcomes.expectation.spec.unit, stimulus.sequences[sequence].length)
    name = f"{outcomes.expectation.spec.unit}-{handin_id}-{sequence + 1}.vcd"
    return Response(text, media_type="text/plain", headers={"Content-Disposition": f'attachment; filename="{name}"'})


@router.get("/tasks/{task_id}/review/{handin_id}/repair")
def get_repair(task_id: int, handin_id: int, c: Db, person: Person, services: ServicesDep) -> RepairView:
    """The smallest change of a wrong hand-in that makes every case right, found by trying."""
    outcomes = outcomes_of(c, task_id, services)
    task = worker_task(outcomes, handin_id)
    repair = services.checks.repair(outcomes.state.by_handin[handin_id].id, task)
    if repair is None:
        return RepairView(changes=[], tried=0, is_known=False, is_whole=False)
    changes = [ChangeView(file=x.file, line=x.line, text=x.text) for x in repair.changes]
    return RepairView(changes=changes, tried=repair.tried, is_known=True, is_whole=repair.is_whole)
