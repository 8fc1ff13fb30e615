"""Shared set-up: small helpers to run texts through the core, and a database of the tests' own."""

from __future__ import annotations

import os
import shutil
import tempfile
from collections.abc import Iterator
from pathlib import Path
from typing import TYPE_CHECKING

import pytest
from hypothesis import settings

from obento.store.connection import Store
from obento.store.mariadb import PrivateServer
from obento.store.migrate import migrate

if TYPE_CHECKING:
    from tests.demo_class import DemoClass

# No test is timed: a busy machine must not fail an example that is right.
settings.register_profile("untimed", deadline=None)
settings.load_profile("untimed")

ROOT = Path(__file__).resolve().parents[1]


@pytest.fixture(scope="session")
def var_folder() -> Iterator[Path]:
    folder = Path(tempfile.mkdtemp(prefix="obento-test-"))
    yield folder
    shutil.rmtree(folder, ignore_errors=True)


@pytest.fixture(scope="session")
def database(var_folder: Path) -> Iterator[PrivateServer]:
    """A MariaDB server that no demo or class ever sees."""
    server = PrivateServer(var_folder / "database")
    server.start()
    migrate(Store(server.address))
    yield server
    server.stop()


@pytest.fixture(scope="session")
def root() -> Path:
    return Path(os.environ.get("OBENTO_ROOT", ROOT))


def empty(store: Store) -> None:
    """Delete every record; the tables stay."""
    with store.transaction() as c:
        c.run("SET FOREIGN_KEY_CHECKS = 0")
        for row in c.rows("SHOW TABLES"):
            table = next(iter(row.values()))
            if table != "migration":
                c.run(f"DELETE FROM `{table}`")
        c.run("SET FOREIGN_KEY_CHECKS = 1")


@pytest.fixture(scope="session")
def demo_class(
    database: PrivateServer, root: Path, var_folder: Path, tmp_path_factory: pytest.TempPathFactory
) -> DemoClass:
    """The demo class, checked: `put_back` has the database hold it and nothing else."""
    from tests.demo_class import DemoClass  # only where somebody asks: it needs the whole server

    own = tmp_path_factory.getbasetemp()
    is_one_of_several = "PYTEST_XDIST_WORKER" in os.environ
    return DemoClass(database.address, root, var_folder, own.parent if is_one_of_several else own)


@pytest.fixture
def store(database: PrivateServer) -> Store:
    """An empty store."""
    store = Store(database.address)
    empty(store)
    return store
