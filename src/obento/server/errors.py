"""Errors that a person can do something about, and how they travel over HTTP."""

from __future__ import annotations

from fastapi import FastAPI, Request
from fastapi.responses import JSONResponse

from obento.intake.archive import ArchiveError
from obento.intake.roster import RosterError
from obento.store.comments import EditedMeanwhile
from obento.store.connection import DatabaseGone


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
        text = "somebody else saved this comment meanwhile; compare the two and save again"
        return JSONResponse({"detail": text, "text": error.text, "version": error.version}, 409)

    @app.exception_handler(DatabaseGone)
    def gone(_: Request, error: DatabaseGone) -> JSONResponse:
        del error
        return JSONResponse(
            {"detail": "the database does not answer just now; nothing was changed, try again in a moment"}, 503
        )
