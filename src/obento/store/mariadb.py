"""A MariaDB server of our own on loopback: its own data folder, port and password, never the machine's server."""

from __future__ import annotations

import getpass
import os
import secrets
import shutil
import signal
import socket
import subprocess
import time
from dataclasses import dataclass
from pathlib import Path

import pymysql


class DatabaseTrouble(Exception):
    """The server cannot be started; one sentence with the fix."""


@dataclass(frozen=True, slots=True)
class Address:
    """Where to reach a database, and as whom."""

    port: int
    password: str
    user: str = "obento"
    database: str = "obento"
    host: str = "127.0.0.1"


def _program(name: str) -> str:
    path = shutil.which(name, path=os.environ.get("PATH", "") + ":/usr/sbin:/sbin")
    if path is None:
        raise DatabaseTrouble(f"{name} is not installed; run ./obento start, which installs it")
    return path


def free_port() -> int:
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        port: int = s.getsockname()[1]
        return port


class PrivateServer:
    """A server in `folder`. `start` may be called on a folder of any age, also after a crash or a kill."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder.resolve()
        self._data = self.folder / "data"
        self._temporary = self.folder / "tmp"
        # A socket's path may have 107 characters at most, and a checkout may lie deeper than that.
        self._socket = Path(f"/tmp/obento-{os.getuid()}-{abs(hash_path(self.folder)):x}.sock")
        self._pid_file = self.folder / "server.pid"
        self._log = self.folder / "server.log"
        self._process: subprocess.Popen[bytes] | None = None

    @property
    def address(self) -> Address:
        lines = (self.folder / "address").read_text().split()
        return Address(int(lines[0]), lines[1])

    def start(self) -> Address:
        """Start the server unless it runs, and wait until it answers.

        Raises
        ------
        DatabaseTrouble
        """
        self.folder.mkdir(parents=True, exist_ok=True)
        os.chmod(self.folder, 0o700)
        if self.is_running():
            return self.address
        user = getpass.getuser()
        # Servers that start at the same time take the same names for temporary tables: each has a place of its own.
        self._temporary.mkdir(exist_ok=True)
        if not (self._data / "mysql").exists():
            self._install(user)
        password = self.address.password if (self.folder / "address").exists() else secrets.token_hex(16)
        address = Address(free_port(), password)
        address_file = self.folder / "address"
        address_file.write_text(f"{address.port}\n{password}\n")
        os.chmod(address_file, 0o600)
        boot = self.folder / "boot.sql"
        boot.write_text(
            "CREATE DATABASE IF NOT EXISTS obento CHARACTER SET utf8mb4 COLLATE utf8mb4_bin;\n"
            f"CREATE USER IF NOT EXISTS 'obento'@'127.0.0.1' IDENTIFIED BY '{password}';\n"
            "GRANT ALL ON obento.* TO 'obento'@'127.0.0.1';\n"
            "CREATE USER IF NOT EXISTS 'obento'@'localhost' IDENTIFIED BY 'locked';\n"
        )
        os.chmod(boot, 0o600)
        self._socket.unlink(missing_ok=True)
        command = [
            _program("mariadbd"),
            "--no-defaults",
            f"--user={user}",
            f"--datadir={self._data}",
            f"--tmpdir={self._temporary}",
            f"--socket={self._socket}",
            f"--port={address.port}",
            "--bind-address=127.0.0.1",
            f"--pid-file={self._pid_file}",
            f"--log-error={self._log}",
            "--skip-name-resolve",
            "--max-allowed-packet=256M",
            f"--init-file={boot}",
            "--innodb-buffer-pool-size=192M",
        ]
        self._process = subprocess.Popen(
            command, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, start_new_session=True
        )
        self._wait(address)
        return address

    def _install(self, user: str) -> None:
        shutil.rmtree(self._data, ignore_errors=True)
        command = [
            _program("mariadb-install-db"),
            "--no-defaults",
            f"--user={user}",
            f"--datadir={self._data}",
            f"--tmpdir={self._temporary}",
            "--auth-root-authentication-method=socket",
            f"--auth-root-socket-user={user}",
            "--skip-test-db",
            "--skip-name-resolve",
        ]
        done = subprocess.run(
            command, capture_output=True, text=True, env=os.environ | {"TMPDIR": str(self._temporary)}
        )
        if done.returncode != 0:
            shutil.rmtree(self._data, ignore_errors=True)
            raise DatabaseTrouble(
                f"the database folder {self._data} could not be made; is the disk full? {done.stderr.strip()[-200:]}"
            )

    def _wait(self, address: Address, seconds: float = 60) -> None:
        end = time.monotonic() + seconds
        while time.monotonic() < end:
            if self._process is not None and self._process.poll() is not None:
                tail = self._log.read_text(errors="replace").splitlines()[-3:] if self._log.exists() else []
                raise DatabaseTrouble(f"the database did not start; see {self._log}: {' '.join(tail)[-300:]}")
            try:
                connection = pymysql.connect(
                    host=address.host, port=address.port, user=address.user, password=address.password,
                    database=address.database, ssl_disabled=True, connect_timeout=2,
                )  # fmt: skip
                connection.close()
                return
            except pymysql.err.OperationalError:
                time.sleep(0.05)
        raise DatabaseTrouble(f"the database did not answer within {seconds:g} seconds; see {self._log}")

    def is_running(self) -> bool:
        """Whether our server (not another that got its number) runs."""
        pid = self._pid()
        if pid is None:
            return False
        try:
            command = Path(f"/proc/{pid}/cmdline").read_bytes()
        except OSError:
            return False
        return str(self._data).encode() in command

    def _pid(self) -> int | None:
        try:
            return int(self._pid_file.read_text())
        except (OSError, ValueError):
            return None

    def stop(self) -> None:
        """End the server cleanly; nothing happens when it does not run."""
        pid = self._pid()
        if pid is None or not self.is_running():
            return
        os.kill(pid, signal.SIGTERM)
        end = time.monotonic() + 30
        while self.is_running() and time.monotonic() < end:
            if self._process is not None:
                self._process.poll()
            time.sleep(0.05)


def hash_path(path: Path) -> int:
    """A number for a path that is the same in every process."""
    value = 0
    for byte in str(path).encode():
        value = (value * 131 + byte) % (1 << 61)
    return value
