"""How far something is that a person waits for, and stopping it."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Path
from pydantic import BaseModel

from obento.server.deps import Person, ServicesDep
from obento.server.models import Done

router = APIRouter(prefix="/api", tags=["server"])

Key = Annotated[str, Path(max_length=64, pattern=r"^[\w-]+$")]


class WorkView(BaseModel):
    """So many of so many; a total of 0 where nothing is known, or nothing under way."""

    done: int
    total: int


@router.get("/works/{key}")
def get_work(key: Key, person: Person, services: ServicesDep) -> WorkView:
    """How far the request is that this person sent with `X-Work: key`."""
    work = services.works.of(person.id, key)
    return WorkView(done=work.done, total=work.total) if work is not None else WorkView(done=0, total=0)


@router.delete("/works/{key}")
def stop_work(key: Key, person: Person, services: ServicesDep) -> Done:
    """Stop it at its next step; the request itself answers that nothing was kept."""
    work = services.works.of(person.id, key)
    if work is not None:
        work.is_stopped = True
    return Done()
