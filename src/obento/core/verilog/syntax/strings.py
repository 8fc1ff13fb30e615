"""The characters that a string literal stands for (IEEE 1364-2005 clause 3.6.1, IEEE 1800-2017 clause 5.9.1)."""

from __future__ import annotations

import re

_ESCAPE = re.compile(r"\\(?:([0-7]{1,3})|x([0-9a-fA-F]{1,2})|(\r\n|.))", re.DOTALL)
_LETTERS = {"n": "\n", "t": "\t", "a": "\a", "v": "\v", "f": "\f", "r": "\r", "\n": "", "\r\n": ""}


def unescaped(text: str, system_verilog: bool) -> str:
    """The characters between two quotes, each escape carried out.

    Parameters
    ----------
    text
        What stands between the quotes.
    system_verilog
        Whether `\\xdd` is a character by its two hexadecimal digits; it is an `x` otherwise.
    """
    if "\\" not in text:
        return text

    def one(m: re.Match[str]) -> str:
        octal, hexadecimal, letter = m.groups()
        if octal is not None:
            return chr(int(octal, 8) & 255)
        if hexadecimal is not None:
            return chr(int(hexadecimal, 16)) if system_verilog else "x" + hexadecimal
        return _LETTERS.get(letter, letter)

    return _ESCAPE.sub(one, text)
