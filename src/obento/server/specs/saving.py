"""Saving the text of a spec."""

from __future__ import annotations

import hashlib

from obento.core.spec.model import EDITION
from obento.server.errors import not_found
from obento.server.specs.opened import OpenedSpecs, spec_files
from obento.store import audit, course, specs
from obento.store.comments import EditedMeanwhile
from obento.store.connection import Connection
from obento.store.specs import NewSpec


def text_digest(text: str) -> str:
    """A print of a text."""
    return hashlib.sha256(text.encode("utf-8", "replace")).hexdigest()


def save_text(c: Connection, task_id: int, text: str, person_id: int, opened: OpenedSpecs, over: str = "") -> None:
    """Save a spec's text as the newest version of a task, whether it has errors or not; `over` is the print of the text
    it was written over.

    Raises
    ------
    EditedMeanwhile
        If another text stands there by now.
    """
    before = specs.current_spec(c, task_id)
    if over and before is not None and text_digest(before.text) not in (over, text_digest(text)):
        raise EditedMeanwhile("spec", before.text, before.number)
    loaded = opened.inside(spec_files(c, task_id, text))
    task = course.task(c, task_id)
    if task is None:
        raise not_found("task")
    title = loaded.spec.title if loaded.spec else task.title
    digest = loaded.spec.digest if loaded.spec else ""
    unit = loaded.spec.unit if loaded.spec else ""
    new = NewSpec(text, title, unit, digest, EDITION, loaded.expectation is not None)
    specs.save_spec(c, task_id, new, person_id)
    audit.note(c, person_id, "spec", f"task {task_id}", {"right": loaded.expectation is not None})
