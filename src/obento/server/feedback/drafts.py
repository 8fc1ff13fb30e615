"""Drafts of comments, made from findings: plain words for a whole cluster, with what is each student's own left to
placeholders."""

from __future__ import annotations

from obento.core.check.expectation.model import Expectation
from obento.core.check.judging.outcome import Finding
from obento.core.check.judging.verdict import Verdict
from obento.core.sentences.said import ENGLISH, Said, in_language, say, templates
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
    detail, language = result.detail, outcomes.lab.language
    kind = outcomes.state.kind(result)
    if kind == "right":
        return ""
    if kind == "unchecked":
        return in_language(say("not-checked"), language)
    if kind == "rules":
        return in_language(say("against-rules"), language)
    verdict = outcomes.verdict(result)
    parts: list[str] = [say(_opening(outcomes.expectation, verdict))]
    parts += _sentences(outcomes.expectation, verdict, detail.findings)
    if outcomes.expectation.spec.see not in ("nothing", "counts"):
        parts += [say("look-at"), say("one-change")]
    if any(not r.ok for r in detail.rules):
        parts.append(say("mind-rules"))
    return " ".join(_begun(in_language(p, language), p) for p in parts)


def _opening(expectation: Expectation, verdict: Verdict) -> str:
    if expectation.spec.see == "nothing":
        return "not-every-case"
    is_clocked = expectation.cases.stimulus is not None
    if verdict.passed.bit_count() == 0:
        return "no-step" if is_clocked else "no-case"
    return "some-steps" if is_clocked else "some-cases"


def _sentences(expectation: Expectation, verdict: Verdict, findings: list[Finding]) -> list[str]:
    """The kinds of slips first; where there are none, when it fails."""
    told = for_students(expectation, verdict, findings)
    slips = [f for f in told if f.kind not in _CONDITIONAL]
    conditions = [f for f in told if f.kind in _CONDITIONAL]
    if not slips and len(conditions) == 1 and " whenever " in conditions[0].text:
        return [say("sentence", text=_with_placeholder(conditions[0].text))]
    return [say("sentence", text=f.text) for f in (slips or conditions)[:_MOST_SENTENCES]]


def _with_placeholder(text: str) -> str:
    """A sentence with a condition, with the placeholder for each one's own in its place, and no numbers of cases."""
    if isinstance(text, Said) and f"{text.key}-own" in templates(ENGLISH):
        return Said(f"{text.key}-own", {k: v for k, v in text.values.items() if k != "when"})
    return text.partition(" whenever ")[0] + " whenever {when}"


def _begun(text: str, said: str) -> str:
    """A sentence with a capital, unless it begins with the name of a port or has one already."""
    first = said.values["text"] if isinstance(said, Said) and said.key == "sentence" else ""
    is_name = isinstance(first, Said) and any(first.startswith(str(v)) for v in first.values.values())
    return text if is_name or not first else text[0].upper() + text[1:]


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
