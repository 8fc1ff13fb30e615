"""What people wait for: in turn, one thing of each at a time, and ended when nobody waits for it."""

from __future__ import annotations

import asyncio
import os
import time
from collections.abc import Awaitable, Callable, Iterator

import pytest

from obento.runner.pool import CheckPool
from obento.server.desk import Desk
from obento.server.errors import Trouble


def nap(seconds: float) -> str:
    time.sleep(seconds)
    return "rested"


def now(_: object) -> float:
    return time.monotonic()


async def here() -> bool:
    return False


def leaving_after(seconds: float) -> Callable[[], Awaitable[bool]]:
    end = time.monotonic() + seconds

    async def is_gone() -> bool:
        return time.monotonic() > end

    return is_gone


@pytest.fixture
def pool() -> Iterator[CheckPool]:
    with CheckPool(1, 20, start="fork") as made:
        yield made


def test_an_answer(pool: CheckPool) -> None:
    assert asyncio.run(Desk(pool, 1).ask(1, nap, 0, here)) == "rested"


def test_what_nobody_waits_for_ends_at_once(pool: CheckPool) -> None:
    desk = Desk(pool, 1)

    async def evening() -> float:
        with pytest.raises(Trouble) as gone:
            await desk.ask(1, nap, 30, leaving_after(0.3))
        assert gone.value.status == 499
        begun = time.monotonic()
        assert await desk.ask(2, nap, 0, here) == "rested"
        return time.monotonic() - begun

    assert asyncio.run(evening()) < 5


def test_one_who_asks_for_much_delays_nobody_by_more_than_one_thing(pool: CheckPool) -> None:
    desk = Desk(pool, 1)
    ended: list[int] = []

    async def ask(person: int) -> None:
        await desk.ask(person, nap, 0.15, here)
        ended.append(person)

    async def evening() -> None:
        greedy = [asyncio.create_task(ask(1)) for _ in range(5)]
        await asyncio.sleep(0.05)
        others = [asyncio.create_task(ask(person)) for person in (2, 3)]
        await asyncio.gather(*greedy, *others)

    asyncio.run(evening())
    assert ended[0] == 1 and set(ended[1:4]) >= {2, 3} and ended.count(1) == 5


def test_nobody_has_two_workers(pool: CheckPool) -> None:
    with CheckPool(2, 20, start="fork") as two:
        desk = Desk(two, 2)

        async def evening() -> list[float]:
            busy = [asyncio.create_task(desk.ask(1, nap, 0.6, here)) for _ in range(2)]
            await asyncio.sleep(0.05)
            begun = time.monotonic()
            await desk.ask(2, now, None, here)
            took = time.monotonic() - begun
            await asyncio.gather(*busy)
            return [took]

        assert asyncio.run(evening())[0] < 0.5


def test_places_in_the_queue(pool: CheckPool) -> None:
    desk = Desk(pool, 1)

    async def evening() -> list[int | None]:
        tasks = [asyncio.create_task(desk.ask(person, nap, 0.2, here)) for person in (1, 2, 3)]
        await asyncio.sleep(0.05)
        places = [desk.place(person) for person in (1, 2, 3, 4)]
        await asyncio.gather(*tasks)
        return [*places, desk.place(3)]

    assert asyncio.run(evening()) == [None, 1, 2, None, None]


def test_there_is_an_end_to_what_one_may_wait_for(pool: CheckPool) -> None:
    desk = Desk(pool, 1)

    async def evening() -> int:
        tasks = [asyncio.create_task(desk.ask(1, nap, 0.01, here)) for _ in range(12)]
        answers = await asyncio.gather(*tasks, return_exceptions=True)
        return sum(isinstance(a, Trouble) and a.status == 429 for a in answers)

    assert asyncio.run(evening()) == 5  # one runs, six wait


def test_who_leaves_the_queue_is_forgotten(pool: CheckPool) -> None:
    desk = Desk(pool, 1)

    async def evening() -> None:
        first = asyncio.create_task(desk.ask(1, nap, 0.5, here))
        await asyncio.sleep(0.05)
        with pytest.raises(Trouble):
            await desk.ask(2, nap, 0, leaving_after(0.1))
        assert desk.place(2) is None
        await first
        assert await desk.ask(3, nap, 0, here) == "rested"

    asyncio.run(evening())


def test_a_worker_that_dies_is_a_sentence(pool: CheckPool) -> None:
    assert asyncio.run(Desk(pool, 1).ask(1, os._exit, 3, here)) == "this needs more than one hand-in may take"
