"""The picture of a lab for whoever may see it."""

from __future__ import annotations

from obento.server.course.access import may_see_lab
from obento.server.deps import Person, Services
from obento.server.feedback.picture import LabPicture
from obento.store.connection import Connection


def lab_picture(c: Connection, lab_id: int, person: Person, found: Services) -> LabPicture:
    return LabPicture(c, may_see_lab(c, lab_id, person.id), found.shelf)
