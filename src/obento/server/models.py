"""The shapes of requests and answers."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from pydantic import BaseModel, Field


class SignIn(BaseModel):
    email: str = Field(max_length=200)
    password: str = Field(max_length=500)


class Me(BaseModel):
    id: int
    name: str
    email: str
    csrf: str


class NewPassword(BaseModel):
    password: str = Field(min_length=10, max_length=500)


class PasswordChange(NewPassword):
    old: str = Field(max_length=500)


class InvitationView(BaseModel):
    """Whose link it is."""

    name: str
    email: str


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


class Done(BaseModel):
    ok: bool = True


class NewClass(BaseModel):
    name: str = Field(min_length=1, max_length=200)
    school: str = Field(default="", max_length=200)


class NewLab(BaseModel):
    title: str = Field(min_length=1, max_length=200)
    due_at: datetime | None = None


class NewTask(BaseModel):
    title: str = Field(min_length=1, max_length=200)


class Created(BaseModel):
    id: int


class LabSettings(BaseModel):
    title: str = Field(min_length=1, max_length=200)
    due_at: datetime | None = None
    which_attempt: Literal["last", "first", "best"] = "last"
    late_share: float = Field(default=0.0, ge=0, le=1)


class LabChanged(BaseModel):
    """How many marks a change of settings or an extension touched."""

    marks: int


class Extension(BaseModel):
    """A later due date for one student; none takes it back."""

    due_at: datetime | None
    reason: str = Field(default="", max_length=500)


class ExtensionView(BaseModel):
    student_id: int
    name: str
    due_at: datetime
    reason: str


class StudentName(BaseModel):
    id: int
    name: str
    number: str


class LabTerms(BaseModel):
    """What a lab says of attempts and lateness, and what that comes to."""

    title: str
    due_at: datetime | None
    which_attempt: Literal["last", "first", "best"]
    late_share: float
    extensions: list[ExtensionView]
    students: list[StudentName]
    late: int


class Area(BaseModel):
    """One area of a lab's miniature: how many hand-ins, of which kind."""

    kind: Literal["right", "rules", "wrong", "unchecked", "missing"]
    count: int


class LabCard(BaseModel):
    id: int
    title: str
    due_at: datetime | None
    tasks: list[str]
    areas: list[Area]
    handed_in: int
    students: int
    sent: int


class ClassCard(BaseModel):
    id: int
    name: str
    school: str
    role: str
    students: int
    labs: list[LabCard]


class TaskHead(BaseModel):
    id: int
    title: str
    version: int | None
    is_right: bool
    right: int
    wrong: int
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


class MissedMistake(BaseModel):
    """A likely mistake that no case shows, and a case that would."""

    file: str
    line: int
    change: str
    inputs: str
    shows: str


class CatchRateView(BaseModel):
    """The share of likely mistakes that a spec's cases catch; `trouble` says why there is none."""

    share: float | None
    reference: str
    telling: int
    caught: int
    harmless: int
    cases: int
    compared: int
    missed: list[MissedMistake]
    trouble: str


class SpecText(BaseModel):
    text: str = Field(max_length=2_000_000)


class MessageView(BaseModel):
    severity: str
    code: str
    file: str
    line: int
    column: int
    text: str
    hint: str = ""
    end_line: int = 0
    end_column: int = 0


class PortView(BaseModel):
    name: str
    direction: str
    width: int
    signed: bool
    radix: str


class StepPlace(BaseModel):
    sequence: str
    number: int
    clock: str
    follows: bool


class TableRow(BaseModel):
    """A case of the spec: inputs, what is expected, and for each source what it says. `-` is not compared."""

    index: int
    label: str = ""
    step: StepPlace | None = None
    inputs: list[str]
    outputs: list[str]
    sources: list[list[str]]
    agrees: bool


class CoverageView(BaseModel):
    """See `core.check.expectation.Coverage`."""

    rows: int
    states: int
    taken: int
    possible: int
    possible_states: int
    unreached: tuple[str, ...]
    idle_rows: tuple[int, ...]
    is_whole: bool
    grid: tuple[str, ...]


class SpecPreview(BaseModel):
    title: str
    unit: str
    messages: list[MessageView]
    is_right: bool
    ports: list[PortView]
    sources: list[str]
    cases: int
    uncovered: int
    rows: list[TableRow]
    groups: dict[str, int]
    coverage: CoverageView | None
    sequences: list[str]


class SpecView(BaseModel):
    """`frozen_late` says when the files of a version from before were frozen; `is_older`, that its text is read by older rules."""

    text: str
    version: int
    used: bool
    frozen_late: datetime | None
    is_older: bool
    preview: SpecPreview


class FileView(BaseModel):
    path: str
    size: int


class Proposal(BaseModel):
    id: int
    name: str
    number: str


class NameBinding(BaseModel):
    ours: str
    theirs: str
    how: str
    agreed: bool


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


class Owner(BaseModel):
    student_ids: list[int] = Field(min_length=1, max_length=12)


class Agreement(BaseModel):
    ours: str = Field(max_length=200)
    theirs: str = Field(max_length=300)


class RunView(BaseModel):
    """How far a check run is; `busy` hand-ins had no outcome, since the machine had no time for them."""

    state: str
    total: int
    done: int
    busy: int = 0


class Member(BaseModel):
    handin_id: int
    name: str
    language: str
    attempt: int
    late: bool
    bound: list[str]
    mark: float | None
    held: bool
    noted: bool
    trouble: str


class CaseRow(BaseModel):
    index: int
    label: str = ""
    step: StepPlace | None = None
    inputs: list[str]
    expected: list[str]
    actual: list[str]
    wrong: list[bool]
    run: str
    cell: str
    group: str | None = None


class ClusterView(BaseModel):
    key: str
    kind: Literal["wrong", "rules", "right", "unchecked"]
    title: str
    sentences: list[str]
    strip: str
    strip_shares: list[int]
    rows: list[CaseRow]
    passed: int
    total: int
    members: list[Member]
    mark: float | None
    comment: str
    comment_version: int


class ResultsView(BaseModel):
    task_id: int
    version: int
    unit: str
    inputs: list[str]
    outputs: list[str]
    cases: int
    clocked: bool
    case_labels: list[str]
    case_failures: list[int]
    case_clusters: list[list[int]]
    clusters: list[ClusterView]
    missing: list[str]
    waiting: int
    checked_at: datetime | None


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
    """One sequence (from step `offset` on) on a time axis: a step takes `step_time` units. `cells` has a letter for each step, capital where the step
    only follows from an earlier wrong one; `actions` what the clock does in it."""

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
    """The smallest changes that make every case right. `is_known` is false where nothing could be tried; `is_whole` says that
    every single change of the kinds we know was."""

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


class Effect(BaseModel):
    """One hand-in under another text of the spec, beside what it has now."""

    handin_id: int
    name: str
    kind: str
    passed: int
    total: int
    mark: float | None
    new_kind: str
    new_passed: int
    new_total: int
    new_mark: float | None
    by_hand: bool


class EffectAsked(BaseModel):
    """A text of the spec, and the hand-ins to be looked at: some at a time."""

    text: str = Field(max_length=400_000)
    handin_ids: list[int] = Field(max_length=40)


class Effects(BaseModel):
    effects: list[Effect]


class LineNote(BaseModel):
    file: str
    line: int
    severity: str
    text: str


class ReviewView(BaseModel):
    handin_id: int
    name: str
    status: str
    language: str
    unit: str
    attempt: int
    attempts: int
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
    note: str
    note_version: int
