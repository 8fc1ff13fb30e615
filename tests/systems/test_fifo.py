"""A FIFO across clocks, in the three languages: whatever the clocks and pauses, everything comes out once and in
order."""

from __future__ import annotations

from pathlib import Path

import pytest

from obento.core.handin import HandinFile
from obento.core.limits import for_simulation
from obento.core.simulate import Options, simulate

SOURCES = {name: Path(__file__).with_name(name).read_bytes() for name in ("fifo.sv", "fifo.v", "fifo.vhd")}


def run(name: str, source: bytes, *settings: int) -> list[int]:
    """What comes out, for two periods, how many go in, and pauses on both sides."""
    printed: list[str] = []
    clocks = " ".join(str(n) for n in settings).encode()
    files = [HandinFile(name, source), HandinFile("clocks.txt", clocks)]
    outcome = simulate(files, printed.append, Options(top="bench", until="20 us"), for_simulation())
    assert outcome.status == 0, [str(m) for m in outcome.messages]
    return [int(line) for line in "".join(printed).split()]


@pytest.mark.parametrize("name", SOURCES)
@pytest.mark.parametrize("fast", [2, 3, 7, 10])
@pytest.mark.parametrize("slow", [2, 5, 9])
@pytest.mark.parametrize("pauses", [(0, 0), (3, 0), (0, 4)])
def test_nothing_is_lost_doubled_or_exchanged(name: str, fast: int, slow: int, pauses: tuple[int, int]) -> None:
    assert run(name, SOURCES[name], fast, slow, 40, *pauses) == list(range(40))


def test_one_that_never_fills_loses_some() -> None:
    right = SOURCES["fifo.sv"]
    wrong = right.replace(
        b"assign in.ready = head_gray != {~tail_seen[LOG:LOG-1], tail_seen[LOG-2:0]};", b"assign in.ready = 1;"
    )
    assert wrong != right and run("fifo.sv", wrong, 2, 9, 40, 0, 0) != list(range(40))
