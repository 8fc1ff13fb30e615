"""Changes that are tried in the text alone, since a design does not show them as one: what a process wakes for, an edge
of the reset too many or too few, sizes, a condition or branch that was forgotten, two ports exchanged, constants."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations

from obento.core.check.judging.ready import Ready
from obento.core.check.mutation.in_text import Edit, InText, TextChange
from obento.core.check.mutation.text_branches import forgotten_branches, forgotten_conditions
from obento.core.check.mutation.text_exchanged import exchanged_labels, exchanged_operands, exchanged_values
from obento.core.check.mutation.text_numbers import other_numbers, other_sizes
from obento.core.check.mutation.text_parts import other_parts
from obento.core.sentences.said import say
from obento.core.spec.model import Spec
from obento.core.syntax.stream import Tokens

_MOST_PAIRS = 10


def text_trials(ready: Ready, spec: Spec, words: InText) -> Iterator[TextChange]:
    """All of them for the file in which the unit stands, the likeliest first."""
    if ready.unit.file is None:
        return
    tokens = words.tokens(ready.unit.file)
    language = ready.design.language
    if language in ("verilog", "vhdl"):
        yield from _everything_wakes(tokens, language)
    if language == "verilog" and spec.reset is not None:
        name = next((port.name for (ours, _), (port, _) in ready.binding.bits.items() if ours == spec.reset.port), "")
        yield from _edges_of_reset(tokens, name)
    begin = _body_begins(tokens, language)
    if language in ("verilog", "vhdl"):
        yield from other_sizes(tokens, language, begin)
        yield from forgotten_conditions(tokens, language, _plain_inputs(ready, spec), begin)
    for direction in ("out", "in"):
        named = [p for p in ready.design.ports if p.direction == direction]
        alike = [(a.name, b.name) for a, b in combinations(named, 2) if a.signal.width == b.signal.width]
        for a, b in alike[:_MOST_PAIRS]:
            yield from _exchanged(tokens, language, a, b)
    if language in ("verilog", "vhdl"):
        yield from forgotten_branches(tokens, language, begin)
    if language == "wiring":
        yield from other_parts(tokens, begin)
        yield from exchanged_operands(tokens, ready.unit.file, begin)
    if language == "verilog":
        yield from exchanged_values(tokens, ready.unit.file, begin)
        yield from exchanged_labels(tokens, ready.unit.file, begin)
    yield from other_numbers(tokens, ready.unit.file, language, begin)


def _plain_inputs(ready: Ready, spec: Spec) -> list[str]:
    """Inputs of one bit that are neither clock nor reset, as the hand-in names them."""
    special = {one.port for one in (spec.clock, spec.reset) if one is not None}
    found = {
        port.name: None
        for (ours, _), (port, _) in ready.binding.bits.items()
        if port.direction == "in" and port.signal.width == 1 and ours not in special
    }
    return list(found)


def _exchanged(tokens: Tokens, language: str, a: str, b: str) -> Iterator[TextChange]:
    """Two ports exchanged wherever they are used; how they are declared stays."""
    other = {a.lower(): b, b.lower(): a} if language == "vhdl" else {a: b, b: a}
    begin = _body_begins(tokens, language)
    edits = tuple(
        Edit(tokens.starts[i], tokens.ends[i], other[word])
        for i, word in enumerate(tokens.texts)
        if i >= begin and tokens.kinds[i] == "i" and word in other and not _declares(tokens, i, language)
    )
    if edits:
        yield TextChange(say("ports-exchanged", a=f"`{a}`", b=f"`{b}`"), edits)


def _body_begins(tokens: Tokens, language: str) -> int:
    """The first word behind the head of the unit."""
    if language == "vhdl":
        return next((i for i, w in enumerate(tokens.texts) if w == "architecture"), 0)
    ends = {"verilog": ";"}.get(language)
    if ends is not None:
        return next((i for i, w in enumerate(tokens.texts) if w == ends), 0)
    heads = [i for i, w in enumerate(tokens.texts) if w in ("takes", "gives")]
    last = heads[-1] if heads else 0
    return next((i for i in range(last + 1, len(tokens.texts)) if tokens.newline_before[i]), 0)


def _declares(tokens: Tokens, at: int, language: str) -> bool:
    """Whether a word stands in a declaration: of a port in the old way, of what it is stored in."""
    if language != "verilog":
        return False
    i = at
    while i and tokens.texts[i - 1] not in (";", "begin"):
        i -= 1
    return (
        tokens.texts[i] in ("input", "output", "inout", "wire", "reg", "logic", "integer")
        and "=" not in (tokens.texts[i:at])
    )


def _everything_wakes(tokens: Tokens, language: str) -> Iterator[TextChange]:
    """A list of what wakes a process, without edges, for everything it reads."""
    opening = ["always", "@", "("] if language == "verilog" else ["process", "("]
    for i in range(len(tokens.texts) - len(opening)):
        if tokens.texts[i : i + len(opening)] != opening:
            continue
        first = i + len(opening)
        last = next((j for j in range(first, len(tokens.texts)) if tokens.texts[j] == ")"), None)
        inside = tokens.texts[first:last]
        if last is None or {"posedge", "negedge", "*", "all"} & set(inside):
            continue
        new, before = ("*", first - 1) if language == "verilog" else ("all", first)
        after = last if language == "verilog" else last - 1
        said = "`always @*`" if language == "verilog" else "`process (all)`"
        names = ", ".join(f"`{w}`" for w, k in zip(inside, tokens.kinds[first:last], strict=True) if k in "ix")
        text = say("wakes-for-all", new=said, names=names) if names else say("wakes-for-all-not-none", new=said)
        yield TextChange(text, (Edit(tokens.starts[before], tokens.ends[after], new),))


def _edges_of_reset(tokens: Tokens, reset: str) -> Iterator[TextChange]:
    """The reset added to what a clocked process wakes for, or taken from there."""
    for i, word in enumerate(tokens.texts):
        if word not in ("posedge", "negedge") or tokens.texts[i - 1] != "(":
            continue
        last = next((j for j in range(i, len(tokens.texts)) if tokens.texts[j] == ")"), None)
        if last is None:
            continue
        if reset not in tokens.texts[i:last]:
            for edge in ("posedge", "negedge"):
                new = f" or {edge} {reset}"
                text = say("wakes-for", edge=f"`or {edge} {reset}`")
                yield TextChange(text, (Edit(tokens.ends[last - 1], tokens.ends[last - 1], new),))
        elif tokens.texts[last - 1] == reset and tokens.texts[last - 3] in ("or", ","):
            edge = tokens.texts[last - 2]
            text = say("wakes-not-for", edge=f"`or {edge} {reset}`")
            yield TextChange(text, (Edit(tokens.starts[last - 3], tokens.ends[last - 1], ""),))
