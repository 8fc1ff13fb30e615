"""What was seen of a design, over all cases."""

from __future__ import annotations

from dataclasses import dataclass, field

from obento.core.check.running.power_up import Ended
from obento.core.ir.part import RunError
from obento.core.limits import LimitReached

BLOCK = 65_536
"""Cases that run together."""


Planes = tuple[int, int]


@dataclass(slots=True)
class Run:
    """One way of reaching all cases. `name` is `fresh` or `after PORT[BIT]`; `stopped` are the cases that never
    settled.

    `outputs` maps (port, offset) of ours to planes over all cases.
    """

    name: str
    outputs: dict[tuple[str, int], Planes] = field(default_factory=dict)
    stopped: int = 0


@dataclass(slots=True)
class Observation:
    """All runs, the fresh one first. `engine` is levelized, event-driven or timeline; `limit` says what stopped the
    whole, `ends` the errors that ended cases, by place. `stepped` are the cases that lanes could not tell and the
    timeline did. `refused` is the error in which power-up ended as long as the inputs were unknown: every case was
    begun with its own values then. `untried` are cases that were not run since none of many others comes to rest,
    `unjudged` those that were not since the time for it was up. `why` says why it was run one by one, if it was."""

    runs: list[Run]
    engine: str
    limit: LimitReached | None = None
    ends: list[Ended] = field(default_factory=list)
    stepped: int = 0
    refused: RunError | None = None
    untried: int = 0
    unjudged: int = 0
    why: str = ""
