"""What the machine writes into the ledger of marks: after a check, and when what a lab says of attempts and lateness
changes."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime

from obento.core.check.judging.marking import Earned
from obento.server.cases.summary import kept_summary
from obento.server.course.task_state import task_state
from obento.server.errors import Trouble
from obento.server.marks.mark import held_reason
from obento.server.specs.opened import OpenedSpecs
from obento.store import audit, course, handins, marks, results
from obento.store.connection import Connection
from obento.store.course import Lab
from obento.store.planes import KeptPlanes


def is_late(lab: Lab, received_at: datetime, extended: Iterable[datetime]) -> bool:
    """Whether something came after the due date; of a team's extensions the longest counts."""
    return lab.due_at is not None and received_at > max([lab.due_at, *extended])


def enter_outcome(
    c: Connection, lab: Lab, handin_id: int, task_id: int, result_id: int, status: str, earned: Earned | None
) -> bool:
    """Have the ledger come to what one outcome earns, with what lateness costs; `earned` is None where no mark can be
    given.

    Entries are only ever added, and only where the ledger does not say so already. Returns whether some were.
    """
    entries = marks.machine_entries(c, handin_id, task_id)
    at = max((i for i, e in enumerate(entries) if e.kind in ("computed", "held")), default=-1)
    last = entries[at] if at >= 0 else None
    if earned is None:
        if last is not None and last.kind == "held" and last.result_id == result_id:
            return False
        marks.add_mark(c, handin_id, task_id, "held", None, held_reason(status), result_id)
        return True
    stands = (
        last is not None
        and last.kind == "computed"
        and last.result_id == result_id
        and _same(last.value or 0.0, earned.value)
    )
    if not stands:
        marks.add_mark(c, handin_id, task_id, "computed", earned.value, earned.reason, result_id)
    late = results.is_late(c, result_id)
    off = round(-earned.value * lab.late_share, 3) if late else 0.0
    taken = next((e.value or 0.0 for e in reversed(entries[at + 1 :]) if e.kind == "late"), 0.0) if stands else 0.0
    if _same(off, taken):
        return not stands
    reason = "handed in late" if off else "late, without costs" if late else "not late any more"
    marks.add_mark(c, handin_id, task_id, "late", off, reason, result_id)
    return True


def _same(a: float, b: float) -> bool:
    return abs(a - b) < 0.0005


def settle_lab(c: Connection, lab_id: int, opened: OpenedSpecs, kept: KeptPlanes) -> int:
    """After a change of the due date, of an extension, of what lateness costs, of which attempt counts, or of an owner:
    say anew which attempts are late, and have every mark be that of the attempt that counts. Returns how many marks
    were touched."""
    lab = course.lab(c, lab_id)
    assert lab is not None
    _settle_lateness(c, lab)
    rows = handins.handins_of(c, lab_id)
    touched = 0
    for task in course.tasks_of(c, lab_id):
        state = task_state(c, task, rows, lab.which_attempt)
        if not state.by_handin:
            continue
        expectation = opened.current(c, task.id).expectation
        for handin_id, result in state.by_handin.items():
            checked = result.status == "checked"
            earned = kept_summary(c, result, expectation, kept).earned if checked else None
            touched += enter_outcome(c, lab, handin_id, task.id, result.id, result.status, earned)
    return touched


def _settle_lateness(c: Connection, lab: Lab) -> None:
    extended = {student: e.due_at for student, e in course.extensions(c, lab.id).items()}
    teams = handins.teams_of(c, lab.id)
    for attempt in handins.attempts_of_lab(c, lab.id):
        owners = [attempt.student_id] if attempt.student_id else [m.id for m in teams.get(attempt.team_id or 0, [])]
        late = is_late(lab, attempt.received_at, [extended[s] for s in owners if s in extended])
        if late != attempt.late:
            handins.set_late(c, attempt.id, late)


def override_mark(
    c: Connection, handin_id: int, task_id: int, value: float | None, reason: str, person_id: int
) -> None:
    """A human's mark with its reason; None lifts it again.

    Raises
    ------
    Trouble
        If there is a mark and no reason.
    """
    if value is not None and not reason.strip():
        raise Trouble(422, "say why: an override needs a reason")
    marks.add_mark(c, handin_id, task_id, "override" if value is not None else "lifted", value, reason, None, person_id)
    audit.note(c, person_id, "mark", f"hand-in {handin_id}", {"task": task_id, "value": value, "reason": reason})
