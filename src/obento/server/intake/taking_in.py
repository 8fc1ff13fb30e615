"""Taking in a drop: what is in it, whose each part is, for which task, and when it was received."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import UTC, datetime

from obento.core.handin import HandinFile
from obento.intake.archive import Drop, printable
from obento.intake.batch import Child, children_of
from obento.intake.dropped import DroppedFile
from obento.intake.names import ClassNames, Match, RosterName, drop_is_numbered, numbers_in
from obento.server.intake.models import DropResult
from obento.server.marks.lateness import is_late
from obento.store import audit, course, drops, handins, owners, people
from obento.store.connection import Connection
from obento.store.course import Lab
from obento.store.handins import NewAttempt

_MANY_PARTS = 12
"""So many hand-ins of one person in one drop are worth a word."""
_INNER_STUDENTS = 3
"""A hand-in that holds folders of so many students is an export, not a hand-in."""
_LEAST_NAMES = 5
"""In a drop of fewer names nothing is said of how many are known."""
_LEAST_NUMBER = 4
"""A number of fewer digits is not remembered for somebody."""


@dataclass(slots=True)
class _Part:
    """What of a drop goes together: the children of one owner, or one child that is nobody's yet."""

    owners: tuple[int, ...]
    match: Match
    children: list[Child] = field(default_factory=list)

    @property
    def entry_time(self) -> datetime | None:
        return max((c.entry_time for c in self.children if c.entry_time is not None), default=None)

    def files(self) -> list[HandinFile]:
        """All files, read from disk; those of several children below their names."""
        found: dict[str, DroppedFile] = {}
        for child in self.children:
            for path, file in child.files.items():
                is_below = len(self.children) == 1 or path.startswith(child.label)
                found[path if is_below else f"{child.label}/{path}"] = file
        return [file.as_handin(path) for path, file in found.items()]


class Owners:
    """Who may be meant by a name in one lab: the class list, its teams, and what a person said before."""

    def __init__(self, c: Connection, lab: Lab) -> None:
        self.students = {s.id: s for s in people.students(c, lab.class_id)}
        self._known = owners.known_labels(c, lab.class_id)
        lab_teams = owners.teams_of(c, lab.id)
        teams = [(owners.team_name(c, i), frozenset(m.id for m in members)) for i, members in lab_teams.items()]
        listed: dict[str, set[int]] = {}
        for student in self.students.values():
            if student.team_name:
                listed.setdefault(student.team_name, set()).add(student.id)
        teams += [(name, frozenset(members)) for name, members in listed.items()]
        self.names = ClassNames([RosterName(s.id, s.number, s.name) for s in self.students.values()], teams)
        self.team_of = {i: members for _, members in teams if len(members) > 1 for i in members}

    def match(self, label: str, numbers_are_ours: bool) -> Match:
        """Whose a name is: as somebody said before, else as it reads."""
        known = self._known.get(label)
        if known is None:
            said = {self._known[key] for n in numbers_in(label) if (key := f"#{n}") in self._known}
            known = said.pop() if len(said) == 1 else None
            found = self.names.match(label, numbers_are_ours)
            if known is None or (found.sure and found.sure != known):
                return found  # what is written there stands above what a number meant before
        if not set(known) <= self.students.keys():
            return self.names.match(label, numbers_are_ours)
        return Match(sure=known)


