"""Hand-ins, their attempts and files, and who they belong to."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated

from obento.core.handin import HandinFile
from obento.store.connection import Connection
from obento.store.records import Json


@dataclass(frozen=True, slots=True)
class HandinRow:
    """A hand-in with whom it belongs to and the attempt that counts. `proposal` are students who may be meant, where
    nobody is settled."""

    id: int
    student_id: int | None
    team_id: int | None
    label: str
    proposal: Annotated[list[int], Json(list)]
    student_name: str | None
    student_number: str | None
    team_name: str | None
    attempt_id: int | None
    attempt: int | None
    received_at: datetime | None
    late: bool
    attempts: int

    @property
    def who(self) -> str:
        """The name of whoever handed it in; empty while that is not settled."""
        return self.student_name or self.team_name or ""


@dataclass(frozen=True, slots=True)
class HandinHead:
    """A hand-in with whose it is and the attempt that counts, by their ids."""

    id: int
    student_id: int | None
    team_id: int | None
    attempt_id: int | None


@dataclass(frozen=True, slots=True)
class Handin:
    id: int
    lab_id: int
    student_id: int | None
    team_id: int | None
    label: str


@dataclass(frozen=True, slots=True)
class Attempt:
    id: int
    number: int
    label: str
    received_at: datetime
    late: bool


@dataclass(frozen=True, slots=True)
class OwnedAttempt:
    """An attempt with its owner and whether it is taken for late."""

    id: int
    received_at: datetime
    late: bool
    student_id: int | None
    team_id: int | None


@dataclass(frozen=True, slots=True)
class Standing:
    """Whether an attempt is late, and whether it is the one of its hand-in that counts."""

    id: int
    late: bool
    counts: bool


@dataclass(frozen=True, slots=True)
class FileHead:
    """A file without its content; `size` in bytes."""

    attempt_id: int
    path: str
    size: int


@dataclass(frozen=True, slots=True)
class TeamMember:
    team_id: int
    id: int
    name: str
    number: str


@dataclass(frozen=True, slots=True)
class Drop:
    """What was taken in at once, and what of it was left out."""

    id: int
    name: str
    at: datetime
    files: int
    left_out: Annotated[list[str], Json()]


def files_digest(files: Sequence[HandinFile]) -> str:
    digest = hashlib.sha256()
    for file in sorted(files, key=lambda f: f.path):
        digest.update(
            file.path.encode() + b"\0" + len(file.data).to_bytes(8, "big") + file.data + file.refused.encode()
        )
    return digest.hexdigest()


def handin_for(c: Connection, lab_id: int, student_id: int | None, team_id: int | None, label: str) -> int:
    """The hand-in of a student or team in a lab, made when there is none; one of nobody's goes by its label."""
    if student_id is not None:
        known = c.value("SELECT id FROM handin WHERE lab_id = %s AND student_id = %s", lab_id, student_id)
    elif team_id is not None:
        known = c.value("SELECT id FROM handin WHERE lab_id = %s AND team_id = %s", lab_id, team_id)
    else:
        known = c.value(
            "SELECT id FROM handin WHERE lab_id = %s AND student_id IS NULL AND team_id IS NULL AND label = %s",
            lab_id,
            label,
        )
    if known is not None:
        return int(known)
    return c.insert(
        "INSERT INTO handin (lab_id, student_id, team_id, label, created_at) VALUES (%s, %s, %s, %s, UTC_TIMESTAMP(6))",
        lab_id, student_id, team_id, label[:300],
    )  # fmt: skip


def set_proposal(c: Connection, handin_id: int, proposal: object) -> None:
    c.run("UPDATE handin SET proposal = %s WHERE id = %s", json.dumps(proposal, ensure_ascii=False), handin_id)


def add_attempt(
    c: Connection, handin_id: int, label: str, files: Sequence[HandinFile], received_at: datetime, late: bool
) -> int | None:
    """A new attempt; None when the same files are there already."""
    digest = files_digest(files)
    if c.value("SELECT id FROM attempt WHERE handin_id = %s AND digest = %s", handin_id, digest) is not None:
        return None
    attempt_id = c.insert(
        "INSERT INTO attempt (handin_id, number, label, received_at, late, digest)"
        " SELECT %s, COALESCE(MAX(number), 0) + 1, %s, %s, %s, %s FROM attempt WHERE handin_id = %s",
        handin_id, label[:300], received_at, late, digest, handin_id,
    )  # fmt: skip
    c.many(
        "INSERT INTO attempt_file (attempt_id, path, data, refused) VALUES (%s, %s, %s, %s)",
        [(attempt_id, f.path[:300], f.data, f.refused[:300]) for f in files],
    )
    return attempt_id


