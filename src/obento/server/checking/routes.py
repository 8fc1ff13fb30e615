"""Check runs: start, stop, follow."""

from __future__ import annotations

import asyncio
from collections.abc import AsyncIterator

from fastapi import APIRouter
from fastapi.responses import StreamingResponse

from obento.server.checking.models import RunView
from obento.server.checking.service import Run
from obento.server.deps import Db, OpeningRoute, Person, ServicesDep
from obento.server.models import Done

router = APIRouter(route_class=OpeningRoute, prefix="/api", tags=["checks"])


def _view(run: Run) -> RunView:
    return RunView(
        state=run.state, total=run.total, done=run.done, not_checked=run.not_checked, reasons=sorted(run.reasons)
    )  # fmt: skip


@router.post("/labs/{lab_id}/check")
def start_check(lab_id: int, c: Db, person: Person, services: ServicesDep) -> RunView:
    """Check what has no outcome yet; joins a run that is under way."""
    run = services.checks.start(lab_id, person.id)
    return _view(run)


@router.post("/labs/{lab_id}/check/cancel")
def cancel_check(lab_id: int, c: Db, person: Person, services: ServicesDep) -> Done:
    """Stop a run; what is finished stays."""
    services.checks.cancel(lab_id)
    return Done()


@router.get("/labs/{lab_id}/check/events", response_class=StreamingResponse)
def check_events(lab_id: int, person: Person, services: ServicesDep) -> StreamingResponse:
    """Progress as server-sent events: a `RunView` whenever it changes; ends with the run."""

    async def stream() -> AsyncIterator[str]:
        last, number = "", 0
        nap = 0.003  # a single hand-in is done at once, a class takes its time
        while True:
            run = services.checks.run_of(lab_id)
            view = _view(run) if run else RunView(state="done", total=0, done=0)
            text = view.model_dump_json()
            if text != last:
                number += 1
                last = text
                yield f"id: {number}\ndata: {text}\n\n"
            if view.state != "running":
                return
            await asyncio.sleep(nap)
            nap = min(1.1 * nap, 0.1)

    return StreamingResponse(stream(), media_type="text/event-stream", headers={"Cache-Control": "no-store"})
