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
    """A hand-in with whom it belongs to and its newest attempt. `proposal` are students who may be meant, where nobody
    is settled, and `doubt` says what is in the way; `aside_reason` is why it was put aside, if it was."""

    id: int
    student_id: int | None
    team_id: int | None
    label: str
    proposal: Annotated[list[int], Json(list)]
    doubt: str
    aside_at: datetime | None
    aside_reason: str
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
    """A hand-in with whose it is and its newest attempt, by their ids."""

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
    """One attempt. `task_id` is the task it is for; None: every task whose unit it holds. `number` counts the attempts
    of its hand-in; `entry_time` is when its files were packed, by the archive, in no zone."""

    id: int
    handin_id: int
    number: int
    task_id: int | None
    label: str
    received_at: datetime
    late: bool
    drop_id: int | None
    entry_time: datetime | None


@dataclass(frozen=True, slots=True)
class LabAttempts:
    """All attempts of a lab that count for something, by hand-in, in the order they came in; `units` are those that the
    lab's tasks ask for, by task, `which` of several attempts counts (last, first, best). `unvouched` are attempts of
    which nobody said yet when they were received: their times cannot be held against others."""

    units: dict[int, str]
    which: str
    by_handin: dict[int, list[Attempt]]
    unvouched: frozenset[int]


@dataclass(frozen=True, slots=True)
class OwnedAttempt:
    """An attempt with its owner, whether it is taken for late, and whether the time it was received at is one that
    somebody vouches for."""

    id: int
    received_at: datetime
    late: bool
    is_confirmed: bool
    student_id: int | None
    team_id: int | None


@dataclass(frozen=True, slots=True)
class FileHead:
    """A file without its content; `size` in bytes."""

    attempt_id: int
    path: str
    size: int


def files_digest(files: Sequence[HandinFile]) -> str:
    digest = hashlib.sha256()
    for file in sorted(files, key=lambda f: f.path):
        digest.update(
            file.path.encode() + b"\0" + len(file.data).to_bytes(8, "big") + file.data + file.refused.encode()
        )
    return digest.hexdigest()


def handin_of(c: Connection, lab_id: int, student_id: int | None, team_id: int | None) -> int:
    """The hand-in of a student or team in a lab, made when there is none."""
    known = c.value(
        "SELECT id FROM handin WHERE lab_id = %s AND (student_id = %s OR team_id = %s)", lab_id, student_id, team_id
    )
    return int(known) if known is not None else _new_handin(c, lab_id, student_id, team_id, "")


def unowned_handin(c: Connection, lab_id: int, label: str, files: Sequence[HandinFile], task_id: int | None) -> int:
    """A hand-in that is nobody's yet. What came with the same name and the same files is the same one; the same name
    alone may be that of two people."""
    known = c.value(
        "SELECT h.id FROM handin h JOIN attempt a ON a.handin_id = h.id WHERE h.lab_id = %s AND h.student_id IS NULL"
        " AND h.team_id IS NULL AND a.label = %s AND a.digest = %s AND a.task_id <=> %s LIMIT 1",
        lab_id,
        label[:300],
        files_digest(files),
        task_id,
    )
    return int(known) if known is not None else _new_handin(c, lab_id, None, None, label)


def _new_handin(c: Connection, lab_id: int, student_id: int | None, team_id: int | None, label: str) -> int:
    return c.insert(
        "INSERT INTO handin (lab_id, student_id, team_id, label, created_at) VALUES (%s, %s, %s, %s, UTC_TIMESTAMP(6))",
        lab_id, student_id, team_id, label[:300],
    )  # fmt: skip


def set_proposal(c: Connection, handin_id: int, proposal: Sequence[int], doubt: str) -> None:
    """Who may be meant, and why that is not settled."""
    c.run("UPDATE handin SET proposal = %s, doubt = %s WHERE id = %s", json.dumps(proposal), doubt[:300], handin_id)


