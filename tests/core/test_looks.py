"""How a circuit looks: said in its text, meaning nothing for what it does, told where it is said of nothing."""

from __future__ import annotations

import pytest

from tests.core.designs import messages, outputs

PLAIN = """wiring m
  takes a, b
  gives y

  g1: n <- and(a, b)
  y <- pair(x: n, z: b)
end

wiring pair
  takes x, z
  gives p
  p <- or(x, !z)
end
"""
LOOKS = [
    "place g1 40 12", "turn g1 left", "turn y up", "unfold y", "side y.x below", 'group g1, y "the safe way"',
    'remark 4 30 "ask Ilse; why?"', "named n", "named a",
]  # fmt: skip


def looking(*lines: str) -> str:
    return PLAIN.replace("end\n", "".join(f"  {line}\n" for line in lines) + "end\n", 1)


@pytest.mark.parametrize("line", LOOKS)
def test_a_look_changes_nothing_of_what_a_circuit_does(line: str) -> None:
    assert messages(looking(line), name="a.wiring") == []
    assert outputs(looking(line), name="a.wiring") == outputs(PLAIN, name="a.wiring")


def test_all_of_them_together() -> None:
    assert messages(looking(*LOOKS), name="a.wiring") == []


@pytest.mark.parametrize(
    ("line", "told"),
    [
        ("turn g9 left", "no line `g9` here"),
        ('group g1, q "x"', "no line `q` here"),
        ("named m", "no wire `m` here"),
        ("unfold n", "no line `n` here"),
    ],
)
def test_what_is_said_of_nothing_is_told(line: str, told: str) -> None:
    (message,) = messages(looking(line), name="a.wiring", texts=True)
    assert "warning" in message and told in message


@pytest.mark.parametrize(
    ("line", "told"),
    [
        ("turn g1 round", "a side is missing"),
        ("turn g1", "a side is missing"),
        ("place g1 4", "a number is missing"),
        ("side y below", "`.` is missing"),
        ("group g1", "words in quotes"),
        ("remark 1 2 three", "words in quotes"),
    ],
)
def test_half_a_look_is_told(line: str, told: str) -> None:
    (message, *_) = messages(looking(line), name="a.wiring", texts=True)
    assert "error" in message and told in message


@pytest.mark.parametrize("word", ["turn", "unfold", "side", "group", "remark", "named"])
def test_a_wire_may_be_called_like_one_of_the_words(word: str) -> None:
    text = f"wiring m\n  takes a, b\n  gives y\n  {word} <- and(a, b)\n  y <- not({word})\nend\n"
    assert messages(text, name="a.wiring") == []
