"""Bounds on what a text may ask for. Hitting one is a diagnostic with its place, never a crash."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace


def _never() -> bool:
    return False


@dataclass(frozen=True, slots=True)
class Limits:
    """Every stage gets this value; the defaults fit coursework with room to spare. `expired` is asked now and then
    whether to give up: only who runs us has a clock. Where cases are run one by one a loop may go round
    `loop_rounds_alone` times: what is still not at its end then counts as a loop without one. Without `replays` cases
    that lanes cannot tell are only named (`Observation.stepped`), not run again."""

    source_bytes: int = 4_000_000
    tokens: int = 2_000_000
    macro_uses: int = 200_000
    nesting: int = 200
    chain: int = 1_000
    instances: int = 100_000
    instance_depth: int = 64
    vector_bits: int = 1 << 16
    signal_bits: int = 1 << 21
    memory_bits: int = 1 << 25
    lane_memory_bits: int = 1 << 14
    processes: int = 200_000
    vhdl_processes: int = 40_000
    case_arms: int = 50_000
    loop_rounds: int = 4_096
    loop_rounds_alone: int = 1 << 18
    generate_rounds: int = 4_096
    constant_steps: int = 200_000
    call_depth: int = 64
    deltas: int = 2_000
    time_steps: int = 1_000
    forks: int = 10_000
    output_bytes: int = 1 << 22
    graph_nodes: int = 4_000_000
    cases: int = 1 << 20
    expired: Callable[[], bool] = _never
    replays: bool = True

    def alone(self) -> Limits:
        """Bounds for cases that are run one by one."""
        return replace(self, loop_rounds=self.loop_rounds_alone)


def for_simulation(time_steps: int = 1_000_000) -> Limits:
    """Bounds for running a bench on its own: it may take long, but not for ever."""
    return Limits(loop_rounds=1 << 22, call_depth=200, deltas=100_000, time_steps=time_steps)


class LimitReached(Exception):
    """A bound of `Limits` was hit. `position` is where, 0 if nowhere in particular."""

    def __init__(self, text: str, position: int = 0, hint: str = "") -> None:
        super().__init__(text)
        self.text = text
        self.position = position
        self.hint = hint


class TimeIsUp(LimitReached):
    """`Limits.expired` said so: no fault of what was run."""
