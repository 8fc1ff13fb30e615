"""Shapes that answers of several subjects share."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Annotated, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field


class Body(BaseModel):
    """What comes with a request: numbers are numbers."""

    model_config = ConfigDict(allow_inf_nan=False)


def _within_reach(moment: datetime) -> datetime:
    """A moment as the database keeps it, in universal time."""
    if not 1980 < moment.year < 2200:
        raise ValueError("this date is not of our time")
    return moment.astimezone(UTC).replace(tzinfo=None) if moment.tzinfo is not None else moment


Moment = Annotated[datetime, AfterValidator(_within_reach)]
"""A date that somebody sets."""
Number = Annotated[int, Field(ge=-(2**31), lt=2**31)]
"""A number that the database can keep."""


class Done(BaseModel):
    ok: bool = True


class Health(BaseModel):
    """The server and its database answer."""

    ok: bool = True
    version: str


class Created(BaseModel):
    id: int


class MessageView(BaseModel):
    severity: Literal["error", "warning", "note"]
    code: str
    file: str
    line: int
    column: int
    text: str
    hint: str = ""
    end_line: int = 0
    end_column: int = 0


class NameBinding(BaseModel):
    ours: str
    theirs: str
    how: str
    agreed: bool
