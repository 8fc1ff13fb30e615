"""The shapes of requests and answers about people."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field


class Invite(BaseModel):
    email: str = Field(max_length=200, pattern=r"^\s*[^@\s]+@[^@\s]+\s*$")
    name: str = Field(min_length=1, max_length=200)
    role: Literal["ta", "lecturer"] = "ta"


class Invited(BaseModel):
    """A person who works on a class now; the link to be passed on, unless they have a password."""

    id: int
    link: str


class PersonView(BaseModel):
    """Somebody who works on a class; `joined` once they have set a password."""

    id: int
    name: str
    email: str
    role: Literal["ta", "lecturer"]
    joined: bool


class StudentName(BaseModel):
    id: int
    name: str
    number: str
