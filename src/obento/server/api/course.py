"""Classes, labs, tasks and their specs."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Annotated

from fastapi import APIRouter, File, UploadFile

from obento.core.spec.model import EDITION
from obento.intake.roster import read_roster
from obento.server import course
from obento.server.deps import Db, Person, ServicesDep
from obento.server.effects import effects_of
from obento.server.errors import Trouble, not_found
from obento.server.invitations import invite, leave
from obento.server.ledger import settle_lab
from obento.server.models import (
    CatchRateView,
    ClassCard,
    Created,
    Done,
    EffectAsked,
    Effects,
    Extension,
    Invite,
    Invited,
    LabChanged,
    LabOverview,
    LabSettings,
    LabTerms,
    NewClass,
    NewLab,
    NewTask,
    PersonView,
    SpecPreview,
    SpecText,
    SpecView,
)
from obento.server.picture import picture_of
from obento.server.preview import catch_rate_view, preview
from obento.server.specs import spec_files, starter_spec, version_spec
from obento.store import labs, people

router = APIRouter(prefix="/api", tags=["course"])


def utc(moment: datetime | None) -> datetime | None:
    """A moment as the database keeps it."""
    if moment is None or moment.tzinfo is None:
        return moment
    return moment.astimezone(UTC).replace(tzinfo=None)


@router.get("/home")
def home(c: Db, person: Person) -> list[ClassCard]:
    """Classes and labs of the person."""
    return course.home(c, person["id"])


@router.post("/classes")
def add_class(body: NewClass, c: Db, person: Person) -> Created:
    """A new class, with this person as its TA."""
    class_id = people.add_class(c, body.name, body.school, person["id"], "ta")
    people.audit(c, person["id"], "new class", f"class {class_id}")
    return Created(id=class_id)


@router.get("/classes/{class_id}/people")
def get_people(class_id: int, c: Db, person: Person) -> list[PersonView]:
    """Who works on a class."""
    course.may_see_class(c, class_id, person["id"])
    return [PersonView(**{**row, "joined": bool(row["joined"])}) for row in people.people_of(c, class_id)]


@router.post("/classes/{class_id}/people")
def add_colleague(class_id: int, body: Invite, c: Db, person: Person, found: ServicesDep) -> Invited:
    """Have somebody work on a class; the link is shown this once."""
    course.may_see_class(c, class_id, person["id"])
    return invite(c, class_id, body, found.settings.address, person["id"])


@router.delete("/classes/{class_id}/people/{person_id}")
def drop_colleague(class_id: int, person_id: int, c: Db, person: Person) -> Done:
    """Take somebody off a class."""
    course.may_see_class(c, class_id, person["id"])
    leave(c, class_id, person_id, person["id"])
    return Done()


@router.post("/classes/{class_id}/roster")
def put_roster(class_id: int, file: Annotated[UploadFile, File()], c: Db, person: Person) -> Done:
    """Take in a class list (CSV)."""
    course.may_see_class(c, class_id, person["id"])
    rows = read_roster(file.file.read(8_000_000))
    for position, row in enumerate(rows):
        people.put_student(c, class_id, row.number, row.name, row.email, row.given, position)
    people.audit(c, person["id"], "roster", f"class {class_id}", {"rows": len(rows)})
    return Done()


@router.delete("/classes/{class_id}/students/{student_id}")
def erase_student(class_id: int, student_id: int, c: Db, person: Person) -> Done:
    """Delete a person's data for good."""
    course.may_see_class(c, class_id, person["id"])
    if student_id not in {s["id"] for s in people.students(c, class_id)}:
        raise not_found("student")
    people.erase_student(c, student_id)
    people.audit(c, person["id"], "erase", f"student {student_id}")
    return Done()


@router.post("/classes/{class_id}/labs")
def add_lab(class_id: int, body: NewLab, c: Db, person: Person, found: ServicesDep) -> Created:
    """A new lab with one task to begin with."""
    course.may_see_class(c, class_id, person["id"])
    lab_id = labs.add_lab(c, class_id, body.title, utc(body.due_at))
    _new_task(c, lab_id, body.title, person["id"], found)
    people.audit(c, person["id"], "new lab", f"lab {lab_id}")
    return Created(id=lab_id)


def _new_task(c: Db, lab_id: int, title: str, person_id: int, found: ServicesDep) -> int:
    task_id = labs.add_task(c, lab_id, title)
    _save(c, task_id, starter_spec(title), person_id, found)
    return task_id


@router.get("/labs/{lab_id}")
def get_lab(lab_id: int, c: Db, person: Person, found: ServicesDep) -> LabOverview:
    """A lab at a glance."""
    lab = course.may_see_lab(c, lab_id, person["id"])
    run = found.checks.run_of(lab_id)
    return course.lab_view(c, lab, run is not None and run.state == "running")


@router.get("/labs/{lab_id}/terms")
def get_terms(lab_id: int, c: Db, person: Person) -> LabTerms:
    """Due date, extensions, which attempt counts, and what lateness costs."""
    return course.terms_view(c, course.may_see_lab(c, lab_id, person["id"]))


