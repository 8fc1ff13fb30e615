"""Links to the board of a task, for students."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from obento.store.connection import Connection


@dataclass(frozen=True, slots=True)
class BoardLink:
    """`tells` is how much of right and wrong is said: nothing, count or rows; `start` is the text that a board begins
    with, None for the empty unit."""

    task_id: int
    token: str
    tells: str
    made_at: datetime
    start: str | None


_LINK = "SELECT b.task_id, b.token, b.tells, b.made_at, b.start FROM board_link b"


def link_of(c: Connection, task_id: int) -> BoardLink | None:
    return c.one(BoardLink, f"{_LINK} WHERE b.task_id = %s", task_id)


def link_behind(c: Connection, token: str) -> BoardLink | None:
    """The link of this token, unless its task, lab or class is in the bin."""
    return c.one(
        BoardLink,
        f"{_LINK} JOIN task t ON t.id = b.task_id JOIN lab l ON l.id = t.lab_id JOIN class k ON k.id = l.class_id WHERE"
        " b.token = %s AND t.gone_at IS NULL AND l.gone_at IS NULL AND k.gone_at IS NULL",
        token,
    )


def keep_link(c: Connection, task_id: int, token: str, tells: str, start: str | None, person_id: int) -> None:
    """Make a link, or say otherwise how much the one there is tells; its address stays."""
    c.run(
        "INSERT INTO board_link (task_id, token, tells, start, person_id, made_at) VALUES (%s, %s, %s, %s, %s,"
        " UTC_TIMESTAMP(6)) ON DUPLICATE KEY UPDATE tells = VALUES(tells), start = VALUES(start), person_id ="
        " VALUES(person_id)",
        task_id, token, tells, start, person_id,
    )  # fmt: skip


def withdraw_link(c: Connection, task_id: int) -> None:
    c.run("DELETE FROM board_link WHERE task_id = %s", task_id)


@dataclass(frozen=True, slots=True)
class KnownBlock:
    """A file beside another task of the class that may be used as a block."""

    task: str
    name: str
    data: bytes


def blocks_of_class(c: Connection, class_id: int, but_of: int) -> list[KnownBlock]:
    """What other tasks of a class have beside their specs that could be a block, newest task first."""
    return c.all(
        KnownBlock,
        "SELECT t.title AS task, f.name, f.data FROM task_file f JOIN task t ON t.id = f.task_id JOIN lab l ON"
        " l.id = t.lab_id WHERE l.class_id = %s AND t.id <> %s AND t.gone_at IS NULL AND l.gone_at IS NULL AND"
        " f.name REGEXP '[.](wiring|v|sv|vhd|vhdl)$' ORDER BY t.id DESC, f.name",
        class_id,
        but_of,
    )
