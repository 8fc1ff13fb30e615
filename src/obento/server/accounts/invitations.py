"""Letting people in: those who work on a class together, and how they get their passwords."""

from __future__ import annotations

from obento.server.accounts.security import hash_password, new_token, token_hash
from obento.server.errors import Trouble, not_found
from obento.server.people.models import Invite, Invited
from obento.store import accounts, audit, people
from obento.store.accounts import Invitee
from obento.store.connection import Connection

LINK_DAYS = 7
"""For so long a link may be used, once."""


def link_for(c: Connection, person_id: int, address: str) -> str:
    """A fresh link by which somebody sets a password."""
    token = new_token()
    accounts.add_invitation(c, person_id, token_hash(token), LINK_DAYS)
    return f"{address}/welcome/{token}"


def invite(c: Connection, class_id: int, body: Invite, address: str, by: int) -> Invited:
    """Have somebody work on a class. Who has no password yet gets a link; who has one finds the class the next time
    they sign in."""
    email = body.email.strip().lower()
    known = accounts.person_by_email(c, email)
    person_id = known.id if known is not None else accounts.add_person(c, email, body.name.strip(), "")
    people.add_role(c, class_id, person_id, body.role)
    audit.note(c, by, "invite", f"class {class_id}", {"person": person_id, "role": body.role})
    has_password = known is not None and known.password_hash != ""
    return Invited(id=person_id, link="" if has_password else link_for(c, person_id, address))


def leave(c: Connection, class_id: int, person_id: int, by: int) -> None:
    """Take somebody off a class; the last one stays, else nobody could look after it."""
    there = {p.id for p in people.people_of(c, class_id)}
    if person_id not in there:
        raise not_found("person")
    if len(there) == 1:
        raise Trouble(409, "somebody has to stay with the class; invite another person first")
    people.drop_role(c, class_id, person_id)
    audit.note(c, by, "take off", f"class {class_id}", {"person": person_id})


def invited(c: Connection, token: str) -> Invitee:
    """Whose link it is.

    Raises
    ------
    Trouble
        If it holds no longer.
    """
    person = accounts.open_invitation(c, token_hash(token))
    if person is None:
        raise Trouble(404, "this link was used already or holds no longer; ask for another one")
    return person


def accept(c: Connection, token: str, password: str) -> Invitee:
    """Set the password that a link was made for, and use the link up."""
    person = invited(c, token)
    if not accounts.use_invitation(c, token_hash(token)):
        raise Trouble(404, "this link was used already or holds no longer; ask for another one")
    accounts.set_password(c, person.id, hash_password(password))
    audit.note(c, person.id, "password set", f"person {person.id}")
    return person
