"""Digits as people read them, in each radix (shared/values.ts, features/waves/values.ts,
features/circuit/model.ts)."""

from __future__ import annotations

import random

import pytest

from tests.web.logic.conftest import Logic

SHOWN = [
    # digits, radix, what is read
    ("1", "hex", "1"),
    ("x", "dec", "x"),
    ("xxxx", "dec", "x"),
    ("zz", "hex", "z"),
    ("----", "bin", "–"),
    ("0101", "bin", "0101"),
    ("0101", "dec", "5"),
    ("1011", "signed", "-5"),
    ("0101", "signed", "5"),
    ("1000", "signed", "-8"),
    ("01011", "hex", "0b"),
    ("1x01", "dec", "1x01"),
    ("1-0z", "hex", "1-0z"),
    ("1" * 64, "dec", "18446744073709551615"),
    ("1" + "0" * 63, "signed", "-9223372036854775808"),
    ("1" * 64, "hex", "f" * 16),
]


@pytest.mark.parametrize(("digits", "radix", "read"), SHOWN)
def test_a_value_is_shown(logic: Logic, digits: str, radix: str, read: str) -> None:
    assert logic.run("return logic.values.shown(a[0], a[1])", digits, radix) == read


def test_random_values_against_python(logic: Logic) -> None:
    source = random.Random(3)
    digits = ["".join(source.choice("01") for _ in range(source.randint(2, 130))) for _ in range(200)]
    got = logic.run("return a[0].map((d) => ['dec', 'signed', 'hex'].map((r) => logic.values.shown(d, r)))", digits)
    for text, (unsigned, signed, in_hex) in zip(digits, got, strict=True):
        number = int(text, 2)
        assert unsigned == str(number)
        assert signed == str(number - (text[0] == "1") * 2 ** len(text))
        assert in_hex == f"{number:0{-(-len(text) // 4)}x}"


def test_the_value_at_a_time_is_the_last_at_or_before_it(logic: Logic) -> None:
    at, values = [0, 10, 20, 35], ["a", "b", "c", "d"]
    times = [-1, 0, 9, 10, 34, 35, 1000]
    got = logic.run("return a[2].map((t) => logic.waveValues.valueAt(a[0], a[1], t))", at, values, times)
    assert got == ["", "a", "a", "b", "c", "d", "d"]


def test_the_index_at_a_time_is_bisect_right_less_one(logic: Logic) -> None:
    import bisect

    source = random.Random(5)
    at = sorted(source.sample(range(1000), 60))
    got = logic.run("return a[1].map((t) => logic.waveValues.indexAt(a[0], t))", at, list(range(1000)))
    assert got == [bisect.bisect_right(at, t) - 1 for t in range(1000)]


PORTS = [
    # digits, port, what is read
    ("0011", {"radix": "bin", "signed": False}, "0011"),
    ("00110101", {"radix": "bin", "signed": False}, "0x35"),
    ("0011", {"radix": "hex", "signed": False}, "0x3"),
    ("00011", {"radix": "hex", "signed": False}, "0x03"),
    ("1111", {"radix": "dec", "signed": True}, "-1"),
    ("1111", {"radix": "dec", "signed": False}, "15"),
    ("1x11", {"radix": "dec", "signed": True}, "1x11"),
    ("1" * 64, {"radix": "dec", "signed": True}, "-1"),
    ("1" * 64, {"radix": "dec", "signed": False}, "18446744073709551615"),
]


@pytest.mark.parametrize(("digits", "port", "read"), PORTS)
def test_a_port_reads_its_value_as_the_spec_writes_it(logic: Logic, digits: str, port: object, read: str) -> None:
    assert logic.run("return logic.model.portValue(a[0], a[1])", digits, port) == read


def test_a_short_value_is_digits_and_a_wide_one_a_number(logic: Logic) -> None:
    got = logic.run("return ['101', '1010', '10101', '1010x', '0'.repeat(7)].map(logic.model.shortValue)")
    assert got == ["101", "1010", "0x15", "1010x", "0x00"]
