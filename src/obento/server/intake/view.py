"""What is there of a lab's hand-ins, and what is not settled about them."""

from __future__ import annotations

import re
from dataclasses import asdict

from obento.core.texts import decode
from obento.server.course.task_state import TaskState, missing_students, task_state
from obento.server.intake.models import (
    AttemptView,
    DropView,
    Excused,
    FileView,
    IntakeEntry,
    IntakeTask,
    IntakeView,
    Proposal,
    Twice,
    TwiceText,
)
from obento.server.intake.times import times_version
from obento.server.marks.mark import why_held
from obento.server.models import NameBinding
from obento.store import course, drops, handins, people, results
from obento.store.connection import Connection
from obento.store.course import CurrentTask, Lab
from obento.store.handins import FileHead, HandinRow
from obento.store.results import BoundName, KeptOutcomes, Result

_TEXT_BYTES = 400_000


class _Intake:
    """What the lines of an intake are made from, read once."""

    def __init__(self, c: Connection, lab: Lab, kept: KeptOutcomes) -> None:
        self.rows = handins.handins_of(c, lab.id, aside=True)
        self.tasks: list[CurrentTask] = course.tasks_of(c, lab.id)
        self.attempts = handins.lab_attempts(c, lab.id, aside=True)
        self.files: dict[int, list[FileHead]] = handins.file_list(c, lab.id)
        self.states: dict[int, TaskState] = {t.id: task_state(c, t, self.attempts, kept) for t in self.tasks}
        self.outcomes = {t.id: self._outcomes(c, t, kept) for t in self.tasks}
        shown = [r.id for s in self.states.values() for r in s.by_handin.values()]
        self.bindings = results.bindings_of(c, shown)
        self.agreed = {t.id: handins.consents(c, t.id) for t in self.tasks}
        students = people.students(c, lab.class_id)
        self.by_id = {s.id: Proposal(id=s.id, name=s.name, number=s.number, group=s.group_name) for s in students}

    @staticmethod
    def _outcomes(c: Connection, task: CurrentTask, kept: KeptOutcomes) -> dict[int, Result]:
        known = results.results_of(c, task.id, task.version_id, kept.rows) if task.version_id is not None else []
        return {r.attempt_id: r for r in known}

    def entry(self, row: HandinRow) -> IntakeEntry:
        """One hand-in."""
        attempts = self.attempts.by_handin.get(row.id, [])
        found = [self._task(t, row.id) for t in self.tasks if row.id in self.states[t.id].by_handin]
        for_none = self._holds_nothing(row.id)
        owned = row.student_id is not None or row.team_id is not None
        asks = any(not b.agreed for t in found for b in t.binding) or any(t.leftover for t in found)
        troubled = any(t.status != "checked" for t in found)
        student = self.by_id.get(row.student_id or 0)
        return IntakeEntry(
            handin_id=row.id,
            label=row.label or (attempts[-1].label if attempts else ""),
            who=row.who,
            number=row.student_number or "",
            group=student.group if student is not None else "",
            team=row.team_id is not None,
            proposals=[self.by_id[i] for i in row.proposal if i in self.by_id],
            doubt=row.doubt,
            is_team="a team?" in row.doubt,
            aside=row.aside_reason if row.aside_at is not None else None,
            attempts=[
                AttemptView(
                    id=a.id, label=a.label, task_id=a.task_id, received_at=a.received_at, late=a.late,
                    files=[FileView(path=f.path, size=f.size) for f in self.files.get(a.id, [])],
                )
                for a in attempts
            ],
            tasks=found,
            for_none=for_none,
            settled=row.aside_at is not None or (owned and not asks and not troubled and not for_none),
        )  # fmt: skip

    def _holds_nothing(self, handin_id: int) -> bool:
        """Whether its newest attempt was looked at and holds the unit of no task."""
        attempts = self.attempts.by_handin.get(handin_id, [])
        if not attempts or attempts[-1].task_id is not None or len(self.tasks) < 2:
            return False
        looked_at = any(attempts[-1].id in o for o in self.outcomes.values())
        return looked_at and not any(attempts[-1] in s.attempts.get(handin_id, ()) for s in self.states.values())

    def _task(self, task: CurrentTask, handin_id: int) -> IntakeTask:
        result = self.states[task.id].by_handin[handin_id]
        agreed = self.agreed[task.id]
        return IntakeTask(
            task_id=task.id,
            status=result.status,
            language=result.language,
            unit=result.unit,
            binding=[_binding(b, agreed) for b in self.bindings.get(result.id, [])],
            message=why_held(result.status, result.detail.messages),
            twice=[Twice(unit=unit, files=files) for unit, files in result.detail.twice.items()],
            leftover=[],
        )

    def leftovers(self, entry: IntakeEntry) -> list[IntakeTask]:
        """Tasks for which nothing was found in a hand-in that holds a unit which no task takes: it may be misnamed."""
        attempts = self.attempts.by_handin.get(entry.handin_id, [])
        if not attempts or attempts[-1].task_id is not None or len(self.tasks) < 2:
            return []
        taken = {t.unit for t in entry.tasks}
        found = []
        for task in self.tasks:
            result = self.outcomes[task.id].get(attempts[-1].id)
            if result is None or entry.handin_id in self.states[task.id].attempts:
                continue
            units = [u for u in _units_named(result) if u not in taken and not _BENCH.search(u)]
            if units:
                found.append(
                    IntakeTask(task_id=task.id, status="no_unit", language="", unit="", binding=[], twice=[],
                               message=why_held(result.status, result.detail.messages), leftover=units)
                )  # fmt: skip
        return found


