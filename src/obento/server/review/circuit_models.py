"""The shapes of requests and answers about a hand-in's circuit."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from obento.core.check.inspecting.by_hand import MOST_MOVES
from obento.server.cases.models import CaseRow
from obento.server.models import MessageView

MOST_SCRATCH = 400_000
"""Characters of one file of a scratch copy."""


class CircuitPin(BaseModel):
    """`bits` are digits from the right: names of bits in `CircuitView.digits`, or negative numbers for constants (-1 is
    0, -2 is 1, -3 is x, -4 is z)."""

    id: int
    side: Literal["in", "out"]
    name: str
    bits: list[int]
    inverted: bool
    edge: str


class CircuitPart(BaseModel):
    """One symbol or box; `within` is the box that it stands in, -1 for none."""

    id: int
    kind: str
    label: str
    unit: str
    within: int
    file: str
    line: int
    end_line: int
    pins: list[CircuitPin]


class CircuitWire(BaseModel):
    start: int
    end: int
    label: str


class WireLikeness(BaseModel):
    """A wire beside the reference's: of the same `name` (`differs` are the cases in which it is another), or the `same`
    or the `inverse` of one."""

    pin: int
    name: str
    how: Literal["name", "same", "inverse"]
    differs: list[int]
    count: int


class CircuitView(BaseModel):
    """A hand-in as a drawing. `digits` gives for each bit one digit for each of `cases`; `explains` are pins whose
    wires are the earliest that could, with another value, make every case right. `trouble` says why there is none."""

    trouble: str = ""
    parts: list[CircuitPart] = []
    wires: list[CircuitWire] = []
    names: dict[int, str] = {}
    cases: list[int] = []
    digits: dict[int, str] = {}
    explains: list[int] = []
    likeness: list[WireLikeness] = []


class HandMove(BaseModel):
    """All inputs in the spec's order, as digits (0, 1, x, z); `action` is what the clock does then: . r f c."""

    inputs: list[Annotated[str, Field(pattern="^[01xz]+$", max_length=4096)]] = Field(max_length=512)
    action: Literal[".", "r", "f", "c"] = "."


class ScratchFile(BaseModel):
    path: str = Field(max_length=400)
    text: str = Field(max_length=MOST_SCRATCH)


class HandMoves(BaseModel):
    """All moves since power-up, on the hand-in or on a scratch copy of it."""

    moves: list[HandMove] = Field(min_length=1, max_length=MOST_MOVES)
    files: list[ScratchFile] = Field(default=[], max_length=50)


class HandOutput(BaseModel):
    """`expected` has `-` where nothing is expected; `wrong` says whether the two differ."""

    name: str
    got: str
    expected: str
    wrong: bool


class HandView(BaseModel):
    """What a hand-in does after the last move. `digits` are those of the drawing's bits."""

    outputs: list[HandOutput]
    digits: dict[int, str]
    trouble: str


class Scratch(BaseModel):
    """Changed copies of some of a hand-in's files."""

    files: list[ScratchFile] = Field(max_length=50)


class WhatIfView(BaseModel):
    """A scratch copy checked: cases that turn right or wrong against the hand-in itself, and its rows in the order of
    the review."""

    status: str
    passed: int
    total: int
    turned_right: list[int]
    turned_wrong: list[int]
    rows: list[CaseRow]
    messages: list[MessageView]
    findings: list[str]
