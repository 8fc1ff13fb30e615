"""Errors that a person can do something about, and how they travel over HTTP."""

from __future__ import annotations

import errno
import logging
from collections.abc import Sequence

import pymysql
from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse

from obento.intake.archive import ArchiveError
from obento.intake.roster import RosterError
from obento.store.comments import EditedMeanwhile
from obento.store.connection import CONFLICTS, DatabaseGone

log = logging.getLogger(__name__)


class Trouble(Exception):
    """Something that cannot be done; `text` says why and what to do."""

    def __init__(self, status: int, text: str) -> None:
        super().__init__(text)
        self.status = status
        self.text = text


def not_found(what: str) -> Trouble:
    return Trouble(404, f"there is no such {what}")


def install(app: FastAPI) -> None:
    """One place where errors become answers."""

    @app.exception_handler(Trouble)
    def trouble(_: Request, error: Trouble) -> JSONResponse:
        return JSONResponse({"detail": error.text}, error.status)

    @app.exception_handler(ArchiveError)
    @app.exception_handler(RosterError)
    def unreadable(_: Request, error: Exception) -> JSONResponse:
        return JSONResponse({"detail": str(error)}, 422)

    @app.exception_handler(EditedMeanwhile)
    def edited(_: Request, error: EditedMeanwhile) -> JSONResponse:
        text = f"somebody else saved this {error.what} meanwhile; compare the two and save again"
        return JSONResponse({"detail": text, "text": error.text, "version": error.version}, 409)

    @app.exception_handler(DatabaseGone)
    def gone(_: Request, error: DatabaseGone) -> JSONResponse:
        del error
        return JSONResponse(
            {"detail": "the database does not answer just now; nothing was changed, try again in a moment"}, 503
        )

    @app.exception_handler(RequestValidationError)
    def not_taken(_: Request, error: RequestValidationError) -> JSONResponse:
        # What was sent is not said again: it may be what no answer can hold (NaN, half a character).
        problems = [f"{_place(e['loc'])}: {e['msg']}" for e in error.errors()[:5]]
        return JSONResponse({"detail": _sayable("; ".join(problems))}, 422)

    @app.exception_handler(OSError)
    def no_room(_: Request, error: OSError) -> JSONResponse:
        if error.errno not in (errno.ENOSPC, errno.EDQUOT):
            raise error
        log.error("the disk is full: %s", error.filename)
        text = "the server's disk is full; nothing was changed, tell whoever runs it"
        return JSONResponse({"detail": text}, 503)

    @app.exception_handler(pymysql.err.DataError)
    def too_long(_: Request, error: pymysql.err.DataError) -> JSONResponse:
        del error
        return JSONResponse({"detail": "something here is longer or larger than can be kept; nothing was changed"}, 422)

    @app.exception_handler(pymysql.err.IntegrityError)
    def at_once(_: Request, error: pymysql.err.IntegrityError) -> JSONResponse:
        log.warning("two changes at once: %s", error)
        text = "somebody changed the same at this moment, or it is gone; nothing was changed, look at it again"
        return JSONResponse({"detail": text}, 409)

    @app.exception_handler(UnicodeEncodeError)
    def half_a_character(_: Request, error: UnicodeEncodeError) -> JSONResponse:
        del error
        return JSONResponse({"detail": "there is half a character in this text; type it again"}, 422)

    @app.exception_handler(pymysql.err.OperationalError)
    def crossed(_: Request, error: pymysql.err.OperationalError) -> JSONResponse:
        if error.args[0] not in CONFLICTS:
            raise error
        text = "others are changing the same just now; nothing was changed, try again in a moment"
        return JSONResponse({"detail": text}, 503)


def _place(where: Sequence[object]) -> str:
    return ".".join(str(part) for part in where if part not in ("body", "query", "path"))[:80] or "this"


def _sayable(text: str) -> str:
    return text.encode("utf-8", "replace").decode()
