"""The demo class, loaded and checked once for all tests of a process, and put back for each module that wants it."""

from __future__ import annotations

import threading
import time
from pathlib import Path

from fastapi.testclient import TestClient

from obento.demo.load import load_demo
from obento.server.app import create_app
from obento.server.settings import Settings
from obento.store.connection import Connection, Store
from obento.store.mariadb import Address
from tests.conftest import empty


def _tables(c: Connection) -> list[str]:
    return [name for row in c.rows("SHOW TABLES") if (name := next(iter(row.values()))) != "migration"]


class DemoClass:
    """Every record of the demo class, by table."""

    def __init__(self, address: Address, root: Path, var: Path) -> None:
        self.store = Store(address)
        empty(self.store)
        settings = Settings(root=root, var=var / "demo-class")
        assert load_demo(self.store, settings)
        with TestClient(create_app(settings, address)):
            # The demo is checked as the server starts, and smallest changes are looked for after that.
            while any(t.name.startswith("check-") for t in threading.enumerate()):
                time.sleep(0.05)
        with self.store.transaction() as c:
            self.records = {table: c.rows(f"SELECT * FROM `{table}`") for table in _tables(c)}

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
