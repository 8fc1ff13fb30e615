"""Drops, and whose is what."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, File, Request, Response, UploadFile

from obento.intake.archive import unpack
from obento.server.course.lookup import lab_of_handin, the_lab
from obento.server.deps import Db, OpeningRoute, Person, ServicesDep
from obento.server.intake.models import Agreement, DropResult, IntakeView, Owner, TwiceText
from obento.server.intake.service import assign_owner, intake_view, take_in, twice_texts
from obento.server.models import Created, Done
from obento.server.uploads import within
from obento.store import audit, handins

router = APIRouter(route_class=OpeningRoute, prefix="/api", tags=["intake"])


@router.post("/labs/{lab_id}/drops")
def drop(lab_id: int, file: Annotated[UploadFile, File()], person: Person, services: ServicesDep) -> DropResult:
    """Take in a zip (or one file) of hand-ins."""
    name = file.filename or "file"
    within(file, services.settings.upload_bytes)
    inner = unpack(name, file.file)
    # Drops of the same students at the same moment wait for each other: each is taken in whole.
    return services.store.retrying(lambda c: take_in(c, the_lab(c, lab_id), name, inner, person.id), seconds=20)


@router.get("/labs/{lab_id}/intake", response_model=IntakeView)
def intake(lab_id: int, c: Db, person: Person, request: Request, services: ServicesDep) -> Response:
    """Every hand-in with what is settled about it, the unsettled ones first."""
    lab = the_lab(c, lab_id)
    return services.answers.of(c, request, lambda: intake_view(c, lab, services.kept))


@router.put("/handins/{handin_id}/owner")
def put_owner(handin_id: int, body: Owner, c: Db, person: Person, services: ServicesDep) -> Created:
    """Say whose hand-in it is; several students are a team."""
    return Created(id=assign_owner(c, handin_id, body.student_ids, person.id, services.opened, services.kept))


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
