"""Work measured without a clock: machines are noisy, counts are not."""

from __future__ import annotations

import sys
from collections.abc import Callable
from types import FrameType


def calls_of(action: Callable[[], object]) -> int:
    """How many calls of Python functions something takes."""
    count = 0

    def hear(frame: FrameType, event: str, argument: object) -> None:
        nonlocal count
        count += event == "call"

    before = sys.getprofile()
    sys.setprofile(hear)
    try:
        action()
    finally:
        sys.setprofile(before)
    return count
