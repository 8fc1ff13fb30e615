"""What of somebody who is erased goes on to count in the sums of a report."""

from __future__ import annotations

from collections.abc import Iterator

from obento.server.feedback.outcomes import LabOutcomes
from obento.server.feedback.report import told_title
from obento.server.results.clusters import clusters_of
from obento.server.results.outcomes import TaskOutcomes
from obento.store.erased import ErasedOutcome
from obento.store.packing import pack

_MOST_TITLE = 500


def sums_of(outcomes: LabOutcomes, student_id: int, said: list[str]) -> Iterator[ErasedOutcome]:
    """A line for each task of a lab, of a hand-in of their own; that of a team stays and counts by itself.

    Parameters
    ----------
    said
        Texts that must not stand in what is kept: name, number, address.
    """
    row = outcomes.handin_of.get(student_id)
    for t in outcomes.tasks:
        if row is None or row.id not in t.state.attempts:
            kind = "excused" if student_id in outcomes.excused else "missing"
            found = ErasedOutcome(student_id, t.task.id, None, kind, None, "", b"")
        elif row.student_id != student_id:
            found = ErasedOutcome(student_id, t.task.id, None, "team", None, "", b"")
        else:
            found = _outcome(t, student_id, row.id)
        if any(text and text.lower() in found.title.lower() for text in said):
            found = ErasedOutcome(
                student_id, t.task.id, found.spec_version_id, found.kind, found.mark, "something wrong", found.failed
            )
        yield found


def _outcome(t: TaskOutcomes, student_id: int, handin_id: int) -> ErasedOutcome:
    for cluster in clusters_of(t):
        member = next((m for m in cluster.members if m.handin_id == handin_id), None)
        if member is None:
            continue
        title = told_title(t, cluster)[:_MOST_TITLE] if cluster.kind in ("wrong", "rules") else ""
        result = t.state.by_handin.get(handin_id)
        wrong = t.astray(result) if result is not None and result.status == "checked" else 0
        return ErasedOutcome(
            student_id,
            t.task.id,
            t.spec.version_id,
            cluster.kind,
            member.mark,
            title,
            pack(wrong, t.expectation.cases.count),
        )
    return ErasedOutcome(student_id, t.task.id, None, "unchecked", None, "", b"")
