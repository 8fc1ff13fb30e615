"""The shapes of requests and answers about marks."""

from __future__ import annotations

from pydantic import BaseModel, Field

from obento.server.models import Body


class MarksColumns(BaseModel):
    columns: list[str]
    usual: list[str]


class Override(Body):
    value: float | None = Field(default=None, ge=0, le=100_000)
    reason: str = Field(default="", max_length=500)
