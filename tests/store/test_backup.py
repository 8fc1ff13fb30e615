"""All records in one file, and back: whole, or not at all."""

from __future__ import annotations

import os
import subprocess
import sys
import zipfile
from pathlib import Path

import pytest

from obento.store import accounts, course, erasing, people
from obento.store.backup import BackupTrouble, about, back_up, is_empty, restore, try_upgrade
from obento.store.connection import Store
from obento.store.erased import ErasedOutcome, keep_outcomes, outcomes_of_task
from obento.store.erased_for_good import Erasures, Ledger, erase_again, erasures
from obento.store.mariadb import PrivateServer
from obento.store.migrate import migrate
from obento.store.people import Listed
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


@pytest.fixture
def listed(filled: Store) -> dict[str, int]:
    """Three people on a class list, by number."""
    with filled.transaction() as c:
        class_id = int(c.value("SELECT id FROM class"))
        lab = int(c.value("SELECT id FROM lab"))
        task = course.add_task(c, lab, "Locks")
        for n in range(3):
            people.put_student(c, class_id, Listed(str(n), f"Name {n}", f"{n}@x.example"), n)
        return {s.number: s.id for s in people.students(c, class_id)} | {"task": task}


def test_who_was_erased_stays_erased_when_an_older_backup_comes_back(
    filled: Store, listed: dict[str, int], tmp_path: Path
) -> None:
    file, ledger = tmp_path / "all.zip", Ledger(tmp_path / "erased")
    back_up(filled.address, file, "1", is_tried=False)
    outcome = ErasedOutcome(listed["1"], listed["task"], None, "wrong", 2.5, "inverted", b"\x05")
    with filled.transaction() as c:
        assert erasing.erase_student(c, listed["1"]).addresses == ("1@x.example",)
        keep_outcomes(c, [outcome])
        known = erasures(c)
        first_free = known.first_free
    ledger.keep(known)
    ledger.keep(known)
    assert len((tmp_path / "erased").read_text().split()) == 2 and "Name" not in (tmp_path / "erased").read_text()
    for before, kept in ((known, [outcome]), (Erasures("", frozenset(), (), 1), [])):  # the second time it was lost
        restore(filled.address, file)
        with filled.transaction() as c:
            assert c.value("SELECT COUNT(*) FROM student WHERE name = 'Name 1'") == 1
            assert erase_again(c, before, ledger) == 1
            assert erase_again(c, before, ledger) == 0
            rows = c.rows("SELECT id, name FROM student ORDER BY id")
            assert [(r["id"], r["name"]) for r in rows] == [
                (listed["0"], "Name 0"), (listed["1"], ""), (listed["2"], "Name 2"),
            ]  # fmt: skip
            assert outcomes_of_task(c, listed["task"]) == kept
            new = c.insert("INSERT INTO student (class_id, number, name, email, given, position)"
                           " SELECT class_id, '9', 'New', '', '{}', 9 FROM student LIMIT 1")  # fmt: skip
            assert new >= first_free


def test_what_is_known_of_another_database_erases_nobody(filled: Store, listed: dict[str, int], tmp_path: Path) -> None:
    ledger = Ledger(tmp_path / "erased")
    with filled.transaction() as c:
        since = erasures(c).since
        other = Erasures("2001-01-01T00:00:00", frozenset([listed["0"]]), (), 1)
        ledger.keep(other)
        assert erase_again(c, other, ledger) == 0
        (tmp_path / "erased").write_text(f"\n{since} {listed['2']}")  # cut off: the number may go on
        assert ledger.students(since) == frozenset()
        ledger.keep(Erasures(since, frozenset([listed["0"]]), (), 1))
        assert ledger.students(since) == {listed["0"]}
        assert erase_again(c, other, ledger) == 1
