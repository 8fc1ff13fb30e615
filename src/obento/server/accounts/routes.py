"""Signing in and out."""

from __future__ import annotations

from dataclasses import asdict
from typing import Annotated

from fastapi import APIRouter, Cookie, Response

from obento.server.accounts.invitations import accept, invited
from obento.server.accounts.models import InvitationView, Me, NewPassword, PasswordChange, SignIn, Waiting
from obento.server.accounts.security import hash_password, new_token, password_fits, token_hash
from obento.server.deps import COOKIE, Db, Person, Services, ServicesDep
from obento.server.errors import Trouble
from obento.server.models import Done
from obento.store import accounts, audit
from obento.store.accounts import Account, Invitee
from obento.store.connection import Connection

open_router = APIRouter(prefix="/api", tags=["accounts"])
"""What needs no sign-in."""

router = APIRouter(prefix="/api", tags=["accounts"])

_MOST_FAILURES = 8
_WINDOW_MINUTES = 10


@open_router.post("/sign-in")
def sign_in(body: SignIn, response: Response, services: ServicesDep) -> Me:
    """Sign in; after eight wrong passwords an address has to wait."""
    email = body.email.strip().lower()
    with services.store.transaction() as c:
        blocked = accounts.failures_since(c, email, _WINDOW_MINUTES) >= _MOST_FAILURES
        person = accounts.person_by_email(c, email)
    if blocked:
        raise Trouble(429, f"too many wrong passwords; wait {_WINDOW_MINUTES} minutes")
    if not password_fits(person.password_hash if person else None, body.password) or person is None:
        with services.store.transaction() as c:
            accounts.note_failure(c, email)
        raise Trouble(401, "this e-mail and password do not belong together")
    with services.store.transaction() as c:
        audit.note(c, person.id, "sign in", f"person {person.id}")
        return _session(c, person, response, services)


def _session(c: Connection, person: Account | Invitee, response: Response, services: Services) -> Me:
    """Open a session and have the browser keep it."""
    token, csrf = new_token(), new_token()
    accounts.open_session(c, token_hash(token), person.id, csrf, services.settings.session_hours)
    response.set_cookie(
        COOKIE, token, httponly=True, samesite="strict", max_age=services.settings.session_hours * 3600,
        secure=services.settings.address.startswith("https"), path=services.settings.base_path or "/",
    )  # fmt: skip
    return Me(id=person.id, name=person.name, email=person.email, csrf=csrf)


@open_router.get("/invitation/{token}")
def get_invitation(token: str, c: Db) -> InvitationView:
    """Whose link it is; no sign-in needed."""
    person = invited(c, token)
    return InvitationView(name=person.name, email=person.email)


@open_router.post("/invitation/{token}")
def use_invitation(token: str, body: NewPassword, response: Response, c: Db, services: ServicesDep) -> Me:
    """Set the password that a link was made for, and sign in."""
    return _session(c, accept(c, token, body.password), response, services)


@router.post("/me/password")
def change_password(body: PasswordChange, response: Response, c: Db, person: Person, services: ServicesDep) -> Me:
    """Change one's own password; other sessions end."""
    known = accounts.person_by_email(c, person.email)
    if known is None or not password_fits(known.password_hash, body.old):
        raise Trouble(403, "this is not the password you have now")
    accounts.set_password(c, person.id, hash_password(body.password))
    audit.note(c, person.id, "password changed", f"person {person.id}")
    return _session(c, known, response, services)


@router.get("/me")
def me(person: Person) -> Me:
    """Who is signed in."""
    return Me(**asdict(person))


@router.get("/me/waiting")
async def waiting(person: Person, services: ServicesDep) -> Waiting:
    """How many others come before what this person waits for; none where nothing of theirs waits for its turn."""
    return Waiting(before=services.desk.place(person.id))


@router.post("/sign-out")
def sign_out(
    person: Person, response: Response, services: ServicesDep, obento_session: Annotated[str, Cookie()] = ""
) -> Done:
    """End the session."""
    del person
    with services.store.transaction() as c:
        accounts.close_session(c, token_hash(obento_session))
    response.delete_cookie(COOKIE, path=services.settings.base_path or "/")
    return Done()
