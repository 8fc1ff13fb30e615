"""The shapes of requests and answers about people."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import AfterValidator, BaseModel, Field

from obento.core.sentences.said import ENGLISH, languages
from obento.server.models import Body


def _known_language(language: str) -> str:
    if language not in languages():
        raise ValueError(f"letters can be in {', '.join(languages())}")
    return language


class Invite(Body):
    email: str = Field(max_length=200, pattern=r"^\s*[^@\s]+@[^@\s]+\s*$")
    name: str = Field(min_length=1, max_length=200)
    role: Literal["reader", "ta", "lecturer"] = "ta"
    over: Literal["reader", "ta", "lecturer"] | None = None
    """The role that was seen before, None where there was none; left out: whatever there is."""


class Invited(BaseModel):
    """A person who works on a class now. `link` sets a password, and is empty unless it may be shown; `mailed` says
    that it is on its way to the address."""

    id: int
    link: str
    mailed: bool


class ClassRights(Body):
    """What the TAs of a class may do besides checking, commenting and marking, and the language of its letters."""

    tas_release: bool
    tas_manage: bool
    language: Annotated[str, AfterValidator(_known_language)] = ENGLISH


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


class StudentLine(BaseModel):
    """A line of the class list; `left_at` is since when somebody is out of the class, `version` tells it from what it
    said before."""

    id: int
    number: str
    name: str
    email: str
    group: str
    team: str
    remarks: str
    left_at: datetime | None
    version: str


class StudentEntry(Body):
    """What somebody writes into a line of the class list, over the version that they saw (left out: over any)."""

    number: str = Field(min_length=1, max_length=100)
    name: str = Field(min_length=1, max_length=200)
    email: str = Field(default="", max_length=200)
    group: str = Field(default="", max_length=100)
    team: str = Field(default="", max_length=200)
    remarks: str = Field(default="", max_length=2000)
    is_out: bool = False
    over: str = Field(default="", max_length=100)


class ErasedView(BaseModel):
    """The protocol of an erasure, which names nobody: hand-ins and letters deleted, other places where a name stood,
    mails in the stand-in mailbox."""

    handins: int
    letters: int
    places: int
    mails: int


class RosterProblem(BaseModel):
    """What is wrong in a line of a list, and whether it is left out for it."""

    line: int
    text: str
    is_left_out: bool


class RosterChange(BaseModel):
    """A student whose line would change, with what would."""

    number: str
    name: str
    what: list[str]


class RosterPreview(BaseModel):
    """A class list before it is kept: its columns with what they seem to be (field to index), its first lines, and what
    keeping it would change, beside this `version` of the list. `trouble` says why it cannot be kept like that."""

    header: list[str]
    columns: dict[str, int]
    sample: list[list[str]]
    new: list[str]
    changed: list[RosterChange]
    gone: list[StudentName]
    same: int
    problems: list[RosterProblem]
    trouble: str
    version: str


class RosterTaken(BaseModel):
    """What was taken in of a class list: so many lines, of these new; `left` are out of the class since."""

    rows: int
    new: int
    left: int
    problems: list[RosterProblem]
