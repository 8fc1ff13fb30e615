"""What somebody left out, put into the text: the condition behind an `else`, the other branch of an `if`, what a `case`
does with the rest."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from obento.core.check.mutation.in_text import Edit, TextChange, instead
from obento.core.sentences.said import say
from obento.core.syntax.stream import Tokens

_MOST_VALUES = 5


def forgotten_conditions(tokens: Tokens, language: str, inputs: Sequence[str], begin: int) -> Iterator[TextChange]:
    """`else if (take)` where only `else` stands, for inputs of one bit."""
    texts = tokens.texts
    for i in range(begin, len(texts) - 1):
        if texts[i] != "else" or texts[i + 1] == "if":
            continue
        if language == "vhdl" and texts[i - 1] != ";":
            continue  # of a conditional assignment
        for name in inputs:
            for is_not in (False, True):
                if language == "vhdl":
                    new = f"elsif {name} = '{int(not is_not)}' then"
                else:
                    new = f"else if ({'!' if is_not else ''}{name})"
                yield TextChange(instead(new, "else"), (Edit(tokens.starts[i], tokens.ends[i], new),))


def forgotten_branches(tokens: Tokens, language: str, begin: int) -> Iterator[TextChange]:
    """Another branch for an `if` that has none, a `default` for a `case`: its target gets a constant, or what it gets
    somewhere else."""
    yield from (_else_in_vhdl if language == "vhdl" else _else_in_verilog)(tokens, begin)
    if language == "verilog":
        yield from _default(tokens, begin)


def _else_in_verilog(tokens: Tokens, begin: int) -> Iterator[TextChange]:
    texts = tokens.texts
    for i in range(begin, len(texts)):
        if texts[i] != "if" or texts[i + 1 : i + 2] != ["("]:
            continue
        closing = _closing(texts, i + 1)
        found = _assignment(tokens, closing + 1) if closing is not None else None
        if found is None:
            continue
        target, sign, end = found
        if texts[end + 1 : end + 2] == ["else"]:
            continue
        for value in _values(tokens, target, ("0", "1"), begin):
            new = f"else {target} {sign} {value};"
            yield TextChange(say("behind-if", new=f"`{new}`"), (Edit(tokens.ends[end], tokens.ends[end], f" {new}"),))


def _else_in_vhdl(tokens: Tokens, begin: int) -> Iterator[TextChange]:
    texts = tokens.texts
    for i in range(begin, len(texts) - 1):
        if texts[i : i + 2] != ["end", "if"] or texts[i - 1] != ";":
            continue
        start = i - 1
        while start and texts[start - 1] not in (";", "then", "else"):
            start -= 1
        found = _assignment(tokens, start)
        if found is None or found[2] != i - 1 or texts[start - 1] != "then":
            continue
        target, sign, _ = found
        for value in _values(tokens, target, ("'0'", "'1'", "(others => '0')"), begin):
            new = f"else {target} {sign} {value};"
            yield TextChange(say("in-if", new=f"`{new}`"), (Edit(tokens.starts[i], tokens.starts[i], f"{new} "),))


def _default(tokens: Tokens, begin: int) -> Iterator[TextChange]:
    texts = tokens.texts
    for i in range(begin, len(texts)):
        if texts[i] not in ("case", "casez", "casex"):
            continue
        end = next((j for j in range(i, len(texts)) if texts[j] == "endcase"), None)
        if end is None or "default" in texts[i:end]:
            continue
        targets = dict.fromkeys(
            (found[0], found[1])
            for j in range(i, end)
            if texts[j - 1] in (":", ";", "begin") and (found := _assignment(tokens, j)) is not None
        )
        for target, sign in targets:
            for value in _values(tokens, target, ("0", "1"), begin):
                new = f"default: {target} {sign} {value};"
                place = tokens.starts[end]
                yield TextChange(say("in-case", new=f"`{new}`"), (Edit(place, place, f"{new} "),))


def _assignment(tokens: Tokens, at: int) -> tuple[str, str, int] | None:
    """Target, sign and last word of a plain assignment that begins at a word."""
    texts = tokens.texts
    if at + 1 >= len(texts) or tokens.kinds[at] != "i" or texts[at + 1] not in ("=", "<=", ":="):
        return None
    end = next((j for j in range(at, len(texts)) if texts[j] == ";"), None)
    return None if end is None else (texts[at], texts[at + 1], end)


def _values(tokens: Tokens, target: str, constants: tuple[str, ...], begin: int) -> list[str]:
    """Constants, then what a target gets elsewhere in the text."""
    texts = tokens.texts
    elsewhere: list[str] = []
    for i in range(begin, len(texts) - 1):
        found = _assignment(tokens, i) if texts[i] == target else None
        if found is not None:
            elsewhere.append(" ".join(texts[i + 2 : found[2]]))
    return list(dict.fromkeys([*constants, *elsewhere]))[:_MOST_VALUES]


def _closing(texts: list[str], opening: int) -> int | None:
    """The parenthesis that closes the one at a word."""
    depth = 0
    for i in range(opening, len(texts)):
        depth += (texts[i] == "(") - (texts[i] == ")")
        if not depth:
            return i
    return None
