"""All records in one file, and back again. A backup is a zip with the dump that the database's own tools write and a
page about it; it is tried by restoring it into a database of its own before anybody relies on it."""

from __future__ import annotations

import hashlib
import json
import os
import re
import subprocess
import tempfile
import zipfile
import zlib
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import asdict, dataclass
from datetime import UTC, datetime
from pathlib import Path
from typing import IO

from obento.store.connection import Store
from obento.store.mariadb import Address, PrivateServer, program
from obento.store.migrate import migrate

_RECORDS, _ABOUT = "records.sql", "about.json"
_PIECE = 1 << 20
_OWNER = re.compile(rb"/\*!\d+ DEFINER=[^*]*\*/")
"""Whose a trigger is: whoever restores it."""


class BackupTrouble(Exception):
    """A backup cannot be made, read or restored; one sentence with what to do."""


@dataclass(frozen=True, slots=True)
class About:
    """What a backup holds: rows by table, as counted where it was restored (none where it never was), and a print of
    the dump."""

    made_at: str
    program: str
    sha256: str
    rows: dict[str, int]


def back_up(address: Address, file: Path, version: str, is_tried: bool = True) -> About:
    """Write all records to a file, which is there whole or not at all. The database may be in use meanwhile: what is
    written is how it was when this began.

    Raises
    ------
    BackupTrouble
    """
    part = file.with_name(file.name + ".part")
    digest = hashlib.sha256()
    try:
        with zipfile.ZipFile(part, "w", zipfile.ZIP_DEFLATED, allowZip64=True) as archive:
            with archive.open(_RECORDS, "w", force_zip64=True) as out, _dump(address) as dump:
                while piece := dump.read(_PIECE):
                    digest.update(piece)
                    out.write(piece)
            about = About(datetime.now(UTC).isoformat(timespec="seconds"), version, digest.hexdigest(), {})
            if not is_tried:
                archive.writestr(_ABOUT, json.dumps(asdict(about), indent=1))
        if is_tried:
            with _throwaway() as scratch:
                _load(scratch, part)
                about = About(about.made_at, version, about.sha256, _rows(scratch))
            with zipfile.ZipFile(part, "a") as archive:
                archive.writestr(_ABOUT, json.dumps(asdict(about), indent=1))
        os.chmod(part, 0o600)
        part.replace(file)
    except OSError as error:
        raise BackupTrouble(f"{file} cannot be written: {error.strerror}") from error
    finally:
        part.unlink(missing_ok=True)
    return about


def about(file: Path) -> About:
    """What a backup holds, once every byte of it was read and is what it was when it was made.

    Raises
    ------
    BackupTrouble
    """
    try:
        with zipfile.ZipFile(file) as archive:
            found = About(**json.loads(archive.read(_ABOUT)))
            digest = hashlib.sha256()
            with archive.open(_RECORDS) as records:
                while piece := records.read(_PIECE):
                    digest.update(piece)
    except OSError as error:
        raise BackupTrouble(f"{file} cannot be read: {error.strerror or error}") from error
    except (zipfile.BadZipFile, zlib.error, KeyError, ValueError, TypeError, EOFError) as error:
        raise BackupTrouble(f"{file} is no backup, or a damaged one") from error
    if digest.hexdigest() != found.sha256:
        raise BackupTrouble(f"{file} is damaged: its records are not those that were written")
    return found


def restore(address: Address, file: Path) -> About:
    """Put the records of a backup in the place of all there are, and see that all of them came.

    Raises
    ------
    BackupTrouble
    """
    found = about(file)
    name = address.database.replace("`", "``")  # a name cannot be a parameter
    with Store(address).transaction() as c:
        c.run(f"DROP DATABASE `{name}`")
        c.run(f"CREATE DATABASE `{name}` CHARACTER SET utf8mb4 COLLATE utf8mb4_bin")
        c.run(f"USE `{name}`")
        c.run("CREATE TABLE generation (id TINYINT PRIMARY KEY, n BIGINT UNSIGNED NOT NULL)")
    _load(address, file)
    rows = _rows(address)
    if found.rows and rows != found.rows:
        short = sorted(t for t in found.rows if rows.get(t) != found.rows[t])
        raise BackupTrouble(f"not all records came back; look at {', '.join(short[:4])}")
    return found


def is_empty(address: Address) -> bool:
    """Whether nobody has an account in a database."""
    with Store(address).transaction() as c:
        return not c.rows("SHOW TABLES LIKE 'person'") or c.value("SELECT 1 FROM person LIMIT 1") is None


def try_upgrade(address: Address) -> list[str]:
    """Apply the migrations that are missing to a copy; the names of those that were.

    Raises
    ------
    BackupTrouble
    """
    with tempfile.TemporaryDirectory() as folder, _throwaway() as scratch:
        file = Path(folder) / "copy.zip"
        back_up(address, file, "", is_tried=False)
        _load(scratch, file)
        return migrate(Store(scratch))


def _options(address: Address) -> list[str]:
    private = ["--ssl", *([f"--ssl-ca={address.ca}"] if address.ca else [])] if address.tls else ["--skip-ssl"]
    where = [f"--host={address.host}", f"--port={address.port}", f"--user={address.user}", "--protocol=tcp"]
    return ["--no-defaults", *where, *private, "--default-character-set=utf8mb4"]


def _with_password(address: Address) -> dict[str, str]:
    return os.environ | {"MYSQL_PWD": address.password}  # on the command line everybody could see it


@contextmanager
def _dump(address: Address) -> Iterator[IO[bytes]]:
    wanted = ["--single-transaction", "--skip-lock-tables", "--hex-blob", "--triggers", "--no-tablespaces", "--quick"]
    command = [program("mariadb-dump"), *_options(address), *wanted, address.database]
    with tempfile.TemporaryFile() as said:
        process = subprocess.Popen(command, stdout=subprocess.PIPE, stderr=said, env=_with_password(address))
        assert process.stdout is not None
        try:
            yield process.stdout
        finally:
            process.stdout.close()
            status = process.wait()
        if status:
            raise BackupTrouble(f"the database could not be read out: {_last_words(said)}")


def _load(address: Address, file: Path) -> None:
    command = [program("mariadb"), *_options(address), "--max-allowed-packet=256M", address.database]
    with tempfile.TemporaryFile() as said, zipfile.ZipFile(file) as archive, archive.open(_RECORDS) as records:
        process = subprocess.Popen(command, stdin=subprocess.PIPE, stderr=said, env=_with_password(address))
        assert process.stdin is not None
        try:
            for line in records:
                process.stdin.write(_OWNER.sub(b"", line) if line.startswith(b"/*!50003 CREATE") else line)
            process.stdin.close()
        except BrokenPipeError:
            pass  # it has ended, and says why
        if process.wait():
            raise BackupTrouble(f"the records could not be taken in: {_last_words(said)}")


def _last_words(said: IO[bytes]) -> str:
    said.seek(0)
    return said.read().decode(errors="replace").strip()[-300:] or "it did not say why"


def _rows(address: Address) -> dict[str, int]:
    with Store(address).transaction() as c:
        tables = sorted(str(next(iter(row.values()))) for row in c.rows("SHOW TABLES"))
        return {table: int(c.value(f"SELECT COUNT(*) FROM `{table}`")) for table in tables}


@contextmanager
def _throwaway() -> Iterator[Address]:
    """A database of its own, which is gone afterwards."""
    with tempfile.TemporaryDirectory() as folder:
        server = PrivateServer(Path(folder) / "database")
        try:
            yield server.start()
        finally:
            server.stop()
