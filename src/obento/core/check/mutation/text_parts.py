"""Changes of wiring lists that are tried in the text alone: another part with the same pins, a pin that is active at
the other level, two operands or outputs exchanged."""

from __future__ import annotations

from collections.abc import Iterator

from obento.core.check.mutation.in_text import Edit, TextChange, instead
from obento.core.sentences.said import say
from obento.core.source import SourceFile
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


def other_parts(tokens: Tokens, file: SourceFile, begin: int) -> Iterator[TextChange]:
    """All of them, the plainest first."""
    texts = tokens.texts
    places = range(begin, len(texts) - 1)
    for i in places:
        if tokens.kinds[i] == "i" and texts[i + 1] == "(":
            for other in _OTHERS.get(texts[i], ()):
                yield _replaced(tokens, i, other)
        if texts[i] in _PINS and texts[i + 1] == ":":
            yield _replaced(tokens, i, _PINS[texts[i]])
    yield from _turned(tokens, file, begin)


def _replaced(tokens: Tokens, at: int, new: str) -> TextChange:
    return TextChange(instead(new, tokens.texts[at]), (Edit(tokens.starts[at], tokens.ends[at], new),))


def _turned(tokens: Tokens, file: SourceFile, begin: int) -> Iterator[TextChange]:
    """Two neighbours in a list of operands, or of outputs, exchanged."""
    for i in range(begin + 1, len(tokens.texts) - 1):
        if tokens.texts[i] != ",":
            continue
        left, right = _operand_before(tokens, i), _operand_behind(tokens, i)
        if left is None or right is None:
            continue
        (a, b), (c, d) = left, right
        first, second = (file.text[s - file.base : e - file.base] for s, e in ((a, b), (c, d)))
        if first != second:
            text = say("ports-exchanged", a=f"`{first}`", b=f"`{second}`")
            yield TextChange(text, (Edit(a, b, second), Edit(c, d, first)))


def _operand_before(tokens: Tokens, at: int) -> tuple[int, int] | None:
    """Where the plain operand before a comma begins and ends; None where it is made of others."""
    last = first = at - 1
    while (
        first >= 0
        and tokens.texts[first] not in ("(", ",", "{", ":", "<-", ")", "}")
        and not (first < last and tokens.newline_before[first + 1])
    ):
        first -= 1
    if first == last or tokens.texts[first] in (")", "}", ":"):
        return None
    return tokens.starts[first + 1], tokens.ends[last]


def _operand_behind(tokens: Tokens, at: int) -> tuple[int, int] | None:
    first = last = at + 1
    while tokens.texts[last] not in (")", ",", "}", "(", "{", ":", "<-") and tokens.kinds[last] != "e":
        last += 1
        if tokens.newline_before[last]:
            break
    if last == first or tokens.texts[last] in ("(", "{", ":"):
        return None
    return tokens.starts[first], tokens.ends[last - 1]
