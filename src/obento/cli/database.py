"""The database for commands that work on it beside a server, or without one."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from obento.server.settings import Settings
from obento.store.mariadb import Address, PrivateServer


@contextmanager
def database_at_hand(settings: Settings) -> Iterator[Address]:
    """The database, started for the time of a block unless it runs already.

    Raises
    ------
    DatabaseTrouble
    """
    server = settings.database()
    is_ours = isinstance(server, PrivateServer) and not server.is_running()
    try:
        yield server.start()
    finally:
        if is_ours:
            server.stop()
