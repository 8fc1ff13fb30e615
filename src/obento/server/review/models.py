"""The shapes of answers about one hand-in in review."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from pydantic import BaseModel

from obento.server.cases.models import CaseRow
from obento.server.models import MessageView, NameBinding
from obento.server.results.models import Member
from obento.server.specs.models import PortView


class SourceFileView(BaseModel):
    path: str
    text: str


class WaveSequence(BaseModel):
    name: str
    first: int
    length: int
    wrong: int


class WaveLine(BaseModel):
    """One signal: from each time in `at` on it has the digits in `values`; likewise what is expected of it.

    `bad` are stretches of steps (first, last) in which it is not right.
    """

    name: str
    kind: Literal["in", "out", "inner"]
    width: int
    radix: str
    signed: bool
    at: list[int]
    values: list[str]
    expected_at: list[int] = []
    expected: list[str] = []
    bad: list[tuple[int, int]] = []


class WavesView(BaseModel):
    """One sequence (from step `offset` on) on a time axis: a step takes `step_time` units. `cells` has a letter for
    each step, capital where the step only follows from an earlier wrong one; `actions` what the clock does in it."""

    sequences: list[WaveSequence]
    sequence: int
    offset: int
    step_time: int
    actions: str
    cells: str
    clock: str
    waves: list[WaveLine]
    inner: list[str]
    ended: int
    trouble: str


class ChangeView(BaseModel):
    file: str
    line: int
    text: str


class RepairView(BaseModel):
    """The smallest changes that make every case right. `is_known` is false where nothing could be tried; `is_whole`
    says that every single change of the kinds we know was."""

    changes: list[ChangeView]
    tried: int
    is_known: bool
    is_whole: bool


class Since(BaseModel):
    """What turned since the attempt before; `is_known` is false where that one was not checked under this spec."""

    attempt: int
    is_known: bool
    status: str = ""
    passed: int = 0
    turned_right: list[int] = []
    turned_wrong: list[int] = []


class LineNote(BaseModel):
    file: str
    line: int
    severity: str
    text: str


class CommentBefore(BaseModel):
    """What was said of hand-ins that behave alike under another version of the spec or (`lab`, else empty) in another
    lab: a proposal, in no letter by itself."""

    text: str
    version: int
    lab: str


class ReviewView(BaseModel):
    handin_id: int
    name: str
    status: str
    language: str
    unit: str
    attempt: int
    attempts: int
    marks_by_people: int
    received_at: datetime
    late: bool
    passed: int
    total: int
    mark: float | None
    held: bool
    mark_reason: str
    max_mark: float
    inputs: list[str]
    outputs: list[str]
    rows: list[CaseRow]
    more_rows: int
    clocked: bool
    output: str
    findings: list[str]
    rules: list[str]
    files: list[SourceFileView]
    notes: list[LineNote]
    messages: list[MessageView]
    since: Since | None
    ports: list[PortView]
    clock: str
    binding: list[NameBinding]
    cluster: str
    same: list[Member]
    comment: str
    comment_version: int
    comment_before: CommentBefore | None
    note: str
    note_version: int
