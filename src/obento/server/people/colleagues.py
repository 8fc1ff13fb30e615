"""Who works on a class: letting people in, and taking them off."""

from __future__ import annotations

from obento.server.accounts.invitations import link_of, token_for
from obento.server.errors import Trouble, not_found
from obento.server.people.models import ClassRights, Invite, Invited
from obento.store import accounts, audit, course, people
from obento.store.connection import Connection


def invite(c: Connection, class_id: int, body: Invite, address: str, by: int) -> Invited:
    """Have somebody work on a class. Who has a password finds the class the next time they sign in. Who has none gets
    a link by mail; it is shown as well to whoever made the account, as long as nobody else has let it in anywhere: a
    link is the account, and an account may be more by now than what its maker gave it."""
    email = body.email.strip().lower()
    known = accounts.person_by_email(c, email)
    if "over" in body.model_fields_set:
        roles = {p.email: p.role for p in people.people_of(c, class_id)}
        if roles.get(email) != body.over:
            raise Trouble(409, f"somebody else changed meanwhile what {email} may do here; look at it again")
    if known is None:
        person_id = accounts.add_person(c, email, body.name.strip(), "", by)
    else:
        person_id = known.id
        if known.made_by != by:
            accounts.counts_for_others(c, person_id)
        _keep_a_lecturer(c, class_id, person_id, body.role)
    people.add_role(c, class_id, person_id, body.role)
    audit.note(c, by, "invite", f"class {class_id}", {"person": person_id, "role": body.role})
    if known is not None and known.password_hash:
        return Invited(id=person_id, link="", mailed=False)
    token = token_for(c, person_id)
    accounts.queue_welcome(c, person_id, course.class_name(c, class_id), token)
    is_shown = known is None or known.made_by == by
    return Invited(id=person_id, link=link_of(token, address) if is_shown else "", mailed=True)


def leave(c: Connection, class_id: int, person_id: int, by: int) -> None:
    """Take somebody off a class; the last one stays, and so does the last lecturer where only lecturers look after
    it."""
    there = {p.id for p in people.people_of(c, class_id)}
    if person_id not in there:
        raise not_found("person")
    if len(there) == 1:
        raise Trouble(409, "somebody has to stay with the class; invite another person first")
    _keep_a_lecturer(c, class_id, person_id, "")
    people.drop_role(c, class_id, person_id)
    audit.note(c, by, "take off", f"class {class_id}", {"person": person_id})


def set_rights(c: Connection, class_id: int, body: ClassRights, by: int) -> None:
    """What TAs may do besides, and the language of letters; that somebody may look after the class is seen to."""
    if not body.tas_manage and not any(p.role == "lecturer" for p in people.people_of(c, class_id)):
        raise Trouble(409, "the class has no lecturer; make somebody its lecturer first")
    course.set_rights(c, class_id, body.tas_release, body.tas_manage)
    course.set_language(c, class_id, body.language)
    audit.note(c, by, "rights", f"class {class_id}", body.model_dump())


def _keep_a_lecturer(c: Connection, class_id: int, person_id: int, role: str) -> None:
    """Raises `Trouble` (409) where somebody is the last who may look after a class and would be that no longer."""
    lecturers = {p.id for p in people.people_of(c, class_id) if p.role == "lecturer"}
    standing = course.standing(c, class_id, person_id)
    if role != "lecturer" and lecturers == {person_id} and standing is not None and not standing.tas_manage:
        raise Trouble(409, "a class needs a lecturer; make somebody else its lecturer first")
