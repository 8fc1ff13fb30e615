"""The outcomes of a lab for whoever may see it."""

from __future__ import annotations

from obento.server.course.access import may_see_lab
from obento.server.deps import Person, Services
from obento.server.feedback.outcomes import LabOutcomes
from obento.store.connection import Connection


def lab_outcomes(c: Connection, lab_id: int, person: Person, services: Services) -> LabOutcomes:
    return LabOutcomes(c, may_see_lab(c, lab_id, person.id), services.opened, services.kept)
