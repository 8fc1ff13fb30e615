"""Classes, labs and tasks."""

from __future__ import annotations

from fastapi import APIRouter, Request, Response

from obento.server.course import overview
from obento.server.course.lookup import the_lab
from obento.server.course.models import (
    ClassCard,
    Extension,
    LabChanged,
    LabOverview,
    LabSettings,
    LabTerms,
    NewClass,
    NewLab,
    NewTask,
    Whose,
)
from obento.server.deps import Db, OpeningRoute, Person, Services, ServicesDep
from obento.server.errors import Trouble, not_found
from obento.server.marks.ledger import settle_lab
from obento.server.models import Created
from obento.server.sample import add_sample, sample_name
from obento.server.specs.saving import save_text
from obento.server.starter_spec import starter_spec
from obento.store import audit, course, people
from obento.store.course import Terms

router = APIRouter(route_class=OpeningRoute, prefix="/api", tags=["course"])


@router.get("/home", response_model=list[ClassCard])
def home(c: Db, person: Person, request: Request, services: ServicesDep) -> Response:
    """Classes and labs of the person."""
    return services.answers.of(c, request, lambda: overview.home(c, person.id, services.kept), person.id)


@router.post("/classes")
def add_class(body: NewClass, c: Db, person: Person) -> Created:
    """A new class, with this person as its lecturer."""
    class_id = course.add_class(c, body.name, body.school, person.id, "lecturer")
    audit.note(c, person.id, "new class", f"class {class_id}")
    return Created(id=class_id)


@router.post("/sample-class")
def add_sample_class(person: Person, services: ServicesDep) -> Created:
    """The class that comes with the program, to play with: made up, without addresses, and checked at once."""
    class_id, labs = services.opened.meanwhile(lambda: _sample(services, person.id))
    for lab_id in labs:
        services.checks.start(lab_id, person.id)
    return Created(id=class_id)


def _sample(services: Services, person_id: int) -> tuple[int, list[int]]:
    folder = services.settings.sample_folder
    if not folder.is_dir():
        raise Trouble(404, "the sample class is not installed here; it lies in the folder demo of the program")
    name = f"{sample_name(folder)}, to play with"
    with services.store.transaction() as c:  # one of its own: what checks it has to see it
        if any(k.name == name for k in course.classes_of(c, person_id)):
            raise Trouble(409, f"{name} is there already; take it away to begin anew")
        made = add_sample(c, folder, name, person_id, "lecturer", opened=services.opened, with_addresses=False)
        audit.note(c, person_id, "sample class", f"class {made[0]}")
    return made


@router.post("/classes/{class_id}/labs")
def add_lab(class_id: int, body: NewLab, c: Db, person: Person, services: ServicesDep) -> Created:
    """A new lab with one task to begin with."""
    lab_id = course.add_lab(c, class_id, body.title, body.due_at)
    _new_task(c, lab_id, body.title, person.id, services)
    audit.note(c, person.id, "new lab", f"lab {lab_id}")
    return Created(id=lab_id)


def _new_task(c: Db, lab_id: int, title: str, person_id: int, services: ServicesDep) -> int:
    task_id = course.add_task(c, lab_id, title)
    save_text(c, task_id, starter_spec(title), person_id, services.opened)
    return task_id


@router.get("/labs/{lab_id}", response_model=LabOverview)
def get_lab(lab_id: int, c: Db, person: Person, request: Request, services: ServicesDep) -> Response:
    """A lab at a glance."""
    lab = the_lab(c, lab_id)
    run = services.checks.run_of(lab_id)
    is_running = run is not None and run.state == "running"
    return services.answers.of(
        c, request, lambda: overview.lab_view(c, lab, person.id, is_running, services.kept), is_running, person.id
    )


@router.get("/labs/{lab_id}/who", response_model=list[Whose])
def get_who(lab_id: int, c: Db, person: Person, request: Request, services: ServicesDep) -> Response:
    """Everybody of a lab's class, and which hand-in is whose."""
    lab = the_lab(c, lab_id)
    return services.answers.of(c, request, lambda: overview.who_view(c, lab))


@router.get("/labs/{lab_id}/terms")
def get_terms(lab_id: int, c: Db, person: Person) -> LabTerms:
    """Due date, extensions, which attempt counts, and what lateness costs."""
    return overview.terms_view(c, the_lab(c, lab_id))


@router.put("/labs/{lab_id}/terms")
def put_terms(lab_id: int, body: LabSettings, c: Db, person: Person, services: ServicesDep) -> LabChanged:
    """Title, due date, which attempt counts, and the share that lateness costs; marks follow at once."""
    lab = the_lab(c, lab_id)
    if body.over and body.over != overview.terms_version(lab):
        raise Trouble(409, "somebody else changed these terms meanwhile; look at theirs, and say yours again")
    terms = Terms(**body.model_dump(exclude={"over"}))
    course.set_lab(c, lab_id, terms)
    audit.note(c, person.id, "lab settings", f"lab {lab_id}", body.model_dump(mode="json"))
    return LabChanged(marks=settle_lab(c, lab_id, services.opened, services.kept))


@router.put("/labs/{lab_id}/extensions/{student_id}")
def put_extension(
    lab_id: int, student_id: int, body: Extension, c: Db, person: Person, services: ServicesDep
) -> LabChanged:
    """Give one student more time, or take it back; marks follow at once."""
    lab = the_lab(c, lab_id)
    if student_id not in {s.id for s in people.students(c, lab.class_id)}:
        raise not_found("student")
    known = course.extensions(c, lab_id).get(student_id)
    if "over" in body.model_fields_set and body.over != (known.due_at if known is not None else None):
        raise Trouble(409, "somebody else changed this student's time meanwhile; look at it again")
    if body.due_at is None:
        course.drop_extension(c, lab_id, student_id)
    else:
        course.put_extension(c, lab_id, student_id, body.due_at, body.reason, person.id)
    audit.note(
        c,
        person.id,
        "extension",
        f"student {student_id}",
        {"lab": lab_id, **body.model_dump(mode="json", exclude={"over"})},
    )
    return LabChanged(marks=settle_lab(c, lab_id, services.opened, services.kept))


@router.post("/labs/{lab_id}/tasks")
def add_task(lab_id: int, body: NewTask, c: Db, person: Person, services: ServicesDep) -> Created:
    """One more task."""
    return Created(id=_new_task(c, lab_id, body.title, person.id, services))
