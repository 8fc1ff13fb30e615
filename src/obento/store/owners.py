"""Whose hand-ins are: teams, and what a person said of names."""

from __future__ import annotations

import json
from collections.abc import Sequence
from dataclasses import dataclass

from obento.store.connection import Connection


@dataclass(frozen=True, slots=True)
class TeamMember:
    team_id: int
    id: int
    name: str
    number: str


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


def team_name(c: Connection, team_id: int) -> str:
    return str(c.value("SELECT name FROM team WHERE id = %s", team_id) or "")


def team_of(c: Connection, lab_id: int, student_id: int) -> int | None:
    """The team that a student is in in a lab, if any."""
    found: int | None = c.value(
        "SELECT m.team_id FROM team_member m JOIN team t ON t.id = m.team_id WHERE t.lab_id = %s AND m.student_id = %s",
        lab_id,
        student_id,
    )
    return found


def put_team(c: Connection, lab_id: int, name: str, student_ids: Sequence[int]) -> int:
    """The team of a lab that has just these members, made where there is none. Two teams of namesakes are two."""
    wanted = set(student_ids)
    for team_id, members in teams_of(c, lab_id).items():
        if {m.id for m in members} == wanted:
            return team_id
    alike = c.value("SELECT COUNT(*) FROM team WHERE lab_id = %s AND name LIKE CONCAT(%s, '%%')", lab_id, name[:180])
    called = f"{name[:180]} ({alike + 1})" if alike else name[:200]
    team_id = c.insert("INSERT INTO team (lab_id, name) VALUES (%s, %s)", lab_id, called)
    c.many("INSERT INTO team_member (team_id, student_id) VALUES (%s, %s)", [(team_id, s) for s in wanted])
    return team_id


def known_labels(c: Connection, class_id: int) -> dict[str, tuple[int, ...]]:
    """What a person said of names and of numbers (`#…`) that hand-ins come under: whose they are."""
    rows = c.rows("SELECT label, student_ids FROM known_label WHERE class_id = %s", class_id)
    return {r["label"]: tuple(json.loads(r["student_ids"])) for r in rows}


def remember_labels(
    c: Connection, class_id: int, labels: Sequence[str], student_ids: Sequence[int], person_id: int
) -> None:
    """Remember whose a name or number is."""
    c.many(
        "REPLACE INTO known_label (class_id, label, student_ids, person_id, at) VALUES (%s, %s, %s, %s,"
        " UTC_TIMESTAMP(6))",
        [(class_id, label[:300], json.dumps(sorted(student_ids)), person_id) for label in labels],
    )
