"""The shapes of requests and answers about the board."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field

from obento.server.cases.models import CaseRow
from obento.server.models import MessageView
from obento.server.review.circuit_models import MOST_SCRATCH, CircuitView
from obento.server.review.models import WavesView
from obento.server.specs.models import PortView


class BoardStart(BaseModel):
    """What a board begins with: an empty wiring list with the task's ports, what its rules allow, its cases."""

    unit: str
    text: str
    only_gates: list[str]
    max_gates: int | None
    max_levels: int | None
    ports: list[PortView]
    cases: int
    clocked: bool
    blocks: list[str]
    parts: list[str]


class BoardText(BaseModel):
    text: str = Field(max_length=MOST_SCRATCH)


class RuleView(BaseModel):
    rule: str
    ok: bool
    text: str


class BoardView(BaseModel):
    """What a circuit does. `circuit` has the values of its wires in the cases of `rows`; its `trouble` says why it is
    not drawn. `waves` are the sequences that the rows are of, for a clocked task."""

    status: str
    passed: int
    total: int
    rows: list[CaseRow]
    messages: list[MessageView]
    findings: list[str]
    rules: list[RuleView]
    gates: int
    by_kind: dict[str, int]
    levels: int
    circuit: CircuitView
    waves: list[WavesView] = []


Language = Literal["wiring", "v", "sv", "vhd"]


class BesideText(BoardText):
    """A circuit, and another one in some language."""

    other: str = Field(max_length=MOST_SCRATCH)
    language: Language = "wiring"


class BesideView(BaseModel):
    """Two circuits over the same cases. `differs` counts the cases in which they part, None where one cannot be run;
    `parts_in` are those of the shown cases in which they do."""

    one: BoardView
    other: BoardView
    differs: int | None
    total: int
    outputs: list[str]
    parts_in: list[int]


class Sentence(BaseModel):
    """What is said, to be put into a text; `only` restricts what expressions are made of. With `how` at `block` the
    `lines` become a block of that name, at `open` the block that the line uses is put back, at `paste` what is said
    are lines that were copied."""

    text: str = Field(max_length=MOST_SCRATCH)
    said: str = Field(max_length=20_000)
    only: list[str] = Field(default=[], max_length=16)
    how: Literal["say", "block", "open", "paste"] = "say"
    lines: list[int] = Field(default=[], max_length=2_000)


class StatedView(BaseModel):
    """The text with the sentence in it, and the line that it became; `trouble` where nothing was done."""

    text: str
    line: int
    trouble: str
    hint: str


Tells = Literal["nothing", "count", "rows"]
"""How much a student's board says of right and wrong: nothing, how many cases are right, or which."""


class LinkView(BaseModel):
    """The link to a task's board for students; an empty address where there is none. `trouble` says why there cannot
    be one."""

    address: str
    tells: Tells
    start: str | None
    trouble: str


class LinkWanted(BaseModel):
    """`start` is what boards begin with, None for the empty unit."""

    tells: Tells
    start: str | None = Field(default=None, max_length=MOST_SCRATCH)


class LearnerStart(BaseModel):
    """An empty board for a student."""

    title: str
    unit: str
    text: str
    only_gates: list[str]
    max_gates: int | None
    max_levels: int | None
    ports: list[PortView]
    clocked: bool
    blocks: list[str]
    parts: list[str]
    tells: Tells


class LearnerText(BaseModel):
    """A circuit or design to be tried; `who` tells the browsers behind one address apart."""

    text: str = Field(max_length=MOST_SCRATCH)
    language: Language = "wiring"
    who: str = Field(default="", max_length=40)


class LearnerSentence(Sentence):
    who: str = Field(default="", max_length=40)


class LearnerRow(BaseModel):
    """What a circuit does in one case; `right` only where the task tells it."""

    index: int
    inputs: list[str]
    outputs: list[str]
    right: bool | None


class LearnerView(BaseModel):
    """What a student's circuit does. `passed` and `total` only where the task tells them."""

    status: str
    passed: int | None
    total: int | None
    rows: list[LearnerRow]
    cases: int
    messages: list[MessageView]
    rules: list[RuleView]
    gates: int
    levels: int
    circuit: CircuitView
    waves: list[WavesView] = []


class KnownBlockView(BaseModel):
    """A file beside another task that may be used as a block here."""

    task: str
    name: str
    text: str


class WantedForm(BaseModel):
    form: Literal["two-level", "nand", "nor"]


class FormView(BaseModel):
    text: str
    steps: list[str]
