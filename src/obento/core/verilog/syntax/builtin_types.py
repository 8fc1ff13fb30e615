"""The types that are words, with their width, sign and states, and the functions and types that are real numbers (IEEE
1364-2005 clauses 3.9 and 17, 1800-2017 tables 6-8 and 6-9)."""

from __future__ import annotations

WIDTHS = {
    "integer": 32,
    "int": 32,
    "time": 64,
    "real": 64,
    "realtime": 64,
    "byte": 8,
    "shortint": 16,
    "longint": 64,
    "string": 64,
}
"""Of types that have no range; all others are one digit wide without one."""

SIGNED_TYPES = frozenset(["integer", "int", "byte", "shortint", "longint"])
"""Signed unless `unsigned` stands behind them."""

TYPES_ELSEWHERE = {
    "bool": "a type of one digit is `logic`", "boolean": "a type of one digit is `logic`",
    "std_logic": "a type of one digit is `logic`", "std_logic_vector": "write `logic [7:0]`",
    "unsigned": "write `logic [7:0]`, which has no sign", "uint8_t": "write `logic [7:0]` or `byte unsigned`",
    "char": "write `byte`", "float": "write `real`", "double": "write `real`", "long": "write `longint`",
    "short": "write `shortint`",
}  # fmt: skip
"""Words for types in other languages, with what to write."""

TWO_STATE = frozenset(["bit", "int", "byte", "shortint", "longint"])
"""Their variables hold nothing but 0 and 1, 0 at first (1800 clauses 6.3.1 and 6.8)."""

REAL_FUNCTIONS = frozenset(
    """
    $realtime $itor $bitstoreal $ln $log10 $exp $sqrt $pow $floor $ceil $sin $cos $tan $asin $acos $atan $atan2
    $hypot $sinh $cosh $tanh $asinh $acosh $atanh
    """.split()
)
"""System functions whose value is a real number (1364-2005 clause 17)."""

TEXT_WORDS = frozenset(["string", "$sformatf", "name"])
"""A text without any of these has no strings but literals."""

REAL_WORDS = REAL_FUNCTIONS | {"real", "realtime"}
"""A text without any of these, and without a number with a fraction, has no real numbers."""
