"""Two neighbours in the text that are exchanged: operands and outputs of wiring lists, values of an assignment pattern,
labels of a case."""

from __future__ import annotations

from collections.abc import Iterator

from obento.core.check.mutation.in_text import Edit, TextChange
from obento.core.sentences.said import say
from obento.core.source import SourceFile
from obento.core.syntax.stream import Tokens

_OPENING, _CLOSING = frozenset("({["), frozenset(")}]")


def exchanged_operands(tokens: Tokens, file: SourceFile, begin: int) -> Iterator[TextChange]:
    """Two neighbours in a list of operands, or of outputs, of a wiring list."""
    for i in range(begin + 1, len(tokens.texts) - 1):
        if tokens.texts[i] == ",":
            yield from _around(tokens, file, i)


def exchanged_values(tokens: Tokens, file: SourceFile, begin: int) -> Iterator[TextChange]:
    """Two neighbours in `'{a, b}` (IEEE 1800-2017 clause 10.9)."""
    open_signs: list[str] = []
    for i in range(begin, len(tokens.texts) - 1):
        sign = tokens.texts[i] if tokens.kinds[i] == "o" else ""
        if sign in _OPENING or sign in ("'{", "'("):
            open_signs.append(sign)
        elif sign in _CLOSING and open_signs:
            open_signs.pop()
        elif sign == "," and open_signs and open_signs[-1] == "'{":
            yield from _around(tokens, file, i)


def exchanged_labels(tokens: Tokens, file: SourceFile, begin: int) -> Iterator[TextChange]:
    """Two neighbouring labels of a `case` that are one word each."""
    inside: list[int | None] = []
    for i in range(begin, len(tokens.texts) - 1):
        word = tokens.texts[i] if tokens.kinds[i] == "k" else ""
        if word in ("case", "casez", "casex"):
            inside.append(None)
        elif word == "endcase" and inside:
            inside.pop()
        elif inside and _is_label(tokens, i):
            before, inside[-1] = inside[-1], i
            if before is not None:
                ends = [(tokens.starts[k], tokens.ends[k]) for k in (before, i)]
                yield from _both(file, *ends)


def _is_label(tokens: Tokens, at: int) -> bool:
    is_word = tokens.kinds[at] in "in" and tokens.texts[at + 1] == ":"
    return is_word and tokens.texts[at - 1] in (";", ")", "end", "endcase", "inside")


def _around(tokens: Tokens, file: SourceFile, comma: int) -> Iterator[TextChange]:
    left, right = _before(tokens, comma), _behind(tokens, comma)
    if left is not None and right is not None:
        yield from _both(file, left, right)


def _both(file: SourceFile, left: tuple[int, int], right: tuple[int, int]) -> Iterator[TextChange]:
    first, second = (file.text[start - file.base : end - file.base] for start, end in (left, right))
    if first != second:
        text = say("ports-exchanged", a=f"`{first}`", b=f"`{second}`")
        yield TextChange(text, (Edit(*left, second), Edit(*right, first)))


_BEFORE = frozenset(["(", ",", "{", "'{", ":", "<-", ")", "}"])
_BEHIND = frozenset([")", ",", "}", "(", "{", "'{", ":", "<-"])


def _before(tokens: Tokens, at: int) -> tuple[int, int] | None:
    """Where the plain operand before a comma begins and ends; None where it is made of others."""
    last = first = at - 1
    while first >= 0 and tokens.texts[first] not in _BEFORE and not (first < last and tokens.newline_before[first + 1]):
        first -= 1
    if first == last or tokens.texts[first] in (")", "}", ":"):
        return None
    return tokens.starts[first + 1], tokens.ends[last]


def _behind(tokens: Tokens, at: int) -> tuple[int, int] | None:
    first = last = at + 1
    while tokens.texts[last] not in _BEHIND and tokens.kinds[last] != "e":
        last += 1
        if tokens.newline_before[last]:
            break
    if last == first or tokens.texts[last] in ("(", "{", "'{", ":"):
        return None
    return tokens.starts[first], tokens.ends[last - 1]