_BENCH = re.compile(r"(^|_)(tb|bench|test|testbench)(_|$)|^tb|test$|bench$", re.IGNORECASE)
"""Names that units of benches have."""


def _units_named(result: Result) -> list[str]:
    """The units that a hand-in holds, as the message says that tells of a missing one."""
    hints = [m.hint for m in result.detail.messages if m.code == "no-unit"]
    return re.findall(r"`([^`]+)`", hints[0]) if hints else []


def _binding(b: BoundName, agreed: set[tuple[str, str]]) -> NameBinding:
    is_agreed = b.how in ("chosen", "case") or (b.ours, b.theirs) in agreed
    return NameBinding(ours=b.ours, theirs=b.theirs, how=b.how, agreed=is_agreed)


def intake_view(c: Connection, lab: Lab, kept: KeptOutcomes) -> IntakeView:
    """Every hand-in, the unsettled ones first, and who has handed in nothing."""
    intake = _Intake(c, lab, kept)
    entries = [intake.entry(row) for row in intake.rows]
    for entry in entries:
        if entry.aside is None and (asked := intake.leftovers(entry)):
            entry.tasks += asked
            entry.settled = False
    entries.sort(key=lambda e: (e.aside is not None, e.settled, bool(e.who)))
    excused = course.excused(c, lab.id)
    rows = [r for r in intake.rows if r.aside_at is None]
    return IntakeView(
        entries=entries,
        missing=[intake.by_id[s.id] for s in missing_students(c, lab, rows)],
        excused=[
            Excused(**intake.by_id[i].model_dump(), reason=why) for i, why in excused.items() if i in intake.by_id
        ],
        drops=[_drop(c, d) for d in drops.drops_of(c, lab.id)],
        students=list(intake.by_id.values()),
    )


def _drop(c: Connection, drop: drops.Drop) -> DropView:
    times = drops.entry_times(c, drop.id)
    return DropView(**asdict(drop), first=times[0], last=times[1], version=times_version(c, drop))


def twice_texts(c: Connection, lab: Lab, handin_id: int, task_id: int, kept: KeptOutcomes) -> list[TwiceText]:
    """The texts of the files between which a person has to choose in one task."""
    task = next((t for t in course.tasks_of(c, lab.id) if t.id == task_id), None)
    result = (
        task_state(c, task, handins.lab_attempts(c, lab.id), kept).by_handin.get(handin_id)
        if task is not None
        else None
    )
    if result is None:
        return []
    handed_in = {f.path: f.data for f in handins.attempt_files(c, result.attempt_id)}
    texts = {path: decode(data[:_TEXT_BYTES]) or "" for path, data in handed_in.items()}
    twice: dict[str, list[str]] = result.detail.twice
    return [
        TwiceText(unit=unit, path=path, text=texts.get(path, "")) for unit, files in twice.items() for path in files
    ]
