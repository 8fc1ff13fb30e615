"""Relations in conditions: what is said holds in every failing case and in no right one, and is the plainest way to say
it."""

from __future__ import annotations

import random
import re
from collections.abc import Callable

import pytest

from obento.core.check.check import open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.check.explaining.condition import failing_condition


def expectation(ports: str) -> Expectation:
    head = f'obento = "spec/1"\ntitle = "t"\nunit = "m"\n[ports]\nin = "{ports}"\nout = "y"\n'
    text = f'{head}[expect]\nequations = "y = 0"\n'
    found = open_spec("s.toml", text.encode(), {}).expectation
    assert found is not None
    return found


def plane(of: Expectation, fails: Callable[..., object]) -> int:
    """The cases in which a function of the inputs is true."""
    total = 0
    for case in range(of.cases.count):
        values, first = [], 0
        for port in of.spec.inputs:
            word = of.cases.word(case, first, port.width)[0]
            values.append(word - (1 << port.width) if port.signed and word >> (port.width - 1) else word)
            first += port.width
        total |= bool(fails(*values)) << case
    return total


SAID = [
    ("a b c", lambda a, b, c: a ^ b, "a differs from b"),
    ("a b c", lambda a, b, c: a ^ b ^ c, "an odd number of a, b and c is 1"),
    ("a b c d", lambda a, b, c, d: a and not b ^ c ^ d, "a = 1 and an even number of b, c and d is 1"),
    ("key level_eq gate_shut boat_clear", lambda k, e, g, b: k and b != (e and g),
     "key = 1 and boat_clear differs from (level_eq and gate_shut)"),
    ("a b c", lambda a, b, c: a == (b or not c), "a equals (b or not c)"),
    ("a[4] b[4]", lambda a, b: a < b, "a is less than b"),
    ("a[4] b[4]", lambda a, b: a == b, "a equals b"),
    ("a[3]s b[3]s en", lambda a, b, en: en and a >= b, "en = 1 and a is at least b"),
    ("a[4]:dec c", lambda a, c: a >= 10, "a is at least 10"),
    ("a b c", lambda a, b, c: a and b, "a = 1 and b = 1"),  # a product stays one
    ("a b c", lambda a, b, c: a or b, "b = 1 or a = 1"),
]  # fmt: skip


@pytest.mark.parametrize(("ports", "fails", "words"), SAID)
def test_in_the_words_that_people_use(ports: str, fails: Callable[..., object], words: str) -> None:
    of = expectation(ports)
    assert failing_condition(of.spec, of.cases, plane(of, fails)) == words


def as_function(words: str, names: list[str]) -> Callable[..., object]:
    """A condition of one-bit inputs, read by rules of its own: an evaluator that knows nothing of planes."""

    def value(text: str, of: dict[str, int]) -> bool:
        text = text.strip()
        odd = re.fullmatch(r"an (odd|even) number of (.*) is 1", text)
        if odd:
            ones = sum(of[n] for n in re.split(r", | and ", odd[2]))
            return ones % 2 == (odd[1] == "odd")
        pair = re.fullmatch(r"(\w+) (differs from|equals) (?:\((.*)\)|(\w+))", text)
        if pair:
            other = value(pair[3], of) if pair[3] else bool(of[pair[4]])
            return (bool(of[pair[1]]) == other) == (pair[2] == "equals")
        for word, join in ((" or ", any), (" and ", all)):
            parts = split(text, word)
            if len(parts) > 1:
                return join(value(p, of) for p in parts)
        if text.startswith("(") and text.endswith(")"):
            return value(text[1:-1], of)
        if text.startswith("not "):
            return not of[text[4:]]
        if " = " in text:
            name, digit = text.split(" = ")
            return of[name] == int(digit)
        return bool(of[text])

    return lambda *given: value(words, dict(zip(names, given, strict=True)))


def split(text: str, word: str) -> list[str]:
    """Parted at a word that stands in no parentheses and in no list of names."""
    parts, depth, start, i = [], 0, 0, 0
    while i < len(text):
        depth += (text[i] == "(") - (text[i] == ")")
        listing = re.match(r"an (odd|even) number of .*? is 1", text[i:])
        if not depth and listing:
            i += len(listing[0])
            continue
        if not depth and text.startswith(word, i):
            parts.append(text[start:i])
            i += len(word)
            start = i
            continue
        i += 1
    return [*parts, text[start:]]


@pytest.mark.parametrize("seed", range(40))
def test_what_is_said_is_so_in_every_case(seed: int) -> None:
    """Conditions of random planes, and of random relations, against an evaluator of the words themselves."""
    dice = random.Random(seed)
    names = ["a", "b", "c", "d"][: dice.choice([2, 3, 4])]
    of = expectation(" ".join(names))
    for _ in range(40):
        failing = dice.getrandbits(of.cases.count)
        words = failing_condition(of.spec, of.cases, failing)
        if not words or words == "always":
            assert words != "always" or failing == of.cases.full
            continue
        assert plane(of, as_function(words, names)) == failing, words
