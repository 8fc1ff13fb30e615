"""The shapes of requests and answers about specs."""

from __future__ import annotations

from datetime import datetime

from pydantic import BaseModel, Field

from obento.server.models import MessageView


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


class SpecSave(SpecText):
    """A text to be kept; `over` is the print of the one it was written over, empty where nobody looked."""

    over: str = Field(default="", max_length=64)


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
    """`frozen_late` says when the files of a version from before were frozen; `is_older`, that its text is read by
    older rules; `digest` is a print of the text, by which two people who write at once notice each other."""

    text: str
    version: int
    used: bool
    frozen_late: datetime | None
    is_older: bool
    digest: str
    preview: SpecPreview


class VersionHead(BaseModel):
    """One version of a spec: who wrote it, when, and whether anybody was checked by it."""

    number: int
    who: str
    at: datetime
    used: bool
    is_right: bool


class ChangedOutput(BaseModel):
    """What an output was expected to be and what it is expected to be now; empty where it does not exist."""

    name: str
    was: str
    now: str


class ChangedCase(BaseModel):
    label: str
    outputs: list[ChangedOutput]


class VersionCases(BaseModel):
    """A version beside a text: so many cases stand in both, so many in one alone; `changed` are those of which they
    expect something else, `more` how many there are besides."""

    shared: int
    only_then: int
    only_now: int
    changed: list[ChangedCase]
    more: int


class VersionText(BaseModel):
    number: int
    text: str


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
