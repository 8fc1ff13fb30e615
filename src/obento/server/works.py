"""Work that takes a while and that somebody waits for: how far it is, and the way to have it stopped."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from obento.server.errors import Trouble


@dataclass(slots=True)
class Work:
    """One piece of work; whoever does it says at each step how far it is."""

    done: int = 0
    total: int = 0
    is_stopped: bool = False

    def step(self, done: int, total: int) -> None:
        """Say that so much of it is done.

        Raises
        ------
        Trouble
            409 where it was stopped: the transaction it is done in ends without having kept anything.
        """
        self.done, self.total = done, total
        if self.is_stopped:
            raise Trouble(409, "stopped, as you asked: nothing of it was kept")


class Works:
    """What is under way, by who waits for it and the name under which they asked."""

    def __init__(self) -> None:
        self._under_way: dict[tuple[int, str], Work] = {}

    @contextmanager
    def under_way(self, person_id: int, key: str) -> Iterator[Work]:
        """While the block runs, its work can be looked up under a name; without a name nobody can."""
        work = Work()
        if not key:
            yield work
            return
        self._under_way[person_id, key] = work
        try:
            yield work
        finally:
            self._under_way.pop((person_id, key), None)

    def of(self, person_id: int, key: str) -> Work | None:
        """What a person waits for under a name; None where it has ended, or has not begun."""
        return self._under_way.get((person_id, key))