@router.put("/labs/{lab_id}/terms")
def put_terms(lab_id: int, body: LabSettings, c: Db, person: Person, found: ServicesDep) -> LabChanged:
    """Title, due date, which attempt counts, and the share that lateness costs; marks follow at once."""
    course.may_see_lab(c, lab_id, person["id"])
    labs.set_lab(c, lab_id, body.title, utc(body.due_at), body.which_attempt, body.late_share)
    people.audit(c, person["id"], "lab settings", f"lab {lab_id}", body.model_dump(mode="json"))
    return LabChanged(marks=settle_lab(c, lab_id, found.shelf))


@router.put("/labs/{lab_id}/extensions/{student_id}")
def put_extension(lab_id: int, student_id: int, body: Extension, c: Db, person: Person, found: ServicesDep) -> LabChanged:
    """Give one student more time, or take it back; marks follow at once."""
    lab = course.may_see_lab(c, lab_id, person["id"])
    if student_id not in {s["id"] for s in people.students(c, lab["class_id"])}:
        raise not_found("student")
    due_at = utc(body.due_at)
    if due_at is None:
        labs.drop_extension(c, lab_id, student_id)
    else:
        labs.put_extension(c, lab_id, student_id, due_at, body.reason, person["id"])
    people.audit(c, person["id"], "extension", f"student {student_id}", {"lab": lab_id, **body.model_dump(mode="json")})
    return LabChanged(marks=settle_lab(c, lab_id, found.shelf))


@router.post("/labs/{lab_id}/tasks")
def add_task(lab_id: int, body: NewTask, c: Db, person: Person, found: ServicesDep) -> Created:
    """One more task."""
    course.may_see_lab(c, lab_id, person["id"])
    return Created(id=_new_task(c, lab_id, body.title, person["id"], found))


@router.get("/tasks/{task_id}/spec")
def get_spec(task_id: int, c: Db, person: Person, found: ServicesDep) -> SpecView:
    """The newest spec version with its table."""
    course.may_see_task(c, task_id, person["id"])
    row = labs.current_spec(c, task_id)
    if row is None:
        raise not_found("spec")
    loaded = found.shelf.load(version_spec(c, row))
    frozen_late = row["frozen_at"] if row["is_frozen_late"] else None
    return SpecView(
        text=row["text"], version=row["number"], used=row["used_at"] is not None, frozen_late=frozen_late,
        is_older=row["edition"] < EDITION, preview=preview(loaded),
    )  # fmt: skip


@router.post("/tasks/{task_id}/spec/preview")
def preview_spec(task_id: int, body: SpecText, c: Db, person: Person) -> SpecPreview:
    """What a text would mean, without saving it."""
    course.may_see_task(c, task_id, person["id"])
    return preview(spec_files(c, task_id, body.text).open())


@router.post("/tasks/{task_id}/spec/catch-rate")
def spec_catch_rate(task_id: int, body: SpecText, c: Db, person: Person, found: ServicesDep) -> CatchRateView:
    """How many likely mistakes the cases of a text catch, without saving it."""
    course.may_see_task(c, task_id, person["id"])
    return catch_rate_view(found.checks.catch_rate(spec_files(c, task_id, body.text)))


@router.post("/tasks/{task_id}/spec/effects")
def spec_effects(task_id: int, body: EffectAsked, c: Db, person: Person, found: ServicesDep) -> Effects:
    """What a text would change for some hand-ins: verdicts and marks, before it is saved."""
    picture = picture_of(c, task_id, person, found)
    files = spec_files(c, task_id, body.text)
    return Effects(effects=effects_of(picture, files, found.shelf.load(files), body.handin_ids, found.checks.pool))


@router.put("/tasks/{task_id}/spec")
def put_spec(task_id: int, body: SpecText, c: Db, person: Person, found: ServicesDep) -> SpecView:
    """Save a spec; once a version was used by a check, saving makes a new one."""
    course.may_see_task(c, task_id, person["id"])
    _save(c, task_id, body.text, person["id"], found)
    return get_spec(task_id, c, person, found)


def _save(c: Db, task_id: int, text: str, person_id: int, found: ServicesDep) -> None:
    loaded = found.shelf.load(spec_files(c, task_id, text))
    task = labs.task(c, task_id)
    if task is None:
        raise Trouble(404, "there is no such task")
    title = loaded.spec.title if loaded.spec else task["title"]
    digest = loaded.spec.digest if loaded.spec else ""
    labs.save_spec(c, task_id, text, title, digest, EDITION, loaded.expectation is not None, person_id)
    people.audit(c, person_id, "spec", f"task {task_id}", {"right": loaded.expectation is not None})


@router.post("/tasks/{task_id}/files")
def put_file(task_id: int, file: Annotated[UploadFile, File()], c: Db, person: Person, found: ServicesDep, provided: bool = False) -> SpecView:
    """A file beside the spec (a model, a table), or one that every hand-in may use. Where a check rests on other files, this makes a new
    version: what was shown stays by the old one, and the class is checked by the new one."""
    course.may_see_task(c, task_id, person["id"])
    name = (file.filename or "").replace("\\", "/").rpartition("/")[2]
    if not name:
        raise Trouble(422, "the file needs a name")
    labs.put_task_file(c, task_id, name[:200], file.file.read(4_000_000), provided)
    people.audit(c, person["id"], "task file", f"task {task_id}", {"name": name, "provided": provided})
    row = labs.current_spec(c, task_id)
    if row is not None and (row["used_at"] is None or labs.files_have_changed(c, task_id)):
        _save(c, task_id, row["text"], person["id"], found)  # what it means may be something else with this file
    return get_spec(task_id, c, person, found)
