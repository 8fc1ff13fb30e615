"""The shapes of requests and answers about comments, marks, letters and the class report."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from fastapi import Path
from pydantic import BaseModel, Field

from obento.core.sentences.said import ENGLISH, table, templates
from obento.server.cases.models import CaseRow
from obento.server.models import Body, Number
from obento.server.results.models import ClusterView
from obento.server.review.models import WavesView
from obento.server.specs.models import PortView


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


class PieceView(BaseModel):
    """A part with what stands at its inputs, or a name (see core/board/changes)."""

    kind: str
    text: str
    inverted: bool
    inputs: list[PieceView]


class DrivenView(BaseModel):
    """A line of a wiring list: what it drives, and what drives that."""

    names: list[str]
    piece: PieceView


class ChangeView(BaseModel):
    """Lines of a comment or note (`of`) that show a change of a drawn circuit: `count` lines from line `first` on,
    counted from 0, as they were handed in and as they would be."""

    of: Literal["comment", "note"]
    first: int
    count: int
    before: list[DrivenView]
    after: list[DrivenView]


class LetterTask(BaseModel):
    """The part of a letter on one task, with the attempt for it (0: none) and when that was received."""

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
    ports: list[PortView] = []
    rows: list[CaseRow]
    more: int
    messages: list[str]
    bound: list[str]
    again: str
    waves: WavesView | None = None
    attempt: int = 0
    received_at: datetime | None = None
    is_late: bool = False
    changes: list[ChangeView] = []
    spec_version: int
    engine: str


class Letter(BaseModel):
    """A student's letter. `attempt`, `received_at` and `late` are those of all tasks where they share them; attempt 0
    leaves that to each task. `excused` is the reason for which nothing had to be handed in. `words` are the fixed ones,
    as templates (core/sentences): they are frozen with it."""

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
    excused: str = ""
    handin_id: int | None = None
    language: str = ENGLISH
    words: dict[str, str] = Field(default_factory=lambda: sheet_words(ENGLISH))


def sheet_words(language: str) -> dict[str, str]:
    """The fixed words of a letter and of the page that it stands on."""
    joints = {key: templates(language)[key] for key in ("and", "or")}
    return {**joints, **table("letter", language), **table("page", language)}


class FeedbackStudent(BaseModel):
    """A student's marks and letter; `excused` is the reason where somebody is."""

    excused: str | None = None
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
    mail: Literal["", "waiting", "sent", "failed", "no address"]
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
    """What came of a release: so many letters went out; `not_checked` students got none, since a hand-in of theirs was
    not checked by the current version."""

    letters: int
    unchanged: int
    without_address: int
    not_checked: int = 0


class Against(BaseModel):
    """Something that stands against a release, and the place where it is settled."""

    kind: str
    text: str
    place: str
    task_id: int | None


class Recipient(BaseModel):
    student_id: int
    name: str
    number: str


class Correction(Recipient):
    """Somebody whose letter says something else than the one they have."""

    what: list[str]


class ReleasePlan(BaseModel):
    """What stands against a release, and who would get a new letter, a corrected one, or none as theirs says the
    same."""

    against: list[Against]
    new: list[Recipient]
    corrected: list[Correction]
    unchanged: int
    without_address: list[Recipient]


class PageHead(BaseModel):
    """What a student's link shows before it is opened."""

    school: str
    class_name: str
    lab: str
    student: str
    corrects: bool
    language: str
    words: dict[str, str]
    released_at: datetime
    expires_at: datetime


class EarlierLetter(BaseModel):
    letter: Letter
    number: int
    released_at: datetime


class PageView(BaseModel):
    """A student's newest letter, and those that it corrects, newest first."""

    letter: Letter
    number: int
    released_at: datetime
    expires_at: datetime
    earlier: list[EarlierLetter]


class MailView(BaseModel):
    id: str
    to: str
    subject: str
    date: str
    text: str
