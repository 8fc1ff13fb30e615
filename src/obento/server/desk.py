"""What people wait for in front of a screen: a drawing, a trace, a what-if, a preview. One thing of each person at a
time, and whoever has waited longest comes next, so that nobody's work delays another's. What nobody waits for any more
ends."""

from __future__ import annotations

import asyncio
from collections import deque
from collections.abc import Awaitable, Callable
from contextlib import suppress
from dataclasses import dataclass, field
from typing import Any, TypeVar

from obento.runner.pool import CheckPool
from obento.server.errors import Trouble

T = TypeVar("T")

_MOST_WAITING = 6
"""So many things may one person wait for at once."""
_LOOK = 0.1
"""Seconds between two looks whether somebody still waits."""


@dataclass(slots=True, eq=False)
class _Asked:
    turn: asyncio.Event = field(default_factory=asyncio.Event)


class Desk:
    """Hands what people ask for to the workers of a pool; `slots` is how many of these there are. All of it happens in
    the server's one event loop."""

    def __init__(self, pool: CheckPool, slots: int) -> None:
        self._pool = pool
        self._slots = slots
        self._running: set[int] = set()
        self._waiting: dict[int, deque[_Asked]] = {}
        """By person, the one who has waited longest first."""

    async def ask(
        self, person_id: int, work: Callable[[Any], T], given: Any, is_gone: Callable[[], Awaitable[bool]]
    ) -> T | str:
        """Have something done for a person; a sentence where it could not be.

        Raises
        ------
        Trouble
            429 where this person waits for too much already; 499 where nobody waits for it any more.
        """
        own = self._waiting.setdefault(person_id, deque())
        if len(own) >= _MOST_WAITING:
            raise Trouble(429, "you are waiting for several things already; let them end first")
        asked = _Asked()
        own.append(asked)
        self._next()
        try:
            while not asked.turn.is_set():
                with suppress(TimeoutError):
                    await asyncio.wait_for(asked.turn.wait(), _LOOK)
                await _still_there(is_gone)
            return await self._done(work, given, is_gone)
        finally:
            if asked.turn.is_set():
                self._running.discard(person_id)
            else:
                own.remove(asked)
                self._forget(person_id)
            self._next()

    async def _done(self, work: Callable[[Any], T], given: Any, is_gone: Callable[[], Awaitable[bool]]) -> T | str:
        future = self._pool.begin(work, given)
        ended = asyncio.Event()
        loop = asyncio.get_running_loop()
        future.add_done_callback(lambda _: loop.call_soon_threadsafe(ended.set))
        try:
            while not future.done():
                with suppress(TimeoutError):
                    await asyncio.wait_for(ended.wait(), _LOOK)
                if not future.done():
                    await _still_there(is_gone)
            return self._pool.answer_of(future)
        finally:
            self._pool.end(future)

    def _next(self) -> None:
        """Give free workers to those who wait: persons in turn, none of them twice."""
        for person_id in sorted(self._waiting, key=_comes_later):
            if len(self._running) >= self._slots:
                return
            if person_id not in self._running:
                self._running.add(person_id)
                self._waiting[person_id].popleft().turn.set()
                rest = self._waiting.pop(person_id)
                if rest:
                    self._waiting[person_id] = rest  # behind everybody else

    def _forget(self, person_id: int) -> None:
        if not self._waiting.get(person_id):
            self._waiting.pop(person_id, None)

    def crowd(self) -> int:
        """How many wait for a turn."""
        return len(self._waiting)

    def place(self, person_id: int) -> int | None:
        """How many others come before what a person waits for; None where they wait for no turn."""
        if person_id not in self._waiting:
            return None
        ahead = list(self._waiting).index(person_id)
        return ahead + len(self._running - {person_id})


def _comes_later(person_id: int) -> bool:
    """Whoever works on a class comes before all who only try something (they have numbers below 0)."""
    return person_id < 0


async def _still_there(is_gone: Callable[[], Awaitable[bool]]) -> None:
    if await is_gone():
        raise Trouble(499, "nobody waits for this any more")