def put_aside(c: Connection, handin_id: int, reason: str | None) -> None:
    """Have a hand-in count for nothing, or (None) take it back."""
    c.run(
        "UPDATE handin SET aside_at = IF(%s, UTC_TIMESTAMP(6), NULL), aside_reason = %s WHERE id = %s",
        reason is not None,
        (reason or "")[:500],
        handin_id,
    )


@dataclass(frozen=True, slots=True)
class NewAttempt:
    """What came in: its files, under which name, when, for which task (None: all), in which drop."""

    label: str
    files: Sequence[HandinFile]
    received_at: datetime
    late: bool
    task_id: int | None = None
    drop_id: int | None = None
    entry_time: datetime | None = None


def add_attempt(c: Connection, handin_id: int, new: NewAttempt) -> int | None:
    """A new attempt; None when the same files are there already for the same task."""
    digest = files_digest(new.files)
    if c.value(
        "SELECT id FROM attempt WHERE handin_id = %s AND digest = %s AND task_id <=> %s",
        handin_id,
        digest,
        new.task_id,
    ):
        return None
    attempt_id = c.insert(
        "INSERT INTO attempt (handin_id, number, label, received_at, late, digest, task_id, drop_id, entry_time)"
        " SELECT %s, COALESCE(MAX(number), 0) + 1, %s, %s, %s, %s, %s, %s, %s FROM attempt WHERE handin_id = %s",
        handin_id, new.label[:300], new.received_at, new.late, digest, new.task_id, new.drop_id, new.entry_time,
        handin_id,
    )  # fmt: skip
    c.many(
        "INSERT INTO attempt_file (attempt_id, path, data, refused) VALUES (%s, %s, %s, %s)",
        [(attempt_id, f.path[:300], f.data, f.refused[:300]) for f in new.files],
    )
    return attempt_id


def attempt_files(c: Connection, attempt_id: int) -> list[HandinFile]:
    rows = c.rows("SELECT path, data, refused FROM attempt_file WHERE attempt_id = %s ORDER BY path", attempt_id)
    return [HandinFile(r["path"], r["data"], r["refused"]) for r in rows]


_UNVOUCHED = """
  SELECT 1 FROM attempt u JOIN intake_drop k ON k.id = u.drop_id WHERE u.handin_id = h.id AND k.gone_at IS NULL AND NOT
  k.is_confirmed AND NOT u.is_received_by_hand
"""
_RECEIVED = f"IF(EXISTS ({_UNVOUCHED}), a.number, a.received_at)"
_COUNTING = f"""
  SELECT a.id FROM attempt a LEFT JOIN intake_drop d ON d.id = a.drop_id WHERE a.handin_id = h.id AND d.gone_at IS NULL
  ORDER BY CASE WHEN l.which_attempt = 'first' THEN {_RECEIVED} END,
           CASE WHEN l.which_attempt = 'first' THEN a.number END,
           CASE WHEN l.which_attempt <> 'first' THEN {_RECEIVED} END DESC, a.number DESC LIMIT 1
"""
"""By when they were received; as long as that is not said of each of them, by the order in which they came in."""


def handins_of(c: Connection, lab_id: int, aside: bool = False) -> list[HandinRow]:
    """Hand-ins with whom they belong to and their newest attempt; those put aside only when asked for."""
    return c.all(
        HandinRow,
        "SELECT h.id, h.student_id, h.team_id, h.label, h.proposal, h.doubt, h.aside_at, h.aside_reason,"
        " s.name AS student_name, s.number AS student_number,"
        " t.name AS team_name, a.id AS attempt_id, a.number AS attempt, a.received_at, a.late,"
        " (SELECT COUNT(*) FROM attempt x WHERE x.handin_id = h.id) AS attempts"
        " FROM handin h JOIN lab l ON l.id = h.lab_id LEFT JOIN student s ON s.id = h.student_id"
        f" LEFT JOIN team t ON t.id = h.team_id LEFT JOIN attempt a ON a.id = ({_COUNTING})"
        " WHERE h.lab_id = %s AND (h.aside_at IS NULL OR %s) AND a.id IS NOT NULL"
        " ORDER BY COALESCE(s.position, 100000), COALESCE(t.name, h.label), h.id",
        lab_id,
        aside,
    )


