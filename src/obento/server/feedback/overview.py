"""Comments by cluster, marks and letters by student."""

from __future__ import annotations

from obento.server.feedback.letters import letter_for
from obento.server.feedback.models import FeedbackStudent, FeedbackTask, FeedbackView
from obento.server.feedback.picture import LabPicture
from obento.server.feedback.release import is_same_letter
from obento.server.results.clusters import clusters_of
from obento.store import letters
from obento.store.handins import HandinRow
from obento.store.letters import LetterRow
from obento.store.people import Student


def feedback_view(picture: LabPicture) -> FeedbackView:
    """The whole lab, before and after its letters are released."""
    return FeedbackView(
        tasks=[
            FeedbackTask(
                id=t.task.id, title=t.task.title, total=t.expectation.spec.marks.total, clusters=clusters_of(t)
            )
            for t in picture.tasks
        ],
        students=(rows := student_rows(picture)),
        sent=sum(r.letter in ("released", "read") for r in rows),
    )


def student_rows(picture: LabPicture) -> list[FeedbackStudent]:
    """A row for each student, in the order of the class list."""
    known = letters.letters_of(picture.c, picture.lab.id)
    return [_student(picture, s, known.get(s.id)) for s in picture.students]


def _student(picture: LabPicture, s: Student, letter: LetterRow | None) -> FeedbackStudent:
    row = picture.handin_of.get(s.id)
    marks = picture.marks(s.id)
    values = [m.value if m else None for m in marks]
    state = "none"
    outdated = False
    if letter is not None:
        state = "withdrawn" if letter.withdrawn_at else "read" if letter.read_at else "released"
        outdated = state != "withdrawn" and not is_same_letter(letter.frozen, letter_for(picture, s.id))
    return FeedbackStudent(
        student_id=s.id,
        handin_id=row.id if row else None,
        name=s.name,
        number=s.number,
        team=bool(row and row.team_id),
        marks=values,
        held=[bool(m and m.held) for m in marks],
        by_hand=[bool(m and m.by_hand) for m in marks],
        late=bool(row and row.late),
        sum=None if None in values else round(sum(v or 0 for v in values), 2),
        letter=state,
        outdated=outdated,
        open_comments=_open_comments(picture, row),
    )


def _open_comments(picture: LabPicture, row: HandinRow | None) -> int:
    """In how many tasks something is to be said and nothing is written yet."""
    count = 0
    for t in picture.tasks:
        result = t.state.by_handin.get(row.id) if row else None
        if result is not None and t.state.kind(result) in ("wrong", "rules", "unchecked"):
            comment = t.comments.get((t.state.cluster_key(result), 0))
            count += not (comment and comment.text.strip())
    return count
