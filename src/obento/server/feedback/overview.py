"""Comments by cluster, marks and letters by student."""

from __future__ import annotations

from typing import Literal

from obento.server.feedback.letters import letter_for
from obento.server.feedback.models import FeedbackStudent, FeedbackTask, FeedbackView
from obento.server.feedback.outcomes import LabOutcomes
from obento.server.feedback.release import is_same_letter
from obento.server.results.clusters import clusters_of
from obento.store import letters
from obento.store.handins import HandinRow
from obento.store.letters import LetterRow
from obento.store.people import Student


def feedback_view(outcomes: LabOutcomes) -> FeedbackView:
    """The whole lab, before and after its letters are released."""
    return FeedbackView(
        tasks=[
            FeedbackTask(
                id=t.task.id, title=t.task.title, total=t.expectation.spec.marks.total, clusters=clusters_of(t)
            )
            for t in outcomes.tasks
        ],
        students=(rows := student_rows(outcomes)),
        sent=sum(r.letter in ("released", "read") for r in rows),
    )


def student_rows(outcomes: LabOutcomes) -> list[FeedbackStudent]:
    """A row for each student, in the order of the class list."""
    known = letters.letters_of(outcomes.c, outcomes.lab.id)
    return [_student(outcomes, s, known.get(s.id)) for s in outcomes.students]


def _student(outcomes: LabOutcomes, s: Student, letter: LetterRow | None) -> FeedbackStudent:
    row = outcomes.handin_of.get(s.id)
    marks = outcomes.marks(s.id)
    values = [m.value if m else None for m in marks]
    state = "none"
    outdated = False
    if letter is not None:
        state = "withdrawn" if letter.withdrawn_at else "read" if letter.read_at else "released"
        outdated = state != "withdrawn" and not is_same_letter(letter.frozen, letter_for(outcomes, s.id))
    return FeedbackStudent(
        student_id=s.id,
        handin_id=row.id if row else None,
        name=s.name,
        number=s.number,
        team=bool(row and row.team_id),
        marks=values,
        held=[bool(m and m.held) for m in marks],
        by_hand=[bool(m and m.by_hand) for m in marks],
        late=row is not None
        and any(t.state.counting[row.id].late for t in outcomes.tasks if row.id in t.state.counting),
        excused=outcomes.excused.get(s.id, "") if s.id in outcomes.excused else None,
        sum=None if None in values else round(sum(v or 0 for v in values), 2),
        letter=state,
        outdated=outdated,
        mail=_mail(s, letter),
        mail_trouble=_mail_trouble(letter),
        open_comments=_open_comments(outcomes, row),
    )


_FATES: dict[str, Literal["waiting", "sent", "failed"]] = {"queued": "waiting", "sent": "sent", "failed": "failed"}


def _mail(s: Student, letter: LetterRow | None) -> Literal["", "waiting", "sent", "failed", "no address"]:
    """What became of the mail with the link to the newest letter."""
    if letter is None or letter.withdrawn_at:
        return ""
    if letter.delivery is None:
        return "no address" if not s.email else ""
    return _FATES[letter.delivery]


def _mail_trouble(letter: LetterRow | None) -> str:
    """Why the mail with a letter's link has not gone out; empty where it has, or may at any moment."""
    if letter is None or letter.withdrawn_at or not letter.trouble or letter.delivery not in ("queued", "failed"):
        return ""
    return f"{'given up' if letter.delivery == 'failed' else 'tried again'}: {letter.trouble}"


def _open_comments(outcomes: LabOutcomes, row: HandinRow | None) -> int:
    """In how many tasks something is to be said and nothing is written yet."""
    count = 0
    for t in outcomes.tasks:
        result = t.state.by_handin.get(row.id) if row else None
        if result is not None and t.state.kind(result) in ("wrong", "rules", "unchecked"):
            comment = t.comments.get((t.state.cluster_key(result), 0))
            count += not (comment and comment.text.strip())
    return count
