"""Whether something came late, and what that costs."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta

from obento.core.sentences.said import say
from obento.store import course, handins, owners
from obento.store.connection import Connection
from obento.store.course import Lab

_STEPS = {"hour": timedelta(hours=1), "day": timedelta(days=1)}


@dataclass(frozen=True, slots=True)
class Late:
    """What lateness costs, of one, and how late it is in words."""

    share: float
    words: str


class DueDates:
    """Until when each hand-in of a lab may come: the due date, or the longest extension of its owners."""

    def __init__(self, c: Connection, lab: Lab) -> None:
        self._lab = lab
        self._extended = {student: e.due_at for student, e in course.extensions(c, lab.id).items()}
        teams = owners.teams_of(c, lab.id)
        self._owners = {
            row.id: [row.student_id] if row.student_id else [m.id for m in teams.get(row.team_id or 0, [])]
            for row in handins.heads_of(c, lab.id)
        }

    def of(self, handin_id: int) -> datetime | None:
        """Until when; None without a due date."""
        given = [self._extended[s] for s in self._owners.get(handin_id, []) if s in self._extended]
        return latest(self._lab, given)

    def are_over(self, now: datetime) -> bool:
        """Whether nobody of the lab can hand in in time any more; never without a due date."""
        last = latest(self._lab, self._extended.values())
        return last is not None and last < now

    def lateness(self, handin_id: int, received_at: datetime) -> Late | None:
        """What it costs that a hand-in came when it did; None where it is in time."""
        return lateness(self._lab, received_at, self.of(handin_id))


def latest(lab: Lab, extended: Iterable[datetime]) -> datetime | None:
    """Until when something may come; of a team's extensions the longest counts."""
    return max([lab.due_at, *extended]) if lab.due_at is not None else None


def is_late(lab: Lab, received_at: datetime, extended: Iterable[datetime]) -> bool:
    """Whether something came after the due date and its grace."""
    return lateness(lab, received_at, latest(lab, extended)) is not None


def lateness(lab: Lab, received_at: datetime, due: datetime | None) -> Late | None:
    """What it costs to come at a time, by the terms of a lab; None in time, or within its grace."""
    if due is None or received_at <= due + timedelta(minutes=lab.late_grace):
        return None
    over = received_at - due
    step = _STEPS.get(lab.late_step)
    begun = math.ceil(over / step) if step is not None else 1
    share = min(begun * float(lab.late_share), max(float(lab.late_cap), float(lab.late_share)))
    said = say("late-by", over=_duration(over))
    if step is not None:
        said = say(f"late-steps-{lab.late_step}", what=said, count=begun)
    if share < begun * float(lab.late_share) - 1e-9:
        said = say("late-at-most", what=said, share=f"{100 * share:g}")
    return Late(share, said)


def late_words(late: Late, off: float) -> str:
    """How late something came, and what it costs in marks."""
    return say("late-costs", what=late.words, off=f"{off:g}") if off else say("late-free")


def _duration(over: timedelta) -> str:
    minutes = max(1, int(over.total_seconds() // 60))
    if minutes < 90:
        return say("minutes", count=minutes)
    hours = minutes // 60
    return say("hours", count=hours) if hours < 48 else say("days", count=hours // 24)
