"""What handlers need: the database, the person who is signed in, the services."""

from __future__ import annotations

import hmac
from collections.abc import Callable, Coroutine, Iterator
from contextlib import AsyncExitStack
from typing import Annotated, Any, TypeVar

from fastapi import Cookie, Depends, Header, Request, Response
from fastapi.concurrency import run_in_threadpool
from fastapi.routing import APIRoute

from obento.mail.standin import StandInMailbox
from obento.server.accounts.security import token_hash
from obento.server.answers import Answers
from obento.server.checking.service import CheckService
from obento.server.desk import Desk
from obento.server.errors import Trouble
from obento.server.rights import hold_to_table
from obento.server.settings import Settings
from obento.server.specs.opened import MOST_OPENED, NotOpened, OpenedSpecs, too_many_specs
from obento.server.works import Work, Works
from obento.store import accounts
from obento.store.accounts import SignedIn
from obento.store.connection import Connection, Store
from obento.store.results import KeptOutcomes

COOKIE = "obento_session"

T = TypeVar("T")
Handler = Callable[[Request], Coroutine[Any, Any, Response]]


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
        desk: Desk,
    ) -> None:
        self.answers = Answers()
        self.settings = settings
        self.store = store
        self.checks = checks
        self.opened = opened
        self.kept = kept
        self.mailbox = mailbox
        self.desk = desk
        self.works = Works()


async def get_services(request: Request) -> Services:
    """The services; async, so that no thread is taken for it."""
    services: Services = request.app.state.services
    return services


class OpeningRoute(APIRoute):
    """A route whose handler may need a spec that has to be opened first: its transaction ends, the spec is opened, and
    the handler begins again. The body of the request stays with it."""

    def get_route_handler(self) -> Handler:
        """The handler, as often as it needs one more spec."""
        original = super().get_route_handler()

        async def handle(request: Request) -> Response:
            for _ in range(MOST_OPENED):
                try:
                    # FastAPI ends what belongs to a handler only after this; the transaction has to end before.
                    async with AsyncExitStack() as stack:
                        request.scope["fastapi_function_astack"] = stack
                        return await original(request)
                except NotOpened as missing:
                    services = await get_services(request)
                    await run_in_threadpool(services.opened.load, missing.files)
            raise too_many_specs()

        return handle


ServicesDep = Annotated[Services, Depends(get_services)]


def transaction(services: ServicesDep) -> Iterator[Connection]:
    with services.store.transaction() as c:
        yield c


Db = Annotated[Connection, Depends(transaction, scope="function")]


def signed_in(
    request: Request,
    services: ServicesDep,
    obento_session: Annotated[str, Cookie()] = "",
    x_csrf: Annotated[str, Header()] = "",
) -> SignedIn:
    """The person behind the cookie, who may do what the request asks for (`rights`); whatever changes something must
    carry the token that a foreign page cannot know. Every router but the open ones depends on this."""
    if not obento_session:
        raise Trouble(401, "please sign in")
    with services.store.transaction() as c:  # one of its own: nothing is held while a handler waits for a worker
        person = accounts.session(c, token_hash(obento_session))
        if person is None:
            raise Trouble(401, "please sign in")
        if request.method not in ("GET", "HEAD") and not hmac.compare_digest(person.csrf.encode(), x_csrf.encode()):
            raise Trouble(403, "this page is out of date; load it again")
        hold_to_table(c, request, person.id)
    return person


Person = Annotated[SignedIn, Depends(signed_in)]


def work_under_way(
    person: Person, services: ServicesDep, x_work: Annotated[str, Header(max_length=64)] = ""
) -> Iterator[Work]:
    """What a handler does that may take a while, under the name that the page gave it."""
    with services.works.under_way(person.id, x_work) as work:
        yield work


WorkDep = Annotated[Work, Depends(work_under_way, scope="function")]


async def reading(services: Services, work: Callable[[Connection], T]) -> T:
    """Do something in a transaction of its own, in a thread: for handlers that wait for a worker afterwards."""

    def done() -> T:
        with services.store.transaction() as c:
            return work(c)

    return await run_in_threadpool(done)


async def at_desk(
    services: Services, request: Request, person: SignedIn, work: Callable[[Any], T], given: Any
) -> T | str:
    """Have a worker do what this person waits for; a sentence where it could not be done (see `Desk.ask`)."""
    return await services.desk.ask(person.id, work, given, request.is_disconnected)
