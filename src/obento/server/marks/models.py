"""The shapes of requests and answers about marks."""

from __future__ import annotations

from pydantic import BaseModel, Field

from obento.server.models import Body


class MarksColumns(BaseModel):
    columns: list[str]
    usual: list[str]


class Override(Body):
    """A mark by hand, or none; `beyond` that it may be more than the task gives, `over` how many marks of people were
    there when it was written."""

    value: float | None = Field(default=None, ge=0, le=100_000)
    reason: str = Field(default="", max_length=500)
    beyond: bool = False
    over: int | None = None
