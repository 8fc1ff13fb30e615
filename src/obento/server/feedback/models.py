"""The shapes of requests and answers about comments, marks, letters and the class report."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from fastapi import Path
from pydantic import BaseModel, Field

from obento.server.cases.models import CaseRow
from obento.server.models import Body, Number
from obento.server.results.models import ClusterView
from obento.server.review.models import WavesView


class BankEntry(BaseModel):
    """A comment of an earlier lab or another task; `same_kind` when it was written on the same kind of mistake."""

    text: str
    place: str
    same_kind: bool


class DraftView(BaseModel):
    text: str
    bank: list[BankEntry]


class Drafted(BaseModel):
    """How many comments were drafted; those that somebody has written stay."""

    drafted: int


ClusterKey = Annotated[str, Path(max_length=80)]
"""A cluster's key in an address."""


class CommentText(Body):
    text: str = Field(max_length=20_000)
    version: Number = 0
    handin_id: Number = 0


class CommentSaved(BaseModel):
    version: int


class LetterTask(BaseModel):
    title: str
    status: str
    passed: int
    compared: int
    mark: float | None
    total: float
    held: str
    late: str
    comment: str
    note: str
    inputs: list[str]
    outputs: list[str]
    rows: list[CaseRow]
    more: int
    messages: list[str]
    bound: list[str]
    again: str
    waves: WavesView | None = None
    spec_version: int
    engine: str


class Letter(BaseModel):
    school: str
    class_name: str
    lab: str
    student: str
    team: list[str]
    attempt: int
    received_at: datetime | None
    late: bool
    tasks: list[LetterTask]
    mark: float | None
    total: float
    corrects: bool = False


class FeedbackStudent(BaseModel):
    student_id: int
    handin_id: int | None
    name: str
    number: str
    team: bool
    marks: list[float | None]
    held: list[bool]
    by_hand: list[bool]
    late: bool
    sum: float | None
    letter: Literal["none", "released", "read", "withdrawn"]
    outdated: bool
    mail_trouble: str
    open_comments: int


class FeedbackTask(BaseModel):
    id: int
    title: str
    total: float
    clusters: list[ClusterView]


class FeedbackView(BaseModel):
    tasks: list[FeedbackTask]
    students: list[FeedbackStudent]
    sent: int


class Mistake(BaseModel):
    text: str
    count: int
    of: int
    task: str


class HardCase(BaseModel):
    label: str
    failed: int
    of: int


class ReportTask(BaseModel):
    """`histogram` has ten bins of the share of the marks; `middle` is the median mark."""

    title: str
    total: float
    handed_in: int
    right: int
    wrong: int
    unchecked: int
    missing: int
    histogram: list[int]
    middle: float | None
    mistakes: list[Mistake]
    hardest: list[HardCase]


class ClassReport(BaseModel):
    lab: str
    class_name: str
    school: str
    students: int
    tasks: list[ReportTask]
    teach_again: list[Mistake]


class Release(Body):
    student_ids: list[Number] | None = Field(default=None, max_length=5000)


class Released(BaseModel):
    letters: int
    unchanged: int
    without_address: int


class PageView(BaseModel):
    letter: Letter
    number: int
    released_at: datetime
    expires_at: datetime


class MailView(BaseModel):
    id: str
    to: str
    subject: str
    date: str
    text: str
