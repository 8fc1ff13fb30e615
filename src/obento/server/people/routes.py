"""Who works on a class, and who is in it."""

from __future__ import annotations

from dataclasses import asdict
from typing import Annotated

from fastapi import APIRouter, BackgroundTasks, File, Form, UploadFile

from obento.server.deps import Db, OpeningRoute, Person, Services, ServicesDep
from obento.server.errors import not_found
from obento.server.feedback.erased import sums_of
from obento.server.feedback.lookup import lab_outcomes
from obento.server.models import Created, Done
from obento.server.people import class_list
from obento.server.people.colleagues import invite, leave, set_rights
from obento.server.people.models import (
    ClassRights,
    ErasedView,
    Invite,
    Invited,
    PersonView,
    RosterPreview,
    RosterTaken,
    StudentEntry,
    StudentLine,
)
from obento.server.uploads import whole
from obento.store import audit, course, erasing, people
from obento.store.erased import keep_outcomes
from obento.store.erased_for_good import erasures

_MOST_BYTES = 8_000_000

router = APIRouter(route_class=OpeningRoute, prefix="/api", tags=["people"])


@router.get("/classes/{class_id}/people")
def get_people(class_id: int, c: Db, person: Person) -> list[PersonView]:
    """Who works on a class."""
    return [PersonView(**asdict(row)) for row in people.people_of(c, class_id)]


@router.post("/classes/{class_id}/people")
def add_colleague(class_id: int, body: Invite, c: Db, person: Person, services: ServicesDep) -> Invited:
    """Have somebody work on a class; where the link may be shown, it is this once."""
    return invite(c, class_id, body, services.settings.address, person.id)


@router.put("/classes/{class_id}/rights")
def put_rights(class_id: int, body: ClassRights, c: Db, person: Person) -> Done:
    """Say what the TAs of a class may do besides checking, commenting and marking."""
    set_rights(c, class_id, body, person.id)
    return Done()


@router.delete("/classes/{class_id}/people/{person_id}")
def drop_colleague(class_id: int, person_id: int, c: Db, person: Person) -> Done:
    """Take somebody off a class."""
    leave(c, class_id, person_id, person.id)
    return Done()


@router.get("/classes/{class_id}/students")
def get_students(class_id: int, c: Db, person: Person) -> list[StudentLine]:
    """The class list."""
    return class_list.lines(c, class_id)


@router.post("/classes/{class_id}/students")
def add_student(class_id: int, body: StudentEntry, c: Db, person: Person) -> Created:
    """One more line in the class list."""
    student_id = class_list.put(c, class_id, None, body)
    audit.note(c, person.id, "student", f"student {student_id}", {"class": class_id})
    return Created(id=student_id)


@router.put("/classes/{class_id}/students/{student_id}")
def put_student(class_id: int, student_id: int, body: StudentEntry, c: Db, person: Person) -> Done:
    """Change one line of the class list."""
    class_list.put(c, class_id, student_id, body)
    audit.note(c, person.id, "student", f"student {student_id}", {"class": class_id})
    return Done()


@router.post("/classes/{class_id}/roster/preview")
def preview_roster(
    class_id: int, file: Annotated[UploadFile, File()], c: Db, person: Person,
    columns: Annotated[str, Form(max_length=500)] = "",
) -> RosterPreview:  # fmt: skip
    """What a class list (CSV) would change; nothing is kept. `columns` are chosen as `field=index`, by commas."""
    return class_list.preview(c, class_id, whole(file, _MOST_BYTES), class_list.columns_of(columns))


@router.post("/classes/{class_id}/roster")
def put_roster(
    class_id: int, file: Annotated[UploadFile, File()], c: Db, person: Person,
    columns: Annotated[str, Form(max_length=500)] = "", gone_leave: Annotated[bool, Form()] = False,
    over: Annotated[str, Form(max_length=100)] = "",
) -> RosterTaken:  # fmt: skip
    """Take in a class list (CSV), over the version of it that was seen."""
    taken = class_list.take(c, class_id, whole(file, _MOST_BYTES), class_list.columns_of(columns), gone_leave, over)
    audit.note(c, person.id, "roster", f"class {class_id}", {"rows": taken.rows, "left": taken.left})
    return taken


def _enter(services: Services) -> None:
    """Once somebody is erased for good: on the list of those who stay erased."""
    with services.store.transaction() as c:
        services.settings.erased.keep(erasures(c))


@router.delete("/classes/{class_id}/students/{student_id}")
def erase_student(
    class_id: int, student_id: int, c: Db, person: Person, services: ServicesDep, background: BackgroundTasks
) -> ErasedView:
    """Delete a person's data for good; what is kept of it are numbers, which the sums of reports go on to hold."""
    listed = {s.id: s for s in people.class_list(c, class_id)}
    if student_id not in listed:
        raise not_found("student")
    student = listed[student_id]
    said = [student.name, student.number, student.email]
    kept = [
        o for lab in course.labs_of(c, class_id) for o in sums_of(lab_outcomes(c, lab.id, services), student_id, said)
    ]
    erased = erasing.erase_student(c, student_id)
    keep_outcomes(c, kept)
    background.add_task(_enter, services)
    mails = services.mailbox.forget(erased.addresses) if services.mailbox is not None else 0
    done = ErasedView(handins=erased.handins, letters=erased.letters, places=erased.places, mails=mails)
    audit.note(c, person.id, "erase", f"student {student_id}", done.model_dump())
    return done