def attempt_files(c: Connection, attempt_id: int) -> list[HandinFile]:
    rows = c.rows("SELECT path, data, refused FROM attempt_file WHERE attempt_id = %s ORDER BY path", attempt_id)
    return [HandinFile(r["path"], r["data"], r["refused"]) for r in rows]


_COUNTING = """
  SELECT a.id FROM attempt a WHERE a.handin_id = h.id
  ORDER BY CASE WHEN l.which_attempt = 'first' THEN a.received_at END,
           CASE WHEN l.which_attempt <> 'first' THEN a.received_at END DESC, a.number DESC LIMIT 1
"""


def handins_of(c: Connection, lab_id: int) -> list[HandinRow]:
    """Hand-ins with whom they belong to and the attempt that counts.

    `best` is settled like `last` here: which is best depends on marks, which `results` knows.
    """
    return c.all(
        HandinRow,
        "SELECT h.id, h.student_id, h.team_id, h.label, h.proposal, s.name AS student_name, s.number AS student_number,"
        " t.name AS team_name, a.id AS attempt_id, a.number AS attempt, a.received_at, a.late,"
        " (SELECT COUNT(*) FROM attempt x WHERE x.handin_id = h.id) AS attempts"
        " FROM handin h JOIN lab l ON l.id = h.lab_id LEFT JOIN student s ON s.id = h.student_id"
        f" LEFT JOIN team t ON t.id = h.team_id LEFT JOIN attempt a ON a.id = ({_COUNTING})"
        " WHERE h.lab_id = %s ORDER BY COALESCE(s.position, 100000), COALESCE(t.name, h.label), h.id",
        lab_id,
    )


def heads_of(c: Connection, lab_id: int) -> list[HandinHead]:
    """Hand-ins as `handins_of` has them, without what is only to be read."""
    return c.all(
        HandinHead,
        f"SELECT h.id, h.student_id, h.team_id, ({_COUNTING}) AS attempt_id FROM handin h JOIN lab l ON l.id = h.lab_id"
        " WHERE h.lab_id = %s",
        lab_id,
    )


def standing_of(c: Connection, attempt_ids: Sequence[int]) -> dict[int, Standing]:
    """How some attempts stand, by their ids; which one counts is as in `handins_of`."""
    if not attempt_ids:
        return {}
    marks = ", ".join(["%s"] * len(attempt_ids))
    rows = c.all(
        Standing,
        f"SELECT b.id, b.late, b.id = ({_COUNTING}) AS counts FROM attempt b JOIN handin h ON h.id = b.handin_id"
        f" JOIN lab l ON l.id = h.lab_id WHERE b.id IN ({marks})",
        *attempt_ids,
    )
    return {row.id: row for row in rows}


def handin(c: Connection, handin_id: int) -> Handin | None:
    return c.one(Handin, "SELECT id, lab_id, student_id, team_id, label FROM handin WHERE id = %s", handin_id)


def file_list(c: Connection, lab_id: int) -> dict[int, list[FileHead]]:
    """Of each attempt of a lab its files, without their contents."""
    rows = c.all(
        FileHead,
        "SELECT f.attempt_id, f.path, LENGTH(f.data) AS size FROM attempt_file f JOIN attempt a ON a.id = f.attempt_id"
        " JOIN handin h ON h.id = a.handin_id WHERE h.lab_id = %s ORDER BY f.path",
        lab_id,
    )
    found: dict[int, list[FileHead]] = {}
    for file in rows:
        found.setdefault(file.attempt_id, []).append(file)
    return found


def attempts_of_lab(c: Connection, lab_id: int) -> list[OwnedAttempt]:
    """Every attempt of a lab."""
    return c.all(
        OwnedAttempt,
        "SELECT a.id, a.received_at, a.late, h.student_id, h.team_id FROM attempt a JOIN handin h ON h.id = a.handin_id"
        " WHERE h.lab_id = %s",
        lab_id,
    )


def set_late(c: Connection, attempt_id: int, late: bool) -> None:
    c.run("UPDATE attempt SET late = %s WHERE id = %s", late, attempt_id)


def attempts_of(c: Connection, handin_id: int) -> list[Attempt]:
    return c.all(
        Attempt,
        "SELECT id, number, label, received_at, late FROM attempt WHERE handin_id = %s ORDER BY number",
        handin_id,
    )


def teams_of(c: Connection, lab_id: int) -> dict[int, list[TeamMember]]:
    """Members of each team of a lab."""
    rows = c.all(
        TeamMember,
        "SELECT m.team_id, s.id, s.name, s.number FROM team_member m JOIN team t ON t.id = m.team_id"
        " JOIN student s ON s.id = m.student_id WHERE t.lab_id = %s AND s.erased_at IS NULL ORDER BY s.position",
        lab_id,
    )
    found: dict[int, list[TeamMember]] = {}
    for member in rows:
        found.setdefault(member.team_id, []).append(member)
    return found


