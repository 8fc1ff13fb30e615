"""The outcomes of a task that an address names."""

from __future__ import annotations

from obento.server.course.lookup import the_task
from obento.server.deps import Services
from obento.server.results.outcomes import TaskOutcomes
from obento.store import course
from obento.store.connection import Connection


def outcomes_of(c: Connection, task_id: int, services: Services) -> TaskOutcomes:
    task = the_task(c, task_id)
    lab = course.lab(c, task.lab_id)
    assert lab is not None
    head = next(t for t in course.tasks_of(c, lab.id) if t.id == task_id)
    return TaskOutcomes(c, lab, head, services.opened.current(c, task_id), services.kept)
