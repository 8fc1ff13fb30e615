"""A memory controller in the three languages, against a memory that is a table: what is read is what was written last,
and the chip is treated as it asks for."""

from __future__ import annotations

import random
from pathlib import Path

import pytest

from obento.core.handin import HandinFile
from obento.core.limits import for_simulation
from obento.core.simulate import Options, simulate

HERE = Path(__file__).parent
NAMES = ["memory.sv", "memory.v", "memory.vhd"]
NEVER_WRITTEN = 0xEE

Request = tuple[str, int, int]
"""`w` writes a value, `r` reads, `p` reads and pauses so many cycles; where, and the value or the cycles."""


def run(name: str, requests: list[Request], change: tuple[str, str] = ("", "")) -> tuple[list[str], int]:
    """What is printed but the last line, and how many cycles it took."""
    source = (HERE / name).read_text(encoding="utf-8")
    assert change[0] in source
    lines = "".join(f"{kind} {where} {value}\n" for kind, where, value in requests)
    files = [
        HandinFile(name, source.replace(*change).encode() if change[0] else source.encode()),
        HandinFile("requests.txt", lines.encode()),
    ]
    printed: list[str] = []
    outcome = simulate(files, printed.append, Options(top="bench"), for_simulation())
    assert outcome.status == 0, [str(m) for m in outcome.messages]
    *rows, last = "".join(printed).splitlines()
    return rows, int(last.split()[1])


def modelled(requests: list[Request]) -> list[str]:
    """What the reads give."""
    memory: dict[int, int] = {}
    found = []
    for kind, where, value in requests:
        if kind == "w":
            memory[where] = value
        else:
            found.append(str(memory.get(where, NEVER_WRITTEN)))
    return found


def requests(seed: int) -> list[Request]:
    """A mixture over few rows, so that some stay open and some do not."""
    draw = random.Random(seed)
    places = [draw.randrange(1024) for _ in range(12)]
    kinds = draw.choices("wwrrp", k=60)
    return [(kind, draw.choice(places), draw.randrange(256) if kind == "w" else draw.randrange(30)) for kind in kinds]


@pytest.mark.parametrize("name", NAMES)
@pytest.mark.parametrize("seed", range(3))
def test_reads_give_what_was_written_last(name: str, seed: int) -> None:
    asked = requests(seed)
    assert run(name, asked)[0] == modelled(asked)


def test_all_three_take_the_same_time() -> None:
    asked = requests(7)
    assert len({run(name, asked)[1] for name in NAMES}) == 1


@pytest.mark.parametrize("name", NAMES)
def test_an_open_row_is_faster(name: str) -> None:
    same = [("r", 5 * 64 + i % 16, 0) for i in range(12)]
    other = [("r", (i % 2) * 64, 0) for i in range(12)]
    assert run(name, same)[1] * 1.5 < run(name, other)[1]


@pytest.mark.parametrize(
    ("name", "change", "said"),
    [
        (
            "memory.sv",
            ("phase <= open_row[address.bank] == address.row ? ACCESS : CLOSING;", "phase <= OPENING;"),
            "twice",
        ),
        ("memory.v", ("if (&closing) phase <= REFRESHING;", "phase <= REFRESHING;"), "refresh while open"),
        ("memory.vhd", ("since >= refresh_every - 16", "since >= refresh_every + 16"), "no refresh"),
    ],
)
def test_the_chip_tells_what_it_does_not_take(name: str, change: tuple[str, str], said: str) -> None:
    printed, _ = run(name, requests(1), change)
    assert any(said in line for line in printed)
