"""The application: routers, errors, headers, and the services that live as long as it does."""

from __future__ import annotations

from collections.abc import AsyncIterator, Callable
from contextlib import asynccontextmanager

from fastapi import Depends, FastAPI, Response
from fastapi.middleware.gzip import GZipMiddleware
from fastapi.responses import FileResponse, HTMLResponse, JSONResponse
from fastapi.staticfiles import StaticFiles

from obento import __version__
from obento.mail.sender import MailRoute
from obento.mail.standin import StandInMailbox
from obento.runner.pool import CheckPool
from obento.server import errors, work_routes
from obento.server.accounts import routes as accounts_routes
from obento.server.api_page import api_page
from obento.server.board import link_routes
from obento.server.board import routes as board_routes
from obento.server.checking import routes as checking_routes
from obento.server.checking.service import CheckService
from obento.server.course import routes as course_routes
from obento.server.course import trash_routes
from obento.server.deps import Services, signed_in
from obento.server.desk import Desk
from obento.server.feedback import comment_routes
from obento.server.feedback import routes as feedback_routes
from obento.server.feedback.delivery import DeliveryService
from obento.server.headers import Headers
from obento.server.intake import routes as intake_routes
from obento.server.marks import routes as marks_routes
from obento.server.models import Health
from obento.server.people import routes as people_routes
from obento.server.results import routes as results_routes
from obento.server.review import circuit_routes
from obento.server.review import routes as review_routes
from obento.server.settings import Settings
from obento.server.specs import routes as specs_routes
from obento.server.specs.opened import OpenedSpecs
from obento.store.connection import Store
from obento.store.erased_for_good import erasures
from obento.store.mariadb import Address, free_port
from obento.store.results import KeptOutcomes

_ROUTES = (
    accounts_routes,
    course_routes,
    trash_routes,
    people_routes,
    specs_routes,
    intake_routes,
    checking_routes,
    results_routes,
    review_routes,
    circuit_routes,
    board_routes,
    link_routes,
    comment_routes,
    feedback_routes,
    marks_routes,
    work_routes,
)


_SPEC_SECONDS = 20.0
"""Processor time for a spec to be opened, and for anything that somebody waits for."""
_AT_HAND = 3
"""Workers for what people wait for: two who ask for much leave one to everybody else."""


def create_app(settings: Settings, database: Address, revive: Callable[[], Address] | None = None) -> FastAPI:
    """The application on a database whose migrations are applied; `revive` has that database answer again."""

    @asynccontextmanager
    async def lifespan(app: FastAPI) -> AsyncIterator[None]:
        store = Store(database, revive)
        opener = CheckPool(1, min(settings.check_seconds, _SPEC_SECONDS))
        at_hand = CheckPool(_AT_HAND, min(settings.check_seconds, _SPEC_SECONDS))
        opened = OpenedSpecs(opener.open_spec)
        kept = KeptOutcomes()
        mailbox: StandInMailbox | None = None
        route = MailRoute(
            settings.smtp_host, settings.smtp_port, settings.mail_sender, settings.smtp_security, settings.smtp_user,
            settings.smtp_password,
        )  # fmt: skip
        if not settings.smtp_host:
            mailbox = StandInMailbox(settings.var_folder / "mailbox")
            mailbox.start(free_port())
            route = MailRoute("127.0.0.1", mailbox.port, settings.mail_sender)
        checks = CheckService(store, opened, kept, settings.workers, settings.check_seconds)
        delivery = DeliveryService(store, settings, route)
        for pool in (opener, at_hand):
            pool.warm_up()
        app.state.services = Services(settings, store, checks, opened, kept, mailbox, Desk(at_hand, _AT_HAND))
        with store.transaction() as c:
            settings.erased.keep(erasures(c))
        checks.resume()
        delivery.start()
        yield
        delivery.stop()
        checks.close()
        opener.close()
        at_hand.close()
        store.close()
        if mailbox is not None:
            mailbox.stop()

    app = FastAPI(
        title="Obento",
        version=__version__,
        lifespan=lifespan,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        root_path=settings.base_path,
    )
    errors.install(app)
    for module in (accounts_routes, feedback_routes, link_routes):
        app.include_router(module.open_router)
    for module in _ROUTES:
        app.include_router(module.router, dependencies=[Depends(signed_in)])

    app.add_middleware(GZipMiddleware, minimum_size=500, compresslevel=5)
    app.add_middleware(Headers)

    @app.get("/api/health", tags=["server"])
    def health() -> Health:
        """Whether the server and its database answer; 503 where they do not."""
        store: Store = app.state.services.store
        with store.transaction() as c:
            c.generation()
        return Health(version=__version__)

    @app.get("/api/docs", include_in_schema=False)
    def docs() -> Response:
        return HTMLResponse(api_page(app.openapi()))

    _front_end(app, settings)
    return app


def _front_end(app: FastAPI, settings: Settings) -> None:
    """The built pages; every path that is no file is a place inside the application."""
    dist = settings.root / "web/dist"
    if not (dist / "index.html").exists():
        return
    index = (dist / "index.html").read_text(encoding="utf-8")
    index = index.replace("<head>", f'<head><base href="{settings.base_path}/">', 1)
    app.mount("/assets", StaticFiles(directory=dist / "assets"), name="assets")

    @app.get("/{path:path}", include_in_schema=False)
    def page(path: str) -> Response:
        if path.startswith("api/"):
            return JSONResponse({"detail": "there is no such address"}, 404)
        icon = dist / "icon.svg"
        if path == "icon.svg" and icon.exists():
            return FileResponse(icon)
        return HTMLResponse(index)
