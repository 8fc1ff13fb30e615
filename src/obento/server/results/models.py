"""The shapes of answers about results."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from pydantic import BaseModel

from obento.server.cases.models import CaseRow
from obento.server.specs.models import PortView


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
    ports: list[PortView]
    cases: int
    clocked: bool
    case_labels: list[str]
    case_failures: list[int]
    case_clusters: list[list[int]]
    clusters: list[ClusterView]
    missing: list[str]
    waiting: int
    checked_at: datetime | None
    doubtful: str
