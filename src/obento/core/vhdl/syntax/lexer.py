"""VHDL text to tokens (IEEE 1076 clause 13).

Kinds: `i` name, `x` name between backslashes, `k` reserved word, `n` number, `c` character, `s` string, `b` bit string,
`o` sign, `e` end. Names and words are in lower case, since upper and lower case mean the same.
"""

from __future__ import annotations

import re

from obento.core.diagnostics import Collector
from obento.core.limits import Limits
from obento.core.source import SourceFile
from obento.core.syntax.stream import Tokens

KEYWORDS = frozenset(
    """
    abs access after alias all and architecture array assert attribute begin block body buffer bus case
    component configuration constant disconnect downto else elsif end entity exit file for function generate
    generic group guarded if impure in inertial inout is label library linkage literal loop map mod nand new
    next nor not null of on open or others out package port postponed procedure process protected pure range
    record register reject rem report return rol ror select severity shared signal sla sll sra srl subtype then
    to transport type unaffected units until use variable wait when while with xnor xor
    """.split()
)

_TOKEN = re.compile(
    r"""(?P<space>[ \t\r\f\v\xa0]+|--[^\n]*)
    |(?P<line>\n)
    |(?P<comment>/\*.*?(?:\*/|\Z))
    |(?P<bits>(?:\d+)?[usUS]?[bodxBODX]"[^"\n]*")
    |(?P<name>[^\W\d_]\w*)
    |(?P<number>\d[\d_]*(?:\#[0-9A-Fa-f_.]+\#|\.\d[\d_]*)?(?:[eE][+-]?\d[\d_]*)?)
    |(?P<string>"(?:[^"\n]|"")*")
    |(?P<extended>\\(?:[^\\\n]|\\\\)+\\)
    |(?P<sign>\?/=|\?<=|\?>=|\?=|\?<|\?>|\?\?|\?|=>|\*\*|:=|/=|>=|<=|<>|<<|>>|[&'()*+,\-./:;<=>|\[\]@^])
    |(?P<other>.)""",
    re.VERBOSE | re.DOTALL,
)


_CONDITIONAL = re.compile(r"`(?:if|elsif|else|end|warning|error)\b", re.IGNORECASE)
"""Directives of VHDL-2019 (IEEE 1076-2019 clause 24)."""


def tokenize(file: SourceFile, collector: Collector, limits: Limits) -> Tokens:
    """All tokens of a text; characters that mean nothing are reported and passed over."""
    tokens = Tokens()
    text, base = file.text, file.base
    at, end, newline = 0, len(text), False
    match = _TOKEN.match
    while at < end:
        found = match(text, at)
        assert found is not None
        kind, start = found.lastgroup, at
        at = found.end()
        word = found.group()
        if kind == "space":
            continue
        if kind == "line":
            newline = True
            continue
        if kind == "comment":
            if not word.endswith("*/"):
                collector.error(
                    "open-comment",
                    "this comment never ends",
                    base + start,
                    base + start + 2,
                    "write */ where it should end",
                )
            newline = newline or "\n" in word
            continue
        if word == "'" and not _is_tick(tokens) and at + 1 < end and text[at + 1] == "'" and text[at] != "\n":
            tokens.append("c", text[start : at + 2], base + start, base + at + 2, newline)
            at += 2
        elif kind == "name":
            _name(tokens, word, base + start, newline, collector)
        elif kind == "other":
            at = _odd(text, start, base, collector, tokens, newline)
            newline = newline and at == start + 1
            continue
        else:
            assert kind is not None
            tokens.append(_KINDS[kind], word, base + start, base + at, newline)
        newline = False
        if len(tokens.kinds) >= limits.tokens:
            collector.error("too-many-tokens", f"more than {limits.tokens} words in one file", base + start)
            tokens.cut = True
            break
    last = base + end if not tokens.ends else tokens.ends[-1]
    tokens.append("e", "", last, last, True)
    return tokens


_KINDS = {"bits": "b", "number": "n", "string": "s", "extended": "x", "sign": "o"}


def _is_tick(tokens: Tokens) -> bool:
    """Whether an apostrophe here belongs to an attribute or a qualified expression: it comes after a name or a
    bracket."""
    if not tokens.kinds:
        return False
    kind, text = tokens.kinds[-1], tokens.texts[-1]
    return kind in "ixs" or (kind == "o" and text in (")", "]")) or (kind == "k" and text == "all")


def _name(tokens: Tokens, word: str, start: int, newline: bool, collector: Collector) -> None:
    lower = word.lower()
    if lower in KEYWORDS:
        tokens.append("k", lower, start, start + len(word), newline)
        return
    if "__" in word or word.endswith("_"):
        collector.error(
            "bad-name",
            f"`{word}` is no name in VHDL: no two underscores together, none at the end",
            start,
            start + len(word),
        )
    tokens.append("i", lower, start, start + len(word), newline)


def _odd(text: str, start: int, base: int, collector: Collector, tokens: Tokens, newline: bool) -> int:
    """Report a character that cannot stand here; where to go on."""
    c = text[start]
    if c == '"':
        end = text.find("\n", start)
        end = len(text) if end < 0 else end
        collector.error(
            "open-string", "this string has no end on its line", base + start, base + start + 1, 'close it with "'
        )
        line = text[start:end].rstrip()
        content = line.rstrip(";) ")
        tokens.append("s", content + '"', base + start, base + start + len(content), newline)
        return start + len(content)
    if text.startswith("!=", start):
        collector.error("foreign", "`!=` is written `/=` in VHDL", base + start, base + start + 2)
        tokens.append("o", "/=", base + start, base + start + 2, newline)
        return start + 2
    if c == "~":
        collector.error("foreign", "`~` is written `not` in VHDL", base + start, base + start + 1)
        tokens.append("k", "not", base + start, base + start + 1, newline)
        return start + 1
    if c == "`" and _CONDITIONAL.match(text, start):
        end = text.find("\n", start)
        end = len(text) if end < 0 else end
        what = "what stands behind a ` is VHDL-2019, which is not read here"
        collector.error("unsupported", what, base + start, base + end, "take these lines out")
        return end
    hint = {
        "`": "directives of Verilog do not exist in VHDL",
        "!": "write /= for unequal, not for the inverse, | between choices",
        "#": "",
        "_": "a name begins with a letter",
        "{": "VHDL has no braces",
        "}": "VHDL has no braces",
        "“": 'use the plain sign "',
        "”": 'use the plain sign "',
        "‘": "use the plain sign '",
        "’": "use the plain sign '",
    }.get(c, "")
    collector.error("bad-character", f"`{c}` cannot stand here", base + start, base + start + 1, hint)
    return start + 1
