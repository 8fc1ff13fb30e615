"""One hand-in in review."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated

from fastapi import APIRouter, Query, Request, Response
from fastapi.concurrency import run_in_threadpool

from obento.core.check.expectation.model import Expectation
from obento.core.check.inspecting.trace import Trace, to_vcd
from obento.core.check.judging.verdict import Verdict
from obento.runner.worker import RepairTask, Task, TraceTask, run_repair, run_trace
from obento.server.deps import Db, OpeningRoute, Person, Services, ServicesDep, at_desk, reading
from obento.server.errors import Trouble
from obento.server.results.lookup import outcomes_of
from obento.server.review.earlier import EarlierComments
from obento.server.review.models import ChangeView, RepairView, ReviewView, WavesView
from obento.server.review.tasks import trace_task, worker_task
from obento.server.review.view import review_view
from obento.server.review.waves import waves_view
from obento.store.connection import Connection

MOST_INNER = 400
"""Inner signals that a dump holds at most."""


router = APIRouter(route_class=OpeningRoute, prefix="/api", tags=["review"])


@router.get("/tasks/{task_id}/review/{handin_id}", response_model=ReviewView)
def get_review(
    task_id: int, handin_id: int, c: Db, person: Person, request: Request, services: ServicesDep
) -> Response:
    """One hand-in beside its spec."""

    def view() -> ReviewView:
        outcomes = outcomes_of(c, task_id, services)
        return review_view(outcomes, handin_id, EarlierComments(outcomes, services.opened, services.kept.planes))

    return services.answers.of(c, request, view)


_WANTED = Query(max_length=64, description="inner signals to be shown as well")


@router.get("/tasks/{task_id}/review/{handin_id}/waves")
async def get_waves(
    task_id: int,
    handin_id: int,
    request: Request,
    person: Person,
    services: ServicesDep,
    sequence: int = 0,
    wanted: Annotated[list[str] | None, _WANTED] = None,
) -> WavesView:
    """One sequence of a clocked hand-in as a waveform, traced anew."""
    asked, verdict, expectation = await _asked(services, task_id, handin_id, sequence, wanted)
    trace = _traced(await at_desk(services, request, person, run_trace, asked))
    return waves_view(expectation, verdict, sequence, trace)


@router.get("/tasks/{task_id}/review/{handin_id}/waves.vcd", response_class=Response)
async def get_vcd(
    task_id: int,
    handin_id: int,
    request: Request,
    person: Person,
    services: ServicesDep,
    sequence: int = 0,
    wanted: Annotated[list[str] | None, _WANTED] = None,
) -> Response:
    """The same as a value change dump (IEEE 1364 clause 18); with `wanted` left out, all inner signals."""
    asked, _, expectation = await _asked(services, task_id, handin_id, sequence, wanted)
    trace = _traced(await at_desk(services, request, person, run_trace, asked))
    if wanted is None and trace.inner:
        again = replace(asked, wanted=tuple(trace.inner[:MOST_INNER]))
        trace = _traced(await at_desk(services, request, person, run_trace, again))
    stimulus = expectation.cases.stimulus
    assert stimulus is not None
    text = to_vcd(trace, expectation.spec.unit, stimulus.sequences[sequence].length)
    name = f"{expectation.spec.unit}-{handin_id}-{sequence + 1}.vcd"
    return Response(text, media_type="text/plain", headers={"Content-Disposition": f'attachment; filename="{name}"'})


async def _asked(
    services: Services, task_id: int, handin_id: int, sequence: int, wanted: list[str] | None
) -> tuple[TraceTask, Verdict, Expectation]:
    def read(c: Connection) -> tuple[TraceTask, Verdict, Expectation]:
        outcomes = outcomes_of(c, task_id, services)
        return *trace_task(outcomes, handin_id, sequence, tuple(wanted or ())), outcomes.expectation

    return await reading(services, read)


def _traced(found: Trace | str | None) -> Trace:
    """Raises `Trouble` where a hand-in cannot be run any more."""
    if isinstance(found, str):
        raise Trouble(422, found)
    if found is None:
        raise Trouble(409, "this hand-in cannot be run as it is")
    return found


@router.get("/tasks/{task_id}/review/{handin_id}/repair")
async def get_repair(
    task_id: int, handin_id: int, request: Request, person: Person, services: ServicesDep
) -> RepairView:
    """The smallest change of a wrong hand-in that makes every case right, found by trying."""

    def read(c: Connection) -> tuple[int, Task]:
        outcomes = outcomes_of(c, task_id, services)
        return outcomes.state.by_handin[handin_id].id, worker_task(outcomes, handin_id)

    checks = services.checks
    result_id, task = await reading(services, read)
    repair = await run_in_threadpool(checks.known_repair, result_id)
    if repair is None:
        found = await at_desk(services, request, person, run_repair, RepairTask(task))
        repair = await run_in_threadpool(checks.keep_repair, [result_id], found)
    changes = [ChangeView(file=x.file, line=x.line, text=x.text) for x in repair.changes]
    return RepairView(changes=changes, tried=repair.tried, is_known=True, is_whole=repair.is_whole)
