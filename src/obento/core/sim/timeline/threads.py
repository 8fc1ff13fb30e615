"""Processes that wait: a body as a generator, and what is known of it while it does."""

from __future__ import annotations

from collections.abc import Generator
from dataclasses import dataclass, field

Body = Generator[None, None, object]


class Disabled(Exception):
    """On the way out of the block with this number."""

    def __init__(self, label: int) -> None:
        super().__init__(label)
        self.label = label


class Killed(Exception):
    """The thread ended by disabling the block that forked it."""


@dataclass(slots=True, eq=False)
class Group:
    """Threads forked together, and the one that waits for them."""

    members: list[Thread] = field(default_factory=list)
    joiner: Thread | None = None


@dataclass(slots=True, eq=False)
class Thread:
    """`turn` grows whenever the thread stops waiting, so that an old alarm clock finds nobody."""

    index: int
    body: Body
    parent: Thread | None = None
    group: Group | None = None
    children: list[Thread] = field(default_factory=list)
    listening: tuple[int, ...] = ()
    turn: int = 0
    alive: bool = True
    pending: Exception | None = None

    def go_on(self) -> None:
        """Run up to the next wait. Ends with StopIteration."""
        if self.pending is not None:
            problem, self.pending = self.pending, None
            self.body.throw(problem)
        else:
            next(self.body)
