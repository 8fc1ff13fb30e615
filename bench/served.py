"""The whole application for a benchmark: a database and a server of its own, gone afterwards."""

from __future__ import annotations

import tempfile
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path

import uvicorn

from obento.server.accounts.security import hash_password
from obento.server.app import create_app
from obento.server.settings import Settings
from obento.store import accounts, course
from obento.store.connection import Connection, Store
from obento.store.mariadb import PrivateServer, free_port
from obento.store.migrate import migrate

ROOT = Path(__file__).resolve().parents[1]
EMAIL, PASSWORD = "b@x.example", "bench-password"


@dataclass(frozen=True, slots=True)
class Served:
    store: Store
    address: str
    folder: Path


def add_teacher(c: Connection) -> tuple[int, int]:
    """Somebody who can sign in, and a class of theirs."""
    ta = accounts.add_person(c, EMAIL, "Bench", hash_password(PASSWORD))
    return ta, course.add_class(c, "Bench", "", ta, "lecturer")


@contextmanager
def serving() -> Iterator[Served]:
    """An empty application on loopback while the block runs."""
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        database = PrivateServer(folder / "database")
        address = database.start()
        try:
            store = Store(address)
            migrate(store)
            port = free_port()
            app = create_app(Settings(root=ROOT, var=folder, port=port), address)
            server = uvicorn.Server(uvicorn.Config(app, port=port, log_level="error", timeout_graceful_shutdown=1))
            thread = threading.Thread(target=server.run, daemon=True)
            thread.start()
            while not server.started:
                time.sleep(0.05)
            try:
                yield Served(store, f"http://127.0.0.1:{port}", folder)
            finally:
                server.should_exit = True
                thread.join(20)
        finally:
            database.stop()
