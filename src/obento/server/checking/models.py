"""The shape of answers about check runs."""

from __future__ import annotations

from pydantic import BaseModel


class RunView(BaseModel):
    """How far a check run is; `busy` hand-ins had no outcome, since the machine had no time for them."""

    state: str
    total: int
    done: int
    busy: int = 0
