"""Deleting a person's data for good, wherever it may stand."""

from __future__ import annotations

import json
from dataclasses import dataclass

from obento.store.connection import Connection
from obento.store.planes import drop_unused, planes_of_handin

_NOBODY = "erased"


@dataclass(frozen=True, slots=True)
class Erased:
    """What was deleted, in numbers that name nobody; `addresses` are to be deleted from mailboxes and then
    forgotten."""

    handins: int
    letters: int
    places: int
    addresses: tuple[str, ...]


def erase_student(c: Connection, student_id: int) -> Erased:
    """Delete a person's data: hand-ins of their own, letters, notes, marks, what was remembered of their names, and
    their name wherever else it stands. The line of the class list stays as an empty shell. What a team handed in
    together stays with the team, without their name."""
    row = c.row("SELECT class_id, number, name, email FROM student WHERE id = %s", student_id)
    assert row is not None
    own = [r["id"] for r in c.rows("SELECT id FROM handin WHERE student_id = %s", student_id)]
    for handin_id in own:
        behaviour = planes_of_handin(c, handin_id)
        c.run("DELETE FROM comment WHERE handin_id = %s", handin_id)
        c.run("DELETE FROM handin WHERE id = %s", handin_id)
        for digest in behaviour:
            drop_unused(c, digest)
    letters = _own_letters(c, student_id)
    c.run("DELETE FROM extension WHERE student_id = %s", student_id)
    c.run("DELETE FROM excused WHERE student_id = %s", student_id)
    c.run("DELETE FROM mark_entry WHERE student_id = %s", student_id)
    said = [text for text in (row["name"], row["number"], row["email"]) if len(text) > 1]
    places = _in_teams(c, student_id, row["name"]) + _known(c, row["class_id"], student_id)
    places += sum(_in_texts(c, row["class_id"], text) for text in said)
    c.run(
        "UPDATE student SET name = '', email = '', group_name = '', team_name = '', remarks = '', given = '{}',"
        " number = CONCAT('erased-', id), erased_at = UTC_TIMESTAMP(6) WHERE id = %s",
        student_id,
    )
    return Erased(len(own), letters, places, (row["email"],) if row["email"] else ())


def _own_letters(c: Connection, student_id: int) -> int:
    return c.run("DELETE FROM letter WHERE student_id = %s", student_id)


def _in_teams(c: Connection, student_id: int, name: str) -> int:
    """Their teams: names, the names that hand-ins came under, and the letters of the others."""
    found = 0
    for row in c.rows("SELECT team_id FROM team_member WHERE student_id = %s", student_id):
        team = row["team_id"]
        found += c.run("UPDATE team SET name = CONCAT('team ', id) WHERE id = %s", team)
        c.run("UPDATE handin SET label = %s WHERE team_id = %s", _NOBODY, team)
        c.run(
            "UPDATE attempt a JOIN handin h ON h.id = a.handin_id SET a.label = %s WHERE h.team_id = %s", _NOBODY, team
        )
        found += _in_letters_of_mates(c, team, name)
    c.run("DELETE FROM team_member WHERE student_id = %s", student_id)
    return found


def _in_letters_of_mates(c: Connection, team_id: int, name: str) -> int:
    found = 0
    for row in c.rows(
        "SELECT l.id, l.frozen FROM letter l JOIN team_member m ON m.student_id = l.student_id JOIN team t ON t.id ="
        " m.team_id AND t.lab_id = l.lab_id WHERE m.team_id = %s",
        team_id,
    ):
        frozen = json.loads(row["frozen"])
        if name in frozen.get("team", []):
            frozen["team"] = [_NOBODY if mate == name else mate for mate in frozen["team"]]
            c.run("UPDATE letter SET frozen = %s WHERE id = %s", json.dumps(frozen, ensure_ascii=False), row["id"])
            found += 1
    return found


def _known(c: Connection, class_id: int, student_id: int) -> int:
    return c.run(
        "DELETE FROM known_label WHERE class_id = %s AND JSON_CONTAINS(student_ids, %s)", class_id, str(student_id)
    )


def _in_texts(c: Connection, class_id: int, text: str) -> int:
    """Drops and the audit of a class, where a name, a number or an address stands in words."""
    like = "%" + text.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_") + "%"
    found = c.run(
        "UPDATE intake_drop d JOIN lab l ON l.id = d.lab_id SET d.name = REPLACE(d.name, %s, %s), d.left_out ="
        " REPLACE(d.left_out, %s, %s) WHERE l.class_id = %s AND (d.name LIKE %s OR d.left_out LIKE %s)",
        text,
        _NOBODY,
        text,
        _NOBODY,
        class_id,
        like,
        like,
    )
    return found + c.run("UPDATE audit SET detail = REPLACE(detail, %s, %s) WHERE detail LIKE %s", text, _NOBODY, like)
