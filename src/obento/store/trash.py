"""What was taken away: classes, labs, tasks and drops, which can be had back for a while and are then gone for good."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from obento.store.connection import Connection

Kind = Literal["class", "lab", "task", "drop"]
DAYS = 30
_TABLES: dict[Kind, str] = {"class": "class", "lab": "lab", "task": "task", "drop": "intake_drop"}


@dataclass(frozen=True, slots=True)
class Gone:
    """Something that was taken away; `place` is what it was in."""

    kind: Kind
    id: int
    class_id: int
    name: str
    place: str
    at: datetime


@dataclass(frozen=True, slots=True)
class Hanging:
    """What goes with something: how many hand-ins, marks by hand, comments and letters."""

    handins: int
    marks: int
    comments: int
    letters: int


def take_away(c: Connection, kind: Kind, number: int) -> None:
    """Have something be gone, with all that hangs on it."""
    c.run(f"UPDATE {_TABLES[kind]} SET gone_at = UTC_TIMESTAMP(6) WHERE id = %s AND gone_at IS NULL", number)


def take_back(c: Connection, kind: Kind, number: int) -> None:
    """Have it be there again."""
    c.run(f"UPDATE {_TABLES[kind]} SET gone_at = NULL WHERE id = %s", number)


def gone_for(c: Connection, person_id: int) -> list[Gone]:
    """What was taken away from the classes of a person, the newest first; what hangs on it is not named by itself."""
    return c.all(
        Gone,
        "SELECT * FROM ("
        " SELECT 'class' AS kind, k.id, k.id AS class_id, k.name, k.school AS place, k.gone_at AS at FROM class k WHERE"
        " k.gone_at IS NOT NULL"
        " UNION ALL SELECT 'lab', l.id, l.class_id, l.title, k.name, l.gone_at FROM lab l JOIN class k ON k.id ="
        " l.class_id WHERE l.gone_at IS NOT NULL AND k.gone_at IS NULL"
        " UNION ALL SELECT 'task', t.id, l.class_id, t.title, l.title, t.gone_at FROM task t JOIN lab l ON l.id ="
        " t.lab_id WHERE t.gone_at IS NOT NULL AND l.gone_at IS NULL"
        " UNION ALL SELECT 'drop', d.id, l.class_id, d.name, l.title, d.gone_at FROM intake_drop d JOIN lab l ON l.id ="
        " d.lab_id WHERE d.gone_at IS NOT NULL AND l.gone_at IS NULL"
        ") gone WHERE class_id IN (SELECT class_id FROM class_role WHERE person_id = %s) ORDER BY at DESC",
        person_id,
    )


_HANGING: dict[Kind, str] = {
    "class": "b.class_id = %s", "lab": "b.id = %s", "task": "a.task_id = %s", "drop": "a.drop_id = %s",
}  # fmt: skip


def hanging(c: Connection, kind: Kind, number: int) -> Hanging:
    """What goes with something that is to be taken away."""
    attempts = (
        "SELECT COUNT(DISTINCT h.id) FROM handin h JOIN lab b ON b.id = h.lab_id JOIN attempt a ON a.handin_id = h.id"
        f" WHERE {_HANGING[kind]}"
    )
    of_task = {"class": "b.class_id = %s", "lab": "b.id = %s", "task": "t.id = %s"}.get(kind)
    of_lab = {"class": "b.class_id = %s", "lab": "b.id = %s"}.get(kind)
    marks = comments = letters = 0
    if of_task is not None:
        tasks = f"FROM task t JOIN lab b ON b.id = t.lab_id JOIN {{}} x ON x.task_id = t.id WHERE {of_task}"
        marks = c.value(f"SELECT COUNT(*) {tasks.format('mark_entry')} AND x.kind IN ('override', 'manual')", number)
        comments = c.value(f"SELECT COUNT(*) {tasks.format('comment')} AND x.text <> ''", number)
    if of_lab is not None:
        letters = c.value(
            f"SELECT COUNT(*) FROM letter x JOIN lab b ON b.id = x.lab_id WHERE {of_lab} AND x.withdrawn_at IS NULL",
            number,
        )
    return Hanging(int(c.value(attempts, number)), int(marks), int(comments), int(letters))


_OVER = f"gone_at < UTC_TIMESTAMP(6) - INTERVAL {DAYS} DAY"


def purge(c: Connection) -> int:
    """Delete for good what was taken away long ago; gives how many things."""
    over = {kind: [r["id"] for r in c.rows(f"SELECT id FROM {table} WHERE {_OVER}")] for kind, table in _TABLES.items()}
    for number in over["drop"]:
        _purge_drop(c, number)
    for number in over["task"]:
        _purge_task(c, number)
    for number in over["lab"]:
        _purge_lab(c, number)
    for number in over["class"]:
        _purge_class(c, number)
    count = sum(map(len, over.values()))
    if count:
        c.run(
            "DELETE p FROM planes p LEFT JOIN result r ON r.planes = p.digest LEFT JOIN result e ON e.expected ="
            " p.digest WHERE r.id IS NULL AND e.id IS NULL"
        )
    return count


def _purge_drop(c: Connection, number: int) -> None:
    c.run("DELETE FROM attempt WHERE drop_id = %s", number)
    c.run(
        "DELETE h FROM handin h JOIN intake_drop d ON d.lab_id = h.lab_id LEFT JOIN attempt a ON a.handin_id = h.id"
        " WHERE d.id = %s AND a.id IS NULL",
        number,
    )
    c.run("DELETE FROM intake_drop WHERE id = %s", number)


def _purge_task(c: Connection, number: int) -> None:
    c.run("DELETE FROM result WHERE task_id = %s", number)
    c.run("DELETE FROM attempt WHERE task_id = %s", number)
    for table in ("mark_entry", "comment", "consent", "choice"):
        c.run(f"DELETE FROM {table} WHERE task_id = %s", number)
    c.run("DELETE f FROM spec_file f JOIN spec_version v ON v.id = f.spec_version_id WHERE v.task_id = %s", number)
    c.run("DELETE FROM spec_version WHERE task_id = %s", number)
    c.run("DELETE FROM task_file WHERE task_id = %s", number)
    c.run("UPDATE intake_drop SET task_id = NULL WHERE task_id = %s", number)
    c.run("DELETE FROM task WHERE id = %s", number)


def _purge_lab(c: Connection, number: int) -> None:
    c.run("DELETE FROM letter WHERE lab_id = %s AND corrects IS NOT NULL", number)
    c.run("DELETE FROM letter WHERE lab_id = %s", number)
    c.run("DELETE FROM handin WHERE lab_id = %s", number)
    for task in c.rows("SELECT id FROM task WHERE lab_id = %s", number):
        _purge_task(c, task["id"])
    c.run("DELETE m FROM team_member m JOIN team t ON t.id = m.team_id WHERE t.lab_id = %s", number)
    for table in ("team", "extension", "excused", "check_run", "intake_drop"):
        c.run(f"DELETE FROM {table} WHERE lab_id = %s", number)
    c.run("DELETE FROM lab WHERE id = %s", number)


def _purge_class(c: Connection, number: int) -> None:
    for lab in c.rows("SELECT id FROM lab WHERE class_id = %s", number):
        _purge_lab(c, lab["id"])
    for table in ("known_label", "student", "class_role"):
        c.run(f"DELETE FROM {table} WHERE class_id = %s", number)
    c.run("DELETE FROM class WHERE id = %s", number)
