"""The shapes of cases in answers."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel

from obento.server.specs.models import StepPlace


class CaseRow(BaseModel):
    index: int
    label: str = ""
    step: StepPlace | None = None
    inputs: list[str]
    expected: list[str]
    actual: list[str]
    wrong: list[bool]
    run: str
    cell: Literal["p", "f", "u", "n", "s"]
    group: str | None = None
