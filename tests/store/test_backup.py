"""All records in one file, and back: whole, or not at all."""

from __future__ import annotations

import os
import subprocess
import sys
import zipfile
from pathlib import Path

import pytest

from obento.store import accounts, course
from obento.store.backup import BackupTrouble, about, back_up, is_empty, restore, try_upgrade
from obento.store.connection import Store
from obento.store.mariadb import PrivateServer
from obento.store.migrate import migrate
from tests.conftest import empty

ODD = "Åse \\ 'quoted' \"twice\" \n\0\u2028🧺"


@pytest.fixture
def filled(database: PrivateServer) -> Store:
    store = Store(database.address)
    empty(store)
    with store.transaction() as c:
        person = accounts.add_person(c, "a@x.example", ODD, "hash")
        class_id = course.add_class(c, ODD, "", person, "lecturer")
        lab = course.add_lab(c, class_id, "Lab", None)
        handin = c.insert("INSERT INTO handin (lab_id, label, created_at) VALUES (%s, 'x', NOW())", lab)
        attempt = c.insert(
            "INSERT INTO attempt (handin_id, number, label, received_at, digest) VALUES (%s, 1, 'x', NOW(), 'd')",
            handin,
        )
        data = bytes(range(256)) * 40
        c.run("INSERT INTO attempt_file (attempt_id, path, data, refused) VALUES (%s, 'a.v', %s, '')", attempt, data)
    return store


def test_what_is_in_a_backup_comes_back(filled: Store, tmp_path: Path) -> None:
    file = tmp_path / "all.zip"
    made = back_up(filled.address, file, "1")
    assert made.rows["person"] == 1 and made.rows["attempt_file"] == 1 and about(file) == made
    assert oct(file.stat().st_mode & 0o777) == "0o600" and not list(tmp_path.glob("*.part"))
    with filled.transaction() as c:
        c.run("UPDATE person SET name = 'somebody else'")
        c.run("DELETE FROM attempt_file")
    restore(filled.address, file)
    with filled.transaction() as c:
        assert c.value("SELECT name FROM person") == ODD
        assert c.value("SELECT data FROM attempt_file") == bytes(range(256)) * 40
        assert c.rows("SHOW TRIGGERS")
    assert migrate(filled) == []


def test_a_damaged_backup_changes_nothing(filled: Store, tmp_path: Path) -> None:
    file = tmp_path / "all.zip"
    back_up(filled.address, file, "1", is_tried=False)
    data = file.read_bytes()
    for spoiled in (b"", data[:-30], data[:200] + b"?" + data[201:], b"no zip at all"):
        file.write_bytes(spoiled)
        with pytest.raises(BackupTrouble):
            restore(filled.address, file)
    with zipfile.ZipFile(file, "w") as archive:
        archive.writestr("records.sql", "DROP TABLE person;")
        archive.writestr("about.json", '{"made_at": "", "program": "", "sha256": "0", "rows": {}}')
    with pytest.raises(BackupTrouble, match="damaged"):
        restore(filled.address, file)
    assert not is_empty(filled.address)


def test_a_database_that_is_not_there_is_said(filled: Store, tmp_path: Path) -> None:
    from dataclasses import replace

    with pytest.raises(BackupTrouble, match="could not be read out"):
        back_up(replace(filled.address, password="wrong"), tmp_path / "x.zip", "1")
    with pytest.raises(BackupTrouble, match="cannot be written"):
        back_up(filled.address, tmp_path / "nowhere/x.zip", "1")
    assert list(tmp_path.iterdir()) == []


def test_an_upgrade_is_tried_on_a_copy(filled: Store) -> None:
    assert try_upgrade(filled.address) == []
    with filled.transaction() as c:
        c.run("DELETE FROM migration WHERE name = '0010_sign_ins.sql'")
    assert try_upgrade(filled.address) == ["0010_sign_ins.sql"]
    with filled.transaction() as c:
        assert c.value("SELECT 1 FROM migration WHERE name = '0010_sign_ins.sql'") is None
    assert migrate(filled) == ["0010_sign_ins.sql"]


def test_from_the_command_line(root: Path, tmp_path: Path) -> None:
    env = os.environ | {"OBENTO_ROOT": str(root), "OBENTO_VAR": str(tmp_path / "var"), "PYTHONPATH": str(root / "src")}

    def obento(*arguments: str) -> subprocess.CompletedProcess[str]:
        command = [sys.executable, "-m", "obento", *arguments]
        return subprocess.run(command, env=env, capture_output=True, text=True, timeout=120, cwd=tmp_path)

    assert obento("account", "a@x.example", "Ada Berg").returncode == 0
    made = obento("backup", "all.zip")
    assert made.returncode == 0 and "restored on trial" in made.stdout, made.stderr
    refused = obento("restore", "all.zip")
    assert refused.returncode == 1 and "--replace" in refused.stderr
    back = obento("restore", "all.zip", "--replace")
    assert back.returncode == 0 and "are back" in back.stdout, back.stderr
    assert len(list((tmp_path / "var").glob("before-restore-*.zip"))) == 1
    tried = obento("db", "try-upgrade")
    assert tried.returncode == 0 and "nothing to upgrade" in tried.stdout
