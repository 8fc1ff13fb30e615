"""What an address names. Who may ask for it is settled before (`rights.guard`)."""

from __future__ import annotations

from obento.server.errors import not_found
from obento.store import course
from obento.store.connection import Connection
from obento.store.course import Lab, Task


def the_lab(c: Connection, lab_id: int) -> Lab:
    """Raises `Trouble` (404) where there is none."""
    lab = course.lab(c, lab_id)
    if lab is None:
        raise not_found("lab")
    return lab


def the_task(c: Connection, task_id: int) -> Task:
    """Raises `Trouble` (404) where there is none."""
    task = course.task(c, task_id)
    if task is None:
        raise not_found("task")
    return task


def lab_of_handin(c: Connection, handin_id: int) -> Lab:
    """Raises `Trouble` (404) where there is no such hand-in."""
    lab_id = course.lab_of_handin(c, handin_id)
    if lab_id is None:
        raise not_found("hand-in")
    return the_lab(c, lab_id)
