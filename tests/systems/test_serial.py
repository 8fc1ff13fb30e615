"""A serial line in the three languages: what is sent comes out, what the line spoils is told, and all three hear alike
what noise makes of it."""

from __future__ import annotations

import random
from pathlib import Path

import pytest

from obento.core.handin import HandinFile
from obento.core.limits import for_simulation
from obento.core.simulate import Options, simulate

HERE = Path(__file__).parent
NAMES = ["serial.sv", "serial.v", "serial.vhd"]
DIV = 8
FIRST = 3
"""The cycle in which the first start digit comes onto the line."""


def run(name: str, sent: list[int], noise: list[int]) -> list[tuple[int, int]]:
    """What comes out: each byte, and whether it is bad."""
    lines = [f"byte {n}" for n in sent] + [f"nois {n}" for n in noise]
    given = HandinFile("frames.txt", ("\n".join(lines) + "\n").encode())
    printed: list[str] = []
    files = [HandinFile(name, (HERE / name).read_bytes()), given]
    outcome = simulate(files, printed.append, Options(top="bench"), for_simulation())
    assert outcome.status == 0, [str(m) for m in outcome.messages]
    rows = [line.split() for line in "".join(printed).splitlines()]
    return [(int(row[0]), int(row[1])) for row in rows]


@pytest.mark.parametrize("name", NAMES)
@pytest.mark.parametrize("seed", range(3))
def test_everything_comes_out_in_order(name: str, seed: int) -> None:
    sent = [random.Random(seed).randrange(256) for _ in range(24)]
    assert run(name, sent, []) == [(n, 0) for n in sent]


@pytest.mark.parametrize("name", NAMES)
def test_short_noise_between_frames_is_no_frame(name: str) -> None:
    sent = [0x55, 0x0F]
    assert run(name, sent, [1]) == [(n, 0) for n in sent]


@pytest.mark.parametrize("seed", range(6))
def test_all_three_hear_the_same_noise_alike(seed: int) -> None:
    draw = random.Random(seed)
    sent = [draw.randrange(256) for _ in range(6)]
    noise = sorted(draw.sample(range(10, 480), 12))
    heard = [run(name, sent, noise) for name in NAMES]
    assert heard[0] == heard[1] == heard[2]
    assert len(heard[0]) == len(sent) or any(bad for _, bad in heard[0])


@pytest.mark.parametrize("name", NAMES)
def test_a_turned_digit_is_told(name: str) -> None:
    for digit in range(8):
        begin = FIRST + DIV * (digit + 1)
        noise = list(range(begin, begin + DIV))
        ((data, bad),) = run(name, [0xA6], noise)
        assert bad == 1 and (data ^ 0xA6).bit_count() == 1
