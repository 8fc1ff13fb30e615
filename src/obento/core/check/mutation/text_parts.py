"""Changes of wiring lists that are tried in the text alone: another part with the same pins, a pin that is active at
the other level."""

from __future__ import annotations

from collections.abc import Iterator

from obento.core.check.mutation.in_text import Edit, TextChange, instead
from obento.core.syntax.stream import Tokens

_ALIKE = (
    ("add", "subtract"),
    ("shift_left", "shift_right", "shift_signed"),
    ("rotate_left", "rotate_right"),
    ("compare", "compare_signed"),
    ("multiply", "multiply_signed"),
    ("widen", "widen_signed"),
    ("zero", "any", "all", "parity", "negative"),
    ("flipflop", "flipflop_t"),
    ("flipflop_jk", "flipflop_sr"),
)
"""Parts that take and give the same."""
_OTHERS = {name: [other for other in group if other != name] for group in _ALIKE for name in group}
_LEVELS = ("clear", "preset", "reset", "when")
_PINS = {name: f"{name}_low" for name in _LEVELS} | {f"{name}_low": name for name in _LEVELS}


def other_parts(tokens: Tokens, begin: int) -> Iterator[TextChange]:
    """All of them, the plainest first."""
    texts = tokens.texts
    places = range(begin, len(texts) - 1)
    for i in places:
        if tokens.kinds[i] == "i" and texts[i + 1] == "(":
            for other in _OTHERS.get(texts[i], ()):
                yield _replaced(tokens, i, other)
        if texts[i] in _PINS and texts[i + 1] == ":":
            yield _replaced(tokens, i, _PINS[texts[i]])


def _replaced(tokens: Tokens, at: int, new: str) -> TextChange:
    return TextChange(instead(new, tokens.texts[at]), (Edit(tokens.starts[at], tokens.ends[at], new),))
