"""What a timeline is when nothing is left to happen, to be come back to."""

from __future__ import annotations

from dataclasses import dataclass

from obento.core.values import Word


@dataclass(frozen=True, slots=True)
class Idle:
    """Everything of a timeline on which nothing is left to happen: words, what gates with a delay drive, the time, and
    the seed of the random numbers."""

    words: list[Word]
    driven: dict[tuple[int, int], Word]
    now: int
    seed: int
