"""Letters by mail: over real SMTP to the mailbox that stands in for a server."""

from __future__ import annotations

from datetime import date
from pathlib import Path

import pytest
from aiosmtpd.controller import Controller

from obento.intake.addresses import is_address
from obento.mail.sender import MailRoute, link_mail, send
from obento.mail.standin import StandInMailbox
from obento.store.mariadb import free_port

UNTIL = date(2026, 12, 31)


@pytest.fixture
def mailbox(tmp_path: Path):  # type: ignore[no-untyped-def]
    box = StandInMailbox(tmp_path / "mail")
    box.start(free_port())
    yield box
    box.stop()


def test_mails_arrive_whole(mailbox: StandInMailbox) -> None:
    route = MailRoute("127.0.0.1", mailbox.port)
    mails = [
        link_mail(route, f"s{i}@x.example", "Ecole d'été", "Lab ⊕", f"http://127.0.0.1/page/{i}", UNTIL)
        for i in range(3)
    ]
    assert send(route, mails) == ["", "", ""]
    found = mailbox.mails()
    assert {m.to for m in found} == {"s0@x.example", "s1@x.example", "s2@x.example"}
    assert all("Lab ⊕" in m.subject and "Ecole d'été" in m.text and "/page/" in m.text for m in found)


def test_a_subject_cannot_smuggle_headers() -> None:
    mail = link_mail(MailRoute("h", 1), "a@x.example", "S", "Lab\r\nBcc: everyone@x.example", "l", UNTIL)
    assert mail["Bcc"] is None and "Bcc: everyone" in mail["Subject"]


def test_a_server_that_is_away_is_said_for_each_mail() -> None:
    route = MailRoute("127.0.0.1", free_port())
    mails = [link_mail(route, "a@x.example", "S", "L", "l", UNTIL)] * 2
    assert all("does not answer" in trouble for trouble in send(route, mails))


def test_one_that_fails_stops_none_of_the_others(mailbox: StandInMailbox) -> None:
    route = MailRoute("127.0.0.1", mailbox.port)
    mails = [link_mail(route, f"s{i}@x.example", "S", "L", "l", UNTIL) for i in range(4)]
    del mails[1]["To"]  # nobody to send it to
    troubles = send(route, mails)
    assert [bool(t) for t in troubles] == [False, True, False, False], troubles
    assert {m.to for m in mailbox.mails()} == {"s0@x.example", "s2@x.example", "s3@x.example"}


@pytest.mark.parametrize("separator", ["\n", "\r", "\r\n", "\v", "\f", "\x1c", "\x85", "\u2028", "\u2029"])
def test_no_separator_of_lines_stays_in_a_subject(separator: str) -> None:
    mail = link_mail(MailRoute("h", 1), "a@x.example", "S", f"Lab{separator}Bcc: all@x.example", "l", UNTIL)
    assert mail["Subject"] == "Your feedback: Lab Bcc: all@x.example" and mail["Bcc"] is None
    assert len(bytes(mail).split(b"\n\n")[0].splitlines()) >= 6


def test_without_privacy_nothing_is_said(mailbox: StandInMailbox) -> None:
    """A server that offers no private connection gets neither mail nor password, where one was asked for."""
    mails = [link_mail(MailRoute("h", 1), "a@x.example", "S", "L", "l", UNTIL)]
    for security in ("starttls", "tls"):
        route = MailRoute("127.0.0.1", mailbox.port, "f@x.example", security, "user", "secret")
        assert send(route, mails) != [""]
    assert send(MailRoute("127.0.0.1", mailbox.port, "f@x.example", "none", "user", "secret"), mails) != [""]
    assert mailbox.mails() == []


def test_what_the_mailbox_keeps_is_private(mailbox: StandInMailbox, tmp_path: Path) -> None:
    send(MailRoute("127.0.0.1", mailbox.port), [link_mail(MailRoute("h", 1), "a@x.example", "S", "L", "l", UNTIL)])
    folder = tmp_path / "mail"
    assert oct(folder.stat().st_mode & 0o777) == "0o700"
    assert [oct(f.stat().st_mode & 0o777) for f in folder.iterdir()] == ["0o600"]


def test_addresses_in_a_class_list() -> None:
    for good in ("a@x.example", "a.b+c@x-y.example", "o'neill@x.example", "z@host"):
        assert is_address(good)
    for wrong in (
        "",
        "a",
        "@x",
        "a@",
        "a b@x.example",
        "a@x..example",
        "a@x.example\nBcc: b@x",
        "a@b@c",
        "<a@x>",
        "a@-,x",
        "é@x",
    ):
        assert not is_address(wrong)


class _Picky:
    """Takes mail for one address only."""

    def __init__(self) -> None:
        self.connections: set[int] = set()

    async def handle_RCPT(self, server, session, envelope, address, options):  # type: ignore[no-untyped-def]
        self.connections.add(id(session))
        if address != "good@x.example":
            return "550 nobody of that name here"
        envelope.rcpt_tos.append(address)
        return "250 ok"

    async def handle_DATA(self, server, session, envelope):  # type: ignore[no-untyped-def]
        return "250 ok"


def test_a_refused_address_is_said_in_the_servers_words() -> None:
    picky = _Picky()
    controller = Controller(picky, hostname="127.0.0.1", port=free_port())
    controller.start()
    try:
        route = MailRoute("127.0.0.1", controller.port)
        mails = [
            link_mail(route, a, "S", "L", "l", UNTIL) for a in ("good@x.example", "bad@x.example", "good@x.example")
        ]
        first, second, third = send(route, mails)
    finally:
        controller.stop()
    assert first == third == "" and "nobody of that name here" in second
    assert len(picky.connections) == 1


@pytest.mark.parametrize(
    ("language", "corrects", "subject", "says"),
    [
        ("en", False, "Your feedback: L", ["Your feedback for L is ready", "holds until 31 December 2026"]),
        ("en", True, "Corrected feedback: L", ["was corrected"]),
        ("de", False, "Deine Rückmeldung: L", ["Deine Rückmeldung zu L ist da", "gilt bis 31. Dezember 2026"]),
        ("de", True, "Berichtigte Rückmeldung: L", ["wurde berichtigt"]),
    ],
)
def test_the_mail_is_in_the_language_of_the_class(language: str, corrects: bool, subject: str, says: list[str]) -> None:
    mail = link_mail(MailRoute("h", 1), "a@x.example", "S", "L", "https://x", UNTIL, corrects, language)
    assert mail["Subject"] == subject
    assert all(text in mail.get_content() for text in [*says, "https://x"])
