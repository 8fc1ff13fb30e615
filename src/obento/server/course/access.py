"""Who may see what."""

from __future__ import annotations

from obento.server.errors import not_found
from obento.store import course, handins
from obento.store.connection import Connection
from obento.store.course import Lab, Task


def may_see_class(c: Connection, class_id: int, person_id: int) -> None:
    """Raises `Trouble` (404) for those who have no role in the class: they need not know that it exists."""
    if not course.has_role(c, class_id, person_id):
        raise not_found("class")


def may_see_lab(c: Connection, lab_id: int, person_id: int) -> Lab:
    lab = course.lab(c, lab_id)
    if lab is None or not course.has_role(c, lab.class_id, person_id):
        raise not_found("lab")
    return lab


def may_see_handin(c: Connection, handin_id: int, person_id: int) -> Lab:
    """The lab of a hand-in."""
    row = handins.handin(c, handin_id)
    if row is None:
        raise not_found("hand-in")
    return may_see_lab(c, row.lab_id, person_id)


def may_see_task(c: Connection, task_id: int, person_id: int) -> Task:
    task = course.task(c, task_id)
    if task is None or not course.has_role(c, task.class_id, person_id):
        raise not_found("task")
    return task
