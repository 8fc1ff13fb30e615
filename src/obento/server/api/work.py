"""Intake, checks, results and review."""

from __future__ import annotations

import asyncio
from collections.abc import AsyncIterator
from dataclasses import replace
from typing import Annotated

from fastapi import APIRouter, File, Query, Response, UploadFile
from fastapi.responses import StreamingResponse

from obento.core.check.inspecting.trace import to_vcd
from obento.server import course
from obento.server.deps import Db, Person, ServicesDep
from obento.server.errors import Trouble, not_found
from obento.server.feedback_models import CommentSaved, CommentText
from obento.server.intake import assign_owner, intake_view, take_in, twice_texts
from obento.server.models import (
    Agreement,
    ChangeView,
    Created,
    Done,
    DropResult,
    IntakeView,
    Owner,
    RepairView,
    ResultsView,
    ReviewView,
    RunView,
    TwiceText,
    WavesView,
)
from obento.server.picture import picture_of
from obento.server.waves import waves_view
from obento.store import feedback, handins, people

MOST_INNER = 400
"""Inner signals that a dump holds at most."""

router = APIRouter(prefix="/api", tags=["work"])


@router.post("/labs/{lab_id}/drops")
def drop(lab_id: int, file: Annotated[UploadFile, File()], c: Db, person: Person, found: ServicesDep) -> DropResult:
    """Take in a zip (or one file) of hand-ins."""
    lab = course.may_see_lab(c, lab_id, person["id"])
    data = file.file.read(found.settings.upload_bytes + 1)
    if len(data) > found.settings.upload_bytes:
        raise Trouble(413, f"this is larger than {found.settings.upload_bytes // 1_000_000} MB; hand in less at once")
    return take_in(c, lab, file.filename or "file", data, person["id"])


@router.get("/labs/{lab_id}/intake")
def intake(lab_id: int, c: Db, person: Person) -> IntakeView:
    """Every hand-in with what is settled about it, the unsettled ones first."""
    return intake_view(c, course.may_see_lab(c, lab_id, person["id"]))


def _lab_of(c: Db, handin_id: int, person_id: int) -> dict[str, object]:
    row = handins.handin(c, handin_id)
    if row is None:
        raise not_found("hand-in")
    return course.may_see_lab(c, row["lab_id"], person_id)


@router.put("/handins/{handin_id}/owner")
def put_owner(handin_id: int, body: Owner, c: Db, person: Person, found: ServicesDep) -> Created:
    """Say whose hand-in it is; several students are a team."""
    _lab_of(c, handin_id, person["id"])
    return Created(id=assign_owner(c, handin_id, body.student_ids, person["id"], found.shelf))


@router.post("/tasks/{task_id}/consents")
def agree(task_id: int, body: Agreement, c: Db, person: Person) -> Done:
    """Agree that a name of theirs is ours, for everyone in the same position."""
    course.may_see_task(c, task_id, person["id"])
    handins.put_consent(c, task_id, body.ours, body.theirs, person["id"])
    people.audit(c, person["id"], "consent", f"task {task_id}", body.model_dump())
    return Done()


@router.put("/handins/{handin_id}/tasks/{task_id}/choice")
def choose(handin_id: int, task_id: int, body: Agreement, c: Db, person: Person) -> Done:
    """Say for one hand-in which name of theirs is meant."""
    _lab_of(c, handin_id, person["id"])
    course.may_see_task(c, task_id, person["id"])
    handins.put_choice(c, handin_id, task_id, body.ours, body.theirs, person["id"])
    people.audit(c, person["id"], "choice", f"hand-in {handin_id}", body.model_dump())
    return Done()


@router.get("/handins/{handin_id}/tasks/{task_id}/twice")
def twice(handin_id: int, task_id: int, c: Db, person: Person) -> list[TwiceText]:
    """The files of a hand-in that hold the same unit differently: somebody has to choose."""
    return twice_texts(c, _lab_of(c, handin_id, person["id"]), handin_id, task_id)


@router.post("/labs/{lab_id}/check")
def start_check(lab_id: int, c: Db, person: Person, found: ServicesDep) -> RunView:
    """Check what has no outcome yet; joins a run that is under way."""
    course.may_see_lab(c, lab_id, person["id"])
    run = found.checks.start(lab_id, person["id"])
    return RunView(state=run.state, total=run.total, done=run.done, busy=run.busy)


@router.post("/labs/{lab_id}/check/cancel")
def cancel_check(lab_id: int, c: Db, person: Person, found: ServicesDep) -> Done:
    """Stop a run; what is finished stays."""
    course.may_see_lab(c, lab_id, person["id"])
    found.checks.cancel(lab_id)
    return Done()


