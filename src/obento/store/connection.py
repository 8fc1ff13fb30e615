"""Connections and transactions. Everything that changes records runs inside `Store.transaction`."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager, suppress
from typing import Any, TypeVar

import pymysql
from pymysql.cursors import DictCursor

from obento.store.mariadb import Address, DatabaseTrouble
from obento.store.records import R, record

Row = dict[str, Any]
T = TypeVar("T")

_NOBODY_THERE = frozenset([2002, 2003])
_FULL = frozenset([3, 1021, 1026, 1030, 1114])
"""What the server says when its disk is full: whatever waits for it goes on when there is room."""
_GONE = _NOBODY_THERE | _FULL | frozenset([2006, 2013, 2055, 1053, 1927])
CONFLICTS = frozenset([1205, 1213, 1467])
"""What the server says where transactions stand in each other's way; the last where one waits for a new key."""
_DUPLICATE = 1062
_MOST_KEPT = 8
"""Connections kept open while nobody uses them."""


class DatabaseGone(Exception):
    """The database does not answer, or has no room, just now."""


class Connection:
    """A connection inside one transaction: `all`, `one`, `rows`, `row`, `value` read, `run` changes, `insert` gives the
    new id."""

    def __init__(self, raw: pymysql.connections.Connection[DictCursor], is_shown: bool = True) -> None:
        self._raw = raw
        self._is_shown = is_shown
        self._has_changed = False

    def rows(self, sql: str, *values: object) -> list[Row]:
        with self._raw.cursor() as cursor:
            cursor.execute(sql, values or None)
            return list(cursor.fetchall())

    def all(self, cls: type[R], sql: str, *values: object) -> list[R]:
        """All rows as records."""
        return [record(cls, row) for row in self.rows(sql, *values)]

    def one(self, cls: type[R], sql: str, *values: object) -> R | None:
        """The first row as a record."""
        found = self.row(sql, *values)
        return record(cls, found) if found is not None else None

    def row(self, sql: str, *values: object) -> Row | None:
        found = self.rows(sql, *values)
        return found[0] if found else None

    def value(self, sql: str, *values: object) -> Any:
        found = self.row(sql, *values)
        return next(iter(found.values())) if found else None

    def run(self, sql: str, *values: object) -> int:
        """How many rows were changed."""
        with self._raw.cursor() as cursor:
            changed = cursor.execute(sql, values or None)
        self._has_changed = self._has_changed or changed > 0
        return changed

    def insert(self, sql: str, *values: object) -> int:
        with self._raw.cursor() as cursor:
            cursor.execute(sql, values or None)
            self._has_changed = True
            return cursor.lastrowid

    def many(self, sql: str, rows: Sequence[Sequence[object]]) -> None:
        if rows:
            with self._raw.cursor() as cursor:
                cursor.executemany(sql, rows)
            self._has_changed = True

    def generation(self) -> int:
        """A number for the state of the records that this transaction sees; every later state has another."""
        found: int = self.value("SELECT n FROM generation WHERE id = 1") or 0
        return found

    def end(self) -> None:
        """Commit. A transaction that changed something says so last of all, so that those who wait for it there hold
        nothing that it still needs."""
        if self._has_changed and self._is_shown:
            self.run("INSERT INTO generation (id, n) VALUES (1, UUID_SHORT()) ON DUPLICATE KEY UPDATE n = n + 1")
        self._raw.commit()


class Store:
    """Where the records are. A few connections are kept open between transactions; each is asked before it is used
    again whether it still lives, so that a database that was away and came back is noticed by nobody."""

    def __init__(self, address: Address, revive: Callable[[], Address] | None = None) -> None:
        self.address = address
        self._revive = revive
        self._idle: list[pymysql.connections.Connection[DictCursor]] = []
        self._lock = threading.Lock()

    def close(self) -> None:
        """Let go of the connections kept; the store may be used again."""
        with self._lock:
            idle, self._idle = self._idle, []
        for raw in idle:
            _close(raw)

    def _take(self) -> pymysql.connections.Connection[DictCursor]:
        """A connection that was kept and still answers, or a new one."""
        while True:
            with self._lock:
                raw = self._idle.pop() if self._idle else None
            if raw is None:
                return self._connect()
            try:
                raw.ping(reconnect=False)
                return raw
            except (pymysql.err.Error, OSError):
                _close(raw)

    def _give_back(self, raw: pymysql.connections.Connection[DictCursor]) -> None:
        """Keep a connection whose transaction was committed."""
        with self._lock:
            if len(self._idle) < _MOST_KEPT:
                self._idle.append(raw)
                return
        _close(raw)

    def _connect(self) -> pymysql.connections.Connection[DictCursor]:
        """A new connection; a server of our own that is not there any more is started again for it."""
        try:
            return self._connected()
        except pymysql.err.OperationalError as error:
            if self._revive is None or error.args[0] not in _NOBODY_THERE:
                raise
            try:
                self.address = self._revive()
            except DatabaseTrouble as trouble:
                raise DatabaseGone(str(trouble)) from trouble
            return self._connected()

    def _connected(self) -> pymysql.connections.Connection[DictCursor]:
        return self.address.connect(
            charset="utf8mb4", cursorclass=DictCursor, autocommit=False, connect_timeout=5,
            init_command="SET SESSION time_zone = '+00:00', sql_mode = 'STRICT_ALL_TABLES,NO_ENGINE_SUBSTITUTION'",
        )  # fmt: skip

    @contextmanager
    def transaction(self, is_shown: bool = True) -> Iterator[Connection]:
        """All or nothing: committed when the block ends, rolled back when it raises.

        Parameters
        ----------
        is_shown
            Whether some page may show what changes. Sign-ins, and tries of them, are shown on none: whoever tries
            passwords has nobody's pages made anew.

        Raises
        ------
        DatabaseGone
            If the server does not answer; nothing was changed then, unless the answer to the commit itself was lost.
        """
        try:
            raw = self._take()
        except pymysql.err.OperationalError as error:
            raise DatabaseGone(str(error)) from error
        kept = False
        try:
            connection = Connection(raw, is_shown)
            yield connection
            connection.end()
            kept = True
        except pymysql.err.OperationalError as error:
            if error.args and error.args[0] in _GONE:
                raise DatabaseGone(str(error)) from error
            raise
        except pymysql.err.InterfaceError as error:
            raise DatabaseGone(str(error)) from error
        finally:
            if kept:
                self._give_back(raw)
            else:
                _close(raw)  # what it began is undone by the server

    def retrying(self, work: Callable[[Connection], T], seconds: float = 120.0) -> T:
        """Do `work` in a transaction of its own; while the database is away or busy, try again."""
        end = time.monotonic() + seconds
        pause = 0.05
        while True:
            try:
                with self.transaction() as connection:
                    return work(connection)
            except DatabaseGone:
                if time.monotonic() > end:
                    raise
            except (pymysql.err.OperationalError, pymysql.err.IntegrityError) as error:
                # A key that was not there when this looked: somebody was quicker, and it is there now.
                if error.args[0] not in CONFLICTS | {_DUPLICATE} or time.monotonic() > end:
                    raise
            time.sleep(pause)
            pause = min(1.0, pause * 2)


def _close(raw: pymysql.connections.Connection[DictCursor]) -> None:
    with suppress(pymysql.err.Error):  # it may be lost already
        raw.close()
