"""The shapes of requests and answers about intake."""

from __future__ import annotations

from datetime import datetime

from pydantic import BaseModel, Field

from obento.server.models import Body, NameBinding, Number


class FileView(BaseModel):
    path: str
    size: int


class Proposal(BaseModel):
    id: int
    name: str
    number: str


class Twice(BaseModel):
    """A unit that stands differently in several files of a hand-in."""

    unit: str
    files: list[str]


class TwiceText(BaseModel):
    """One of the files that a unit stands in."""

    unit: str
    path: str
    text: str


class IntakeTask(BaseModel):
    task_id: int
    status: str
    language: str
    unit: str
    binding: list[NameBinding]
    message: str
    twice: list[Twice]


class IntakeEntry(BaseModel):
    handin_id: int
    label: str
    who: str
    number: str
    team: bool
    proposals: list[Proposal]
    attempt: int
    attempts: int
    received_at: datetime | None
    late: bool
    files: list[FileView]
    tasks: list[IntakeTask]
    settled: bool


class DropView(BaseModel):
    name: str
    at: datetime
    files: int
    left_out: list[str]


class IntakeView(BaseModel):
    entries: list[IntakeEntry]
    missing: list[Proposal]
    drops: list[DropView]
    students: list[Proposal]


class DropResult(BaseModel):
    handins: int
    new_attempts: int
    repeated: int
    unsettled: int
    left_out: list[str]


class Owner(Body):
    student_ids: list[Number] = Field(min_length=1, max_length=12)


class Agreement(Body):
    ours: str = Field(max_length=200)
    theirs: str = Field(max_length=300)
