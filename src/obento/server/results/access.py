"""The picture of a task for whoever may see it."""

from __future__ import annotations

from obento.server.course.access import may_see_task
from obento.server.deps import Services
from obento.server.results.picture import TaskPicture
from obento.store import course
from obento.store.accounts import SignedIn
from obento.store.connection import Connection


def picture_of(c: Connection, task_id: int, person: SignedIn, found: Services) -> TaskPicture:
    task = may_see_task(c, task_id, person.id)
    lab = course.lab(c, task.lab_id)
    assert lab is not None
    head = next(t for t in course.tasks_of(c, lab.id) if t.id == task_id)
    return TaskPicture(c, lab, head, found.shelf.current(c, task_id))
