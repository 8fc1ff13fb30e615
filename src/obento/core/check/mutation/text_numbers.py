"""Numbers that are changed in the text alone: sizes of what is declared, constants with a name, and numbers that a
design has taken up into something else."""

from __future__ import annotations

from collections.abc import Iterator

from obento.core.check.mutation.in_text import Edit, TextChange, instead
from obento.core.check.mutation.literals import rewritten, value_of
from obento.core.sentences.said import say
from obento.core.source import SourceFile
from obento.core.syntax.stream import Tokens

_FILLS = {"'0": "'1", "'1": "'0"}
"""What is as wide as its place, turned round."""
_MOST_TURNED = 8
"""Of a number with more digits these at the right are turned."""
_DECLARED = {
    "verilog": frozenset(["wire", "reg", "logic", "integer", "bit"]),
    "vhdl": frozenset(["signal", "variable"]),
}
_CONSTANTS = frozenset(["localparam", "parameter", "constant"])


def other_sizes(tokens: Tokens, language: str, begin: int) -> Iterator[TextChange]:
    """What is declared in a body one digit wider, then one narrower."""
    for by in (1, -1):
        for i in range(begin, len(tokens.texts) - 1):
            if not tokens.texts[i].isdecimal() or _first_word(tokens, i, language) not in _DECLARED.get(language, ()):
                continue
            is_size = tokens.texts[i - 1] == "[" if language == "verilog" else tokens.texts[i + 1] == "downto"
            number = int(tokens.texts[i]) + by
            if not (is_size and tokens.texts[i + 1] in (":", "downto")) or number < 0:
                continue
            closing = next((j for j in range(i, len(tokens.texts)) if tokens.texts[j] in ("]", ")")), None)
            if closing is None:
                continue
            gap = " " if language == "vhdl" else ""
            rest = gap + gap.join(tokens.texts[i + 1 : closing])
            a, b = ("[", "]") if language == "verilog" else ("(", ")")
            text = instead(f"{a}{number}{rest}{b}", f"{a}{tokens.texts[i]}{rest}{b}")
            yield TextChange(text, (Edit(tokens.starts[i], tokens.ends[i], str(number)),))


def other_numbers(tokens: Tokens, file: SourceFile, language: str, begin: int) -> Iterator[TextChange]:
    """Numbers that stand in a body: constants with a name first."""
    places = [i for i in range(begin, len(tokens.texts)) if tokens.kinds[i] in "ncsb" and not _is_size(tokens, i)]
    for i in sorted(places, key=lambda at: _first_word(tokens, at, language) not in _CONSTANTS):
        word = file.text[tokens.starts[i] - file.base : tokens.ends[i] - file.base]
        if language == "verilog" and word in _FILLS:
            yield TextChange(instead(_FILLS[word], word), (Edit(tokens.starts[i], tokens.ends[i], _FILLS[word]),))
        value = value_of(word, language)
        if value is None:
            continue
        digits = min(_MOST_TURNED, len(word)) if not word.isdecimal() else 0
        for number in dict.fromkeys([value + 1, value - 1, *(value ^ 1 << digit for digit in range(digits))]):
            new = rewritten(word, number, language)
            if new is not None and new != word:
                text = say("put-for", new=new, old=word) if word.isdecimal() else instead(new, word)
                yield TextChange(text, (Edit(tokens.starts[i], tokens.ends[i], new),))


def _first_word(tokens: Tokens, at: int, language: str) -> str:
    """The word with which the declaration or statement begins that another one stands in."""
    heads = (";", "begin", "is") if language == "vhdl" else (";", "begin", ")")
    depth = 0
    while at:
        before = tokens.texts[at - 1]
        depth += (before in ")]") - (before in "([") if len(before) == 1 else 0
        if depth <= 0 and before in heads:
            break
        at -= 1
    return tokens.texts[at]


def _is_size(tokens: Tokens, at: int) -> bool:
    """Whether a number is a bound of a range, which is no value."""
    around = {tokens.texts[at - 1] if at else "", tokens.texts[at + 1] if at + 1 < len(tokens.texts) else ""}
    return bool(around & {"downto", "to"}) or (":" in around and "[" in around) or ({":", "]"} == around)
