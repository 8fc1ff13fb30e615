"""Sends queued mail in the background; what fails is tried again, with longer and longer pauses, and then given up."""

from __future__ import annotations

import logging
import threading
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from email.message import EmailMessage
from functools import partial

from obento.core.sentences.said import ENGLISH
from obento.mail.sender import MailRoute, link_mail, send, welcome_mail
from obento.server.accounts.invitations import LINK_DAYS, link_of
from obento.server.settings import Settings
from obento.store import accounts, letters
from obento.store.connection import Connection, DatabaseGone, Store

log = logging.getLogger(__name__)


@dataclass(frozen=True, slots=True)
class _Waiting:
    """A mail that waits: how to make it, and how to note what came of it."""

    id: int
    make: Callable[[], EmailMessage]
    note: Callable[[Connection, int, str], None]


class DeliveryService:
    def __init__(self, store: Store, settings: Settings, route: MailRoute) -> None:
        self._store = store
        self._settings = settings
        self._route = route
        self._stop = threading.Event()
        self._thread = threading.Thread(target=self._loop, daemon=True, name="delivery")

    def start(self) -> None:
        self._thread.start()

    def stop(self) -> None:
        self._stop.set()
        self._thread.join(timeout=15)

    def _loop(self) -> None:
        while not self._stop.wait(0.5):
            try:
                self.send_queued()
            except DatabaseGone:
                log.warning("the database does not answer; mail waits")
            except Exception:
                log.exception("delivery failed; it will be tried again")

    def send_queued(self) -> int:
        """Send what is queued; gives how many mails went out."""
        with self._store.transaction() as c:
            waiting = [*self._letters(c), *self._welcomes(c)]
        if not waiting:
            return 0
        troubles = self._sent([mail.make for mail in waiting])
        with self._store.transaction() as c:
            for mail, trouble in zip(waiting, troubles, strict=True):
                mail.note(c, mail.id, trouble)
        return sum(not t for t in troubles)

    def _letters(self, c: Connection) -> Iterator[_Waiting]:
        expires = (datetime.now(UTC) + timedelta(days=self._settings.link_days)).date()
        for row in letters.queued_deliveries(c):
            link = f"{self._settings.address}/page/{row.token}"
            language = row.frozen.get("language", ENGLISH)
            about = row.frozen["school"], row.frozen["lab"], link, expires, bool(row.frozen.get("corrects")), language
            yield _Waiting(row.id, partial(link_mail, self._route, row.address, *about), letters.note_delivery)

    def _welcomes(self, c: Connection) -> Iterator[_Waiting]:
        for row in accounts.queued_welcomes(c):
            link = link_of(row.token, self._settings.address)
            make = partial(welcome_mail, self._route, row.email, row.class_name, link, LINK_DAYS)
            yield _Waiting(row.id, make, accounts.note_welcome)

    def _sent(self, makers: list[Callable[[], EmailMessage]]) -> list[str]:
        """Make messages and send them: for each what went wrong. One that cannot be made is no reason not to send the
        others."""
        troubles: dict[int, str] = {}
        made: dict[int, EmailMessage] = {}
        for number, make in enumerate(makers):
            try:
                made[number] = make()
            except (ValueError, LookupError) as error:
                troubles[number] = f"no mail can be made of this: {error}"
        troubles |= dict(zip(made, send(self._route, list(made.values())), strict=True))
        return [troubles[number] for number in range(len(makers))]
