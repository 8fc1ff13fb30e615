"""Who may do what: one table of all routes, and what holds every request to it."""

from __future__ import annotations

from dataclasses import dataclass

from fastapi import Request

from obento.server.errors import Trouble, not_found
from obento.server.standing import Right, rights_of
from obento.store import course, drops, handins
from obento.store.connection import Connection

_OPEN = {
    "GET /api/health": "anybody",
    "POST /api/sign-in": "anybody",
    "GET /api/invitation/{token}": "anybody",
    "POST /api/invitation/{token}": "anybody",
    "GET /api/page/{token}": "anybody",
    "POST /api/letter/{token}": "anybody",
    "GET /api/board/{token}": "anybody",
    "POST /api/board/{token}": "anybody",
    "POST /api/sentence/{token}": "anybody",
    "GET /api/me": "signed in",
    "GET /api/me/waiting": "signed in",
    "GET /api/works/{key}": "signed in",
    "DELETE /api/works/{key}": "signed in",
    "GET /api/me/sessions": "signed in",
    "DELETE /api/me/sessions/{key}": "signed in",
    "POST /api/me/password": "signed in",
    "POST /api/sign-out": "signed in",
    "GET /api/home": "signed in",
    "GET /api/bin": "signed in",
    "GET /api/hanging/{kind}/{id}": "signed in",
    "GET /api/mailbox": "signed in",
    "POST /api/classes": "signed in",
    "POST /api/sample-class": "signed in",
}
_LOOK = """
GET /api/classes/{class_id}/people
GET /api/classes/{class_id}/students
GET /api/labs/{lab_id}
GET /api/labs/{lab_id}/terms
GET /api/labs/{lab_id}/who
GET /api/labs/{lab_id}/intake
GET /api/labs/{lab_id}/check/events
GET /api/labs/{lab_id}/feedback
GET /api/labs/{lab_id}/letters/{student_id}
GET /api/labs/{lab_id}/release
GET /api/labs/{lab_id}/report
GET /api/labs/{lab_id}/report.csv
GET /api/labs/{lab_id}/marks/columns
GET /api/labs/{lab_id}/marks.csv
GET /api/labs/{lab_id}/marks.xlsx
GET /api/handins/{handin_id}/tasks/{task_id}/twice
GET /api/tasks/{task_id}/spec
GET /api/tasks/{task_id}/spec/versions
GET /api/tasks/{task_id}/spec/versions/{version}
POST /api/tasks/{task_id}/spec/versions/{version}/cases
GET /api/tasks/{task_id}/results
GET /api/tasks/{task_id}/cells
GET /api/tasks/{task_id}/drafts/{cluster}
GET /api/tasks/{task_id}/review/{handin_id}
GET /api/tasks/{task_id}/board
POST /api/tasks/{task_id}/board
POST /api/tasks/{task_id}/board/state
GET /api/tasks/{task_id}/board/blocks
POST /api/tasks/{task_id}/board/beside
POST /api/tasks/{task_id}/board/form
GET /api/tasks/{task_id}/board/link
GET /api/tasks/{task_id}/review/{handin_id}/waves
GET /api/tasks/{task_id}/review/{handin_id}/waves.vcd
GET /api/tasks/{task_id}/review/{handin_id}/repair
GET /api/tasks/{task_id}/review/{handin_id}/circuit
POST /api/tasks/{task_id}/review/{handin_id}/circuit
POST /api/tasks/{task_id}/review/{handin_id}/hand
POST /api/tasks/{task_id}/review/{handin_id}/what-if
"""
_WORK = """
POST /api/labs/{lab_id}/drops
POST /api/labs/{lab_id}/check
POST /api/labs/{lab_id}/check/cancel
POST /api/labs/{lab_id}/drafts
POST /api/tasks/{task_id}/drops
PUT /api/drops/{drop_id}/times
PUT /api/handins/{handin_id}/owner
PUT /api/handins/{handin_id}/aside
PUT /api/attempts/{attempt_id}/owner
PUT /api/attempts/{attempt_id}/task
PUT /api/attempts/{attempt_id}/received
PUT /api/labs/{lab_id}/excused/{student_id}
PUT /api/handins/{handin_id}/tasks/{task_id}/choice
PUT /api/handins/{handin_id}/tasks/{task_id}/mark
POST /api/tasks/{task_id}/consents
PUT /api/tasks/{task_id}/comments/{cluster}
POST /api/tasks/{task_id}/spec/preview
POST /api/tasks/{task_id}/spec/catch-rate
POST /api/tasks/{task_id}/spec/effects
"""
_MANAGE = """
POST /api/classes/{class_id}/people
DELETE /api/classes/{class_id}/people/{person_id}
PUT /api/classes/{class_id}/rights
POST /api/classes/{class_id}/students
PUT /api/classes/{class_id}/students/{student_id}
POST /api/classes/{class_id}/roster/preview
POST /api/classes/{class_id}/roster
DELETE /api/classes/{class_id}/students/{student_id}
POST /api/classes/{class_id}/labs
POST /api/classes/{class_id}/bin
POST /api/classes/{class_id}/copy
DELETE /api/classes/{class_id}
POST /api/labs/{lab_id}/copy
DELETE /api/labs/{lab_id}
DELETE /api/tasks/{task_id}
DELETE /api/drops/{drop_id}
PUT /api/labs/{lab_id}/terms
PUT /api/labs/{lab_id}/extensions/{student_id}
POST /api/labs/{lab_id}/tasks
PUT /api/tasks/{task_id}/spec
PUT /api/tasks/{task_id}/board/link
DELETE /api/tasks/{task_id}/board/link
POST /api/tasks/{task_id}/files
"""
_RELEASE = """
POST /api/labs/{lab_id}/release
POST /api/labs/{lab_id}/withdraw
"""


