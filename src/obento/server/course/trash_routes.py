"""Taking away and taking back, and copies for the next year."""

from __future__ import annotations

from dataclasses import asdict

from fastapi import APIRouter

from obento.server.course.lookup import the_lab
from obento.server.course.models import Back, CopyOf, GoneView, HangingView
from obento.server.deps import Db, OpeningRoute, Person, ServicesDep
from obento.server.errors import not_found
from obento.server.marks.ledger import settle_lab
from obento.server.models import Created, Done
from obento.store import audit, copies, course, drops, trash
from obento.store.connection import Connection
from obento.store.trash import Kind

router = APIRouter(route_class=OpeningRoute, prefix="/api", tags=["course"])


@router.get("/bin")
def get_bin(c: Db, person: Person) -> list[GoneView]:
    """What was taken away from the classes of this person, and can be had back for 30 days."""
    return [GoneView(**asdict(gone)) for gone in trash.gone_for(c, person.id)]


@router.get("/hanging/{kind}/{id}")
def get_hanging(kind: Kind, id: int, c: Db, person: Person) -> HangingView:
    """What goes with something that is to be taken away."""
    class_id = _class_of(c, kind, id)
    if class_id is None or course.standing(c, class_id, person.id) is None:
        raise not_found(kind)
    return HangingView(**asdict(trash.hanging(c, kind, id)))


@router.delete("/classes/{class_id}")
def drop_class(class_id: int, c: Db, person: Person) -> Done:
    """Take a class away."""
    return _take(c, "class", class_id, person.id)


@router.delete("/labs/{lab_id}")
def drop_lab(lab_id: int, c: Db, person: Person) -> Done:
    """Take a lab away."""
    return _take(c, "lab", lab_id, person.id)


@router.delete("/tasks/{task_id}")
def drop_task(task_id: int, c: Db, person: Person) -> Done:
    """Take a task away."""
    return _take(c, "task", task_id, person.id)


@router.delete("/drops/{drop_id}")
def drop_drop(drop_id: int, c: Db, person: Person, services: ServicesDep) -> Done:
    """Take away what came in one drop; marks follow at once."""
    lab_id = drops.lab_of_drop(c, drop_id)
    _take(c, "drop", drop_id, person.id)
    if lab_id is not None:
        settle_lab(c, lab_id, services.opened, services.kept)
    return Done()


@router.post("/classes/{class_id}/bin")
def take_back(class_id: int, body: Back, c: Db, person: Person, services: ServicesDep) -> Done:
    """Have something back that was taken away."""
    if body.class_id != class_id or (body.kind, body.id) not in {
        (g.kind, g.id) for g in trash.gone_for(c, person.id) if g.class_id == class_id
    }:
        raise not_found(body.kind)
    trash.take_back(c, body.kind, body.id)
    audit.note(c, person.id, "take back", f"{body.kind} {body.id}")
    lab_id = drops.lab_of_drop(c, body.id) if body.kind == "drop" else None
    if lab_id is not None:
        settle_lab(c, lab_id, services.opened, services.kept)
    return Done()


@router.post("/labs/{lab_id}/copy")
def copy_lab(lab_id: int, body: CopyOf, c: Db, person: Person) -> Created:
    """A lab once more in the same class: specs, comments and terms."""
    made = copies.copy_lab(c, lab_id, the_lab(c, lab_id).class_id, body.name, person.id)
    audit.note(c, person.id, "copy", f"lab {made}", {"of": lab_id})
    return Created(id=made)


@router.post("/classes/{class_id}/copy")
def copy_class(class_id: int, body: CopyOf, c: Db, person: Person) -> Created:
    """A class once more, for the next year: its labs, without people."""
    made = copies.copy_class(c, class_id, body.name, person.id)
    audit.note(c, person.id, "copy", f"class {made}", {"of": class_id})
    return Created(id=made)


def _take(c: Connection, kind: Kind, number: int, person_id: int) -> Done:
    trash.take_away(c, kind, number)
    audit.note(c, person_id, "take away", f"{kind} {number}")
    return Done()


def _class_of(c: Connection, kind: Kind, number: int) -> int | None:
    """The class that something is in."""
    if kind == "class":
        return number
    if kind == "task":
        task = course.task(c, number)
        return task.class_id if task is not None else None
    lab_id = number if kind == "lab" else drops.lab_of_drop(c, number)
    lab = course.lab(c, lab_id) if lab_id is not None else None
    return lab.class_id if lab is not None else None
