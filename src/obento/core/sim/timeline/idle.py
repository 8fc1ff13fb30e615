"""What a timeline is when nothing is left to happen, to be come back to."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from obento.core.values import Word


@dataclass(frozen=True, slots=True)
class Idle:
    """Everything of a timeline on which nothing is left to happen: words, what gates with a delay drive, the time, the
    seed of the random numbers, and what parts with a run-time of their own say of themselves."""

    words: list[Word]
    driven: dict[tuple[int, int], Word]
    now: int
    seed: int
    parts: list[Any]
