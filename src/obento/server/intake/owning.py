"""A person says whose something is, what it is for and when it came; marks and letters follow at once."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, datetime
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from obento.server.errors import Trouble, not_found
from obento.server.intake.taking_in import Owners, owner_of, worth_remembering
from obento.server.intake.times import times_version
from obento.server.marks.ledger import settle_lab
from obento.server.specs.opened import OpenedSpecs
from obento.store import audit, course, drops, handins, letters, owners
from obento.store.connection import Connection
from obento.store.course import Lab
from obento.store.handins import Handin
from obento.store.results import KeptOutcomes


class Owning:
    """What a person settles in one lab."""

    def __init__(self, c: Connection, lab_id: int, person_id: int, opened: OpenedSpecs, kept: KeptOutcomes) -> None:
        lab = course.lab(c, lab_id)
        if lab is None:
            raise not_found("lab")
        self._c = c
        self._lab: Lab = lab
        self._person_id = person_id
        self._opened = opened
        self._kept = kept

    def give(self, handin_id: int, student_ids: Sequence[int]) -> int:
        """Say whose a hand-in is. What was settled is remembered; a letter that somebody got for it before is closed.
        Gives the hand-in that it is now."""
        row = self._handin(handin_id)
        known = self._students(student_ids)
        before = self._owners_of(row)
        every = handins.attempts_of(self._c, handin_id)
        for attempt in every:
            self._remember(known, attempt.label, student_ids)
        student_id, team_id = owner_of(self._c, self._lab.id, tuple(student_ids), known)
        owned = handins.give_to(self._c, handin_id, self._lab.id, student_id, team_id)
        self._close_letters(before - set(student_ids), handin_id)
        self._note("settle owner", {"hand-in": handin_id, "students": list(student_ids)})
        self._settle()
        return owned

    def give_attempt(self, attempt_id: int, student_ids: Sequence[int]) -> int:
        """Take one attempt out of its hand-in, for somebody else, or (nobody named) for somebody to settle."""
        attempt = handins.attempt(self._c, attempt_id)
        if attempt is None:
            raise not_found("attempt")
        before = self._owners_of(self._handin(attempt.handin_id))
        known = self._students(student_ids) if student_ids else None
        made = handins.split_attempt(self._c, attempt_id)
        if known is not None:
            self._remember(known, attempt.label, student_ids)
            student_id, team_id = owner_of(self._c, self._lab.id, tuple(student_ids), known)
            made = handins.give_to(self._c, made, self._lab.id, student_id, team_id)
        self._close_letters(before - set(student_ids), attempt.handin_id)
        self._note("split", {"attempt": attempt_id, "students": list(student_ids)})
        self._settle()
        return made

    def put_aside(self, handin_id: int, reason: str | None) -> None:
        """Have a hand-in count for nothing, with the reason, or (None) take it back.

        Raises
        ------
        Trouble
            Without a reason.
        """
        row = self._handin(handin_id)
        if reason is not None and not reason.strip():
            raise Trouble(422, "say why it is put aside")
        handins.put_aside(self._c, handin_id, reason)
        self._note("put aside" if reason is not None else "take back", {"hand-in": row.id, "reason": reason or ""})
        self._settle()

    def set_task(self, attempt_id: int, task_id: int | None) -> None:
        """Say which task an attempt is for; None: every task whose unit it holds."""
        if task_id is not None and task_id not in {t.id for t in course.tasks_of(self._c, self._lab.id)}:
            raise Trouble(422, "this task is not of this lab")
        handins.set_task(self._c, attempt_id, task_id)
        self._note("for task", {"attempt": attempt_id, "task": task_id})
        self._settle()

    def set_received(self, attempt_id: int, at: datetime) -> None:
        """Say when one attempt was received."""
        handins.set_received(self._c, attempt_id, at)
        self._note("received", {"attempt": attempt_id, "at": str(at)})
        self._settle()

    def set_drop_times(self, drop_id: int, times: str, zone: str, at: datetime | None, over: str) -> None:
        """Say when what came in one drop was received: at its upload, as the archive says (in a zone), or at a given
        time.

        Raises
        ------
        Trouble
            If the zone is unknown, the time is missing, the archive says nothing, or somebody said otherwise since it
            was seen (`over`).
        """
        drop = drops.drop(self._c, drop_id)
        if drop is None:
            raise not_found("drop")
        if over and over != times_version(self._c, drop):
            raise Trouble(409, "somebody else said meanwhile when this drop was received; look at it again")
        received: list[tuple[int, datetime]] = []
        for attempt in drops.attempts_of_drop(self._c, drop_id):
            if times == "archive" and attempt.entry_time is None:
                continue  # its time of upload stays
            if times == "given" and at is None:
                raise Trouble(422, "say when it was received")
            given = at if at is not None else drop.at
            received.append((attempt.id, in_zone(attempt.entry_time, zone) if times == "archive" else given))
        if times == "archive" and not received:
            raise Trouble(422, "this drop says nothing of times; give one yourself")
        drops.set_drop_times(self._c, drop_id, times, zone if times == "archive" else "", received)
        self._note("times", {"drop": drop_id, "times": times, "zone": zone, "at": str(at or "")})
        self._settle()

    def _handin(self, handin_id: int) -> Handin:
        row = handins.handin(self._c, handin_id)
        if row is None:
            raise not_found("hand-in")
        return row

    def _students(self, student_ids: Sequence[int]) -> Owners:
        known = Owners(self._c, self._lab)
        if not set(student_ids) <= known.students.keys():
            raise Trouble(422, "this student is not in the class")
        return known

    def _owners_of(self, row: Handin) -> set[int]:
        if row.student_id is not None:
            return {row.student_id}
        return {m.id for m in owners.teams_of(self._c, self._lab.id).get(row.team_id or 0, [])}

    def _remember(self, known: Owners, label: str, student_ids: Sequence[int]) -> None:
        others = [a.label for a in handins.labels_of_lab(self._c, self._lab.id) if a.label != label]
        keys = worth_remembering(label, others, known.names.match(label))
        owners.remember_labels(self._c, self._lab.class_id, keys, student_ids, self._person_id)

    def _close_letters(self, student_ids: set[int], handin_id: int) -> None:
        """Close the pages of those who were told of a hand-in that is not theirs."""
        for letter_id in letters.letters_on(self._c, self._lab.id, sorted(student_ids), handin_id):
            letters.close(self._c, letter_id, "the hand-in is somebody else's")
            self._note("letter closed", {"letter": letter_id})

    def _settle(self) -> None:
        settle_lab(self._c, self._lab.id, self._opened, self._kept)

    def _note(self, action: str, detail: dict[str, object]) -> None:
        audit.note(self._c, self._person_id, action, f"lab {self._lab.id}", detail)


def in_zone(at: datetime | None, zone: str) -> datetime:
    """What a clock on the wall in some zone showed, in UTC.

    Raises
    ------
    Trouble
        If there is no such zone.
    """
    assert at is not None
    try:
        return at.replace(tzinfo=ZoneInfo(zone)).astimezone(UTC).replace(tzinfo=None)
    except (ZoneInfoNotFoundError, ValueError, OSError) as error:
        raise Trouble(422, f"there is no time zone {zone!r}") from error
