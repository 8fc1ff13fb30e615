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
    """Threads forked together, and the one that waits for them; `is_hidden` for an assignment that waits by itself,
    which nobody wrote as a fork."""

    members: list[Thread] = field(default_factory=list)
    joiner: Thread | None = None
    is_hidden: bool = False


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

    def goes_on(self) -> bool:
        """Whether it, or something that it forked, is alive."""
        threads = [self]
        for thread in threads:  # grows while it is walked
            if thread.alive:
                return True
            threads += thread.children
        return False

    def waits_for_forked(self) -> bool:
        """Whether something that it forked itself is alive; if so it is woken when one of it ends (1800 clause
        9.6.1)."""
        groups = [c.group for c in self.children if c.alive and c.group is not None and not c.group.is_hidden]
        for group in groups:
            group.joiner = self
        return bool(groups)

    def set_hidden_aside(self) -> list[Thread]:
        """Take out of its children the assignments that wait by themselves."""
        hidden = [c for c in self.children if c.alive and c.group is not None and c.group.is_hidden]
        self.children = [c for c in self.children if c not in hidden]
        return hidden

    def go_on(self) -> None:
        """Run up to the next wait. Ends with StopIteration."""
        if self.pending is not None:
            problem, self.pending = self.pending, None
            self.body.throw(problem)
        else:
            next(self.body)
