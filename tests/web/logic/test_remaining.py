"""How long work will take from here (remaining.ts)."""

from __future__ import annotations

import pytest

from tests.web.logic.conftest import Logic


@pytest.mark.parametrize(
    ("done", "total", "elapsed", "text"),
    [
        (0, 300, 5000, ""),  # nothing is known yet
        (10, 300, 5000, ""),  # the first few tell little
        (30, 300, 1000, ""),  # it may be done at once
        (30, 300, 3000, "about 27 s left"),
        (299, 300, 30000, "a second left"),
        (100, 300, 300_000, "about 10 min left"),
        (300, 300, 30000, ""),
        (0, 0, 3000, ""),
    ],
)
def test_what_is_left(logic: Logic, done: int, total: int, elapsed: int, text: str) -> None:
    assert logic.run("return logic.remaining.leftText(...a)", done, total, elapsed) == text