@router.get("/labs/{lab_id}/check/events", response_class=StreamingResponse)
def check_events(lab_id: int, person: Person, found: ServicesDep) -> StreamingResponse:
    """Progress as server-sent events: a `RunView` whenever it changes; ends with the run."""
    with found.store.transaction() as c:
        course.may_see_lab(c, lab_id, person["id"])

    async def stream() -> AsyncIterator[str]:
        last, number = "", 0
        nap = 0.003  # a single hand-in is done at once, a class takes its time
        while True:
            run = found.checks.run_of(lab_id)
            view = RunView(state=run.state, total=run.total, done=run.done, busy=run.busy) if run else RunView(state="done", total=0, done=0)
            text = view.model_dump_json()
            if text != last:
                number += 1
                last = text
                yield f"id: {number}\ndata: {text}\n\n"
            if view.state != "running":
                return
            await asyncio.sleep(nap)
            nap = min(1.1 * nap, 0.1)

    return StreamingResponse(stream(), media_type="text/event-stream", headers={"Cache-Control": "no-store"})


@router.get("/tasks/{task_id}/results")
def get_results(task_id: int, c: Db, person: Person, found: ServicesDep) -> ResultsView:
    """The class by clusters, and how many fail each case."""
    return picture_of(c, task_id, person, found).results_view()


@router.get("/tasks/{task_id}/cells", response_class=Response)
def get_cells(task_id: int, c: Db, person: Person, found: ServicesDep) -> Response:
    """All cells of the class, bit-packed (see `TaskPicture.cells`)."""
    return Response(picture_of(c, task_id, person, found).cells(), media_type="application/octet-stream")


@router.get("/tasks/{task_id}/review/{handin_id}")
def get_review(task_id: int, handin_id: int, c: Db, person: Person, found: ServicesDep) -> ReviewView:
    """One hand-in beside its spec."""
    return picture_of(c, task_id, person, found).review(handin_id)


@router.put("/tasks/{task_id}/comments/{cluster}")
def put_comment(task_id: int, cluster: str, body: CommentText, c: Db, person: Person) -> CommentSaved:
    """Keep the comment of a cluster; with `handin_id` a note for one hand-in alone."""
    course.may_see_task(c, task_id, person["id"])
    key = "" if body.handin_id else cluster
    if body.handin_id:
        _lab_of(c, body.handin_id, person["id"])
    version = feedback.put_comment(c, task_id, key, body.handin_id, body.text, body.version, person["id"])
    people.audit(c, person["id"], "comment", f"task {task_id}", {"cluster": key, "hand-in": body.handin_id})
    return CommentSaved(version=version)


_WANTED = Query(max_length=64, description="inner signals to be shown as well")


@router.get("/tasks/{task_id}/review/{handin_id}/waves")
def get_waves(
    task_id: int, handin_id: int, c: Db, person: Person, found: ServicesDep, sequence: int = 0, wanted: Annotated[list[str] | None, _WANTED] = None
) -> WavesView:
    """One sequence of a clocked hand-in as a waveform, traced anew."""
    picture = picture_of(c, task_id, person, found)
    asked, verdict = picture.trace_task(handin_id, sequence, tuple(wanted or ()))
    return waves_view(picture.expectation, verdict, sequence, found.checks.trace(asked))


@router.get("/tasks/{task_id}/review/{handin_id}/waves.vcd", response_class=Response)
def get_vcd(
    task_id: int, handin_id: int, c: Db, person: Person, found: ServicesDep, sequence: int = 0, wanted: Annotated[list[str] | None, _WANTED] = None
) -> Response:
    """The same as a value change dump (IEEE 1364 clause 18); with `wanted` left out, all inner signals."""
    picture = picture_of(c, task_id, person, found)
    asked, _ = picture.trace_task(handin_id, sequence, tuple(wanted or ()))
    trace = found.checks.trace(asked)
    if wanted is None and trace.inner:
        trace = found.checks.trace(replace(asked, wanted=tuple(trace.inner[:MOST_INNER])))
    drive = picture.expectation.cases.drive
    assert drive is not None
    text = to_vcd(trace, picture.expectation.spec.unit, drive.sequences[sequence].length)
    name = f"{picture.expectation.spec.unit}-{handin_id}-{sequence + 1}.vcd"
    return Response(text, media_type="text/plain", headers={"Content-Disposition": f'attachment; filename="{name}"'})


@router.get("/tasks/{task_id}/review/{handin_id}/repair")
def get_repair(task_id: int, handin_id: int, c: Db, person: Person, found: ServicesDep) -> RepairView:
    """The smallest change of a wrong hand-in that makes every case right, found by trying."""
    picture = picture_of(c, task_id, person, found)
    task = picture.worker_task(handin_id)
    repair = found.checks.repair(picture.state.by_handin[handin_id]["id"], task)
    if repair is None:
        return RepairView(changes=[], tried=0, is_known=False, is_whole=False)
    changes = [ChangeView(file=x.file, line=x.line, text=x.text) for x in repair.changes]
    return RepairView(changes=changes, tried=repair.tried, is_known=True, is_whole=repair.is_whole)
