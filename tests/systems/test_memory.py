"""A memory controller for three who ask, in the three languages, against a memory that is a table: whoever is taken,
what he reads is what was written last; the chip is treated as it asks for, and nobody waits for ever."""

from __future__ import annotations

import random
from collections import deque
from pathlib import Path

import pytest

from obento.core.handin import HandinFile
from obento.core.limits import for_simulation
from obento.core.simulate import Options, simulate

HERE = Path(__file__).parent
NAMES = ["memory.sv", "memory.v", "memory.vhd"]
PORTS, NEVER_WRITTEN, MOST_BEFORE = 3, 0xEEEE, 3

Request = tuple[str, int, int]
"""`read`, `write`, `low` or `high` (one byte alone) at a place, with a value; or `wait`, so many cycles."""


def run(name: str, asked: list[list[Request]], change: tuple[str, str] = ("", "")) -> tuple[list[str], int]:
    """What is printed but the last line, and how many cycles it took."""
    source = (HERE / name).read_text(encoding="utf-8")
    assert change[0] in source
    files = [HandinFile(name, (source.replace(*change) if change[0] else source).encode())]
    for who, requests in enumerate(asked):
        lines = "".join(f"{kind} {where} {value}\n" for kind, where, value in requests)
        files.append(HandinFile(f"requests{who}.txt", lines.encode()))
    printed: list[str] = []
    outcome = simulate(files, printed.append, Options(top="bench", until="200 us"), for_simulation())
    assert outcome.status == 0, [str(m) for m in outcome.messages]
    *rows, last = "".join(printed).lower().splitlines()
    return rows, int(last.split()[1]) if last.startswith("cycles") else 0


def followed(rows: list[str], asked: list[list[Request]]) -> list[int]:
    """Go along with who is taken, by a table: what he reads must come to him, in order. Gives who was taken."""
    left = [deque(r for r in requests if r[0] != "wait") for requests in asked]
    expected: list[deque[int]] = [deque() for _ in asked]
    memory: dict[int, int] = {}
    taken = []
    for row in rows:
        word, who, *rest = row.split()
        if word == "took":
            kind, where, value = left[int(who)].popleft()
            old = memory.get(where, NEVER_WRITTEN)
            if kind == "read":
                expected[int(who)].append(old)
            else:
                keeps = {"low": 0xFF00, "high": 0x00FF, "write": 0}[kind]
                memory[where] = old & keeps | value & ~keeps & 0xFFFF
            taken.append(int(who))
        else:
            assert word == "answer" and expected[int(who)], row
            assert int(rest[0], 16) == expected[int(who)].popleft()
    assert not any(left) and not any(expected)
    return taken


def requests(seed: int, many: int = 40) -> list[list[Request]]:
    """Mixtures over few rows that the three have in common, so that some stay open and some do not."""
    draw = random.Random(seed)
    places = [draw.randrange(1024) for _ in range(10)]
    found: list[list[Request]] = []
    for _ in range(PORTS):
        kinds = draw.choices(["read", "write", "low", "high", "wait"], [5, 3, 1, 1, 1], k=many)
        found.append(
            [
                (kind, draw.randrange(1, 60) if kind == "wait" else draw.choice(places), draw.randrange(1 << 16))
                for kind in kinds
            ]
        )
    return found


@pytest.mark.parametrize("name", NAMES)
@pytest.mark.parametrize("seed", range(4))
def test_reads_give_what_was_written_last(name: str, seed: int) -> None:
    asked = requests(seed)
    rows, cycles = run(name, asked)
    taken = followed(rows, asked)
    assert cycles and {taken.count(who) for who in range(PORTS)} != {0}


def test_all_three_do_the_same_in_every_cycle() -> None:
    asked = requests(7, 60)
    first, *others = [run(name, asked) for name in NAMES]
    assert all(other == first for other in others)


@pytest.mark.parametrize("name", NAMES)
def test_an_open_row_is_faster(name: str) -> None:
    same: list[Request] = [("read", 5 * 64 + i % 16, 0) for i in range(12)]
    other: list[Request] = [("read", (i % 2) * 64, 0) for i in range(12)]
    assert run(name, [same, [], []])[1] * 1.5 < run(name, [other, [], []])[1]


@pytest.mark.parametrize("name", NAMES)
def test_who_finds_his_row_open_goes_before_but_not_for_ever(name: str) -> None:
    """Two who ask for one row all the time, one who asks for others: he is behind at most three of them."""
    asked: list[list[Request]] = [
        [("read", i % 16, 0) for i in range(20)],
        [("write", i % 16, i) for i in range(20)],
        [("read", 64, 0), ("read", 128, 0)],
    ]
    rows, _ = run(name, asked)
    taken = followed(rows, asked)
    first = taken.index(2)
    second = taken.index(2, first + 1)
    # When it is his turn, three go before; until it is, the two others have had theirs.
    assert first <= MOST_BEFORE + 2
    assert MOST_BEFORE <= second - first <= MOST_BEFORE + 3


@pytest.mark.parametrize("name", NAMES)
def test_it_is_refreshed_while_nobody_asks(name: str) -> None:
    rows, cycles = run(name, [[("write", 3, 7), ("wait", 500, 0), ("read", 3, 0)], [], []])
    assert rows == ["took 0", "took 0", "answer 0 0007"] and cycles > 500


@pytest.mark.parametrize(
    ("name", "change", "said"),
    [
        ("memory.sv", ("may_access = is_open && to_access == 0", "may_access = is_open"), "used too early"),
        ("memory.sv", ("WRITE: to_close <= later(to_close, SETTLES);", "WRITE: ;"), "closed before it was written"),
        ("memory.v", ("`CLOSES - 1", "0"), "opened too early"),
        ("memory.v", ("`STAYS - 1", "0"), "closed too early"),
        ("memory.vhd", ("since >= forgets - early", "since >= forgets + early"), "forgotten"),
        ("memory.vhd", ("to_open <= refreshes - 1;", "null;"), "still refreshing"),
    ],
)
def test_the_chip_tells_what_it_does_not_take(name: str, change: tuple[str, str], said: str) -> None:
    printed, _ = run(name, requests(1), change)
    assert any(said in line for line in printed)


@pytest.mark.parametrize(
    ("name", "change"),
    [
        ("memory.sv", ("if (!m.keeps[i]) cells", "cells")),
        ("memory.v", ("now_of <= chosen;", "now_of <= 0;")),
        ("memory.vhd", ("open_row(b) /= now.address.row", "false")),
    ],
)
def test_a_slip_is_seen(name: str, change: tuple[str, str]) -> None:
    asked = requests(2)
    with pytest.raises(AssertionError):
        followed(run(name, asked, change)[0], asked)
