"""The demo class, loaded and checked once for all tests, and put back for each module that wants it."""

from __future__ import annotations

import fcntl
import pickle
import threading
import time
from pathlib import Path
from typing import Any

from fastapi.testclient import TestClient

from obento.demo.load import load_demo
from obento.server.app import create_app
from obento.server.settings import Settings
from obento.store.connection import Connection, Store
from obento.store.mariadb import Address
from tests.conftest import empty


def _tables(c: Connection) -> list[str]:
    return [name for row in c.rows("SHOW TABLES") if (name := next(iter(row.values()))) != "migration"]


Records = dict[str, list[dict[str, Any]]]


class DemoClass:
    """Every record of the demo class, by table; `shared` is a folder of all processes of one run of the tests, of which
    the first one checks the class for all of them."""

    def __init__(self, address: Address, root: Path, var: Path, shared: Path) -> None:
        self.store = Store(address)
        kept = shared / "demo-class.pickle"
        with (shared / "demo-class.lock").open("w") as lock:
            fcntl.flock(lock, fcntl.LOCK_EX)
            if not kept.exists():
                kept.write_bytes(pickle.dumps(self._checked(address, root, var)))
        self.records: Records = pickle.loads(kept.read_bytes())

    def _checked(self, address: Address, root: Path, var: Path) -> Records:
        empty(self.store)
        settings = Settings(root=root, var=var / "demo-class")
        assert load_demo(self.store, settings)
        with TestClient(create_app(settings, address)):
            # The demo is checked as the server starts, and smallest changes are looked for after that.
            while any(t.name.startswith("check-") for t in threading.enumerate()):
                time.sleep(0.05)
        with self.store.transaction() as c:
            return {table: c.rows(f"SELECT * FROM `{table}`") for table in _tables(c)}

    def put_back(self) -> None:
        """Have the database as it was when the demo was checked."""
        empty(self.store)
        with self.store.transaction() as c:
            c.run("SET FOREIGN_KEY_CHECKS = 0")
            for table, rows in self.records.items():
                if rows:
                    columns = ", ".join(f"`{name}`" for name in rows[0])
                    marks = ", ".join(["%s"] * len(rows[0]))
                    c.many(f"REPLACE INTO `{table}` ({columns}) VALUES ({marks})", [tuple(r.values()) for r in rows])
            c.run("SET FOREIGN_KEY_CHECKS = 1")