def _table() -> dict[str, Right]:
    table: dict[str, Right] = dict(_OPEN)  # type: ignore[arg-type]
    listed: tuple[tuple[Right, str], ...] = (
        ("look", _LOOK), ("work", _WORK), ("manage", _MANAGE), ("release", _RELEASE),
    )  # fmt: skip
    for right, lines in listed:
        table |= dict.fromkeys(lines.split("\n")[1:-1], right)
    return table


RIGHTS = _table()
"""The right that each route needs, by `METHOD path`. A route that is not here answers nobody."""


_WANTED: dict[Right, str] = {
    "work": "you may look at this class, not work on it",
    "manage": "terms, specs and people of this class are set by its lecturers",
    "release": "letters of this class are released by its lecturers",
}


@dataclass(frozen=True, slots=True)
class _Place:
    """Where in a class something lies; `lab_id` is None for what is the class's own."""

    class_id: int
    lab_id: int | None


def hold_to_table(c: Connection, request: Request, person_id: int) -> None:
    """Hold a request of somebody who is signed in to the table: the person has a role in the class of everything that
    the address names, all of it is of one class (and one lab), and the role has the right.

    Raises
    ------
    Trouble
        404 for those who need not know that it exists, 403 for those who may look but not do this.
    """
    route = f"{request.method} {request.scope['route'].path}"
    right = RIGHTS.get(route)
    if right is None:
        raise Trouble(403, "this address answers nobody")
    if right in ("anybody", "signed in"):
        return
    place = _place(c, request)
    standing = course.standing(c, place.class_id, person_id) if place is not None else None
    if place is None or standing is None:
        raise not_found(_what(request))
    if right not in rights_of(standing):
        raise Trouble(403, f"{_WANTED[right]}; ask one of them" if right != "work" else _WANTED[right])


def _what(request: Request) -> str:
    named = [name.removesuffix("_id") for name in request.path_params if name in _LOOKS]
    return {"handin": "hand-in"}.get(named[0], named[0]) if named else "class"


def _of_class(c: Connection, number: int) -> _Place | None:
    return _Place(number, None)


def _of_lab(c: Connection, number: int) -> _Place | None:
    lab = course.lab(c, number)
    return _Place(lab.class_id, lab.id) if lab is not None else None


def _of_task(c: Connection, number: int) -> _Place | None:
    task = course.task(c, number)
    return _Place(task.class_id, task.lab_id) if task is not None else None


def _of_handin(c: Connection, number: int) -> _Place | None:
    lab_id = course.lab_of_handin(c, number)
    return _of_lab(c, lab_id) if lab_id is not None else None


def _of_attempt(c: Connection, number: int) -> _Place | None:
    lab_id = handins.lab_of_attempt(c, number)
    return _of_lab(c, lab_id) if lab_id is not None else None


def _of_drop(c: Connection, number: int) -> _Place | None:
    lab_id = drops.lab_of_drop(c, number)
    return _of_lab(c, lab_id) if lab_id is not None else None


_LOOKS = {
    "class_id": _of_class, "lab_id": _of_lab, "task_id": _of_task, "handin_id": _of_handin, "attempt_id": _of_attempt,
    "drop_id": _of_drop,
}  # fmt: skip


def _place(c: Connection, request: Request) -> _Place | None:
    """The one place of everything that an address names; None where it names nothing, or things of two places."""
    places = {
        look(c, int(request.path_params[name]))
        for name, look in _LOOKS.items()
        if str(request.path_params.get(name, "")).isdecimal()
    }
    return places.pop() if len(places) == 1 else None
