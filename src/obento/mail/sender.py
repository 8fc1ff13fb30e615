"""Letters by e-mail. The mail carries the private link, never marks or names of mistakes."""

from __future__ import annotations

import smtplib
from dataclasses import dataclass
from email.message import EmailMessage
from email.utils import formatdate, make_msgid


@dataclass(frozen=True, slots=True)
class MailRoute:
    host: str
    port: int
    sender: str = "signals-labs@college.example"


def link_mail(route: MailRoute, address: str, school: str, lab: str, link: str, expires: str) -> EmailMessage:
    """The mail that tells a student where the letter is."""
    message = EmailMessage()
    message["From"] = route.sender
    message["To"] = address
    message["Subject"] = f"Your feedback: {lab}".replace("\n", " ").replace("\r", " ")
    message["Date"] = formatdate(localtime=False)
    message["Message-ID"] = make_msgid(domain=route.sender.partition("@")[2])
    message.set_content(
        f"Your feedback for {lab} is ready:\n\n{link}\n\nThe link is yours alone and holds until {expires}. Please do"
        f" not pass it on.\n\n{school}\n"
    )
    return message


def send(route: MailRoute, messages: list[EmailMessage]) -> list[str]:
    """Send messages over one connection; gives for each what went wrong, or an empty text."""
    troubles: list[str] = []
    try:
        with smtplib.SMTP(route.host, route.port, timeout=10) as smtp:
            for message in messages:
                try:
                    smtp.send_message(message)
                    troubles.append("")
                except smtplib.SMTPException as error:
                    troubles.append(str(error) or type(error).__name__)
    except (OSError, smtplib.SMTPException) as error:
        troubles += [f"the mail server does not answer: {error}"] * (len(messages) - len(troubles))
    return troubles
