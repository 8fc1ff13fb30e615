"""What the machine writes into the ledger of marks: after a check, and when what a lab says of attempts and lateness
changes."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from obento.core.check.judging.marking import Earned
from obento.server.cases.summary import kept_summary
from obento.server.course.task_state import task_state
from obento.server.errors import Trouble
from obento.server.marks.lateness import DueDates, Late, is_late, late_words
from obento.server.marks.mark import held_reason, settle
from obento.server.specs.opened import OpenedSpecs
from obento.store import audit, course, handins, marks, owners
from obento.store.connection import Connection
from obento.store.course import Lab
from obento.store.handins import Attempt
from obento.store.marks import MachineEntry
from obento.store.results import KeptOutcomes


class Ledger:
    """The machine's part of the ledger of some hand-ins: read once, written once. Entries are only ever added, and only
    where the ledger does not say so already."""

    def __init__(self, c: Connection, lab: Lab, handin_ids: Sequence[int]) -> None:
        self._c = c
        self._due = DueDates(c, lab)
        self._known = marks.machine_entries(c, handin_ids)
        self._new: list[MachineEntry] = []

    def enter(
        self, handin_id: int, task_id: int, result_id: int, status: str, earned: Earned | None, attempt: Attempt
    ) -> bool:
        """Have the ledger come to what one outcome earns, with what the lateness of its attempt costs; `earned` is None
        where no mark can be given. Returns whether entries are added."""
        late = self._due.lateness(handin_id, attempt.received_at) if attempt.late else None
        known = self._known.setdefault((handin_id, task_id), [])
        wanted = [
            MachineEntry(handin_id, task_id, kind, value, reason, result_id)
            for kind, value, reason in _entries(known, result_id, status, earned, late)
        ]
        known += wanted
        self._new += wanted
        return bool(wanted)

    def write(self) -> None:
        """Write what was entered."""
        marks.add_machine_entries(self._c, self._new)
        self._new = []


def _entries(
    known: Sequence[MachineEntry], result_id: int, status: str, earned: Earned | None, late: Late | None
) -> Iterator[tuple[str, float | None, str]]:
    """What is to be added to the entries known of one hand-in in one task: kind, value and reason."""
    at = max((i for i, e in enumerate(known) if e.kind in ("computed", "held")), default=-1)
    last = known[at] if at >= 0 else None
    if earned is None:
        if last is None or last.kind != "held" or last.result_id != result_id:
            yield "held", None, held_reason(status)
        return
    stands = (
        last is not None
        and last.kind == "computed"
        and last.result_id == result_id
        and _same(last.value or 0.0, earned.value)
    )
    if not stands:
        yield "computed", earned.value, earned.reason
    off = round(-earned.value * late.share, 3) if late is not None else 0.0
    taken = next((e.value or 0.0 for e in reversed(known[at + 1 :]) if e.kind == "late"), 0.0) if stands else 0.0
    if not _same(off, taken):
        reason = "not late any more" if late is None else late_words(late, off)
        yield "late", off, reason


def _same(a: float, b: float) -> bool:
    return abs(a - b) < 0.0005


def settle_lab(c: Connection, lab_id: int, opened: OpenedSpecs, kept: KeptOutcomes) -> int:
    """After a change of the due date, of an extension, of what lateness costs, of which attempt counts, or of an owner:
    say anew which attempts are late, and have every mark be that of the attempt that counts. Returns how many marks
    were touched."""
    lab = course.lab(c, lab_id)
    assert lab is not None
    _settle_lateness(c, lab)
    attempts = handins.lab_attempts(c, lab_id)
    ledger = Ledger(c, lab, list(attempts.by_handin))
    touched = 0
    for task in course.tasks_of(c, lab_id):
        state = task_state(c, task, attempts, kept)
        if not state.by_handin:
            continue
        expectation = opened.current(c, task.id).expectation
        for handin_id, result in state.by_handin.items():
            checked = result.status == "checked"
            earned = kept_summary(c, result, expectation, kept).earned if checked else None
            attempt = state.counting[handin_id]
            touched += ledger.enter(handin_id, task.id, result.id, result.status, earned, attempt)
    ledger.write()
    return touched


def _settle_lateness(c: Connection, lab: Lab) -> None:
    extended = {student: e.due_at for student, e in course.extensions(c, lab.id).items()}
    teams = owners.teams_of(c, lab.id)
    for attempt in handins.attempts_of_lab(c, lab.id):
        students = [attempt.student_id] if attempt.student_id else [m.id for m in teams.get(attempt.team_id or 0, [])]
        given = [extended[s] for s in students if s in extended]
        late = attempt.is_confirmed and is_late(lab, attempt.received_at, given)
        if late != attempt.late:
            handins.set_late(c, attempt.id, late)


def override_mark(
    c: Connection, handin_id: int, task_id: int, value: float | None, reason: str, person_id: int, over: int | None
) -> None:
    """A human's mark with its reason; None lifts it again. `over` is how many entries of people were there when it was
    written (`marks.by_people`), None where nobody looked.

    Raises
    ------
    Trouble
        If there is a mark and no reason, or somebody else set one meanwhile.
    """
    there = marks.by_people(c, handin_id, task_id)
    if over is not None and len(there) != over:
        now = settle(there)
        said = f"{now.value:g} ({now.reason})" if now.by_hand else "the computed mark"
        raise Trouble(409, f"somebody else set {said} meanwhile; look at it, and set yours again if it is to stand")
    if value is not None and not reason.strip():
        raise Trouble(422, "say why: an override needs a reason")
    marks.add_mark(c, handin_id, task_id, "override" if value is not None else "lifted", value, reason, None, person_id)
    audit.note(c, person_id, "mark", f"hand-in {handin_id}", {"task": task_id, "value": value, "reason": reason})
