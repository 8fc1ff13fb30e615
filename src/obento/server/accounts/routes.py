"""Signing in and out."""

from __future__ import annotations

from dataclasses import asdict
from typing import Annotated

from fastapi import APIRouter, Cookie, Request, Response

from obento.server.accounts.invitations import accept, invited
from obento.server.accounts.models import InvitationView, Me, NewPassword, PasswordChange, SessionView, SignIn, Waiting
from obento.server.accounts.passwords import require_good
from obento.server.accounts.security import hash_password, new_token, password_fits, token_hash
from obento.server.accounts.throttle import by_account, by_browser, by_client, by_person, count, forget
from obento.server.deps import COOKIE, Db, Person, Services, ServicesDep
from obento.server.errors import Trouble, not_found
from obento.server.models import Done
from obento.store import accounts, audit
from obento.store.accounts import Account, Invitee, SignedIn
from obento.store.connection import Connection

open_router = APIRouter(prefix="/api", tags=["accounts"])
"""What needs no sign-in."""

router = APIRouter(prefix="/api", tags=["accounts"])

_KNOWN = "obento_browser"
"""Kept by a browser in which somebody has signed in: others who try passwords do not make it wait."""
_KNOWN_DAYS = 180


@open_router.post("/sign-in")
def sign_in(
    body: SignIn,
    request: Request,
    response: Response,
    services: ServicesDep,
    obento_browser: Annotated[str, Cookie()] = "",
) -> Me:
    """Sign in; after a few wrong passwords the next try has to wait, longer each time."""
    email = body.email.strip().lower()
    known = token_hash(obento_browser) if obento_browser else ""
    with services.store.transaction() as c:
        person = accounts.person_by_email(c, email)
        is_known = bool(known) and accounts.is_known_browser(c, known, email)
    client = request.client.host if request.client is not None else ""
    counts = [by_browser(known)] if is_known else [by_account(email), by_client(client)]
    count(services.store, *counts)
    if not password_fits(person.password_hash if person else None, body.password) or person is None:
        raise Trouble(401, "this e-mail and password do not belong together")
    forget(services.store, *(counts if is_known else counts[:1]))
    with services.store.transaction(is_shown=False) as c:
        audit.note(c, person.id, "sign in", f"person {person.id}")
        return _session(c, person, request, response, services)


def _session(
    c: Connection, person: Account | Invitee | SignedIn, request: Request, response: Response, services: Services
) -> Me:
    """Open a session and have the browser keep it, and that it is known."""
    settings = services.settings
    token, csrf, browser = new_token(), new_token(), new_token()
    accounts.open_session(
        c, token_hash(token), person.id, csrf, settings.session_hours, request.headers.get("user-agent", "")
    )
    accounts.know_browser(c, token_hash(browser), person.id)
    for name, value, seconds in (
        (COOKIE, token, settings.session_hours * 3600), (_KNOWN, browser, _KNOWN_DAYS * 86400),
    ):  # fmt: skip
        response.set_cookie(
            name, value, httponly=True, samesite="strict", max_age=seconds, secure=settings.address.startswith("https"),
            path=settings.base_path or "/",
        )  # fmt: skip
    return Me(id=person.id, name=person.name, email=person.email, csrf=csrf)


@open_router.get("/invitation/{token}")
def get_invitation(token: str, c: Db) -> InvitationView:
    """Whose link it is; no sign-in needed."""
    person = invited(c, token)
    return InvitationView(name=person.name, email=person.email)


@open_router.post("/invitation/{token}")
def use_invitation(
    token: str, body: NewPassword, request: Request, response: Response, c: Db, services: ServicesDep
) -> Me:
    """Set the password that a link was made for, and sign in."""
    require_good(body.password, invited(c, token).email)
    return _session(c, accept(c, token, body.password), request, response, services)


@router.post("/me/password")
def change_password(
    body: PasswordChange, request: Request, response: Response, person: Person, services: ServicesDep
) -> Me:
    """Change one's own password; other sessions end."""
    require_good(body.password, person.email)
    counted = by_person(person.id)
    count(services.store, counted)
    with services.store.transaction() as c:
        known = accounts.person_by_email(c, person.email)
    if known is None or not password_fits(known.password_hash, body.old):
        raise Trouble(403, "this is not the password you have now")
    forget(services.store, counted)
    with services.store.transaction() as c:
        accounts.set_password(c, person.id, hash_password(body.password))
        audit.note(c, person.id, "password changed", f"person {person.id}")
        return _session(c, known, request, response, services)


@router.get("/me/sessions")
def sessions(c: Db, person: Person, obento_session: Annotated[str, Cookie()] = "") -> list[SessionView]:
    """Where this person is signed in."""
    own = token_hash(obento_session)
    return [
        SessionView(key=s.key, started_at=s.started_at, browser=s.browser, is_this=own.startswith(s.key))
        for s in accounts.sessions_of(c, person.id)
    ]


@router.delete("/me/sessions/{key}")
def end_session(key: str, c: Db, person: Person) -> Done:
    """End one of one's own sessions, wherever it is."""
    if not accounts.end_session(c, person.id, key):
        raise not_found("session")
    audit.note(c, person.id, "session ended", f"person {person.id}")
    return Done()


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
