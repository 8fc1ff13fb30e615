"""The outcomes of a lab that an address names."""

from __future__ import annotations

from obento.server.course.lookup import the_lab
from obento.server.deps import Services
from obento.server.feedback.outcomes import LabOutcomes
from obento.store.connection import Connection


def lab_outcomes(c: Connection, lab_id: int, services: Services) -> LabOutcomes:
    return LabOutcomes(c, the_lab(c, lab_id), services.opened, services.kept)