def take_in(
    c: Connection, lab: Lab, name: str, inner: Drop, person_id: int, received_at: datetime | None = None,
    task_id: int | None = None, tell: Callable[[int, int], None] = lambda done, total: None,
) -> DropResult:  # fmt: skip
    """Take in what one upload holds. All of it or nothing.

    Parameters
    ----------
    received_at
        When all of it was received, as somebody vouches for; without it the times wait to be confirmed.
    task_id
        The one task it was dropped on; None: the lab, for every task whose unit it holds.
    tell
        Told before each hand-in how many are taken in, and of how many; what it raises ends the drop.
    """
    received = received_at or datetime.now(UTC).replace(tzinfo=None)
    known = Owners(c, lab)
    parts = _parts(children_of(inner.files, inner.times), known)
    extended = course.extensions(c, lab.id)
    drop_id = drops.add_drop(c, lab.id, person_id, name, task_id, "given" if received_at is not None else "upload")
    result = DropResult(drop_id=drop_id, handins=len(parts), new_attempts=0, repeated=0, unsettled=0, notes=[],
                        left_out=inner.left_out)  # fmt: skip
    for number, part in enumerate(parts):
        tell(number, len(parts))
        label, files = part.children[0].label, part.files()
        if part.owners:
            handin_id = _handin_of(c, lab.id, part.owners, known)
        else:
            handin_id = handins.unowned_handin(c, lab.id, label, files, task_id)
            handins.set_proposal(c, handin_id, part.match.likely, _doubt(part, known))
            result.unsettled += 1
        due = [extended[i].due_at for i in part.owners if i in extended]
        late = received_at is not None and is_late(lab, received, due)
        new = NewAttempt(label, files, received, late, task_id, drop_id, part.entry_time)
        if handins.add_attempt(c, handin_id, new) is None:
            result.repeated += 1
        else:
            result.new_attempts += 1
    result.notes = _notes(parts, known)
    drops.end_drop(c, drop_id, len(inner.files), inner.left_out)
    audit.note(c, person_id, "intake", f"lab {lab.id}", {"drop": printable(name), "hand-ins": result.handins})
    return result


def _parts(children: list[Child], known: Owners) -> list[_Part]:
    """Children by owner. What is nobody's yet stays by itself."""
    ours = drop_is_numbered([child.label for child in children], known.names)
    found: dict[tuple[int, ...] | str, _Part] = {}
    for child in children:
        match = known.match(child.label, ours)
        key: tuple[int, ...] | str = match.sure or child.label
        found.setdefault(key, _Part(match.sure, match)).children.append(child)
    return list(found.values())


def _handin_of(c: Connection, lab_id: int, students: tuple[int, ...], known: Owners) -> int:
    student_id, team_id = owner_of(c, lab_id, students, known)
    return handins.handin_of(c, lab_id, student_id, team_id)


def owner_of(c: Connection, lab_id: int, students: tuple[int, ...], known: Owners) -> tuple[int | None, int | None]:
    """A student, or the team that some students are; one who is in a team of this lab stands for it."""
    if len(students) == 1:
        team = owners.team_of(c, lab_id, students[0])
        if team is not None:
            return None, team
        listed = known.team_of.get(students[0])
        if listed is None:
            return students[0], None
        students = tuple(sorted(listed))
    name = " and ".join(known.students[i].name for i in students if i in known.students)
    return None, owners.put_team(c, lab_id, name, students)


def _doubt(part: _Part, known: Owners) -> str:
    """Why a person has to say whose it is."""
    inside = {path.partition("/")[0] for path in part.children[0].files if "/" in path}
    students = {known.names.match(head).sure for head in inside} - {()}
    if not part.match.likely and len(students) >= _INNER_STUDENTS:
        return f"it holds hand-ins of {len(students)} students: drop it by itself"
    return part.match.why


def _notes(parts: list[_Part], known: Owners) -> list[str]:
    """What somebody should know of a drop as a whole."""
    found = []
    counts = Counter({part.owners: len(part.children) for part in parts if part.owners})
    for students, count in counts.most_common(3):
        if count > _MANY_PARTS:
            who = " and ".join(known.students[i].name for i in students if i in known.students)
            found.append(f"{count} hand-ins go by the name of {who}; they were taken as one")
    named = sum(bool(part.owners) for part in parts)
    if len(parts) >= _LEAST_NAMES and 2 * named < len(parts):
        found.append(f"only {named} of {len(parts)} names are of this class: is it another class's zip?")
    return found


def worth_remembering(label: str, others: list[str], match: Match) -> list[str]:
    """What of a name stands for its owner from now on: the name itself, unless it is that of namesakes, and numbers in
    it that stand in no other name of the lab."""
    elsewhere = {n for other in others for n in numbers_in(other)}
    numbers = [f"#{n}" for n in numbers_in(label) if len(n) >= _LEAST_NUMBER and n not in elsewhere]
    return numbers if match.are_namesakes else [label, *numbers]
