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
    """By (cluster, hand-in); hand-in 0 is the comment for the whole cluster. One that was written when the spec
    expected something else, or for another lab, has no text: it is a proposal (`earlier_comments`)."""
    rows = c.rows(
        "SELECT cluster, handin_id, text, version, person_id, at, spec_version_id, from_task_id FROM comment WHERE"
        " task_id = %s",
        task_id,
    )
    holding = _holding(c, task_id) if any(r["spec_version_id"] is not None for r in rows) else set()
    found: dict[tuple[str, int], Comment] = {}
    for r in rows:
        is_own = r["from_task_id"] is None
        holds = r["handin_id"] or (is_own and (r["spec_version_id"] is None or r["spec_version_id"] in holding))
        text = r["text"] if holds else ""
        key = (r["cluster"], r["handin_id"])
        found[key] = Comment(*key, text, r["version"], r["person_id"], r["at"])
    return found


def _holding(c: Connection, task_id: int) -> set[int]:
    """The versions of a task's spec that expect what the current one does."""
    current = c.value("SELECT MAX(id) FROM spec_version WHERE task_id = %s", task_id)
    alike = c.rows(
        "SELECT DISTINCT o.spec_version_id AS id FROM result r JOIN result o ON o.task_id = r.task_id AND o.expected ="
        " r.expected WHERE r.task_id = %s AND r.spec_version_id = %s",
        task_id,
        current,
    )
    return {current, *(r["id"] for r in alike)}


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


@dataclass(frozen=True, slots=True)
class EarlierComment:
    """What was said of a cluster under a version of the spec (`spec_version_id`, of `task_id`) that is not the current
    one, or in a `lab` that this one was copied from (empty where it is this one)."""

    text: str
    cluster: str
    task_id: int
    spec_version_id: int | None
    number: int | None
    lab: str


def earlier_comments(c: Connection, task_id: int) -> list[EarlierComment]:
    """The comments on clusters that are no more than proposals by now: the newest 40."""
    return c.all(
        EarlierComment,
        "SELECT m.text, m.cluster, COALESCE(m.from_task_id, m.task_id) AS task_id, m.spec_version_id, v.number,"
        " IF(m.from_task_id IS NULL, '', COALESCE(l.title, 'another lab')) AS lab FROM comment m LEFT JOIN spec_version"
        " v ON v.id = m.spec_version_id LEFT JOIN task t ON t.id = m.from_task_id LEFT JOIN lab l ON l.id = t.lab_id"
        " WHERE m.task_id = %s AND m.handin_id = 0 AND m.text <> '' AND (m.from_task_id IS NOT NULL OR"
        " m.spec_version_id IS NOT NULL) ORDER BY m.at DESC, m.id DESC LIMIT 40",
        task_id,
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
    spec = c.value("SELECT MAX(id) FROM spec_version WHERE task_id = %s", task_id)
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
            "INSERT INTO comment (task_id, cluster, handin_id, text, version, person_id, at, spec_version_id) VALUES"
            " (%s, %s, %s, %s, 1, %s, UTC_TIMESTAMP(6), %s)",
            task_id,
            cluster,
            handin_id,
            text,
            person_id,
            spec,
        )
        return 1
    c.run(
        "UPDATE comment SET text = %s, version = version + 1, person_id = %s, at = UTC_TIMESTAMP(6), spec_version_id ="
        " %s, from_task_id = NULL WHERE id = %s",
        text,
        person_id,
        spec,
        known["id"],
    )
    return int(known["version"]) + 1
