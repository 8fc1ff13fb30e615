"""Comments with what is each student's own filled in."""

from __future__ import annotations

import re
from datetime import UTC, datetime

from obento.core.check.judging.outcome import Finding
from obento.core.check.mutation.smallest_change import Change
from obento.core.diagnostics import Message
from obento.core.sentences.said import Said, in_language, say
from obento.server.feedback.students_see import for_students
from obento.server.results.outcomes import TaskOutcomes
from obento.store.results import Result

_CONDITIONAL = ("wrong", "undefined")
_PLACEHOLDER = re.compile(r"\{(name|right|total|mark|when|line|file|unit|change|message|rule)\}")
_SENTENCE = re.compile(r"[^.!?\n]*(?:[.!?](?!\s|$)[^.!?\n]*)*(?:[.!?]+[ \t]*|\n+|$)")
"""A sentence with what ends it; a point inside a word or number ends none."""
_OPTIONAL = re.compile(r"\[([^][]*\{[a-z]+\}[^][]*)\]")


def fill(text: str, values: dict[str, str]) -> str:
    """Put each student's own words into a comment.

    A part in square brackets is left out when a placeholder inside it has no value, a sentence when one outside of any
    has none.
    """

    def optional(m: re.Match[str]) -> str:
        return m[1] if all(values.get(name) for name in _PLACEHOLDER.findall(m[1])) else ""

    text = _OPTIONAL.sub(optional, text)
    kept = [s for s in _SENTENCE.findall(text) if all(values.get(name) for name in _PLACEHOLDER.findall(s))]
    text = re.sub(r"  +", " ", "".join(kept)).strip()
    return _PLACEHOLDER.sub(lambda m: values[m[1]], text)


def own_words(t: TaskOutcomes, result: Result) -> dict[str, str]:
    """When it fails, where, and what would mend it: as far as the spec lets students see it."""
    verdict = t.verdict(result) if result.status == "checked" else None
    told = for_students(t.expectation, verdict, result.detail.findings)
    # A sentence with a condition first: it is what {when} stands for.
    finding = next((f for f in sorted(told, key=lambda f: f.kind not in _CONDITIONAL) if f.output), None)
    errors = [m for m in result.detail.messages if m.severity == "error"]
    message = next((m for m in errors if m.line), errors[0] if errors else None)
    change = _change(t, result)
    # The line to look at is the one to be changed, where that is known.
    place: Change | Finding | Message | None = (
        change or finding or (message if message is not None and message.line else None)
    )
    language = t.lab.language
    change_in = say("change-in", change=change.text, number=change.line) if change is not None else ""
    return {
        "when": _when(finding, language),
        "line": in_language(say("line", number=place.line), language) if place is not None and place.line else "",
        "file": place.file if place is not None else "",
        "unit": result.unit,
        "change": in_language(change_in, language),
        "message": message.text + (f" ({message.hint})" if message.hint else "") if message else "",
        "rule": "; ".join(r.text for r in result.detail.rules if not r.ok),
    }


def _change(t: TaskOutcomes, result: Result) -> Change | None:
    """The smallest change that is known, if it may be told, and may be by now."""
    repair, spec = t.repairs.get(result.id), t.expectation.spec
    if repair is None or not repair.changes or spec.see in ("nothing", "counts") or spec.tell_change == "never":
        return None
    if spec.tell_change == "after due" and not t.due.are_over(datetime.now(UTC).replace(tzinfo=None)):
        return None  # who can hand in once more would have it done by us
    return repair.changes[0]


def _when(finding: Finding | None, language: str) -> str:
    """The condition in a sentence; of an outcome of old, which does not say how its sentences were made, what stands
    behind the word for it."""
    text = finding.text if finding else ""
    if isinstance(text, Said):
        return in_language(text.values.get("when", ""), language)
    return (text.partition(" whenever ")[2] or text.partition(" only when ")[2]).rpartition(":")[0]
