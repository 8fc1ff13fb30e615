"""Packets across two clocks, in the three languages: whatever the clocks and pauses, what is whole comes out once and
in order, what is taken back or does not fit is counted and never seen."""

from __future__ import annotations

import random
from pathlib import Path

import pytest

from obento.core.handin import HandinFile
from obento.core.limits import for_simulation
from obento.core.simulate import Options, simulate

HERE = Path(__file__).parent
NAMES = ["fifo.sv", "fifo.v", "fifo.vhd"]
PLACES = 8

Packet = tuple[int, bool]
"""How many bytes, and whether it is taken back after them."""


def run(name: str, clocks: tuple[int, ...], packets: list[Packet], change: tuple[str, str] = ("", "")) -> list[str]:
    """What is printed, for two periods, pauses on both sides and a threshold."""
    source = (HERE / name).read_text(encoding="utf-8")
    assert change[0] in source
    files = [
        HandinFile(name, (source.replace(*change) if change[0] else source).encode()),
        HandinFile("clocks.txt", " ".join(str(n) for n in clocks).encode()),
        HandinFile("packets.txt", "".join(f"{length} {int(back)}\n" for length, back in packets).encode()),
    ]
    printed: list[str] = []
    outcome = simulate(files, printed.append, Options(top="bench", until="60 us"), for_simulation())
    assert outcome.status == 0, [str(m) for m in outcome.messages]
    return "".join(printed).lower().splitlines()


def modelled(packets: list[Packet], threshold: int) -> list[str]:
    """What comes out, without clocks."""
    lines, taken_back, too_long = [], 0, 0
    for number, (length, is_back) in enumerate(packets):
        words = length // 2 if is_back else (length + 1) // 2
        too_long += words > PLACES
        taken_back += is_back
        if not is_back and words <= PLACES:
            lines.append(" ".join(f"{(16 * number + k) % 256:02x}" for k in range(length)))
    return [
        *lines,
        f"nearly full {int(threshold >= PLACES)}, free {PLACES}",
        f"taken back {taken_back}, too long {too_long}",
    ]


def packets_of(seed: int) -> list[Packet]:
    draw = random.Random(seed)
    return [(draw.choice([1, 2, 3, 4, 5, 8, 11, 16, 17, 25]), draw.random() < 0.25) for _ in range(14)]


@pytest.mark.parametrize("name", NAMES)
@pytest.mark.parametrize(("fast", "slow"), [(2, 2), (2, 9), (3, 5), (7, 2), (10, 3), (5, 5)])
@pytest.mark.parametrize("pauses", [(0, 0), (3, 0), (0, 4)])
def test_nothing_is_lost_doubled_or_exchanged(name: str, fast: int, slow: int, pauses: tuple[int, int]) -> None:
    packets = packets_of(fast * 10 + slow)
    *told, last = run(name, (fast, slow, *pauses, 3), packets)
    assert told == modelled(packets, 3)
    low, high = (int(n) for n in last.split()[1::2])
    assert low == 0 and 0 < high <= PLACES


@pytest.mark.parametrize("name", NAMES)
@pytest.mark.parametrize("threshold", [7, 8])
def test_nearly_full_is_what_the_reader_says(name: str, threshold: int) -> None:
    *told, last = run(name, (3, 4, 0, 2, threshold), [(5, False), (16, False), (18, False)])
    assert told == modelled([(5, False), (16, False), (18, False)], threshold)
    assert last == "between 0 and 8"


@pytest.mark.parametrize(
    ("name", "change"),
    [
        ("fifo.sv", ("wire is_full = room == 0;", "wire is_full = 0;")),
        ("fifo.sv", ("      head <= whole;\n      skips <= 1'b0;", "      skips <= 1'b0;")),
        ("fifo.v", ("assign n[i] = ^(gray >> i);", "assign n[i] = gray[i];")),
        ("fifo.v", ("whole <= after_head;", "")),
        ("fifo.vhd", ("asked <= not asked;", "")),
        ("fifo.vhd", ("is_second <= ends = '0';", "is_second <= not is_second;")),
    ],
)
def test_a_slip_is_seen(name: str, change: tuple[str, str]) -> None:
    packets = packets_of(1)
    assert run(name, (2, 9, 0, 3, 3), packets)[:-1] == modelled(packets, 3)
    assert run(name, (2, 9, 0, 3, 3), packets, change)[:-1] != modelled(packets, 3)


@pytest.mark.parametrize(
    ("name", "change"),
    [
        ("fifo.sv", ("cells[head[LOG-1:0]] <= in.data;", "cells[head[LOG-1:0]] <= in.data ^ (head == 2);")),
        ("fifo.v", ("cells[head[LOG-1:0]] <= in;", "cells[head[LOG-1:0]] <= in ^ (head == 2);")),
        ("fifo.vhd", ("q <= d.second when is_second else d.first;", "q <= d.second when is_second else not d.first;")),
    ],
)
def test_a_byte_that_changed_on_the_way_is_told(name: str, change: tuple[str, str]) -> None:
    told = run(name, (3, 4, 0, 0, 3), [(7, False)], change)
    assert told[0].endswith(" bad") and not run(name, (3, 4, 0, 0, 3), [(7, False)])[0].endswith("bad")
