"""What the class as a whole got wrong, for the lecture: no names, nothing that hidden groups would give away."""

from __future__ import annotations

from collections import Counter

import numpy as np

from obento.server.course.task_state import missing_students
from obento.server.feedback.models import ClassReport, HardCase, Mistake, ReportTask
from obento.server.feedback.outcomes import LabOutcomes
from obento.server.feedback.students_see import for_the_class
from obento.server.results.clusters import clusters_of
from obento.server.results.models import ClusterView
from obento.server.results.outcomes import TaskOutcomes
from obento.server.results.summary import failures_by_case
from obento.server.specs.cases import case_label
from obento.store.erased import ErasedOutcome

_BINS = 10
_MOST_MISTAKES = 8
_MOST_CASES = 8
_TEACH_AGAIN = 3


def class_report(outcomes: LabOutcomes) -> ClassReport:
    """All tasks of a lab, and the commonest mistakes over them."""
    ids = {s.id for s in outcomes.students}
    erased = {t.task.id: outcomes.erased(t.task.id) for t in outcomes.tasks}
    tasks = [_task(t, ids, erased[t.task.id]) for t in outcomes.tasks]
    every = [(m, t) for t in tasks for m in t.mistakes]
    every.sort(key=lambda pair: (-pair[0].count, pair[1].title))
    again = [Mistake(text=m.text, count=m.count, of=m.of, task=t.title) for m, t in every[:_TEACH_AGAIN] if m.count > 1]
    return ClassReport(
        lab=outcomes.lab.title,
        class_name=outcomes.lab.class_name,
        school=outcomes.lab.school,
        students=len(ids) + len({o.student_id for found in erased.values() for o in found}),
        tasks=tasks,
        teach_again=again,
    )


def _task(t: TaskOutcomes, students: set[int], erased: list[ErasedOutcome]) -> ReportTask:
    """One task, of these students, and of those who were erased."""
    clusters = clusters_of(t)
    members = {
        kind: sum(len(c.members) for c in clusters if c.kind == kind) + sum(o.kind == kind for o in erased)
        for kind in ("right", "rules", "wrong", "unchecked")
    }
    checked = members["right"] + members["rules"] + members["wrong"]
    mistakes: Counter[str] = Counter()
    for cluster in clusters:
        if cluster.kind in ("wrong", "rules"):
            mistakes[told_title(t, cluster)] += len(cluster.members)
    mistakes.update(o.title for o in erased if o.title)
    marks = [m.mark for c in clusters for m in c.members if m.mark is not None]
    marks += [o.mark for o in erased if o.mark is not None]
    total = t.expectation.spec.marks.total
    histogram = [0] * _BINS
    for mark in marks:
        histogram[min(_BINS - 1, int(_BINS * max(0.0, mark) / total))] += 1
    ordered = sorted(marks)
    return ReportTask(
        title=t.task.title,
        total=total,
        handed_in=sum(members.values()),
        right=members["right"] + members["rules"],
        wrong=members["wrong"],
        unchecked=members["unchecked"],
        missing=sum(s.id in students for s in missing_students(t.c, t.lab, t.every, t.state.attempts))
        + sum(o.kind == "missing" for o in erased),
        histogram=histogram,
        middle=ordered[len(ordered) // 2] if ordered else None,
        mistakes=[Mistake(text=text, count=n, of=checked, task="") for text, n in mistakes.most_common(_MOST_MISTAKES)],
        hardest=_hardest(t, checked, erased),
    )


def told_title(t: TaskOutcomes, cluster: ClusterView) -> str:
    """What a cluster has in common, in words that give nothing hidden away."""
    result = t.state.by_handin[cluster.members[0].handin_id]
    if not t.expectation.spec.hidden or result.status != "checked":
        return cluster.title
    findings = result.detail.findings
    told = for_the_class(t.expectation, t.verdict_of(cluster.members[0].handin_id), findings)
    if told == findings:
        return cluster.title
    outputs = list(dict.fromkeys(f.output for f in findings if f.output))
    return str(told[0].text) if told else f"{' and '.join(outputs) or 'something'} wrong"


def _hardest(t: TaskOutcomes, checked: int, erased: list[ErasedOutcome]) -> list[HardCase]:
    """The cases that most hand-ins get wrong; of clocked tasks the steps at which most go astray. Hidden groups stay
    hidden."""
    failures = failures_by_case(t)
    for outcome in erased:
        if outcome.spec_version_id == t.spec.version_id and outcome.failed:
            bad = np.frombuffer(outcome.failed, dtype=np.uint8)
            failures += np.unpackbits(bad, bitorder="little", count=t.expectation.cases.count).astype(np.int64)
    hidden = t.expectation.hidden
    found = []
    for case in np.argsort(-failures, kind="stable")[:_MOST_CASES].tolist():
        if failures[case]:
            label = "a hidden case" if hidden >> case & 1 else case_label(t.expectation, case)
            found.append(HardCase(label=label, failed=int(failures[case]), of=checked))
    return found


def report_rows(report: ClassReport) -> list[list[object]]:
    """The report as rows for a table: task, what, text, how many, of how many."""
    rows: list[list[object]] = []
    for t in report.tasks:
        rows += [[t.title, "mistake", m.text, m.count, m.of] for m in t.mistakes]
        rows += [[t.title, "case", c.label, c.failed, c.of] for c in t.hardest]
        rows += [
            [t.title, "marks", f"{10 * i} to {10 * i + 10} %", n, sum(t.histogram)] for i, n in enumerate(t.histogram)
        ]
    return rows
