"""Sends queued letters in the background; what fails is tried again."""

from __future__ import annotations

import logging
import threading
from datetime import UTC, datetime, timedelta

from obento.mail.sender import MailRoute, link_mail, send
from obento.server.settings import Settings
from obento.store import letters
from obento.store.connection import DatabaseGone, Store

log = logging.getLogger(__name__)


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
            rows = letters.queued_deliveries(c)
        if not rows:
            return 0
        expires = (datetime.now(UTC) + timedelta(days=self._settings.link_days)).strftime("%d %B %Y")
        messages = []
        for row in rows:
            link = f"{self._settings.address}/page/{row.token}"
            messages.append(link_mail(self._route, row.address, row.frozen["school"], row.frozen["lab"], link, expires))
        troubles = send(self._route, messages)
        with self._store.transaction() as c:
            for row, trouble in zip(rows, troubles, strict=True):
                letters.note_delivery(c, row.id, trouble)
        return sum(not t for t in troubles)
