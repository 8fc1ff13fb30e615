"""Signing in and out."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Cookie, Response

from obento.server.deps import COOKIE, Person, ServicesDep
from obento.server.errors import Trouble
from obento.server.models import Done, Me, SignIn
from obento.server.security import new_token, password_fits, token_hash
from obento.store import people

router = APIRouter(prefix="/api", tags=["accounts"])

_MOST_FAILURES = 8
_WINDOW_MINUTES = 10


@router.post("/sign-in")
def sign_in(body: SignIn, response: Response, found: ServicesDep) -> Me:
    """Sign in; after eight wrong passwords an address has to wait."""
    email = body.email.strip().lower()
    with found.store.transaction() as c:
        blocked = people.failures_since(c, email, _WINDOW_MINUTES) >= _MOST_FAILURES
        person = people.person_by_email(c, email)
    if blocked:
        raise Trouble(429, f"too many wrong passwords; wait {_WINDOW_MINUTES} minutes")
    if not password_fits(person["password_hash"] if person else None, body.password) or person is None:
        with found.store.transaction() as c:
            people.note_failure(c, email)
        raise Trouble(401, "this e-mail and password do not belong together")
    token, csrf = new_token(), new_token()
    with found.store.transaction() as c:
        people.open_session(c, token_hash(token), person["id"], csrf, found.settings.session_hours)
        people.audit(c, person["id"], "sign in", f"person {person['id']}")
    response.set_cookie(
        COOKIE, token, httponly=True, samesite="strict", max_age=found.settings.session_hours * 3600,
        secure=found.settings.address.startswith("https"),
    )  # fmt: skip
    return Me(id=person["id"], name=person["name"], email=person["email"], csrf=csrf)


@router.get("/me")
def me(person: Person) -> Me:
    """Who is signed in."""
    return Me(**{k: person[k] for k in ("id", "name", "email", "csrf")})


@router.post("/sign-out")
def sign_out(person: Person, response: Response, found: ServicesDep, obento_session: Annotated[str, Cookie()] = "") -> Done:
    """End the session."""
    del person
    with found.store.transaction() as c:
        people.close_session(c, token_hash(obento_session))
    response.delete_cookie(COOKIE)
    return Done()
