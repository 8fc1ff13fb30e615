"""Taking in a drop, and settling whose is what."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime

from obento.core.handin import HandinFile
from obento.core.texts import decode
from obento.intake.archive import Drop, printable
from obento.intake.batch import split_children
from obento.intake.names import RosterName, match_students
from obento.server.course.task_state import missing_students, task_state
from obento.server.errors import Trouble, not_found
from obento.server.intake.models import (
    DropResult,
    DropView,
    FileView,
    IntakeEntry,
    IntakeTask,
    IntakeView,
    Proposal,
    Twice,
    TwiceText,
)
from obento.server.marks.ledger import is_late, settle_lab
from obento.server.marks.mark import why_held
from obento.server.models import NameBinding
from obento.server.specs.opened import OpenedSpecs
from obento.store import audit, course, handins, people, results
from obento.store.connection import Connection
from obento.store.course import Lab
from obento.store.results import BoundName, KeptOutcomes, Result

_TEXT_BYTES = 400_000


def take_in(
    c: Connection, lab: Lab, name: str, inner: Drop, person_id: int, received_at: datetime | None = None
) -> DropResult:
    """Take in what one upload holds. All of it or nothing."""
    left_out = inner.left_out
    received = received_at or datetime.now(UTC).replace(tzinfo=None)
    roster = [RosterName(s.id, s.number, s.name) for s in people.students(c, lab.class_id)]
    grouped: dict[tuple[int, ...] | str, list[tuple[str, list[HandinFile]]]] = {}
    likely: dict[str, tuple[int, ...]] = {}
    for label, files in split_children(inner.files).items():
        match = match_students(label, roster)
        key: tuple[int, ...] | str = match.sure or label
        grouped.setdefault(key, []).append((label, files))
        likely[label] = match.likely
    extended = course.extensions(c, lab.id)
    result = DropResult(handins=len(grouped), new_attempts=0, repeated=0, unsettled=0, left_out=left_out)
    for key, parts in grouped.items():
        label = parts[0][0]
        files = parts[0][1] if len(parts) == 1 else [
            replace(f, path=f.path if f.path.startswith(part) else f"{part}/{f.path}") for part, fs in parts for f in fs
        ]  # fmt: skip
        student_id, team_id = _owner(c, lab.id, key, roster)
        handin_id = handins.handin_for(c, lab.id, student_id, team_id, label)
        if student_id is None and team_id is None:
            result.unsettled += 1
            handins.set_proposal(c, handin_id, likely[label])
        owners = [student_id] if student_id else [m.id for m in handins.teams_of(c, lab.id).get(team_id or 0, [])]
        late = is_late(lab, received, [extended[i].due_at for i in owners if i in extended])
        if handins.add_attempt(c, handin_id, label, _unique(files), received, late) is None:
            result.repeated += 1
        else:
            result.new_attempts += 1
    handins.add_drop(c, lab.id, person_id, name, len(inner.files), left_out)
    audit.note(c, person_id, "intake", f"lab {lab.id}", {"drop": printable(name), "hand-ins": result.handins})
    return result


def _unique(files: list[HandinFile]) -> list[HandinFile]:
    return list({f.path: f for f in files}.values())


def _owner(
    c: Connection, lab_id: int, key: tuple[int, ...] | str, roster: list[RosterName]
) -> tuple[int | None, int | None]:
    if isinstance(key, str):
        return None, None
    if len(key) == 1:
        team = handins.team_of(c, lab_id, key[0])
        return (None, team) if team is not None else (key[0], None)
    names = {s.id: s.name for s in roster}
    return None, handins.put_team(c, lab_id, " and ".join(names[i] for i in key), key)


def assign_owner(
    c: Connection, handin_id: int, student_ids: list[int], person_id: int, opened: OpenedSpecs, kept: KeptOutcomes
) -> int:
    """A person says whose hand-in it is; what that says of lateness and of the attempt that counts is settled with
    it."""
    row = handins.handin(c, handin_id)
    if row is None:
        raise not_found("hand-in")
    lab = course.lab(c, row.lab_id)
    assert lab is not None
    known = {s.id: s.name for s in people.students(c, lab.class_id)}
    if not set(student_ids) <= known.keys():
        raise Trouble(422, "this student is not in the class")
    roster = [RosterName(i, "", n) for i, n in known.items()]
    student_id, team_id = _owner(c, lab.id, tuple(student_ids), roster)
    audit.note(c, person_id, "settle owner", f"lab {lab.id}", {"hand-in": handin_id, "students": student_ids})
    owned = handins.give_to(c, handin_id, lab.id, student_id, team_id)
    settle_lab(c, lab.id, opened, kept)
    return owned


def intake_view(c: Connection, lab: Lab, kept: KeptOutcomes) -> IntakeView:
    rows = handins.handins_of(c, lab.id)
    tasks = course.tasks_of(c, lab.id)
    files = handins.file_list(c, lab.id)
    states = {t.id: task_state(c, t, rows, "last", kept) for t in tasks}
    bindings = results.bindings_of(c, [r.id for s in states.values() for r in s.by_handin.values()])
    agreed = {t.id: handins.consents(c, t.id) for t in tasks}
    students = people.students(c, lab.class_id)
    by_id = {s.id: Proposal(id=s.id, name=s.name, number=s.number) for s in students}
    entries: list[IntakeEntry] = []
    for row in rows:
        found: list[IntakeTask] = []
        for task in tasks:
            result = states[task.id].by_handin.get(row.id)
            if result is not None:
                found.append(_intake_task(task.id, result, bindings.get(result.id, []), agreed[task.id]))
        owned = row.student_id is not None or row.team_id is not None
        asks = any(not b.agreed for t in found for b in t.binding)
        troubled = any(t.status != "checked" for t in found)
        likely = row.proposal
        entries.append(
            IntakeEntry(
                handin_id=row.id,
                label=row.label,
                who=row.who,
                number=row.student_number or "",
                team=row.team_id is not None,
                proposals=[by_id[i] for i in likely if i in by_id],
                attempt=row.attempt or 0,
                attempts=row.attempts,
                received_at=row.received_at,
                late=bool(row.late),
                files=[FileView(path=f.path, size=f.size) for f in files.get(row.attempt_id or 0, [])],
                tasks=found,
                settled=owned and not asks and not troubled,
            )
        )
    entries.sort(key=lambda e: (e.settled, bool(e.who)))
    drops = [DropView(name=d.name, at=d.at, files=d.files, left_out=d.left_out) for d in handins.drops_of(c, lab.id)]
    missing = [by_id[s.id] for s in missing_students(c, lab, rows)]
    return IntakeView(entries=entries, missing=missing, drops=drops, students=list(by_id.values()))


def _intake_task(task_id: int, result: Result, bound: list[BoundName], agreed: set[tuple[str, str]]) -> IntakeTask:
    detail = result.detail
    text = why_held(result.status, detail.messages)
    twice = [Twice(unit=unit, files=files) for unit, files in detail.twice.items()]
    names = [
        NameBinding(
            ours=b.ours, theirs=b.theirs, how=b.how, agreed=b.how in ("chosen", "case") or (b.ours, b.theirs) in agreed
        )
        for b in bound
    ]
    return IntakeTask(
        task_id=task_id,
        status=result.status,
        language=result.language,
        unit=result.unit,
        binding=names,
        message=text,
        twice=twice,
    )


def twice_texts(c: Connection, lab: Lab, handin_id: int, task_id: int, kept: KeptOutcomes) -> list[TwiceText]:
    """The texts of the files between which a person has to choose in one task."""
    task = next((t for t in course.tasks_of(c, lab.id) if t.id == task_id), None)
    result = (
        task_state(c, task, handins.heads_of(c, lab.id), "last", kept).by_handin.get(handin_id)
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
