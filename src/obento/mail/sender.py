"""Letters by e-mail. The mail carries the private link, never marks or names of mistakes."""

from __future__ import annotations

import smtplib
import ssl
from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass
from datetime import date
from email.message import EmailMessage
from email.utils import formatdate, make_msgid
from typing import Literal

from obento.core.sentences.said import ENGLISH, in_language, say

Security = Literal["none", "starttls", "tls"]


@dataclass(frozen=True, slots=True)
class MailRoute:
    """The server that mails go to, and who they come from. With `starttls` the connection becomes private before
    anything is said, with `tls` it begins so; a certificate that does not hold ends it."""

    host: str
    port: int
    sender: str = "signals-labs@college.example"
    security: Security = "none"
    user: str = ""
    password: str = ""


def link_mail(
    route: MailRoute,
    address: str,
    school: str,
    lab: str,
    link: str,
    expires: date,
    corrects: bool = False,
    language: str = ENGLISH,
) -> EmailMessage:
    """The mail that tells a student where the letter is, or where the one is that corrects it."""

    def words(key: str, **values: str) -> str:
        return in_language(say(key, **values), language)

    ready = words("corrected" if corrects else "ready", lab=lab)
    until = say("date", day=expires.day, month=say(f"month-{expires.month}"), year=expires.year)
    text = f"{ready}:\n\n{link}\n\n{words('link-is-yours', expires=until)}\n\n{school}\n"
    return _message(route, address, words("subject-corrected" if corrects else "subject", lab=lab), text)


def welcome_mail(route: MailRoute, address: str, class_name: str, link: str, days: int) -> EmailMessage:
    """The mail by which somebody who works on a class sets a password."""
    text = (
        f"You have been asked to work on {class_name}. Set a password here:\n\n{link}\n\nThe link is yours alone and"
        f" holds for {days} days, once.\n"
    )
    return _message(route, address, f"Your way in: {class_name}", text)


def _message(route: MailRoute, address: str, subject: str, text: str) -> EmailMessage:
    message = EmailMessage()
    message["From"] = route.sender
    message["To"] = address
    message["Subject"] = " ".join(subject.split())  # every kind of line separator is white space
    message["Date"] = formatdate(localtime=False)
    message["Message-ID"] = make_msgid(domain=route.sender.partition("@")[2])
    message.set_content(text)
    return message


_CUT_OFF = (smtplib.SMTPServerDisconnected, smtplib.SMTPConnectError)


def send(route: MailRoute, messages: Sequence[EmailMessage]) -> list[str]:
    """Send messages over one connection; gives for each what went wrong, or an empty text. A message that fails is no
    reason not to send the others."""
    troubles: list[str] = []
    smtp: smtplib.SMTP | None = None
    try:
        for message in messages:
            try:
                if smtp is None:
                    smtp = _connected(route)
                smtp.send_message(message)
                troubles.append("")
            except (OSError, ValueError) as error:  # what smtplib raises is an OSError too
                if isinstance(error, smtplib.SMTPException | ValueError) and not isinstance(error, _CUT_OFF):
                    troubles.append(_said(error))
                    is_over = smtp is None  # neither the next one gets a connection
                else:
                    # The connection is gone: the next message gets one of its own, unless there is none to be had.
                    is_over, smtp = smtp is None, None
                    troubles.append(f"the mail server does not answer: {_said(error)}")
                if is_over:
                    break
    finally:
        if smtp is not None:
            with suppress(smtplib.SMTPException, OSError):
                smtp.quit()
    return troubles + troubles[-1:] * (len(messages) - len(troubles))


def _connected(route: MailRoute) -> smtplib.SMTP:
    context = ssl.create_default_context()
    smtp: smtplib.SMTP
    if route.security == "tls":
        smtp = smtplib.SMTP_SSL(route.host, route.port, timeout=10, context=context)
    else:
        smtp = smtplib.SMTP(route.host, route.port, timeout=10)
    try:
        if route.security == "starttls":
            smtp.starttls(context=context)
        if route.user:
            smtp.login(route.user, route.password)
    except BaseException:
        smtp.close()
        raise
    return smtp


def _said(error: Exception) -> str:
    return str(error) or type(error).__name__
