"""The shapes of requests and answers about intake."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from pydantic import BaseModel, Field

from obento.server.models import Body, Moment, NameBinding, Number


class FileView(BaseModel):
    path: str
    size: int


class Proposal(BaseModel):
    id: int
    name: str
    number: str
    group: str = ""


class Excused(Proposal):
    """Somebody who need not hand in."""

    reason: str


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
    leftover: list[str]


class AttemptView(BaseModel):
    """One attempt of a hand-in. `task_id` is the task it is for; None: every task whose unit it holds."""

    id: int
    label: str
    task_id: int | None
    received_at: datetime
    late: bool
    files: list[FileView]


class IntakeEntry(BaseModel):
    """A hand-in. `doubt` says why a person has to say whose it is, `is_team` that the proposed are all named; `aside`
    is the reason why it was put aside. Tasks for which it holds nothing are not among `tasks`; where it holds nothing
    for any, `for_none` says so, and `leftover` of a task are units that no task takes."""

    handin_id: int
    label: str
    who: str
    number: str
    group: str
    team: bool
    proposals: list[Proposal]
    doubt: str
    is_team: bool
    aside: str | None
    attempts: list[AttemptView]
    tasks: list[IntakeTask]
    for_none: bool
    settled: bool


class DropView(BaseModel):
    """A drop. `times` says how the times of receipt are known (upload, archive, given); until `is_confirmed` nobody is
    late by them. `first` and `last` are when its files were packed, by the archive, in no zone; `version` tells what is
    said of its times from what was said before."""

    id: int
    name: str
    at: datetime
    files: int
    left_out: list[str]
    task_id: int | None
    times: str
    zone: str
    is_confirmed: bool
    first: datetime | None
    last: datetime | None
    version: str


class IntakeView(BaseModel):
    entries: list[IntakeEntry]
    missing: list[Proposal]
    excused: list[Excused]
    drops: list[DropView]
    students: list[Proposal]


class DropResult(BaseModel):
    """What came of a drop; `notes` are for whoever dropped it."""

    drop_id: int
    notes: list[str]
    handins: int
    new_attempts: int
    repeated: int
    unsettled: int
    left_out: list[str]


class AttemptOwner(Body):
    """Whose an attempt is; nobody: somebody has to say."""

    student_ids: list[Number] = Field(max_length=12)


class Aside(Body):
    """Why a hand-in is put aside; None: it is taken back."""

    reason: str | None = Field(max_length=500)


class ForTask(Body):
    """The task that an attempt is for; None: every task whose unit it holds."""

    task_id: Number | None


class Received(Body):
    at: Moment


class DropTimes(Body):
    """How the times of receipt of a drop are known: by its upload, by the archive in a `zone` (an IANA name), or given,
    `at`; over the version that was seen (left out: over any)."""

    times: Literal["upload", "archive", "given"]
    zone: str = Field(default="", max_length=60)
    at: Moment | None = None
    over: str = Field(default="", max_length=100)


class Excuse(Body):
    """Why somebody need not hand in; None: they have to. `over` is the reason that was seen there before, None where
    there was none; left out: whatever there is."""

    reason: str | None = Field(max_length=500)
    over: str | None = Field(default=None, max_length=500)


class Owner(Body):
    student_ids: list[Number] = Field(min_length=1, max_length=12)


class Agreement(Body):
    ours: str = Field(max_length=200)
    theirs: str = Field(max_length=300)
