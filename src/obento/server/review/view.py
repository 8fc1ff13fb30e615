"""One hand-in beside its spec."""

from __future__ import annotations

from dataclasses import asdict

from obento.core.check.explaining.divergence import diverge
from obento.core.check.judging.verdict import Verdict
from obento.core.planes import set_bits
from obento.core.texts import decode
from obento.server.cases.models import CaseRow
from obento.server.cases.rows import case_rows, wrong_cases
from obento.server.errors import not_found
from obento.server.models import MessageView, NameBinding
from obento.server.results.clusters import member_of
from obento.server.results.models import Member
from obento.server.results.outcomes import TaskOutcomes
from obento.server.review.earlier import EarlierComments
from obento.server.review.models import LineNote, ReviewView, Since, SourceFileView
from obento.server.specs.cases import port_views
from obento.store import handins, results
from obento.store.results import Detail, Result

_MOST_ROWS = 512
_TEXT_BYTES = 400_000


def review_view(outcomes: TaskOutcomes, handin_id: int, earlier: EarlierComments) -> ReviewView:
    """Everything that the review of a hand-in shows at once.

    Raises
    ------
    Trouble
        If it has no outcome.
    """
    result = outcomes.state.by_handin.get(handin_id)
    if handin_id not in outcomes.by_handin or result is None:
        raise not_found("outcome of this hand-in")
    spec, detail = outcomes.expectation.spec, result.detail
    key = outcomes.state.cluster_key(result)
    rows, more = _rows(outcomes, result)
    attempt = outcomes.state.counting[handin_id]
    mark = outcomes.mark(handin_id)
    comment, note = outcomes.comments.get((key, 0)), outcomes.comments.get(("", handin_id))
    return ReviewView(
        handin_id=handin_id,
        name=outcomes.name(handin_id),
        status=result.status,
        language=result.language,
        unit=result.unit,
        attempt=result.attempt,
        attempts=len(outcomes.state.attempts[handin_id]),
        received_at=attempt.received_at,
        late=attempt.late,
        passed=result.passed,
        total=result.total,
        marks_by_people=sum(e.kind in ("override", "manual", "lifted") for e in outcomes.entries(handin_id)),
        mark=mark.value,
        held=mark.held,
        mark_reason=mark.reason,
        max_mark=spec.marks.total,
        inputs=[p.name for p in spec.inputs],
        outputs=[p.name for p in spec.outputs],
        rows=rows,
        more_rows=more,
        clocked=outcomes.expectation.cases.stimulus is not None,
        since=_since(outcomes, handin_id, result),
        output=detail.output,
        ports=port_views(spec),
        clock=spec.clock.port if spec.clock else "",
        findings=[f.text for f in detail.findings],
        rules=[r.text for r in detail.rules if not r.ok],
        files=_files(outcomes, result),
        notes=_line_notes(detail),
        messages=[MessageView(**asdict(m)) for m in detail.messages],
        binding=_binding(outcomes, result),
        cluster=key,
        same=_same(outcomes, key),
        comment=comment.text if comment else "",
        comment_version=comment.version if comment else 0,
        comment_before=earlier.of(key) if not (comment and comment.text.strip()) else None,
        note=note.text if note else "",
        note_version=note.version if note else 0,
    )


def review_cases(outcomes: TaskOutcomes, handin_id: int) -> list[int]:
    """The cases that the review of a hand-in shows, in its order."""
    return _order(outcomes, outcomes.verdict(outcomes.checked(handin_id)))[:_MOST_ROWS]


def _order(outcomes: TaskOutcomes, verdict: Verdict) -> list[int]:
    """Failing cases first; of clocked hand-ins the steps that are wrong of themselves before those that follow."""
    if outcomes.expectation.cases.stimulus is None:
        return wrong_cases(verdict) + set_bits(verdict.right)
    found = diverge(outcomes.expectation, verdict)
    return set_bits(found.first) + set_bits(found.follows) + set_bits(verdict.right)


def _rows(outcomes: TaskOutcomes, result: Result) -> tuple[list[CaseRow], int]:
    """The rows to show, and how many there are besides."""
    verdict = outcomes.verdict_if_run(result)
    if verdict is None:
        return [], 0
    order = _order(outcomes, verdict)
    rows = case_rows(outcomes.expectation, verdict, order[:_MOST_ROWS])
    return rows, len(order) - len(rows)


def _files(outcomes: TaskOutcomes, result: Result) -> list[SourceFileView]:
    files = []
    for file in handins.attempt_files(outcomes.c, result.attempt_id):
        text = decode(file.data[:_TEXT_BYTES])
        files.append(SourceFileView(path=file.path, text=text if text is not None else "(no text file)"))
    return files


def _binding(outcomes: TaskOutcomes, result: Result) -> list[NameBinding]:
    agreed = handins.consents(outcomes.c, outcomes.task.id)
    bound = outcomes.bindings.get(result.id, [])
    return [NameBinding(ours=b.ours, theirs=b.theirs, how=b.how, agreed=(b.ours, b.theirs) in agreed) for b in bound]


def _same(outcomes: TaskOutcomes, key: str) -> list[Member]:
    """Everybody in the same cluster."""
    state = outcomes.state
    checked = (i for i in outcomes.by_handin if i in state.by_handin)
    return [member_of(outcomes, i) for i in checked if state.cluster_key(state.by_handin[i]) == key]


def _since(outcomes: TaskOutcomes, handin_id: int, result: Result) -> Since | None:
    """What turned since the attempt before."""
    before = outcomes.state.attempts[handin_id][: result.attempt - 1]
    if not before:
        return None
    earlier = results.latest_of(outcomes.c, before[-1].id, outcomes.task.id, result.spec_version_id)
    if earlier is None:
        return Since(attempt=len(before), is_known=False)
    planes = outcomes.cases_of([earlier, result])
    was, now = planes[earlier.planes].wrong, planes[result.planes].wrong
    return Since(
        attempt=len(before),
        is_known=True,
        status=earlier.status,
        passed=earlier.passed,
        turned_right=set_bits(was & ~now),
        turned_wrong=set_bits(now & ~was),
    )


def _line_notes(detail: Detail) -> list[LineNote]:
    """Messages and findings that belong to a line; what is both is said once, as a finding with its advice."""
    advice = {(m.file, m.line, m.text): m.hint for m in detail.messages if m.line}
    found = {(f.file, f.line, str(f.text)) for f in detail.findings if f.line}
    notes = [
        LineNote(file=m.file, line=m.line, severity=m.severity, text=_advised(m.text, m.hint))
        for m in detail.messages
        if m.line and (m.file, m.line, m.text) not in found
    ]
    return notes + [
        LineNote(file=file, line=line, severity="finding", text=_advised(text, advice.get((file, line, text), "")))
        for file, line, text in dict.fromkeys((f.file, f.line, str(f.text)) for f in detail.findings if f.line)
    ]


def _advised(text: str, hint: str) -> str:
    return f"{text} ({hint})" if hint else text
