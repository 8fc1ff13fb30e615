"""The shapes of requests and answers about classes, labs and tasks."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from pydantic import BaseModel, Field

from obento.server.models import Body, Moment, Number
from obento.server.people.models import StudentName


class NewClass(Body):
    name: str = Field(min_length=1, max_length=200)
    school: str = Field(default="", max_length=200)


class NewLab(Body):
    title: str = Field(min_length=1, max_length=200)
    due_at: Moment | None = None


class NewTask(Body):
    title: str = Field(min_length=1, max_length=200)


class LabSettings(Body):
    """What a lab says of due date, attempts and lateness; `over` is the print of the terms it was written over, empty
    where nobody looked."""

    title: str = Field(min_length=1, max_length=200)
    due_at: Moment | None = None
    which_attempt: Literal["last", "first", "best"] = "last"
    late_share: float = Field(default=0.0, ge=0, le=1)
    late_step: Literal["once", "hour", "day"] = "once"
    late_grace: int = Field(default=0, ge=0, le=100_000)
    late_cap: float = Field(default=1.0, ge=0, le=1)
    over: str = Field(default="", max_length=64)


class LabChanged(BaseModel):
    """How many marks a change of settings or an extension touched."""

    marks: int


class Extension(Body):
    """A later due date for one student; none takes it back. `over` is the one that was seen there before, none where
    there was none; left out: whatever there is."""

    due_at: Moment | None
    reason: str = Field(default="", max_length=500)
    over: Moment | None = None


class ExtensionView(BaseModel):
    student_id: int
    name: str
    due_at: datetime
    reason: str


class GoneView(BaseModel):
    """Something that was taken away; `place` is what it was in."""

    kind: Literal["class", "lab", "task", "drop"]
    id: int
    class_id: int
    name: str
    place: str
    at: datetime


class HangingView(BaseModel):
    """What goes with something that is to be taken away."""

    handins: int
    marks: int
    comments: int
    letters: int


class Back(Body):
    """What is to be had back."""

    kind: Literal["class", "lab", "task", "drop"]
    id: Number
    class_id: Number


class CopyOf(Body):
    """What the copy is to be called."""

    name: str = Field(min_length=1, max_length=200)


class Whose(BaseModel):
    """A student of a lab's class, with the hand-in that is theirs or their team's."""

    student_id: int
    name: str
    number: str
    group: str
    handin_id: int | None


class ExcusedView(BaseModel):
    """Somebody who need not hand in."""

    student_id: int
    name: str
    reason: str


class LabTerms(BaseModel):
    """What a lab says of attempts and lateness, and what that comes to."""

    title: str
    due_at: datetime | None
    which_attempt: Literal["last", "first", "best"]
    late_share: float
    late_step: Literal["once", "hour", "day"]
    late_grace: int
    late_cap: float
    version: str
    extensions: list[ExtensionView]
    excused: list[ExcusedView]
    students: list[StudentName]
    late: int


class Area(BaseModel):
    """One area of a task's miniature: how many hand-ins, of which kind; `ways` is how many clusters it is made of."""

    kind: Literal["right", "rules", "wrong", "unchecked", "waiting", "missing"]
    count: int
    ways: int = 1


class TaskTray(BaseModel):
    """A task of a lab as its miniature shows it."""

    title: str
    areas: list[Area]


class LabCard(BaseModel):
    """A lab at a glance. `is_begun`: a spec of it says something of its own, or somebody handed something in."""

    id: int
    is_begun: bool
    title: str
    due_at: datetime | None
    tasks: list[TaskTray]
    handed_in: int
    students: int
    sent: int


class ClassCard(BaseModel):
    """A class as one person has it. `language` is that of its letters; `languages` are those that there are."""

    id: int
    name: str
    school: str
    role: str
    rights: list[str]
    tas_release: bool
    tas_manage: bool
    language: str
    languages: dict[str, str]
    students: int
    labs: list[LabCard]


class TaskHead(BaseModel):
    id: int
    title: str
    version: int | None
    is_right: bool
    right: int
    wrong: int
    against_rules: int
    """Right in every case, but a rule of the task is broken."""
    unchecked: int
    clusters_open: int


class LabOverview(BaseModel):
    id: int
    class_id: int
    title: str
    class_name: str
    school: str
    due_at: datetime | None
    which_attempt: str
    late_share: float
    tasks: list[TaskHead]
    handed_in: int
    unsettled: int
    students: int
    sent: int
    running: bool
    rights: list[str]
