"""Values of more than eight bits (shared/values.ts): in their base, with the bits of what is not known or not as
expected; and what tells clusters apart that are said alike (features/results/apart.ts)."""

from __future__ import annotations

import random
from typing import Any

import pytest

from tests.web.logic.conftest import Logic

PIECES = """
const port = { name: 'y', width: a[0].length, radix: 'bin', signed: a[2] };
return logic.values.pieces(a[0], port, a[1] ?? undefined);
"""


def told(pieces: list[dict[str, Any]]) -> str:
    """Pieces as one text: bits in brackets."""
    return "".join(f"[{p['text']}]" if p["isBits"] else p["text"] for p in pieces)


READ = [
    # digits, expected, signed, what is read
    ("000011111010", None, False, "0fa"),
    ("1100001111", None, False, "30f"),
    ("0000x1111010", None, False, "0[x111]a"),
    ("0000----1010", None, False, "0[----]a"),
    ("zzzzzzzzz", None, False, "z"),
    ("xxxxxxxxx", None, False, "x"),
    ("---------", None, False, "–"),
    ("000011111010", "000011110010", False, "0f[1010]"),
    ("000011111010", "0000----1010", False, "0fa"),
    ("100011111010", "000011111010", False, "[1000]fa"),
    ("111111111110", None, True, "-2"),
    ("011111111110", None, True, "2046"),
    ("01111111111x", None, True, "7f[111x]"),
]


@pytest.mark.parametrize(("digits", "expected", "signed", "read"), READ)
def test_a_long_value_is_read(logic: Logic, digits: str, expected: str | None, signed: bool, read: str) -> None:
    assert told(logic.run(PIECES, digits, expected, signed)) == read


def test_every_bit_can_be_read_again(logic: Logic) -> None:
    source = random.Random(5)
    for _ in range(60):
        size = source.randint(9, 130)
        digits = "".join(source.choice("0000111100x") for _ in range(size))
        expected = "".join(c if source.random() < 0.9 or c == "x" else "10"[int(c)] for c in digits)
        back = ""
        for p in logic.run(PIECES, digits, expected, False):
            bits = p["text"] if p["isBits"] else "".join(f"{int(c, 16):04b}" for c in p["text"])
            wrong = p["wrong"] if p["isBits"] else [False] * len(bits)
            assert len(wrong) == len(bits)
            back += bits
        assert back[-size:] == digits and set(back[:-size]) <= {"0"}


def test_what_is_long_depends_on_the_port(logic: Logic) -> None:
    ports = [("bin", 8), ("bin", 9), ("hex", 64), ("dec", 64)]
    got = [
        logic.run("return logic.values.isLong({ name: 'y', radix: a[0], width: a[1], signed: false })", *p)
        for p in ports
    ]
    assert got == [False, True, False, False]


def cluster(key: str, title: str = "y wrong", wrong: list[bool] | None = None) -> dict[str, Any]:
    rows = [{"wrong": wrong}] if wrong is not None else []
    return {"key": key, "kind": "wrong", "title": title, "sentences": ["y is wrong"], "rows": rows}


def apart(logic: Logic, clusters: list[dict[str, Any]], by_case: list[list[int]]) -> dict[str, str]:
    results = {
        "clusters": clusters,
        "case_clusters": by_case,
        "case_labels": [f"case {n}" for n in range(len(by_case))],
        "outputs": ["y", "z"],
    }
    found: dict[str, str] = logic.run("return Object.fromEntries(logic.apart.tellApart(a[0]))", results)
    return found


def test_clusters_that_are_said_alike_are_told_apart_by_a_case(logic: Logic) -> None:
    found = apart(logic, [cluster("a"), cluster("b"), cluster("c", "z wrong")], [[0, 1, 2], [0], [2]])
    assert found == {
        "a": "told apart by case `case 1`: wrong here alone",
        "b": "told apart by case `case 1`: right here alone",
    }


def test_clusters_that_fail_in_the_same_cases_are_told_apart_by_values(logic: Logic) -> None:
    found = apart(logic, [cluster("a", wrong=[False, True]), cluster("b", wrong=[False, True])], [[0, 1]])
    assert set(found) == {"a", "b"}
    assert all("`z` is another one" in text for text in found.values())
