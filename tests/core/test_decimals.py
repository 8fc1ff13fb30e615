"""Decimal numbers of any length, and whatever prints or reads them."""

from __future__ import annotations

import random
import sys

import pytest

from obento.core.decimals import digits_of, from_decimal, shown, to_decimal


@pytest.fixture
def without_guard() -> object:
    before = sys.get_int_max_str_digits()
    sys.set_int_max_str_digits(0)
    yield None
    sys.set_int_max_str_digits(before)


@pytest.mark.parametrize("bits", [0, 1, 63, 64, 5_999, 6_000, 6_001, 14_285, 20_000, 65_536])
def test_as_python_writes_and_reads_them(bits: int, without_guard: object) -> None:
    dice = random.Random(bits)
    for number in (
        dice.getrandbits(bits) if bits else 0,
        (1 << bits) - 1,
        1 << bits,
        10 ** int(bits * 0.301),
        10 ** int(bits * 0.301) - 1,
    ):
        for signed in (number, -number):
            assert to_decimal(signed) == str(signed)
            assert from_decimal(str(signed)) == signed
    assert digits_of(bits) == len(str((1 << bits) - 1))


@pytest.mark.parametrize(
    "text",
    [
        "",
        "12x",
        "1" * 3000 + "x" + "1" * 3000,
        "x" + "1" * 6000,
        "1" * 6000 + "-",
        "--" + "1" * 6000,
        "1" * 3000 + "+" + "1" * 2999,
    ],
)
def test_what_is_no_number_is_refused(text: str) -> None:
    with pytest.raises(ValueError):
        from_decimal(text)


def test_messages_stay_short() -> None:
    assert shown(-5) == "-5" and shown(10**39) == "1" + "0" * 39
    assert shown(10**6000) == "10000000000000000000... (6001 digits)"


def test_the_guard_stays_on() -> None:
    to_decimal(1 << 65_536)
    with pytest.raises(ValueError):
        str(1 << 65_536)
