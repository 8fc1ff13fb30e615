"""The shape of answers about check runs."""

from __future__ import annotations

from pydantic import BaseModel


class RunView(BaseModel):
    """How far a check run is; `not_checked` hand-ins had no outcome, through no fault of
    theirs; `reasons` says why."""

    state: str
    total: int
    done: int
    not_checked: int = 0
    reasons: list[str] = []
