"""What comes out of checking one hand-in."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

from obento.core.check.judging.rules import RuleResult
from obento.core.check.judging.verdict import Verdict
from obento.core.check.running.binding import Bound
from obento.core.diagnostics import Message

Status = Literal["checked", "unreadable", "no_unit", "ports", "stopped", "empty", "not_checked"]
"""`not_checked` is no outcome, and no fault of the hand-in: it is checked again. Nothing stores it."""


@dataclass(frozen=True, slots=True)
class Finding:
    """A sentence on what is wrong, with its evidence; `line` is where the output gets its value, 0 where none fits."""

    kind: str
    text: str
    output: str = ""
    file: str = ""
    line: int = 0


@dataclass(slots=True)
class Checked:
    """The outcome for one hand-in. `verdict` is None unless it was run; `output` is what a bench printed; `twice` are
    units that stand differently in several files, with these."""

    status: Status
    language: str = ""
    unit: str = ""
    verdict: Verdict | None = None
    binding: list[Bound] = field(default_factory=list)
    rules: list[RuleResult] = field(default_factory=list)
    findings: list[Finding] = field(default_factory=list)
    messages: list[Message] = field(default_factory=list)
    engine: str = ""
    output: str = ""
    twice: dict[str, list[str]] = field(default_factory=dict)
