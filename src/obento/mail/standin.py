"""A mailbox on loopback that takes every mail and delivers none: what would have been sent can be looked at."""

from __future__ import annotations

import os
import time
from collections.abc import Collection
from dataclasses import dataclass
from email import message_from_bytes, policy
from email.message import EmailMessage
from pathlib import Path

from aiosmtpd.controller import Controller
from aiosmtpd.smtp import SMTP, Envelope, Session


@dataclass(frozen=True, slots=True)
class Mail:
    """One mail as taken in."""

    id: str
    to: str
    subject: str
    date: str
    text: str


class _Keeper:
    def __init__(self, folder: Path) -> None:
        self._folder = folder
        self._count = 0

    async def handle_DATA(self, server: SMTP, session: Session, envelope: Envelope) -> str:
        del server, session
        self._count += 1
        name = f"{time.time_ns():020d}-{self._count:05d}.eml"
        content = envelope.content or b""
        descriptor = os.open(self._folder / name, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
        with open(descriptor, "wb") as file:
            file.write(content if isinstance(content, bytes) else content.encode())
        return "250 kept"


class StandInMailbox:
    """The mailbox; `port` is known once it was started."""

    def __init__(self, folder: Path) -> None:
        self._folder = folder
        self._controller: Controller | None = None
        self.port = 0

    def start(self, port: int) -> None:
        self._folder.mkdir(parents=True, exist_ok=True)
        self._folder.chmod(0o700)  # there are private links in it
        self._controller = Controller(_Keeper(self._folder), hostname="127.0.0.1", port=port)
        self._controller.start()
        self.port = port

    def stop(self) -> None:
        if self._controller is not None:
            self._controller.stop()
            self._controller = None

    def forget(self, addresses: Collection[str]) -> int:
        """Delete the mails to some addresses; gives how many."""
        wanted = {address.casefold() for address in addresses}
        found = 0
        for path in self._folder.glob("*.eml"):
            message = message_from_bytes(path.read_bytes(), policy=policy.default)
            if str(message["To"]).casefold() in wanted:
                path.unlink()
                found += 1
        return found

    def mails(self, most: int = 500) -> list[Mail]:
        """The newest first."""
        found: list[Mail] = []
        for path in sorted(self._folder.glob("*.eml"), reverse=True)[:most]:
            message = message_from_bytes(path.read_bytes(), policy=policy.default)
            assert isinstance(message, EmailMessage)
            body = message.get_body(("plain",))
            found.append(
                Mail(
                    path.stem,
                    str(message["To"]),
                    str(message["Subject"]),
                    str(message["Date"]),
                    body.get_content() if body else "",
                )
            )
        return found
