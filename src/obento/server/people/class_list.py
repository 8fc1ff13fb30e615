"""The class list: what a file would change in it, and changing it."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass, replace

from obento.intake.addresses import is_address
from obento.intake.roster import FIELDS, ListFile, Roster, RosterError, RosterRow, bare_number, read_list, students_of
from obento.server.errors import Trouble, not_found
from obento.server.people.models import (
    RosterChange,
    RosterPreview,
    RosterProblem,
    RosterTaken,
    StudentEntry,
    StudentLine,
    StudentName,
)
from obento.server.versions import version_of
from obento.store import people
from obento.store.connection import Connection
from obento.store.people import Listed, ListedStudent

_SAMPLE = 4


@dataclass(frozen=True, slots=True)
class _Differences:
    """What a list says beside what is known, by bare numbers."""

    new: list[RosterRow]
    changed: list[tuple[RosterRow, ListedStudent, list[str]]]
    same: list[tuple[RosterRow, ListedStudent]]
    gone: list[ListedStudent]


def lines(c: Connection, class_id: int) -> list[StudentLine]:
    """All lines of a class list."""
    return [
        StudentLine(
            id=s.id, number=s.number, name=s.name, email=s.email, group=s.group_name, team=s.team_name,
            remarks=s.remarks, left_at=s.left_at, version=_version(s),
        )
        for s in people.class_list(c, class_id)
    ]  # fmt: skip


def _version(s: ListedStudent) -> str:
    return version_of(s.number, s.name, s.email, s.group_name, s.team_name, s.remarks, s.left_at)


def _list_version(c: Connection, class_id: int) -> str:
    return version_of(*(_version(s) for s in people.class_list(c, class_id)))


def preview(c: Connection, class_id: int, data: bytes, columns: Mapping[str, int] | None) -> RosterPreview:
    """What keeping a list would change; nothing is kept.

    Raises
    ------
    RosterError
        If it is no list at all.
    """
    file = read_list(data)
    chosen = dict(file.columns if columns is None else columns)
    try:
        roster, trouble = students_of(file, chosen), ""
    except RosterError as error:
        roster, trouble = Roster([], file.problems), str(error)
    found = _differences(c, class_id, roster, chosen)
    return RosterPreview(
        header=file.header,
        columns=chosen,
        sample=[cells[: len(file.header)] for _, cells in file.lines[:_SAMPLE]],
        new=[f"{row.name} {row.number}" for row in found.new],
        changed=[RosterChange(number=row.number, name=row.name, what=what) for row, _, what in found.changed],
        gone=[] if trouble else [StudentName(id=s.id, name=s.name, number=s.number) for s in found.gone],
        same=len(found.same),
        problems=_problems(roster),
        trouble=trouble,
        version=_list_version(c, class_id),
    )


def take(
    c: Connection, class_id: int, data: bytes, columns: Mapping[str, int] | None, gone_leave: bool, over: str
) -> RosterTaken:
    """Keep a class list; who is not in it any more stays, or (`gone_leave`) is out of the class from now on.

    Parameters
    ----------
    over
        The version of the list that was seen beside the file; empty: any.

    Raises
    ------
    RosterError
        If it cannot be read.
    Trouble
        If the list was changed since it was seen.
    """
    if over and over != _list_version(c, class_id):
        raise Trouble(409, "somebody else changed the class list meanwhile; look at what this file would change now")
    file: ListFile = read_list(data)
    chosen = dict(file.columns if columns is None else columns)
    roster = students_of(file, chosen)
    found = _differences(c, class_id, roster, chosen)
    known = {row.number: s for row, s in [*((row, s) for row, s, _ in found.changed), *found.same]}
    for position, row in enumerate(roster.rows):
        student = known.get(row.number)
        kept = _with_what_is_known(row, student, chosen) if student is not None else row
        people.put_student(c, class_id, _listed(kept), position, student.id if student is not None else None)
    leaving = found.gone if gone_leave else []
    for student in leaving:
        people.set_left(c, student.id, True)
    return RosterTaken(rows=len(roster.rows), new=len(found.new), left=len(leaving), problems=_problems(roster))


def put(c: Connection, class_id: int, student_id: int | None, entry: StudentEntry) -> int:
    """Write one line of the class list, a new one or one that is there.

    Raises
    ------
    Trouble
        If there is no such line, it was changed since it was seen, another one has the number, or no mail can be sent
        to the address.
    """
    every = people.class_list(c, class_id)
    known = next((s for s in every if s.id == student_id), None)
    if student_id is not None and known is None:
        raise not_found("student")
    if known is not None and entry.over and entry.over != _version(known):
        there = ", ".join(t for t in (known.number, known.name, known.email, known.group_name, known.team_name) if t)
        raise Trouble(409, f"somebody else changed this line meanwhile ({there}); keep again to put yours in its place")
    number = " ".join(entry.number.split())
    if any(bare_number(s.number) == bare_number(number) and s.id != student_id for s in every):
        raise Trouble(409, f"somebody of this class has the number {number} already")
    if entry.email.strip() and not is_address(entry.email.strip()):
        raise Trouble(422, f"no mail can be sent to {entry.email}")
    listed = Listed(
        number, " ".join(entry.name.split()), entry.email.strip(), entry.group.strip(), entry.team.strip(),
        entry.remarks.strip(), {"number": number, "name": entry.name, "email": entry.email, "group": entry.group},
    )  # fmt: skip
    if not listed.number or not listed.name:
        raise Trouble(422, "a student needs a number and a name")
    if student_id is None:
        return people.put_student(c, class_id, listed, len(every))
    people.set_student(c, student_id, listed)
    people.set_left(c, student_id, entry.is_out)
    return student_id


def _listed(row: RosterRow) -> Listed:
    return Listed(row.number, row.name, row.email, row.group, row.team, row.remarks, row.given)


def _problems(roster: Roster) -> list[RosterProblem]:
    return [RosterProblem(line=p.line, text=p.text, is_left_out=p.is_left_out) for p in roster.problems]


def _with_what_is_known(row: RosterRow, student: ListedStudent, columns: Collection[str]) -> RosterRow:
    """A line of a list, with what is known of the student where the list has no column for it."""
    return replace(
        row,
        email=row.email if "email" in columns else student.email,
        group=row.group if "group" in columns else student.group_name,
        team=row.team if "team" in columns else student.team_name,
        remarks=row.remarks if "remarks" in columns else student.remarks,
    )


def _differences(c: Connection, class_id: int, roster: Roster, columns: Collection[str]) -> _Differences:
    every = people.class_list(c, class_id)
    known = {bare_number(s.number): s for s in every}
    found = _Differences([], [], [], [])
    there = set()
    for row in roster.rows:
        student = known.get(bare_number(row.number))
        if student is None:
            found.new.append(row)
            continue
        there.add(student.id)
        what = _changes(_with_what_is_known(row, student, columns), student)
        if what:
            found.changed.append((row, student, what))
        else:
            found.same.append((row, student))
    found.gone.extend(s for s in every if s.id not in there and s.left_at is None)
    return found


def _changes(row: RosterRow, student: ListedStudent) -> list[str]:
    pairs = [
        ("number", student.number, row.number), ("name", student.name, row.name), ("address", student.email, row.email),
        ("group", student.group_name, row.group), ("team", student.team_name, row.team),
        ("remarks", student.remarks, row.remarks),
    ]  # fmt: skip
    found = [f"{what}: {was or 'none'} becomes {now or 'none'}" for what, was, now in pairs if was != now]
    return [*found, "is in the class again"] if student.left_at is not None else found


def columns_of(text: str) -> dict[str, int] | None:
    """The columns that somebody chose, as `field=index` separated by commas; None where nobody did.

    Raises
    ------
    Trouble
        If it is not written like that.
    """
    if not text:
        return None
    found: dict[str, int] = {}
    for part in text.split(","):
        what, _, index = part.partition("=")
        if what not in FIELDS or not index.isascii() or not index.isdigit() or len(index) > 4:
            raise Trouble(422, f"there is no column {part[:40]!r}")
        found[what] = int(index)
    return found
