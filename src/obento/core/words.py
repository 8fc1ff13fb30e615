"""Numbers as sentences have them."""

from __future__ import annotations


def counted(number: int, one: str, many: str = "") -> str:
    """`1 step`, `3 steps`; `many` where the plural is not made by an s."""
    return f"{number} {one if number == 1 else many or one + 's'}"
