"""Letters by mail: over real SMTP to the mailbox that stands in for a server."""

from __future__ import annotations

from pathlib import Path

import pytest

from obento.mail.sender import MailRoute, link_mail, send
from obento.mail.standin import StandInMailbox
from obento.store.mariadb import free_port


@pytest.fixture
def mailbox(tmp_path: Path):  # type: ignore[no-untyped-def]
    box = StandInMailbox(tmp_path / "mail")
    box.start(free_port())
    yield box
    box.stop()


def test_mails_arrive_whole(mailbox: StandInMailbox) -> None:
    route = MailRoute("127.0.0.1", mailbox.port)
    mails = [
        link_mail(route, f"s{i}@x.example", "Ecole d'été", "Lab ⊕", f"http://127.0.0.1/page/{i}", "1 May 2027")
        for i in range(3)
    ]
    assert send(route, mails) == ["", "", ""]
    found = mailbox.mails()
    assert {m.to for m in found} == {"s0@x.example", "s1@x.example", "s2@x.example"}
    assert all("Lab ⊕" in m.subject and "Ecole d'été" in m.text and "/page/" in m.text for m in found)


def test_a_subject_cannot_smuggle_headers() -> None:
    mail = link_mail(MailRoute("h", 1), "a@x.example", "S", "Lab\r\nBcc: everyone@x.example", "l", "e")
    assert mail["Bcc"] is None and "Bcc: everyone" in mail["Subject"]


def test_a_server_that_is_away_is_said_for_each_mail() -> None:
    route = MailRoute("127.0.0.1", free_port())
    mails = [link_mail(route, "a@x.example", "S", "L", "l", "e")] * 2
    assert all("does not answer" in trouble for trouble in send(route, mails))
