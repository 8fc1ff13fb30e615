"""Changes of a circuit in a letter: the lines they are quoted as, where they stand in a text, how they are laid out."""

from __future__ import annotations

from typing import Any

import pytest

from tests.web.logic.conftest import Logic


def name(text: str) -> dict[str, Any]:
    return {"kind": "name", "text": text, "inverted": False, "inputs": []}


def gate(kind: str, *inputs: dict[str, Any]) -> dict[str, Any]:
    return {"kind": kind, "text": kind, "inverted": False, "inputs": list(inputs)}


@pytest.mark.parametrize(
    ("before", "after", "lines"),
    [
        ("y <- or(a, b)", "y <- nor(a, b)", "- y <- or(a, b)\n+ y <- nor(a, b)"),
        ("y <- a\nend", "y <- a\nz <- b\nend", "+ z <- b"),
        ("place y 1 1\nend", "place y 4 4\nend", ""),  # where something stands is nothing that a letter draws
        ("y <- a", "y <- a", ""),
        ("", "\n".join(f"w{i} <- a" for i in range(20)), ""),  # more than a small picture
    ],
)
def test_lines_that_a_letter_can_draw(logic: Logic, before: str, after: str, lines: str) -> None:
    assert logic.run("return logic.scratch.drawnChange(a[0], a[1])", before, after) == lines


@pytest.mark.parametrize(
    ("text", "at", "stretches"),
    [
        ("one\n- x\n+ x\ntwo", [(1, 2)], ["one", 1, "two"]),
        ("- x\n+ x", [(0, 2)], [0]),
        ("a\n- x\nb\n+ y", [(1, 1), (3, 1)], ["a", 1, "b", 3]),
        ("only words", [], ["only words"]),
        ("", [], []),
    ],
)
def test_a_text_with_its_changes(logic: Logic, text: str, at: list[tuple[int, int]], stretches: list[Any]) -> None:
    body = "return logic.changePicture.stretches(a[0], a[1]).map((s) => (typeof s === 'string' ? s : s.first))"
    assert logic.run(body, text, [{"first": f, "count": n} for f, n in at]) == stretches


@pytest.mark.parametrize(
    "piece",
    [
        name("a"),
        gate("and", name("a"), name("boat_clear")),
        gate("or", gate("and", name("a"), name("b")), gate("and", name("c"), gate("not", name("level_eq"))), name("d")),
        gate("part", *[name(f"input_{i}") for i in range(16)]),
    ],
)
def test_nothing_lies_over_anything_or_outside(logic: Logic, piece: dict[str, Any]) -> None:
    picture = logic.run("return logic.changePicture.pictureOf(a[0])", {"names": ["shut"], "piece": piece})
    boxes = [(p["x"], p["y"], p["x"] + p["w"], p["y"] + p["h"]) for p in picture["parts"]]
    boxes += [(n["x"] - n["w"] + 6, n["y"] - 9, n["x"], n["y"] + 9) for n in picture["names"]]
    for i, (left, top, right, bottom) in enumerate(boxes):
        assert left >= 0 and top >= 0 and right <= picture["w"] and bottom <= picture["h"]
        for other in boxes[:i]:
            assert right <= other[0] or other[2] <= left or bottom <= other[1] or other[3] <= top
