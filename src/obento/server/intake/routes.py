"""Drops, and whose is what."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, File, Request, Response, UploadFile

from obento.intake.archive import unpack
from obento.server.course.lookup import lab_of_handin, the_lab, the_task
from obento.server.deps import Db, OpeningRoute, Person, Services, ServicesDep, WorkDep
from obento.server.errors import Trouble, not_found
from obento.server.intake.models import (
    Agreement,
    Aside,
    AttemptOwner,
    DropResult,
    DropTimes,
    Excuse,
    ForTask,
    IntakeView,
    Owner,
    Received,
    TwiceText,
)
from obento.server.intake.owning import Owning
from obento.server.intake.taking_in import take_in
from obento.server.intake.view import intake_view, twice_texts
from obento.server.models import Created, Done
from obento.server.uploads import within
from obento.server.works import Work
from obento.store import audit, course, drops, handins, people
from obento.store.accounts import SignedIn
from obento.store.connection import Connection

router = APIRouter(route_class=OpeningRoute, prefix="/api", tags=["intake"])


@router.post("/labs/{lab_id}/drops")
def drop(
    lab_id: int, file: Annotated[UploadFile, File()], person: Person, services: ServicesDep, work: WorkDep
) -> DropResult:
    """Take in a zip (or one file) of hand-ins, for every task whose unit they hold."""
    return _take(services, file, person, work, lab_id, None)


@router.post("/tasks/{task_id}/drops")
def drop_on_task(
    task_id: int, file: Annotated[UploadFile, File()], person: Person, services: ServicesDep, work: WorkDep
) -> DropResult:
    """Take in a zip (or one file) of hand-ins for one task; it touches no other."""
    lab_id = services.store.retrying(lambda c: the_task(c, task_id).lab_id, seconds=20)
    return _take(services, file, person, work, lab_id, task_id)


def _take(
    services: Services, file: UploadFile, person: SignedIn, work: Work, lab_id: int, task_id: int | None
) -> DropResult:
    name = file.filename or "file"
    within(file, services.settings.upload_bytes)
    inner = unpack(name, file.file, services.settings.var_folder)
    # Drops of the same students at the same moment wait for each other: each is taken in whole.
    return services.store.retrying(
        lambda c: take_in(c, the_lab(c, lab_id), name, inner, person.id, None, task_id, work.step), seconds=20
    )


@router.get("/labs/{lab_id}/intake", response_model=IntakeView)
def intake(lab_id: int, c: Db, person: Person, request: Request, services: ServicesDep) -> Response:
    """Every hand-in with what is settled about it, the unsettled ones first."""
    lab = the_lab(c, lab_id)
    return services.answers.of(c, request, lambda: intake_view(c, lab, services.kept))


def _owning(c: Connection, lab_id: int | None, person: SignedIn, services: Services) -> Owning:
    if lab_id is None:
        raise not_found("lab")
    return Owning(c, lab_id, person.id, services.opened, services.kept)


@router.put("/drops/{drop_id}/times")
def put_times(drop_id: int, body: DropTimes, c: Db, person: Person, services: ServicesDep) -> Done:
    """Say when what came in one drop was received; lateness follows at once."""
    _owning(c, drops.lab_of_drop(c, drop_id), person, services).set_drop_times(
        drop_id, body.times, body.zone, body.at, body.over
    )
    return Done()


@router.put("/handins/{handin_id}/owner")
def put_owner(handin_id: int, body: Owner, c: Db, person: Person, services: ServicesDep) -> Created:
    """Say whose hand-in it is; several students are a team."""
    return Created(
        id=_owning(c, course.lab_of_handin(c, handin_id), person, services).give(handin_id, body.student_ids)
    )


@router.put("/handins/{handin_id}/aside")
def put_aside(handin_id: int, body: Aside, c: Db, person: Person, services: ServicesDep) -> Done:
    """Put a hand-in aside: it counts for nothing; or take it back."""
    _owning(c, course.lab_of_handin(c, handin_id), person, services).put_aside(handin_id, body.reason)
    return Done()


@router.put("/attempts/{attempt_id}/owner")
def put_attempt_owner(attempt_id: int, body: AttemptOwner, c: Db, person: Person, services: ServicesDep) -> Created:
    """Take one attempt out of its hand-in, for somebody else or for nobody yet."""
    owning = _owning(c, handins.lab_of_attempt(c, attempt_id), person, services)
    return Created(id=owning.give_attempt(attempt_id, body.student_ids))


@router.put("/attempts/{attempt_id}/task")
def put_attempt_task(attempt_id: int, body: ForTask, c: Db, person: Person, services: ServicesDep) -> Done:
    """Say which task an attempt is for."""
    _owning(c, handins.lab_of_attempt(c, attempt_id), person, services).set_task(attempt_id, body.task_id)
    return Done()


@router.put("/attempts/{attempt_id}/received")
def put_received(attempt_id: int, body: Received, c: Db, person: Person, services: ServicesDep) -> Done:
    """Say when one attempt was received; lateness follows at once."""
    _owning(c, handins.lab_of_attempt(c, attempt_id), person, services).set_received(attempt_id, body.at)
    return Done()


@router.put("/labs/{lab_id}/excused/{student_id}")
def put_excused(lab_id: int, student_id: int, body: Excuse, c: Db, person: Person) -> Done:
    """Say that somebody need not hand in, and why, or that they have to."""
    lab = the_lab(c, lab_id)
    if student_id not in {s.id for s in people.students(c, lab.class_id)}:
        raise not_found("student")
    if "over" in body.model_fields_set and body.over != course.excused(c, lab_id).get(student_id):
        raise Trouble(409, "somebody else changed meanwhile whether this student is excused; look at it again")
    course.excuse(c, lab_id, student_id, body.reason, person.id)
    audit.note(c, person.id, "excuse", f"student {student_id}", {"lab": lab_id, "reason": body.reason})
    return Done()


@router.post("/tasks/{task_id}/consents")
def agree(task_id: int, body: Agreement, c: Db, person: Person) -> Done:
    """Agree that a name of theirs is ours, for everyone in the same position."""
    handins.put_consent(c, task_id, body.ours, body.theirs, person.id)
    audit.note(c, person.id, "consent", f"task {task_id}", body.model_dump())
    return Done()


@router.put("/handins/{handin_id}/tasks/{task_id}/choice")
def choose(handin_id: int, task_id: int, body: Agreement, c: Db, person: Person) -> Done:
    """Say for one hand-in which name of theirs is meant."""
    handins.put_choice(c, handin_id, task_id, body.ours, body.theirs, person.id)
    audit.note(c, person.id, "choice", f"hand-in {handin_id}", body.model_dump())
    return Done()


@router.get("/handins/{handin_id}/tasks/{task_id}/twice")
def twice(handin_id: int, task_id: int, c: Db, person: Person, services: ServicesDep) -> list[TwiceText]:
    """The files of a hand-in that hold the same unit differently: somebody has to choose."""
    return twice_texts(c, lab_of_handin(c, handin_id), handin_id, task_id, services.kept)
