"""Numbers and lists as sentences have them."""

from __future__ import annotations

from collections.abc import Sequence

_SPOKEN = {1: "once", 2: "twice"}


def counted(number: int, one: str, many: str = "") -> str:
    """`1 step`, `3 steps`; `many` where the plural is not made by an s."""
    return f"{number} {one if number == 1 else many or one + 's'}"


def times(number: int) -> str:
    """`once`, `twice`, `3 times`."""
    return _SPOKEN.get(number, f"{number} times")


def listed(words: Sequence[str], last: str = "and") -> str:
    """`a`, `a and b`, `a, b and c`."""
    return f" {last} ".join([", ".join(words[:-1]), words[-1]]) if len(words) > 1 else "".join(words)
