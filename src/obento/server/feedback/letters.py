"""A student's letter: written from comments and outcomes, as far as the spec lets students see them."""

from __future__ import annotations

from obento.core.check.expectation.model import inputs_text
from obento.core.diagnostics import Message
from obento.core.sentences.said import in_language, one_after_another, say
from obento.runner.engine import engine_version
from obento.server.cases.models import CaseRow
from obento.server.cases.rows import case_rows, first_wrong, wrong_cases
from obento.server.errors import not_found
from obento.server.feedback.changes import changes_view
from obento.server.feedback.models import Letter, LetterTask, sheet_words
from obento.server.feedback.outcomes import LabOutcomes
from obento.server.feedback.placeholders import fill, own_words
from obento.server.marks.lateness import late_words
from obento.server.marks.mark import held_reason
from obento.server.results.outcomes import TaskOutcomes
from obento.server.review.waves import around
from obento.server.specs.cases import port_views
from obento.store.handins import Attempt, HandinRow
from obento.store.results import Result

_MOST_ROWS = 64
_MOST_STEPS = 10


def letter_for(outcomes: LabOutcomes, student_id: int) -> Letter:
    """A student's letter as it would be released now.

    Raises
    ------
    Trouble
        If the student is not of this class.
    """
    student = next((s for s in outcomes.students if s.id == student_id), None)
    if student is None:
        raise not_found("student")
    row = outcomes.handin_of.get(student_id)
    parts = [_task(t, row, student.name) for t in outcomes.tasks]
    marks = [p.mark for p in parts]
    others = [m.name for m in outcomes.teams.get(row.team_id, []) if m.id != student_id] if row and row.team_id else []
    came = {(p.attempt, p.received_at, p.is_late) for p in parts if p.attempt}
    attempt, received_at, late = came.pop() if len(came) == 1 else (0, None, False)
    lab = outcomes.lab
    return Letter(
        school=lab.school,
        class_name=lab.class_name,
        lab=lab.title,
        student=student.name,
        team=others,
        attempt=attempt,
        received_at=received_at,
        late=late,
        tasks=parts,
        mark=None if any(m is None for m in marks) else round(sum(m or 0 for m in marks), 2),
        total=sum(p.total for p in parts),
        excused=outcomes.excused.get(student_id, ""),
        language=lab.language,
        words=sheet_words(lab.language),
        handin_id=row.id if row is not None else None,
    )


def _task(t: TaskOutcomes, row: HandinRow | None, student: str) -> LetterTask:
    """The part of a letter on one task."""
    result = t.state.by_handin.get(row.id) if row else None
    language = t.lab.language
    letter = _for_nothing(t)
    if row is None:
        return letter
    counting = t.state.counting.get(row.id)
    if counting is not None:
        letter.attempt = t.state.attempts[row.id].index(counting) + 1
        letter.received_at, letter.is_late = counting.received_at, counting.late
        letter.status, letter.held = "waiting", in_language(say("held-not-checked"), language)
    if result is None:
        return letter
    mark = t.mark(row.id)
    letter.status, letter.mark = result.status, mark.value
    if mark.held:
        held = held_reason(result.status)
        letter.held = in_language(held if held == mark.reason else mark.reason, language)
    elif not mark.by_hand:
        letter.late = _taken_off(t, row.id, counting, mark.reason)
    letter.messages = [_message(m) for m in result.detail.messages if m.severity == "error"]
    read_as = [say("read-as", theirs=b.theirs, ours=b.ours) for b in t.bindings.get(result.id, []) if b.how != "case"]
    letter.bound = [in_language(text, language) for text in read_as]
    if result.status == "checked":
        _put_cases(letter, t, result)
    key = t.state.cluster_key(result)
    comment, note = t.comments.get((key, 0)), t.comments.get(("", row.id))
    values = own_words(t, result) | {
        "name": student.split(" ")[0], "right": str(letter.passed), "total": str(letter.compared),
        "mark": "" if mark.value is None else f"{mark.value:g}",
    }  # fmt: skip
    letter.comment = fill(comment.text if comment else "", values)
    letter.note = fill(note.text if note else "", values)
    letter.changes = [*changes_view("comment", letter.comment), *changes_view("note", letter.note)]
    return letter


def _taken_off(t: TaskOutcomes, handin_id: int, counting: Attempt | None, reason: str) -> str:
    """Why a mark is less, as the ledger has it; what it says of lateness in the language of the class."""
    late = t.due.lateness(handin_id, counting.received_at) if counting is not None and counting.late else None
    if late is None:
        return reason
    off = next((e.value or 0.0 for e in reversed(t.entries(handin_id)) if e.kind == "late"), 0.0)
    said = late_words(late, off)
    return in_language(said, t.lab.language) + reason[len(said) :] if reason.startswith(said) else reason


def _for_nothing(t: TaskOutcomes) -> LetterTask:
    """What stands there where nothing was handed in."""
    spec = t.expectation.spec
    return LetterTask(
        title=t.task.title,
        status="missing",
        passed=0,
        compared=0,
        mark=None,
        total=spec.marks.total,
        held=in_language(say("held-missing"), t.lab.language),
        late="",
        comment="",
        note="",
        inputs=[p.name for p in spec.inputs],
        outputs=[p.name for p in spec.outputs],
        ports=port_views(spec),
        rows=[],
        more=0,
        messages=[],
        bound=[],
        again="",
        spec_version=t.spec.number,
        engine=engine_version(),
    )


def _message(m: Message) -> str:
    if not m.line:
        return m.text
    return f"{m.file}:{m.line}: {m.text}" + (f" ({m.hint})" if m.hint else "")


def _put_cases(letter: LetterTask, t: TaskOutcomes, result: Result) -> None:
    """How many cases are right, and those that may be seen of the wrong ones."""
    expectation, verdict = t.expectation, t.verdict(result)
    see = expectation.spec.see
    hidden = expectation.hidden
    own = [i for i in first_wrong(expectation, verdict) if not hidden >> i & 1]
    most = _MOST_ROWS if expectation.cases.stimulus is None else _MOST_STEPS
    shown = {"all": own[:most], "first-failing": own[:1]}.get(see, [])
    letter.rows = case_rows(expectation, verdict, shown)
    letter.again = in_language(_again(letter.rows, letter.inputs, letter.outputs), t.lab.language)
    if shown:
        letter.waves = around(expectation, verdict, shown[0], lambda step: bool(hidden >> step & 1))
    if see != "nothing":
        letter.passed = verdict.passed.bit_count()
        letter.compared = (expectation.cases.full & ~verdict.not_compared).bit_count()
        letter.more = len(wrong_cases(verdict)) - len(shown)


def _again(rows: list[CaseRow], inputs: list[str], outputs: list[str]) -> str:
    """How to see the first failing case again."""
    if not rows:
        return ""
    row = rows[0]
    looks = one_after_another(
        [
            say("should-be", output=n, expected=e, actual=a)
            for n, e, a, w in zip(outputs, row.expected, row.actual, row.wrong, strict=True)
            if w
        ]
    )
    if row.step is not None:
        return say("go-through", sequence=row.step.sequence, number=row.step.number, looks=looks)
    given = inputs_text(inputs, row.inputs)
    if row.run != "fresh":
        return say("set-case-after", inputs=given, bit=row.run.removeprefix("after "), looks=looks)
    return say("set-case", inputs=given, looks=looks)
