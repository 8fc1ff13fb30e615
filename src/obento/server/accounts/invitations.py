"""Links by which people set a password."""

from __future__ import annotations

from obento.server.accounts.security import hash_password, new_token, token_hash
from obento.server.errors import Trouble
from obento.store import accounts, audit
from obento.store.accounts import Invitee
from obento.store.connection import Connection

LINK_DAYS = 7
"""For so long a link may be used, once."""


WELCOME = "/welcome/"
"""What such a link has in it."""


def token_for(c: Connection, person_id: int) -> str:
    """A fresh token by which somebody sets a password; earlier ones hold no longer, whoever has seen them."""
    token = new_token()
    accounts.add_invitation(c, person_id, token_hash(token), LINK_DAYS)
    return token


def link_of(token: str, address: str) -> str:
    """The link with a token in it."""
    return f"{address}{WELCOME}{token}"


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
