"""What handlers need: the database, the person who is signed in, the services."""

from __future__ import annotations

import hmac
from collections.abc import Iterator
from typing import Annotated

from fastapi import Cookie, Depends, Header, Request

from obento.mail.standin import StandInMailbox
from obento.server.accounts.security import token_hash
from obento.server.answers import Answers
from obento.server.checking.service import CheckService
from obento.server.errors import Trouble
from obento.server.settings import Settings
from obento.server.specs.opened import OpenedSpecs
from obento.store import accounts
from obento.store.accounts import SignedIn
from obento.store.connection import Connection, Store
from obento.store.results import KeptOutcomes

COOKIE = "obento_session"


class Services:
    """Made once when the application starts."""

    def __init__(
        self,
        settings: Settings,
        store: Store,
        checks: CheckService,
        opened: OpenedSpecs,
        kept: KeptOutcomes,
        mailbox: StandInMailbox | None,
    ) -> None:
        self.answers = Answers()
        self.settings = settings
        self.store = store
        self.checks = checks
        self.opened = opened
        self.kept = kept
        self.mailbox = mailbox


async def get_services(request: Request) -> Services:
    """The services; async, so that no thread is taken for it."""
    services: Services = request.app.state.services
    return services


ServicesDep = Annotated[Services, Depends(get_services)]


def transaction(services: ServicesDep) -> Iterator[Connection]:
    with services.store.transaction() as c:
        yield c


Db = Annotated[Connection, Depends(transaction, scope="function")]


def signed_in(
    request: Request,
    c: Db,
    obento_session: Annotated[str, Cookie()] = "",
    x_csrf: Annotated[str, Header()] = "",
) -> SignedIn:
    """The person behind the cookie; whatever changes something must carry the token that a foreign page cannot know."""
    person = accounts.session(c, token_hash(obento_session)) if obento_session else None
    if person is None:
        raise Trouble(401, "please sign in")
    if request.method not in ("GET", "HEAD") and not hmac.compare_digest(person.csrf, x_csrf):
        raise Trouble(403, "this page is out of date; load it again")
    return person


Person = Annotated[SignedIn, Depends(signed_in)]