def heads_of(c: Connection, lab_id: int) -> list[HandinHead]:
    """Hand-ins as `handins_of` has them, without what is only to be read."""
    return c.all(
        HandinHead,
        f"SELECT h.id, h.student_id, h.team_id, ({_COUNTING}) AS attempt_id FROM handin h JOIN lab l ON l.id = h.lab_id"
        " WHERE h.lab_id = %s AND h.aside_at IS NULL",
        lab_id,
    )


ATTEMPT_COLUMNS = "a.id, a.handin_id, a.number, a.task_id, a.label, a.received_at, a.late, a.drop_id, a.entry_time"


def lab_attempts(c: Connection, lab_id: int, aside: bool = False) -> LabAttempts:
    """All attempts of a lab; those of hand-ins put aside only when asked for."""
    found: dict[int, list[Attempt]] = {}
    for attempt in c.all(
        Attempt,
        f"SELECT {ATTEMPT_COLUMNS} FROM attempt a JOIN handin h ON h.id = a.handin_id LEFT JOIN intake_drop d ON"
        " d.id = a.drop_id WHERE h.lab_id = %s AND (h.aside_at IS NULL OR %s) AND d.gone_at IS NULL ORDER BY a.number",
        lab_id,
        aside,
    ):
        found.setdefault(attempt.handin_id, []).append(attempt)
    units = c.rows(
        "SELECT t.id, v.unit FROM task t LEFT JOIN spec_version v ON v.id = (SELECT MAX(id) FROM spec_version WHERE"
        " task_id = t.id) WHERE t.lab_id = %s AND t.gone_at IS NULL",
        lab_id,
    )
    which = c.value("SELECT which_attempt FROM lab WHERE id = %s", lab_id) or "last"
    unvouched = c.rows(
        "SELECT a.id FROM attempt a JOIN handin h ON h.id = a.handin_id JOIN intake_drop d ON d.id = a.drop_id WHERE"
        " h.lab_id = %s AND NOT d.is_confirmed AND NOT a.is_received_by_hand",
        lab_id,
    )
    return LabAttempts({r["id"]: r["unit"] or "" for r in units}, which, found, frozenset(r["id"] for r in unvouched))


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
        "SELECT a.id, a.received_at, a.late, (d.id IS NULL OR d.is_confirmed OR a.is_received_by_hand) AS is_confirmed,"
        " h.student_id, h.team_id FROM attempt a JOIN handin h ON h.id = a.handin_id LEFT JOIN intake_drop d ON d.id ="
        " a.drop_id WHERE h.lab_id = %s",
        lab_id,
    )


def set_late(c: Connection, attempt_id: int, late: bool) -> None:
    c.run("UPDATE attempt SET late = %s WHERE id = %s", late, attempt_id)


def attempts_of(c: Connection, handin_id: int) -> list[Attempt]:
    return c.all(
        Attempt, f"SELECT {ATTEMPT_COLUMNS} FROM attempt a WHERE a.handin_id = %s ORDER BY a.number", handin_id
    )


def labels_of_lab(c: Connection, lab_id: int) -> list[Attempt]:
    """The attempts of a lab, one for each name they came under."""
    return c.all(
        Attempt,
        f"SELECT {ATTEMPT_COLUMNS} FROM attempt a WHERE a.id IN (SELECT MIN(x.id) FROM attempt x JOIN handin h ON"
        " h.id = x.handin_id WHERE h.lab_id = %s GROUP BY x.label)",
        lab_id,
    )


def attempt(c: Connection, attempt_id: int) -> Attempt | None:
    return c.one(Attempt, f"SELECT {ATTEMPT_COLUMNS} FROM attempt a WHERE a.id = %s", attempt_id)


