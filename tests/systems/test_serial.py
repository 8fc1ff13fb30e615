"""A serial port in the three languages, against a model of digits on a line: whatever the two ends are set to, what
comes out is what these digits mean to the other end."""

from __future__ import annotations

import random
from dataclasses import dataclass
from pathlib import Path

import pytest

from obento.core.handin import HandinFile
from obento.core.limits import for_simulation
from obento.core.simulate import Options, simulate

HERE = Path(__file__).parent
NAMES = ["serial.sv", "serial.v", "serial.vhd"]
DATA, STATUS, DIVISOR, FORMAT, CONTROL, LEVELS = range(6)
NEAR, FAR = 0, 1
IDLE, AVAILABLE, OVERRUN = 2, 4, 8
BAD_PARITY, BAD_STOP, BREAK, NOTHING = 0x100, 0x200, 0x400, 0x8000
SAMPLES, DEPTH = 8, 4


@dataclass(frozen=True)
class Format:
    """How a frame looks."""

    digits: int = 8
    has_parity: bool = False
    is_odd: bool = False
    two_stops: bool = False

    @property
    def word(self) -> int:
        """The same for the register."""
        return self.digits - 5 | self.has_parity << 2 | self.is_odd << 3 | self.two_stops << 4

    def parity(self, digits: list[int]) -> int:
        return (sum(digits) + self.is_odd) % 2

    def frame(self, value: int) -> list[int]:
        """The levels on the line, one a digit."""
        digits = [value >> n & 1 for n in range(self.digits)]
        return [0, *digits, *[self.parity(digits)] * self.has_parity, *[1] * (1 + self.two_stops)]

    def heard(self, line: list[int]) -> list[int]:
        """What levels mean to a receiver, as words of its queue."""
        found, at = [], 0
        line = [*line, *[1] * 32]
        while 0 in line[at:]:
            at = line.index(0, at) + 1
            digits, at = line[at : at + self.digits], at + self.digits
            word = sum(digit << n for n, digit in enumerate(digits))
            is_silent = not any(digits)
            if self.has_parity:
                word |= BAD_PARITY * (line[at] != self.parity(digits))
                is_silent, at = is_silent and not line[at], at + 1
            if not line[at]:
                word |= BAD_STOP | BREAK * is_silent
                at = line.index(1, at)
            found.append(word)
            at += 1
        return found


FORMATS = [
    Format(), Format(7, True), Format(8, True, True), Format(5), Format(6, True, False, True),
    Format(8, False, False, True),
]  # fmt: skip


def run(name: str, script: list[str], change: tuple[str, str] = ("", "")) -> list[str]:
    """What a script of words with two numbers each prints."""
    source = (HERE / name).read_text(encoding="utf-8")
    assert change[0] in source
    files = [
        HandinFile(name, (source.replace(*change) if change[0] else source).encode()),
        HandinFile("script.txt", "".join(f"{line}\n" for line in script).encode()),
    ]
    printed: list[str] = []
    outcome = simulate(files, printed.append, Options(top="bench", until="2 ms"), for_simulation())
    assert outcome.status == 0, [str(m) for m in outcome.messages]
    return "".join(printed).lower().splitlines()


def setting(near: Format, far: Format, divisor: int) -> list[str]:
    return [
        f"near {DIVISOR} {divisor}",
        f"far {DIVISOR} {divisor}",
        f"near {FORMAT} {near.word}",
        f"far {FORMAT} {far.word}",
    ]


def talk(values: list[int], many: int) -> list[str]:
    """Send without a pause between the frames, and receive so many."""
    script = [f"send {value} 0" for value in values[:DEPTH]]
    for n, value in enumerate(values[DEPTH:]):
        script += [f"receive {int(n < many)} 0", f"send {value} 0"]
    return [*script, f"receive {max(0, many - max(0, len(values) - DEPTH))} 0"]


def words(found: list[int]) -> list[str]:
    return [f"{word:04x}" for word in found]


@pytest.mark.parametrize("name", NAMES)
@pytest.mark.parametrize("format_", FORMATS)
def test_everything_comes_out_in_order(name: str, format_: Format) -> None:
    draw = random.Random(format_.word)
    sent = [draw.randrange(256) for _ in range(12)]
    kept = [value % (1 << format_.digits) for value in sent]
    assert run(name, [*setting(format_, format_, draw.randrange(3)), *talk(sent, len(sent))]) == words(kept)


@pytest.mark.parametrize("seed", range(8))
def test_ends_that_are_set_differently_hear_what_the_digits_mean_to_them(seed: int) -> None:
    draw = random.Random(seed)
    near, far = draw.choice(FORMATS), draw.choice(FORMATS)
    sent = [draw.randrange(256) for _ in range(DEPTH)]
    heard = far.heard([digit for value in sent for digit in near.frame(value)])
    script = [*setting(near, far, 1), *talk(sent, 0), "wait 1500 0", f"receive {min(len(heard), DEPTH)} 0"]
    for name in NAMES:
        assert run(name, script) == words(heard[:DEPTH]), name


