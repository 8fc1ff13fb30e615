"""Comments on clusters, and notes to one hand-in."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated

from obento.store.connection import Connection
from obento.store.records import Json
from obento.store.results import Detail


@dataclass(frozen=True, slots=True)
class Comment:
    """`handin_id` is 0 for the comment on a whole cluster."""

    cluster: str
    handin_id: int
    text: str
    version: int
    person_id: int
    at: datetime


@dataclass(frozen=True, slots=True)
class CommentInBank:
    """A comment of another cluster, and the detail of an outcome that it was written on."""

    text: str
    lab: str
    task: str
    detail: Annotated[Detail | None, Json(Detail.parsed_if_any)]


def comments_of(c: Connection, task_id: int) -> dict[tuple[str, int], Comment]:
    """By (cluster, hand-in); hand-in 0 is the comment for the whole cluster."""
    rows = c.all(
        Comment, "SELECT cluster, handin_id, text, version, person_id, at FROM comment WHERE task_id = %s", task_id
    )
    return {(r.cluster, r.handin_id): r for r in rows}


def comments_by(c: Connection, person_id: int, task_id: int, cluster: str) -> list[CommentInBank]:
    """Comments on clusters in all classes of a person, newest first, with the outcome they were written on; without the
    one named."""
    return c.all(
        CommentInBank,
        "SELECT m.text, l.title AS lab, t.title AS task, (SELECT r.detail FROM result r WHERE r.task_id = m.task_id AND"
        " r.cluster = SUBSTRING_INDEX(m.cluster, ':', 1) LIMIT 1) AS detail FROM comment m JOIN task t ON t.id ="
        " m.task_id JOIN lab l ON l.id = t.lab_id JOIN class_role k ON k.class_id = l.class_id WHERE k.person_id = %s"
        " AND m.handin_id = 0 AND TRIM(m.text) <> '' AND NOT (m.task_id = %s AND m.cluster = %s) ORDER BY m.at DESC"
        " LIMIT 200",
        person_id,
        task_id,
        cluster,
    )


class EditedMeanwhile(Exception):
    """Somebody else saved the same (`what`: a comment, a spec) first; `text` is what stands there now."""

    def __init__(self, what: str, text: str, version: int) -> None:
        super().__init__("edited meanwhile")
        self.what = what
        self.text = text
        self.version = version


def put_comment(
    c: Connection, task_id: int, cluster: str, handin_id: int, text: str, version: int, person_id: int
) -> int:
    """Save a comment written on top of `version` (0 for a new one); gives the new version.

    Raises
    ------
    EditedMeanwhile
        If another version stands there by now.
    """
    known = c.row(
        "SELECT id, text, version FROM comment WHERE task_id = %s AND cluster = %s AND handin_id = %s FOR UPDATE",
        task_id,
        cluster,
        handin_id,
    )
    if known is not None and known["version"] != version and known["text"] != text:
        raise EditedMeanwhile("comment", known["text"], known["version"])
    if known is None:
        c.run(
            "INSERT INTO comment (task_id, cluster, handin_id, text, version, person_id, at) VALUES (%s, %s, %s, %s, 1,"
            " %s, UTC_TIMESTAMP(6))",
            task_id,
            cluster,
            handin_id,
            text,
            person_id,
        )
        return 1
    c.run(
        "UPDATE comment SET text = %s, version = version + 1, person_id = %s, at = UTC_TIMESTAMP(6) WHERE id = %s",
        text,
        person_id,
        known["id"],
    )
    return int(known["version"]) + 1
