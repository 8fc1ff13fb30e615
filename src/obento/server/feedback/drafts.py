"""Drafts of comments, made from findings: plain words for a whole cluster, with what is each student's own left to
placeholders."""

from __future__ import annotations

from obento.core.check.expectation.model import Expectation
from obento.core.check.judging.outcome import Finding
from obento.core.check.judging.verdict import Verdict
from obento.server.feedback.models import BankEntry
from obento.server.feedback.students_see import for_students
from obento.server.results.outcomes import TaskOutcomes
from obento.store import comments
from obento.store.results import Detail

_CONDITIONAL = frozenset(["wrong", "undefined", "diverges"])
_MOST_SENTENCES = 2
_MOST_FROM_BANK = 8


def draft(outcomes: TaskOutcomes, key: str) -> str:
    """A comment for a cluster; empty where there is nothing to be said."""
    ids = [i for i, r in outcomes.state.by_handin.items() if outcomes.state.cluster_key(r) == key]
    if not ids:
        return ""
    result = outcomes.state.by_handin[ids[0]]
    detail = result.detail
    kind = outcomes.state.kind(result)
    if kind == "right":
        return ""
    if kind == "unchecked":
        return (
            "{name}, your hand-in could not be checked[: {message}][ ({line})]. Please mend this and hand it in again."
        )
    if kind == "rules":
        return "{name}, it does what it should in every case, but not in the way that was asked for: {rule}."
    verdict = outcomes.verdict(result)
    parts = [_opening(outcomes.expectation, verdict), *_sentences(outcomes.expectation, verdict, detail.findings)]
    if outcomes.expectation.spec.see not in ("nothing", "counts"):
        parts.append("[Have a look at {line}.]")
        parts.append("[One change would make every case right: {change}.]")
    if any(not r.ok for r in detail.rules):
        parts.append("[Mind the rules too: {rule}.]")
    return " ".join(p for p in parts if p)


def _opening(expectation: Expectation, verdict: Verdict) -> str:
    if expectation.spec.see == "nothing":
        return "{name}, not every case is right yet."
    what = "steps" if expectation.cases.stimulus is not None else "cases"
    if verdict.passed.bit_count() == 0:
        return f"{{name}}, none of the {what} is right yet."
    return f"{{name}}, {{right}} of {{total}} {what} are right."


def _sentences(expectation: Expectation, verdict: Verdict, findings: list[Finding]) -> list[str]:
    """The kinds of slips first; where there are none, when it fails."""
    told = for_students(expectation, verdict, findings)
    slips = [f for f in told if f.kind not in _CONDITIONAL]
    conditions = [f for f in told if f.kind in _CONDITIONAL]
    if slips:
        return [_sentence(f.text) for f in slips[:_MOST_SENTENCES]]
    if len(conditions) == 1 and " whenever " in conditions[0].text:
        return [_sentence(conditions[0].text.partition(" whenever ")[0] + " whenever {when}")]
    return [_sentence(f.text) for f in conditions[:_MOST_SENTENCES]]


def _sentence(text: str) -> str:
    """A finding as a sentence of its own: names at its beginning stay as they are."""
    return f"{text[0].upper() + text[1:] if text.startswith(('it ', 'the ', 'right ', 'does ', 'this ')) else text}."


def from_bank(outcomes: TaskOutcomes, key: str, person_id: int) -> list[BankEntry]:
    """Comments of earlier labs and other tasks, those on the same kind of mistake first."""
    own = next((r for r in outcomes.state.by_handin.values() if outcomes.state.cluster_key(r) == key), None)
    kind = _kind(own.detail) if own is not None else ""
    seen: set[str] = set()
    entries: list[tuple[bool, BankEntry]] = []
    for row in comments.comments_by(outcomes.c, person_id, outcomes.task.id, key):
        if row.text not in seen:
            seen.add(row.text)
            is_same = bool(kind) and _kind(row.detail) == kind
            entries.append((not is_same, BankEntry(text=row.text, place=f"{row.lab}: {row.task}", same_kind=is_same)))
    entries.sort(key=lambda pair: pair[0])
    return [entry for _, entry in entries[:_MOST_FROM_BANK]]


def _kind(detail: Detail | None) -> str:
    """What kind of mistake an outcome shows first; of one that was not checked the code of its first error."""
    if detail is None:
        return ""
    if detail.findings:
        return detail.findings[0].kind
    return next((m.code for m in detail.messages if m.severity == "error"), "")