@pytest.mark.parametrize("name", NAMES)
def test_a_break_is_told_apart_and_what_waits_is_sent_after_it(name: str) -> None:
    format_ = Format(8, True)
    script = [
        *setting(format_, format_, 0),
        f"near {CONTROL} 1",
        "send 165 0",
        "wait 200 0",
        f"show {FAR} {LEVELS}",
        f"show {NEAR} {LEVELS}",
        f"near {CONTROL} 0",
        "receive 2 0",
    ]
    assert run(name, script) == ["0100", "0001", *words([BREAK | BAD_STOP, 165])]


@pytest.mark.parametrize("name", NAMES)
def test_what_nobody_takes_is_lost_and_told_once(name: str) -> None:
    script = [
        *setting(Format(), Format(), 0),
        *[f"send {n} 0" for n in range(6)],
        "wait 600 0",
        f"show {FAR} {STATUS}",
        f"show {FAR} {STATUS}",
        "receive 4 0",
        f"show {FAR} {DATA}",
    ]
    assert run(name, script) == words([OVERRUN | AVAILABLE | IDLE, AVAILABLE | IDLE, 0, 1, 2, 3, NOTHING])


@pytest.mark.parametrize("name", NAMES)
def test_interrupts_are_asked_for_as_they_are_allowed(name: str) -> None:
    script = [
        *setting(Format(), Format(), 0),
        "asks 0 0",
        f"near {CONTROL} 8",
        f"far {CONTROL} 4",
        "asks 0 0",
        "send 1 0",
        "send 2 0",
        "asks 0 0",
        "wait 300 0",
        "asks 0 0",
        "receive 2 0",
        "asks 0 0",
    ]
    assert run(name, script) == ["00", "10", "00", "11", "0001", "0002", "10"]


@pytest.mark.parametrize("name", NAMES)
def test_who_waits_for_room_loses_nothing(name: str) -> None:
    script = [
        *setting(Format(), Format(), 0),
        f"near {CONTROL} 16",
        *[f"send {n} 0" for n in range(7)],
        "wait 900 0",
        f"show {FAR} {STATUS}",
        "receive 7 0",
    ]
    assert run(name, script) == words([AVAILABLE | IDLE, *range(7)])


@pytest.mark.parametrize("name", NAMES)
def test_a_loop_hears_itself_and_leaves_the_line_alone(name: str) -> None:
    script = [
        *setting(Format(), Format(), 0),
        f"near {CONTROL} 2",
        "send 90 0",
        "wait 200 0",
        f"show {NEAR} {DATA}",
        f"show {FAR} {DATA}",
    ]
    assert run(name, script) == words([90, NOTHING])


@pytest.mark.parametrize("name", NAMES)
def test_noise_of_one_sample_is_outvoted_and_of_a_digit_is_told(name: str) -> None:
    """A digit is 32 cycles long here, a sample four; the votes are taken in its middle."""
    format_ = Format(8, True)
    quiet = [*setting(format_, format_, 3), "noise 4 0", "wait 200 0", f"show {FAR} {LEVELS}"]
    assert run(name, quiet) == ["0000"]
    short = [*setting(format_, format_, 3), "send 85 0", *["wait 29 0", "noise 3 0"] * 10, "receive 1 0"]
    assert run(name, short) == words([85])
    for digit in range(8):
        long = [*setting(format_, format_, 3), "send 85 0", f"wait {32 * (digit + 1)} 0", "noise 32 0", "receive 1 0"]
        (found,) = (int(word, 16) for word in run(name, long))
        assert found & BAD_PARITY and (found ^ 85) & 0xFF == 1 << digit


@pytest.mark.parametrize("seed", range(4))
def test_all_three_hear_the_same_noise_alike(seed: int) -> None:
    draw = random.Random(seed)
    near, far = draw.choice(FORMATS), draw.choice(FORMATS)
    script = [*setting(near, far, 1), *talk([draw.randrange(256) for _ in range(4)], 0)]
    for _ in range(12):
        script += [f"wait {draw.randrange(1, 90)} 0", f"noise {draw.randrange(1, 20)} 0"]
    script += ["wait 900 0", *[f"show {FAR} {what}" for what in (LEVELS, STATUS, DATA, DATA, DATA, DATA)]]
    first, *others = [run(name, script) for name in NAMES]
    assert all(heard == first for heard in others)
    assert first[0] != "0000"


@pytest.mark.parametrize(
    ("name", "change"),
    [
        ("serial.sv", ("wire voted = votes[1];", "wire voted = seen[1];")),
        ("serial.v", ("if (count == 4 + f_more)", "if (count == 5 + f_more)")),
        ("serial.vhd", ("phase <= idle when voted else released;", "phase <= idle;")),
    ],
)
def test_a_slip_is_seen(name: str, change: tuple[str, str]) -> None:
    format_ = Format(8, True)
    short = [*setting(format_, format_, 3), "send 85 0", *["wait 29 0", "noise 3 0"] * 10, "receive 1 0"]
    broken = [*setting(format_, format_, 0), f"near {CONTROL} 1", "wait 400 0", f"show {FAR} {LEVELS}"]
    assert [run(name, short), run(name, broken)] == [words([85]), ["0100"]]
    assert [run(name, short, change), run(name, broken, change)] != [words([85]), ["0100"]]
