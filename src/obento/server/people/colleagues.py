"""Who works on a class: letting people in, and taking them off."""

from __future__ import annotations

from obento.server.accounts.invitations import link_for
from obento.server.errors import Trouble, not_found
from obento.server.people.models import Invite, Invited
from obento.store import accounts, audit, people
from obento.store.connection import Connection


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
