"""The shapes of requests and answers about people."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field

from obento.server.models import Body


class Invite(Body):
    email: str = Field(max_length=200, pattern=r"^\s*[^@\s]+@[^@\s]+\s*$")
    name: str = Field(min_length=1, max_length=200)
    role: Literal["reader", "ta", "lecturer"] = "ta"


class Invited(BaseModel):
    """A person who works on a class now. `link` sets a password, and is empty unless it may be shown; `mailed` says
    that it is on its way to the address."""

    id: int
    link: str
    mailed: bool


class ClassRights(Body):
    """What the TAs of a class may do besides checking, commenting and marking."""

    tas_release: bool
    tas_manage: bool


class PersonView(BaseModel):
    """Somebody who works on a class; `joined` once they have set a password."""

    id: int
    name: str
    email: str
    role: Literal["reader", "ta", "lecturer"]
    joined: bool


class StudentName(BaseModel):
    id: int
    name: str
    number: str


class RosterTaken(BaseModel):
    """What was taken in of a class list; `refused` are the addresses that no mail can be sent to, with their lines."""

    rows: int
    refused: list[str]
