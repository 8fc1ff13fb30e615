"""What stands on every answer, whoever makes it: what a page may load, who may see it, and who may keep it."""

from __future__ import annotations

import logging
import time
from typing import Any

from fastapi.responses import JSONResponse
from starlette.datastructures import MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

log = logging.getLogger(__name__)
requests = logging.getLogger("obento.requests")

_POLICY = (
    "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; object-src 'none'; base-uri 'self';"
    " form-action 'self'; frame-ancestors 'none'"
)
_ALWAYS = {
    "Content-Security-Policy": _POLICY,
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
    "X-Robots-Tag": "noindex, nofollow",
}
_KEPT_BY_BROWSERS = ("/assets/", "/icon.svg")


class Headers:
    """Puts headers on all answers, and makes an answer of what went wrong on our side."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        begun = False
        status, since = 0, time.monotonic()

        async def sent(message: Message) -> None:
            nonlocal begun, status
            if message["type"] == "http.response.start":
                begun, status = True, message["status"]
                _add(MutableHeaders(scope=message), scope)
            await send(message)

        try:
            await self._app(scope, receive, sent)
        except Exception:
            log.exception("%s failed", _route(scope))
            if begun:
                raise
            detail = "something went wrong on our side; it was written to the log, nothing was changed"
            await JSONResponse({"detail": detail}, 500)(scope, receive, sent)
        finally:
            took = round(1000 * (time.monotonic() - since), 1)
            requests.info("request", extra={"fields": {"route": _route(scope), "status": status, "ms": took}})


def _route(scope: Scope) -> str:
    """What was asked for, by the form of its address: the address itself may be somebody's private link."""
    path = getattr(scope.get("route"), "path", "(no route)")
    return f"{scope['method']} {path}"


def _add(headers: Any, scope: Scope) -> None:
    for name, value in _ALWAYS.items():
        headers[name] = value
    path = scope["path"].removeprefix(scope.get("root_path", ""))
    if path.startswith("/api/"):
        headers.setdefault("Cache-Control", "no-store")
    elif not path.startswith(_KEPT_BY_BROWSERS):
        headers.setdefault("Cache-Control", "no-cache")
