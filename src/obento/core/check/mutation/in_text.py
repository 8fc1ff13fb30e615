"""How a change that was tried on a built design is made in the text: which words to write in the place of which.

A design does not hold what its text says, so a change of it may have no words (a range that is looked at without being
written), or several that could be meant (the same sign twice in a statement). Here are all that could be; whoever asks
reads the changed text again and sees which of them does it."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

from obento.core.check.mutation.literals import rewritten, value_of
from obento.core.diagnostics import Collector
from obento.core.limits import Limits
from obento.core.sentences.said import say
from obento.core.source import SourceFile, Sources
from obento.core.syntax.stream import Tokens
from obento.core.verilog.syntax.lexer import as_system_verilog
from obento.core.verilog.syntax.lexer import lex as lex_verilog
from obento.core.vhdl.syntax.lexer import tokenize as lex_vhdl
from obento.core.wiring.parser import lex as lex_wiring

_MOST_TOKENS = 400
"""A statement is not looked at further than this."""
_MOST_BACK = 24
_NOT = {"~", "!", "not"}
_COMPARE = ("<", "<=", ">", ">=")
_ORDERED = {*_COMPARE, "-", "/", "%", "mod", "rem", "<<", ">>", ">>>", "sll", "srl", "sra"}
"""Signs whose operands are not the same when exchanged."""
_MIRRORED = {"<": ">", ">": "<", "<=": ">=", ">=": "<="}
_TWINS = {"&": "&&", "|": "||", "~": "!", "!": "~", "^": "!=", "==": "===", "!=": "!=="}
_QUOTED = re.compile(r"`([^`]*)`")
_NUMBERS = re.compile(r"(\d+) for (\d+)")
_WORDS = re.compile(r"[\w$.]+|[<>=!&|~^*+/?:-]+|\S")


@dataclass(frozen=True, slots=True)
class Edit:
    """Text in the place of what stands from `start` to `end` (positions of `Sources`)."""

    start: int
    end: int
    new: str


@dataclass(frozen=True, slots=True)
class TextChange:
    """`text` says what to write instead of what, in the words of the text."""

    text: str
    edits: tuple[Edit, ...]

    @property
    def position(self) -> int:
        """Where its first edit begins."""
        return min(edit.start for edit in self.edits)

    def applied(self, file: SourceFile) -> str:
        """The text of a file with the change made in it."""
        text = file.text
        for edit in sorted(self.edits, key=lambda e: -e.start):
            text = text[: edit.start - file.base] + edit.new + text[edit.end - file.base :]
        return text


def instead(new: str, old: str) -> str:
    """To write one thing instead of another."""
    return say("put-for", new=f"`{new}`", old=f"`{old}`")


class InText:
    """Finds changes in the texts of one hand-in."""

    def __init__(self, sources: Sources, language: str, limits: Limits) -> None:
        self._sources = sources
        self._language = language
        self._limits = limits
        self._known: dict[int, Tokens] = {}

    def ways(self, position: int, said: str) -> Iterator[TextChange]:
        """Every change of the statement at a position that may be what `said` says, the likeliest first."""
        file = self._sources.file_at(position)
        if file is None:
            return
        known: set[tuple[Edit, ...]] = set()
        for looks_back in (False, True):  # what stands before the position belongs to the statement, too
            span = _Span(file, self.tokens(file), position, self._language, looks_back)
            for way in _ways(span, said):
                if way.edits not in known:
                    known.add(way.edits)
                    yield way

    def tokens(self, file: SourceFile) -> Tokens:
        """The words of a file."""
        if file.base not in self._known:
            read: Callable[[SourceFile, Collector, Limits], Tokens] = {
                "vhdl": lex_vhdl, "wiring": lex_wiring,
            }.get(self._language, lex_verilog)  # fmt: skip
            words = read(file, Collector(), self._limits)
            # A .v file may be SystemVerilog by consent, and nothing is called `enum` in one that is not.
            self._known[file.base] = as_system_verilog(words) if self._language == "verilog" else words
        return self._known[file.base]


class _Span:
    """The words of one statement. `texts` are as compared, `as_written` as they stand there."""

    def __init__(self, file: SourceFile, tokens: Tokens, position: int, language: str, looks_back: bool) -> None:
        first = last = next((i for i, end in enumerate(tokens.ends) if end > position), len(tokens.ends))
        ends = {";"} if language != "wiring" else set()
        while looks_back and first and language != "wiring" and tokens.texts[first - 1] not in ends:
            if last - first >= _MOST_BACK:
                break
            first -= 1
        while last < len(tokens.texts) and last - first < _MOST_TOKENS and tokens.kinds[last] != "e":
            if tokens.texts[last] in ends or (language == "wiring" and last > first and tokens.newline_before[last]):
                break
            last += 1
        self.language = language
        self.texts = tokens.texts[first:last]
        self.kinds = tokens.kinds[first:last]
        self.starts = tokens.starts[first:last]
        self.stops = tokens.ends[first:last]
        self.as_written = [
            file.text[a - file.base : b - file.base] for a, b in zip(self.starts, self.stops, strict=True)
        ]
        self.states = _state_names(tokens)

    def find(self, words: list[str]) -> Iterator[int]:
        """Where words stand one after the other."""
        wanted = [w.lower() for w in words] if self.language == "vhdl" else words
        for i in range(len(self.texts) - len(wanted) + 1):
            if self.texts[i : i + len(wanted)] == wanted:
                yield i

    def put(self, at: int, count: int, new: str) -> Edit:
        """Something in the place of `count` words."""
        return Edit(self.starts[at], self.stops[at + count - 1], new)

    def before(self, at: int, new: str) -> Edit:
        return Edit(self.starts[at], self.starts[at], new)

    def after(self, at: int, new: str) -> Edit:
        return Edit(self.stops[at], self.stops[at], new)

    def shown(self, at: int, count: int) -> str:
        """Words as they stand there."""
        return "".join(self.as_written[at : at + count])

    def operand(self, at: int, step: int) -> tuple[int, int] | None:
        """The simple operand that begins (`step` 1) or ends (-1) at a word: a name or number, with an index or its
        arguments, or something in parentheses. First and last word."""
        if not 0 <= at < len(self.texts):
            return None
        if step > 0:
            if self.texts[at] in "([":
                closing = self._partner(at, 1)
                return None if closing is None else (at, closing)
            if self.kinds[at] not in "ixncsb":
                return None
            end = at
            while end + 1 < len(self.texts) and self.texts[end + 1] in "([":
                closing = self._partner(end + 1, 1)
                if closing is None:
                    return None
                end = closing
            return at, end
        start = at
        while self.texts[start] in ")]":
            opening = self._partner(start, -1)
            if opening is None:
                return None
            start = opening
            if start and self.kinds[start - 1] in "ix":
                start -= 1
            else:
                break
        return (start, at) if self.kinds[start] in "ixncsb" or self.texts[start] == "(" else None

    def _partner(self, at: int, step: int) -> int | None:
        """The bracket that belongs to the one at a word."""
        depth = 0
        while 0 <= at < len(self.texts):
            depth += (self.texts[at] in "([" and self.kinds[at] == "o") - (
                self.texts[at] in ")]" and self.kinds[at] == "o"
            )
            if not depth:
                return at
            at += step
        return None


def _state_names(tokens: Tokens) -> list[str]:
    """Names of constants: local parameters, members of enumerations, literals of a type of states."""
    found: list[str] = []
    texts, kinds = tokens.texts, tokens.kinds
    for i, word in enumerate(texts):
        if kinds[i] == "k" and word in ("localparam", "parameter", "enum", "is"):
            if word == "is" and not (texts[i + 1 : i + 2] == ["("] and texts[i - 2 : i - 1] == ["type"]):
                continue
            j = i + 1
            while j < len(texts) and texts[j] not in (";", ")", "}", "#"):
                if kinds[j] == "i" and (texts[j - 1] in "({,]" or texts[j + 1 : j + 2] == ["="]):
                    found.append(texts[j])
                j += 1
    return list(dict.fromkeys(found))


def _ways(span: _Span, said: str) -> Iterator[TextChange]:
    quoted = _QUOTED.findall(said)
    number = _NUMBERS.fullmatch(said)
    if number is not None:
        yield from _other_number(span, int(number[2]), int(number[1]))
    elif "exchanged" in said:
        yield from _exchanged(span)
        yield from _turned(span)
    elif said.startswith("no `"):
        yield from _without(span)
    elif "and its level" in said:
        yield from _edge_and_level(span, quoted)
    elif " before " in said and quoted:
        yield from _with_not(span, quoted[1] if len(quoted) > 1 else "")
    elif "signs" in said or "its sign" in said:
        yield from _with_signs(span, without="without" in said)
    elif len(quoted) == 2:
        is_gate = said.startswith("gate ")
        for way in _other_words(span, quoted[1], quoted[0]):
            yield replace(way, text=say("gate", what=way.text)) if is_gate else way


def _other_words(span: _Span, old: str, new: str) -> Iterator[TextChange]:
    """Signs, names, digits, edges: words for words."""
    pairs = [(old, new)]
    pairs += [(_TWINS.get(old, old), _TWINS.get(new, new)), (_MIRRORED.get(old, old), _MIRRORED.get(new, new))]
    for a, b in dict.fromkeys(pairs):
        words = _parted(a, span.language)
        for at in span.find(words):
            written = b if span.language != "vhdl" or "[" not in b else "".join(_parted(b, "vhdl"))
            old = a if "[" not in a else span.shown(at, len(words))
            yield TextChange(instead(written, old), (span.put(at, len(words), written),))
    if span.language == "vhdl" and "_edge(" in old:
        yield from _event_level(span)


def _parted(words: str, language: str) -> list[str]:
    """Words as their tokens; digits as the language writes them."""
    if language == "vhdl":
        words = re.sub(r"\[(\d+):(\d+)\]", r"(\1 downto \2)", words)
        words = words.replace("[", "(").replace("]", ")")
    return _WORDS.findall(words)


def _event_level(span: _Span) -> Iterator[TextChange]:
    """The other level behind `clk'event and`: the edge as it was written of old."""
    for at in span.find(["'", "event", "and"]):
        level = at + 5
        if level < len(span.texts) and span.texts[at + 4] == "=" and span.kinds[level] == "c":
            new = "'0'" if "1" in span.as_written[level] else "'1'"
            clock = span.as_written[at + 3]
            yield TextChange(
                instead(f"{clock} = {new}", f"{clock} = {span.as_written[level]}"), (span.put(level, 1, new),)
            )


def _other_number(span: _Span, old: int, new: int) -> Iterator[TextChange]:
    for at, word in enumerate(span.as_written):
        if span.kinds[at] not in "ncsb" or value_of(word, span.language) != old:
            continue
        written = rewritten(word, new, span.language)
        if written is None:
            continue
        is_index = at and span.texts[at - 1] in "[(" and at > 1 and span.kinds[at - 2] in "ix"
        if is_index and span.texts[at + 1 : at + 2] in (["]"], [")"]):
            name, closing = span.as_written[at - 2] + span.texts[at - 1], span.texts[at + 1]
            yield TextChange(
                instead(f"{name}{written}{closing}", f"{name}{word}{closing}"), (span.put(at, 1, written),)
            )
        else:
            text = say("put-for", new=written, old=word) if word.isdecimal() else instead(written, word)
            yield TextChange(text, (span.put(at, 1, written),))
    for at, word in enumerate(span.texts):
        if span.kinds[at] == "i" and word in span.states:
            for other in span.states:
                if other != word:
                    yield TextChange(instead(other, span.as_written[at]), (span.put(at, 1, other),))


def _exchanged(span: _Span) -> Iterator[TextChange]:
    for at, sign in enumerate(span.texts):
        if sign in _ORDERED:
            left, right = span.operand(at - 1, -1), span.operand(at + 1, 1)
            if left is not None and right is not None:
                yield _swapped(span, left, right, say("operands-exchanged", sign=f"`{sign}`"))
        if sign in ("?", "when"):
            yield from _choice_turned(span, at)


def _choice_turned(span: _Span, at: int) -> Iterator[TextChange]:
    """The two values of a choice exchanged, where they are simple."""
    if span.texts[at] == "?":
        first = span.operand(at + 1, 1)
        if first is None or span.texts[first[1] + 1 : first[1] + 2] != [":"]:
            return
        second = span.operand(first[1] + 2, 1)
    else:
        first = span.operand(at - 1, -1)
        other = next((i for i in range(at, len(span.texts)) if span.texts[i] == "else"), None)
        second = span.operand(other + 1, 1) if other is not None else None
    if first is not None and second is not None:
        yield _swapped(span, first, second, say("values-turned"))


def _swapped(span: _Span, first: tuple[int, int], second: tuple[int, int], text: str) -> TextChange:
    a, b = (_written(span, part) for part in (first, second))
    return TextChange(
        text,
        (
            Edit(span.starts[first[0]], span.stops[first[1]], b),
            Edit(span.starts[second[0]], span.stops[second[1]], a),
        ),
    )


def _written(span: _Span, part: tuple[int, int]) -> str:
    words = span.as_written[part[0] : part[1] + 1]
    return "".join(f" {w} " if span.kinds[part[0] + i] in "ko" and w.isalpha() else w for i, w in enumerate(words))


def _turned(span: _Span) -> Iterator[TextChange]:
    """The condition of an `if` turned round."""
    sign = "not " if span.language == "vhdl" else "!"
    for at in span.find(["if"]):
        if span.language == "vhdl":
            end = next((i for i in range(at, len(span.texts)) if span.texts[i] == "then"), None)
            if end is None or end < at + 2:
                continue
            first, last = at + 1, end - 1
        else:
            part = span.operand(at + 1, 1)
            if part is None or span.texts[part[0]] != "(":
                continue
            first, last = part[0] + 1, part[1] - 1
        if last < first:
            continue
        if span.texts[first] in _NOT and span.operand(first + 1, 1) == (first + 1, last):
            yield TextChange(say("condition-turned"), (span.put(first, 1, ""),))
        elif first == last:
            yield TextChange(say("condition-turned"), (span.before(first, sign),))
        else:
            yield TextChange(say("condition-turned"), (span.before(first, f"{sign}("), span.after(last, ")")))


def _without(span: _Span) -> Iterator[TextChange]:
    for at, word in enumerate(span.texts):
        if (word in _NOT and span.kinds[at] in "ok") or (span.language == "wiring" and word == "not"):
            part = span.operand(at + 1, 1)
            what = (
                f"`{_written(span, part)}`" if part is not None and span.texts[part[0]] != "(" else say("what-follows")
            )
            yield TextChange(say("no-before", word=f"`{word}`", what=what), (span.put(at, 1, ""),))


def _with_not(span: _Span, name: str) -> Iterator[TextChange]:
    """Inverted: a name, or all that stands behind the sign of an assignment."""
    if span.language == "wiring":
        for at in span.find(_parted(name, "wiring")) if name else ():
            yield TextChange(say("put-before", word="`!`", what=f"`{name}`"), (span.before(at, "!"),))
        return
    sign = "not" if span.language == "vhdl" else "!" if "&&" in span.texts or "||" in span.texts else "~"
    gap = " " if sign == "not" else ""
    if name:
        words = _parted(name, span.language)
        for at in span.find(words):
            new, shown = f"{sign}{gap}", span.shown(at, len(words))
            yield TextChange(say("put-before", word=f"`{sign}`", what=f"`{shown}`"), (span.before(at, new),))
        return
    equals = next((i for i, w in enumerate(span.texts) if w in ("=", "<=") and span.kinds[i] == "o"), None)
    if equals is not None and equals + 1 < len(span.texts):
        edits = (span.before(equals + 1, f"{sign}{gap}("), span.after(len(span.texts) - 1, ")"))
        yield TextChange(say("put-before", word=f"`{sign}`", what=say("the-whole")), edits)


def _with_signs(span: _Span, without: bool) -> Iterator[TextChange]:
    old, new = ("signed", "unsigned") if without else ("unsigned", "signed")
    places = list(span.find([old] if span.language == "vhdl" else [f"${old}"]))
    mark = "" if span.language == "vhdl" else "$"
    if places:
        edits = tuple(span.put(at, 1, f"{mark}{new}") for at in places)
        yield TextChange(instead(f"{mark}{new}", f"{mark}{old}"), edits)
    if span.language != "verilog" or without:
        return
    for at, sign in enumerate(span.texts):
        if sign in (*_COMPARE, "+", "-", "*", ">>>"):
            left, right = span.operand(at - 1, -1), span.operand(at + 1, 1)
            if left is None or right is None:
                continue
            parts = (left, right) if sign != ">>>" else (left,)
            edits = tuple(Edit(span.starts[a], span.stops[b], f"$signed({_written(span, (a, b))})") for a, b in parts)
            yield TextChange(say("operands-signed", sign=f"`{sign}`"), edits)


def _edge_and_level(span: _Span, quoted: list[str]) -> Iterator[TextChange]:
    """Another edge of a reset, and its level in the `if` turned."""
    if len(quoted) < 2:
        return
    name = quoted[0].split()[-1]
    for edge in _other_words(span, quoted[1], quoted[0]):
        for level in _turned(span):
            text = say("and-turned", what=edge.text, name=f"`{name}`")
            yield TextChange(text, (*edge.edits, *level.edits))
