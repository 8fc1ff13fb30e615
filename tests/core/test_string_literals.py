"""The characters of string literals, by the tables of both standards."""

from __future__ import annotations

import pytest

from obento.core.verilog.syntax.strings import unescaped


@pytest.mark.parametrize(
    ("written", "meant"),
    [
        ("plain", "plain"), (r"\n", "\n"), (r"\t", "\t"), (r"\\", "\\"), (r"\"", '"'), (r"\101", "A"), (r"\1018", "A8"),
        (r"\60x", "0x"), (r"\\n", r"\n"), (r"a\tb\n\"\\\101", 'a\tb\n"\\A'), (r"\q", "q"),
    ],
)  # fmt: skip
@pytest.mark.parametrize("system_verilog", [False, True])
def test_escapes_that_both_know(written: str, meant: str, system_verilog: bool) -> None:
    """IEEE 1364-2005 table 3-1; what is no escape is the letter itself."""
    assert unescaped(written, system_verilog) == meant


def test_two_hexadecimal_digits_are_a_character_in_system_verilog() -> None:
    """IEEE 1800-2017 table 5-1."""
    assert unescaped(r"\x41\x4a\xa.", True) == "AJ\n."
    assert unescaped(r"\x41", False) == "x41"


@pytest.mark.parametrize("line", ["\n", "\r\n"])
def test_a_line_that_goes_on_is_no_new_line(line: str) -> None:
    """IEEE 1800-2017 clause 5.9."""
    assert unescaped(f"one \\{line}two", True) == "one two"
