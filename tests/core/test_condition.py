"""The failing cases as a condition: right, as short as it can be, and silent where it would be long."""

from __future__ import annotations

import itertools
import random

import pytest

from obento.core.check.check import open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.check.explaining.condition import failing_condition, products_of
from obento.core.covers import Product


def expectation(inputs: str, rest: str = "") -> Expectation:
    text = f'obento = "spec/1"\nunit = "m"\n[ports]\nin = "{inputs}"\nout = "y"\n[expect]\nequations = "y = 0"\n{rest}'
    loaded = open_spec("s.toml", text.encode(), {})
    assert loaded.expectation is not None, [m.text for m in loaded.messages]
    return loaded.expectation


FOUR = expectation("a b c d")


def covered(products: list[Product], bits: int) -> int:
    """The plane of the cases that the products hold for; case i of an exhaustive spec has the inputs i."""
    return sum(1 << i for i in range(1 << bits) if any(p.covers(i) for p in products))


@pytest.mark.parametrize("seed", range(60))
def test_products_hold_in_the_failing_cases_and_nowhere_else(seed: int) -> None:
    source = random.Random(seed)
    failing = source.getrandbits(16) & source.getrandbits(16)
    products = products_of(FOUR.spec, FOUR.cases, failing)
    if products:
        assert covered(products, 4) == failing
    else:
        assert failing == 0 or bin(failing).count("1") > 1


@pytest.mark.parametrize("seed", range(40))
def test_free_cases_may_be_covered_and_only_these(seed: int) -> None:
    source = random.Random(100 + seed)
    failing = source.getrandbits(16) & source.getrandbits(16)
    free = source.getrandbits(16) & ~failing
    products = products_of(FOUR.spec, FOUR.cases, failing, free)
    if products:
        plane = covered(products, 4)
        assert plane & failing == failing
        assert plane & ~(failing | free) & 0xFFFF == 0


def test_three_inputs_exhaustively_no_product_could_be_left_out_or_be_wider() -> None:
    three = expectation("a b c")
    every = [Product(care, value) for care in range(8) for value in range(8) if value & ~care == 0]
    for failing in range(1, 256):
        products = products_of(three.spec, three.cases, failing)
        assert covered(products, 3) == failing
        for p in products:
            assert covered([q for q in products if q != p], 3) != failing, "one is not needed"
            wider = [q for q in every if q.care & ~p.care == 0 and q != p and q.value == p.value & q.care]
            assert all(covered([q], 3) & ~failing for q in wider), "one could have fewer inputs"


def test_as_few_products_as_can_be_on_three_inputs() -> None:
    three = expectation("a b c")
    every = [Product(care, value) for care in range(8) for value in range(8) if value & ~care == 0]
    planes = [covered([p], 3) for p in every]
    least: dict[int, int] = {}
    for count in (1, 2, 3, 4):
        for chosen in itertools.combinations(planes, count):
            plane = 0
            for p in chosen:
                plane |= p
            least.setdefault(plane, count)
    worse = sum(len(products_of(three.spec, three.cases, f)) > least[f] for f in range(1, 256))
    assert worse <= 6, "greedy covering may take one more in the cyclic cases, no oftener"


@pytest.mark.parametrize(
    ("failing", "words"),
    [
        (0x8000, "a = 1 and b = 1 and c = 1 and d = 1"),
        (0xFF00, "a = 1"),
        (0x00FF, "a = 0"),
        (0xAAAA, "d = 1"),
        (0x6666, "c differs from d"),
        (0xFFFF, "always"),
        (0, ""),
    ],
)
def test_in_words(failing: int, words: str) -> None:
    assert failing_condition(FOUR.spec, FOUR.cases, failing) == words


@pytest.mark.parametrize(
    ("values", "words"),
    [
        ((9, 10, 11, 12, 13, 14, 15), "n is at least 9"),
        ((0, 1, 2), "n is at most 2"),
        ((5,), "n = 5"),
        ((5, 9), "n = 5 or 9"),
        ((4, 5, 6, 7), "n = 4 to 7"),
    ],
)
def test_a_value_of_a_narrow_bus_is_named_as_a_number(values: tuple[int, ...], words: str) -> None:
    bus = expectation("n[4]:dec")
    assert failing_condition(bus.spec, bus.cases, sum(1 << n for n in values)) == words
