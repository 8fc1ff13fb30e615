"""Links by which people set a password."""

from __future__ import annotations

from obento.server.accounts.security import hash_password, new_token, token_hash
from obento.server.errors import Trouble
from obento.store import accounts, audit
from obento.store.accounts import Invitee
from obento.store.connection import Connection

LINK_DAYS = 7
"""For so long a link may be used, once."""


def link_for(c: Connection, person_id: int, address: str) -> str:
    """A fresh link by which somebody sets a password."""
    token = new_token()
    accounts.add_invitation(c, person_id, token_hash(token), LINK_DAYS)
    return f"{address}/welcome/{token}"


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
