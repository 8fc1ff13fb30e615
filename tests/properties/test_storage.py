"""Flip-flops and latches of wiring lists against a model of a few lines, on both engines that know time."""

from __future__ import annotations

import random
from dataclasses import dataclass

import pytest

from obento.core import values as v
from tests.core.designs import build, in_lanes, on_timeline


@dataclass
class Cell:
    """How one cell is written, and what it does: a clear wins over a preset, both over the clock."""

    kind: str
    edge: str
    has_enable: bool
    clear: str
    preset: str

    @property
    def takes(self) -> list[str]:
        return [
            "ck",
            "d",
            *(["en"] if self.has_enable else []),
            *(["clr"] if self.clear else []),
            *(["pre"] if self.preset else []),
        ]

    def text(self) -> str:
        pins = [f"{self.edge}: ck"]
        if self.has_enable:
            pins.append("enable: en")
        if self.clear:
            pins.append(f"{self.clear}: clr")
        if self.preset:
            pins.append(f"{self.preset}: pre")
        return f"wiring m\n takes {', '.join(self.takes)}\n gives q\n q <- {self.kind}(d, {', '.join(pins)})\nend\n"

    def after(self, sequence: list[dict[str, int]]) -> str:
        """`q` after a sequence of known inputs, from power-up with everything unknown."""
        q, before = "x", -1
        for now in sequence:
            cleared = bool(self.clear) and now["clr"] == (not self.clear.endswith("_low"))
            is_preset = bool(self.preset) and now["pre"] == (not self.preset.endswith("_low"))
            if self.kind == "latch":
                takes = now["ck"] == 1
            else:
                takes = before != now["ck"] and now["ck"] == (self.edge == "rise") and now.get("en", 1) == 1
            if cleared:
                q = "0"
            elif is_preset:
                q = "1"
            elif takes:
                q = str(now["d"])
            before = now["ck"]
        return q


def cells() -> list[Cell]:
    found = []
    for clear in ("", "clear", "clear_low"):
        for preset in ("", "preset", "preset_low"):
            found.append(Cell("latch", "open", False, clear, preset))
            found += [
                Cell("flipflop", edge, has_enable, clear, preset)
                for edge in ("rise", "fall")
                for has_enable in (False, True)
            ]
    return found


@pytest.mark.parametrize(
    "cell", cells(), ids=lambda c: "-".join(filter(None, [c.kind, c.edge, "enable" * c.has_enable, c.clear, c.preset]))
)
def test_a_cell_does_what_its_model_does(cell: Cell) -> None:
    dice = random.Random(repr(cell))
    design = build(cell.text(), name="a.wiring")
    for length in (1, 2, 3, 5, 9):
        sequences = [[{name: dice.randrange(2) for name in cell.takes} for _ in range(length)] for _ in range(40)]
        words = [[{name: v.word(bit, 1) for name, bit in step.items()} for step in sequence] for sequence in sequences]
        truth = [[cell.after(sequence)] for sequence in sequences]
        assert [on_timeline(design, sequence) for sequence in words] == truth
        assert in_lanes(design, words) == truth


def test_an_unknown_clear_leaves_only_what_agrees_with_it() -> None:
    """q is 1 and the clear becomes unknown: 0 or 1, whatever waits at the data; q is 0: 0 either way."""
    design = build(Cell("flipflop", "rise", False, "clear", "preset").text(), name="a.wiring")
    low, high, unknown = v.word(0, 1), v.word(1, 1), (0, 0)
    for before, expected in ((low, "0"), (high, "x")):
        load = [{"ck": low, "d": before, "clr": low, "pre": low}, {"ck": high, "d": before, "clr": low, "pre": low}]
        for data in (low, high):
            sequence = [*load, {"ck": high, "d": data, "clr": unknown, "pre": low}]
            assert on_timeline(design, sequence) == [expected]
            assert in_lanes(design, [sequence]) == [[expected]]


@pytest.mark.parametrize(
    "line",
    ["t <- flipflop(not(t), rise: ck, clear: clr)", "t <- flipflop(xor(t, s), rise: ck, clear: clr)\n  s <- not(0)"],
)
def test_a_toggle_on_an_inner_wire_is_one_bit(line: str) -> None:
    design = build(f"wiring m\n  takes ck, clr\n  gives y\n  {line}\n  y <- buf(t)\nend\n", name="a.wiring")
    low, high = v.word(0, 1), v.word(1, 1)
    sequence = [{"ck": low, "clr": high}, {"ck": low, "clr": low}]
    for n in range(4):
        assert on_timeline(design, sequence) == [str(n % 2)]
        sequence += [{"ck": high, "clr": low}, {"ck": low, "clr": low}]


def test_a_circle_of_names_takes_its_width_from_what_is_wide_in_it() -> None:
    design = build(
        "wiring m\n takes ck, w[3]\n gives y[3]\n a <- flipflop(b, rise: ck)\n b <- and(a, w)\n y <- buf(a)\nend\n",
        name="a.wiring",
    )
    assert {s.name: s.width for s in design.signals}["a"] == 3