def team_of(c: Connection, lab_id: int, student_id: int) -> int | None:
    """The team that a student is in in a lab, if any."""
    found: int | None = c.value(
        "SELECT m.team_id FROM team_member m JOIN team t ON t.id = m.team_id WHERE t.lab_id = %s AND m.student_id = %s",
        lab_id,
        student_id,
    )
    return found


def put_team(c: Connection, lab_id: int, name: str, student_ids: Sequence[int]) -> int:
    known = c.value("SELECT id FROM team WHERE lab_id = %s AND name = %s", lab_id, name)
    team_id = (
        int(known) if known is not None else c.insert("INSERT INTO team (lab_id, name) VALUES (%s, %s)", lab_id, name)
    )
    c.many("INSERT IGNORE INTO team_member (team_id, student_id) VALUES (%s, %s)", [(team_id, s) for s in student_ids])
    return team_id


def give_to(c: Connection, handin_id: int, lab_id: int, student_id: int | None, team_id: int | None) -> int:
    """Settle whose hand-in this is; attempts join those that the person has already. Gives the id that stays."""
    mine = handin_for(c, lab_id, student_id, team_id, "") if _has_one(c, lab_id, student_id, team_id) else None
    if mine is None or mine == handin_id:
        c.run(
            "UPDATE handin SET student_id = %s, team_id = %s, proposal = NULL WHERE id = %s",
            student_id,
            team_id,
            handin_id,
        )
        return handin_id
    base = int(c.value("SELECT COALESCE(MAX(number), 0) FROM attempt WHERE handin_id = %s", mine))
    c.run("UPDATE attempt SET handin_id = %s, number = number + %s WHERE handin_id = %s", mine, base, handin_id)
    c.run("DELETE FROM handin WHERE id = %s", handin_id)
    return mine


def _has_one(c: Connection, lab_id: int, student_id: int | None, team_id: int | None) -> bool:
    return (
        c.value(
            "SELECT id FROM handin WHERE lab_id = %s AND (student_id = %s OR team_id = %s)", lab_id, student_id, team_id
        )
        is not None
    )


def add_drop(c: Connection, lab_id: int, person_id: int, name: str, files: int, left_out: list[str]) -> None:
    c.run(
        "INSERT INTO intake_drop (lab_id, person_id, name, at, files, left_out) VALUES (%s, %s, %s, UTC_TIMESTAMP(6),"
        " %s, %s)",
        lab_id,
        person_id,
        name[:300],
        files,
        json.dumps(left_out, ensure_ascii=False),
    )


def drops_of(c: Connection, lab_id: int) -> list[Drop]:
    return c.all(
        Drop, "SELECT id, name, at, files, left_out FROM intake_drop WHERE lab_id = %s ORDER BY id DESC", lab_id
    )


def consents(c: Connection, task_id: int) -> set[tuple[str, str]]:
    return {(r["ours"], r["theirs"]) for r in c.rows("SELECT ours, theirs FROM consent WHERE task_id = %s", task_id)}


def put_consent(c: Connection, task_id: int, ours: str, theirs: str, person_id: int) -> None:
    c.run(
        "REPLACE INTO consent (task_id, ours, theirs, person_id, at) VALUES (%s, %s, %s, %s, UTC_TIMESTAMP(6))",
        task_id, ours, theirs, person_id,
    )  # fmt: skip


def choices(c: Connection, handin_id: int, task_id: int) -> tuple[tuple[str, str], ...]:
    rows = c.rows(
        "SELECT ours, theirs FROM choice WHERE handin_id = %s AND task_id = %s ORDER BY ours", handin_id, task_id
    )
    return tuple((r["ours"], r["theirs"]) for r in rows)


def choices_of_task(c: Connection, task_id: int) -> dict[int, tuple[tuple[str, str], ...]]:
    """The choices of all hand-ins that have some, as `choices` gives them for one."""
    found: dict[int, tuple[tuple[str, str], ...]] = {}
    for r in c.rows("SELECT handin_id, ours, theirs FROM choice WHERE task_id = %s ORDER BY handin_id, ours", task_id):
        found[r["handin_id"]] = (*found.get(r["handin_id"], ()), (r["ours"], r["theirs"]))
    return found


def put_choice(c: Connection, handin_id: int, task_id: int, ours: str, theirs: str, person_id: int) -> None:
    c.run(
        "REPLACE INTO choice (handin_id, task_id, ours, theirs, person_id, at) VALUES (%s, %s, %s, %s, %s,"
        " UTC_TIMESTAMP(6))",
        handin_id,
        task_id,
        ours,
        theirs,
        person_id,
    )