def lab_of_attempt(c: Connection, attempt_id: int) -> int | None:
    """The lab that an attempt is of."""
    found: int | None = c.value(
        "SELECT h.lab_id FROM attempt a JOIN handin h ON h.id = a.handin_id WHERE a.id = %s", attempt_id
    )
    return found


def set_task(c: Connection, attempt_id: int, task_id: int | None) -> None:
    """Say which task an attempt is for; None: every task whose unit it holds."""
    c.run("UPDATE attempt SET task_id = %s WHERE id = %s", task_id, attempt_id)


def set_received(c: Connection, attempt_id: int, at: datetime) -> None:
    """Say when one attempt was received; no setting of its drop changes that again."""
    c.run("UPDATE attempt SET received_at = %s, is_received_by_hand = TRUE WHERE id = %s", at, attempt_id)


def give_to(c: Connection, handin_id: int, lab_id: int, student_id: int | None, team_id: int | None) -> int:
    """Settle whose hand-in this is; attempts join those that the person has already. Gives the id that stays."""
    mine = c.value(
        "SELECT id FROM handin WHERE lab_id = %s AND (student_id = %s OR team_id = %s)", lab_id, student_id, team_id
    )
    if mine is None or mine == handin_id:
        c.run(
            "UPDATE handin SET student_id = %s, team_id = %s, proposal = NULL, doubt = '', aside_at = NULL,"
            " aside_reason = '' WHERE id = %s",
            student_id,
            team_id,
            handin_id,
        )
        return handin_id
    for row in attempts_of(c, handin_id):
        move_attempt(c, row.id, int(mine))
    return int(mine)


def move_attempt(c: Connection, attempt_id: int, handin_id: int) -> None:
    """Have an attempt be one of another hand-in, the last; a hand-in without any goes, with what was said of it."""
    before = c.value("SELECT handin_id FROM attempt WHERE id = %s", attempt_id)
    if before == handin_id:
        return
    number = int(c.value("SELECT COALESCE(MAX(number), 0) + 1 FROM attempt WHERE handin_id = %s", handin_id))
    c.run("UPDATE attempt SET handin_id = %s, number = %s WHERE id = %s", handin_id, number, attempt_id)
    if c.value("SELECT 1 FROM attempt WHERE handin_id = %s LIMIT 1", before) is None:
        # Marks, notes and choices were of what was handed in: they go where that is now.
        c.run("UPDATE mark_entry SET handin_id = %s WHERE handin_id = %s", handin_id, before)
        c.run("UPDATE IGNORE choice SET handin_id = %s WHERE handin_id = %s", handin_id, before)
        _move_notes(c, int(before), handin_id)
        c.run("DELETE FROM handin WHERE id = %s", before)


def _move_notes(c: Connection, before: int, handin_id: int) -> None:
    """Have the notes on one hand-in be on another; where both have one, both are kept."""
    c.run(
        "UPDATE comment m JOIN comment o ON o.task_id = m.task_id AND o.cluster = m.cluster AND o.handin_id = %s SET"
        " m.text = CONCAT_WS('\n', NULLIF(m.text, ''), NULLIF(o.text, '')), m.version = m.version + 1 WHERE"
        " m.handin_id = %s",
        before,
        handin_id,
    )
    c.run("UPDATE IGNORE comment SET handin_id = %s WHERE handin_id = %s", handin_id, before)
    c.run("DELETE FROM comment WHERE handin_id = %s", before)


def split_attempt(c: Connection, attempt_id: int) -> int:
    """Take one attempt out of its hand-in into one that is nobody's; gives that."""
    row = attempt(c, attempt_id)
    assert row is not None
    lab_id = lab_of_attempt(c, attempt_id)
    assert lab_id is not None
    made = _new_handin(c, lab_id, None, None, row.label)
    move_attempt(c, attempt_id, made)
    return made


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
