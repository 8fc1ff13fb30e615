"""Cases as they are named in narrow lists."""

from __future__ import annotations

import pytest

from obento.core.check.check import open_spec
from obento.server.specs.cases import brief, case_labels

SPEC = "obento = 'spec/1'\nunit = 'm'\n[ports]\nin = '{}'\nout = 'y'\n[expect]\nequations = 'y = 1'\n[cases]\n{}\n"
LABELS = [
    # inputs, which cases, the label of the second one
    ("a b c", "all = true", "0 0 1"),
    ("a[3] b", "all = true", "000 1"),
    ("a b c d e f g h i", "all = true", "0000 0000 1"),
    ("a b c d e f g h", "all = true", "0 0 0 0 0 0 0 1"),
    ("a[9]", "all = true", "0x001"),
    ("a[9]:dec", "all = true", "1"),
    ("a[9]:hex b", "all = true", "0x000 1"),
]


@pytest.mark.parametrize(("inputs", "cases", "label"), LABELS)
def test_a_label(inputs: str, cases: str, label: str) -> None:
    loaded = open_spec("s.toml", SPEC.format(inputs, cases).encode(), {})
    assert loaded.expectation is not None, [str(m) for m in loaded.messages]
    assert case_labels(loaded.expectation, [1]) == [label]


BRIEF = [("000000001", "0x001"), ("00000000x", "00000000x"), ("-", "-"), ("x", "x")]


@pytest.mark.parametrize(("shown", "written"), BRIEF)
def test_only_what_is_known_is_hexadecimal(shown: str, written: str) -> None:
    loaded = open_spec("s.toml", SPEC.format("a[9]", "all = true").encode(), {})
    assert loaded.expectation is not None
    assert brief(loaded.expectation.spec.inputs[0], shown) == written
