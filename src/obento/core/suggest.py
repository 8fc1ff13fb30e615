"""Near names, for messages that say "did you mean"."""

from __future__ import annotations

from collections.abc import Iterable
from difflib import get_close_matches


def nearest(name: str, known: Iterable[str]) -> str | None:
    """The known name that looks most like `name`, or None when none is close."""
    by_lower = {k.lower(): k for k in known}
    hits = get_close_matches(name.lower(), by_lower, n=1, cutoff=0.7)
    return by_lower[hits[0]] if hits else None


def did_you_mean(name: str, known: Iterable[str]) -> str:
    """A hint sentence, empty when nothing is close."""
    near = nearest(name, known)
    return f"did you mean `{near}`?" if near else ""
