"""Sentences that are known, each with what has to hold for it to be true."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Generic, TypeVar

Of = TypeVar("Of")


class Known(Generic[Of]):
    """Sentences on one kind of subject, by what they look like."""

    def __init__(self) -> None:
        self._sentences: list[tuple[re.Pattern[str], Callable[[Of, re.Match[str]], bool]]] = []

    def __call__(
        self, pattern: str
    ) -> Callable[[Callable[[Of, re.Match[str]], bool]], Callable[[Of, re.Match[str]], bool]]:
        """Add a sentence: what stands below it says whether one is true."""

        def add(says: Callable[[Of, re.Match[str]], bool]) -> Callable[[Of, re.Match[str]], bool]:
            self._sentences.append((re.compile(pattern), says))
            return says

        return add

    def is_true(self, of: Of, text: str) -> bool | None:
        """Whether a sentence is true; None where it is none of these."""
        for pattern, says in self._sentences:
            m = pattern.fullmatch(text)
            if m is not None:
                return says(of, m)
        return None
