"""Sentences on combinational hand-ins, each with what has to hold for it to be true."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator

from tests.second_reader.conditions import read_condition
from tests.second_reader.known import Known
from tests.second_reader.truth import Case, Port, Truth, Unread

_sentence: Known[Truth] = Known()


def is_true(truth: Truth, text: str) -> bool:
    """Whether a sentence is true of a hand-in.

    Raises
    ------
    Unread
        Where it is none of the sentences that are known here.
    """
    found = _sentence.is_true(truth, text)
    if found is None:
        raise Unread(text)
    return found


def _output(truth: Truth, name: str) -> Port:
    return next(p for p in truth.outputs if p.name == name)


def _input(truth: Truth, name: str) -> Port:
    return next(p for p in truth.inputs if p.name == name)


def _compared(truth: Truth, name: str) -> Iterator[tuple[Case, int, int]]:
    """Each case in which an output is compared, with what is wanted and what came."""
    for case in truth.cases:
        wanted = case.wanted[name]
        if wanted is not None:
            yield case, wanted, case.got[name]


def _within(truth: Truth, name: str, region: str | None) -> Iterator[tuple[Case, int, int]]:
    """The same, as far as `, with key = 1 and sel = 2` goes."""
    holds = read_condition(region, truth.inputs) if region else None
    return (one for one in _compared(truth, name) if holds is None or holds(one[0]))


_WITH = r"(?:, with (?P<region>[^:]+?))?"


# Where it is wrong.


@_sentence(r"(\w+) is wrong(?: always| whenever (.*))?: (\d+) of (\d+)")
def _wrong_whenever(truth: Truth, m: re.Match[str]) -> bool:
    wrong = sum(w != g for _, w, g in _compared(truth, m[1]))
    holds = read_condition(m[2], truth.inputs) if m[2] else None
    exact = holds is None or all(holds(c) == (w != g) for c, w, g in _compared(truth, m[1]))
    always = " always" not in m[0] or all(w != g for _, w, g in _compared(truth, m[1]))
    return exact and always and (wrong, len(truth.cases)) == (int(m[3]), int(m[4]))


@_sentence(r"(\w+) is wrong only when (.*): (\d+) of (\d+)")
def _wrong_only_when(truth: Truth, m: re.Match[str]) -> bool:
    holds = read_condition(m[2], truth.inputs)
    wrong = [c for c, w, g in _compared(truth, m[1]) if w != g]
    return all(map(holds, wrong)) and (len(wrong), sum(map(holds, truth.cases))) == (int(m[3]), int(m[4]))


# One slip for everything.


@_sentence(r"(\w+) and (\w+) are exchanged")
def _exchanged_outputs(truth: Truth, m: re.Match[str]) -> bool:
    a, b = m[1], m[2]
    return all(w == c.got[b] for c, w, _ in _compared(truth, a)) and all(
        w == c.got[a] for c, w, _ in _compared(truth, b)
    )


@_sentence(r"(\w+) and (\w+) are taken for each other: exchanged, every case is right")
def _exchanged_inputs(truth: Truth, m: re.Match[str]) -> bool:
    a, b = m[1], m[2]
    got = {tuple(c.given.values()): c.got for c in truth.cases}
    return all(
        w == got[tuple((c.given | {a: c.given[b], b: c.given[a]}).values())][p.name]
        for p in truth.outputs
        for c, w, _ in _compared(truth, p.name)
    )


@_sentence(rf"(\w+) is always ([-\w]+){_WITH}")
def _constant(truth: Truth, m: re.Match[str]) -> bool:
    value = _output(truth, m[1]).read(m[2])
    of = list(_within(truth, m[1], m["region"]))
    return all(g == value for _, _, g in of) and len({w for _, w, _ in of}) > 1


@_sentence(r"(\w+) is (?:always the opposite of what it should be|inverted in every bit)")
def _inverted(truth: Truth, m: re.Match[str]) -> bool:
    full = (1 << _output(truth, m[1]).width) - 1
    return all(g == w ^ full for _, w, g in _compared(truth, m[1]))


@_sentence(r"(\w+) has its bits in reverse order")
def _reversed(truth: Truth, m: re.Match[str]) -> bool:
    width = _output(truth, m[1]).width
    return all(g == int(format(w, f"0{width}b")[::-1], 2) for _, w, g in _compared(truth, m[1]))


@_sentence(r"(\w+) does not depend on (.*), and should")
def _ignores(truth: Truth, m: re.Match[str]) -> bool:
    return all(_is_deaf(truth, m[1], name) for name in re.split(r", | or ", m[2]))


def _is_deaf(truth: Truth, output: str, name: str) -> bool:
    """Whether an input never changes an output in cases compared, and should."""
    came: dict[tuple[int, ...], set[int]] = {}
    should: dict[tuple[int, ...], set[int]] = {}
    for case, wanted, got in _compared(truth, output):
        rest = tuple(v for n, v in case.given.items() if n != name)
        came.setdefault(rest, set()).add(got)
        should.setdefault(rest, set()).add(wanted)
    return all(len(s) == 1 for s in came.values()) and any(len(s) > 1 for s in should.values())


# Numbers.


@_sentence(
    r"(\w+) is (\d+) too (large|small) in all (\d+) wrong cases(?:: a (?:carry into|borrow from) bit (\d+) is lost)?"
)
def _offset(truth: Truth, m: re.Match[str]) -> bool:
    size = 1 << _output(truth, m[1]).width
    by = int(m[2]) if m[3] == "large" else -int(m[2])
    wrong = [(w, g) for _, w, g in _compared(truth, m[1]) if w != g]
    weight = m[5] is None or int(m[2]) == 1 << int(m[5])
    return weight and len(wrong) == int(m[4]) and all((g - w - by) % size == 0 for w, g in wrong)


@_sentence(r"(\w+) adds (\w+) and (\w+) without carries in all (\d+) wrong cases")
def _no_carries(truth: Truth, m: re.Match[str]) -> bool:
    full = (1 << _output(truth, m[1]).width) - 1
    wrong = [(c.given[m[2]], c.given[m[3]], w, g) for c, w, g in _compared(truth, m[1]) if w != g]
    return len(wrong) == int(m[4]) and all(w == (a + b & full) and g == (a ^ b) & full for a, b, w, g in wrong)


@_sentence(r"(\w+) is cut to its lowest (?:(\d+) bits|bit): .* always 0")
def _cut(truth: Truth, m: re.Match[str]) -> bool:
    kept = (1 << int(m[2] or 1)) - 1
    return all(g == w & kept for _, w, g in _compared(truth, m[1]))


@_sentence(r"(\w+) has ([-\w]+) and ([-\w]+) exchanged in all (\d+) wrong cases")
def _values_exchanged(truth: Truth, m: re.Match[str]) -> bool:
    port = _output(truth, m[1])
    two = {port.read(m[2]), port.read(m[3])}
    wrong = [(w, g) for _, w, g in _compared(truth, m[1]) if w != g]
    return len(wrong) == int(m[4]) and all({w, g} == two for w, g in wrong)


_ORDERS: dict[str, Callable[[int, int], bool]] = {
    "<": lambda a, b: a < b,
    ">": lambda a, b: a > b,
    "=": lambda a, b: a == b,
    "≤": lambda a, b: a <= b,
    "≥": lambda a, b: a >= b,
    "≠": lambda a, b: a != b,
}


def _orders(truth: Truth, of: list[Case], said: Callable[[Case], int], a: str, b: str) -> set[tuple[str, bool]]:
    """The relations of two inputs that an output is in some cases, with whether they are taken with signs."""
    half = 1 << _input(truth, a).width - 1
    found = set()
    for sign, order in _ORDERS.items():
        for signed in (False, True):
            flip = half if signed else 0
            if all(said(c) == order(c.given[a] ^ flip, c.given[b] ^ flip) for c in of):
                found.add((sign, signed))
    return found


@_sentence(rf"(\w+) is wrong just where (\w+) = (\w+): equality counted on the wrong side{_WITH}")
def _boundary(truth: Truth, m: re.Match[str]) -> bool:
    of = list(_within(truth, m[1], m["region"]))
    just = all((c.given[m[2]] == c.given[m[3]]) == (w != g) for c, w, g in of)
    cases = [c for c, _, _ in of]
    wanted = _orders(truth, cases, lambda c: c.wanted[m[1]] or 0, m[2], m[3])
    came = _orders(truth, cases, lambda c: c.got[m[1]], m[2], m[3])
    return just and bool(wanted & came or (wanted and came))


@_sentence(
    r"(\w+) is wrong just where the signs of (\w+) and (\w+) differ: signed taken as unsigned, or the other way"
    rf" round{_WITH}"
)
def _signs_differ(truth: Truth, m: re.Match[str]) -> bool:
    of = list(_within(truth, m[1], m["region"]))
    top = 1 << _input(truth, m[2]).width - 1
    just = all(bool((c.given[m[2]] ^ c.given[m[3]]) & top) == (w != g) for c, w, g in of)
    cases = [c for c, _, _ in of]
    wanted = _orders(truth, cases, lambda c: c.wanted[m[1]] or 0, m[2], m[3])
    came = _orders(truth, cases, lambda c: c.got[m[1]], m[2], m[3])
    return just and any((sign, not signed) in came for sign, signed in wanted)


@_sentence(rf"(\w+) is wrong just where (\w+) is negative: its sign is not carried on{_WITH}")
def _sign_not_carried(truth: Truth, m: re.Match[str]) -> bool:
    of = list(_within(truth, m[1], m["region"]))
    width = _input(truth, m[2]).width
    low = (1 << width) - 1
    return all(bool(c.given[m[2]] >> width - 1) == (w != g) and (w & low == g & low or w == g) for c, w, g in of)


@_sentence(rf"(\w+) (?:is|says whether) (.+?){_WITH}, and should be (.+)")
def _other_operation(truth: Truth, m: re.Match[str]) -> bool:
    port = _output(truth, m[1])
    of = list(_within(truth, m[1], m["region"]))
    return all(
        g == _operation(truth, port, m[2], c) and w == _operation(truth, port, m[4], c) for c, w, g in of
    ) and bool(of)


def _operation(truth: Truth, port: Port, text: str, case: Case) -> int:
    full = (1 << port.width) - 1
    m = re.fullmatch(r"(\w+) (\S+) (\w+)( digit by digit)?", text)
    if m is None:
        return case.given[text] & full if text in case.given else int(text)
    a, b = case.given[m[1]], case.given[m[3]]
    if port.width == 1:
        return int(_ORDERS[m[2]](a, b))
    by = {"+": a + b, "-": a - b, "and": a & b, "or": a | b, "xor": a ^ b}
    return by[m[2]] & full


# Flags and products.


@_sentence(r"(\w+) says whether (.+), and should say (?:so of (.+)|whether (.+))")
def _wrong_flag(truth: Truth, m: re.Match[str]) -> bool:
    took = re.fullmatch(r"(.+?) (is .+|has .+)", m[2])
    wants = re.fullmatch(r"(.+?) (is .+|has .+)", m[4]) if m[4] else None
    assert took is not None
    right = (wants[1], wants[2]) if wants else (m[3], took[2])
    return all(
        g == _property(truth, c, took[1], took[2]) and w == _property(truth, c, *right)
        for c, w, g in _compared(truth, m[1])
    )


def _property(truth: Truth, case: Case, name: str, which: str) -> int:
    word, width = _word(truth, case, name)
    full = (1 << width) - 1
    return int(
        {
            "is zero": word == 0,
            "is all ones": word == full,
            "is not all ones": word != full,
            "is not zero": word != 0,
            "is negative": bool(word >> width - 1),
            "has an odd number of ones": word.bit_count() % 2 == 1,
            "is odd": word % 2 == 1,
        }[which]
    )


def _word(truth: Truth, case: Case, name: str) -> tuple[int, int]:
    joined = re.fullmatch(r"(\w+) and (\w+) together", name)
    if joined:
        high, (low, width) = _word(truth, case, joined[1])[0], _word(truth, case, joined[2])
        return high << width | low, width + 1
    if name in case.given:
        return case.given[name], _input(truth, name).width
    return case.wanted[name] or 0, _output(truth, name).width


@_sentence(r"(\w+) (lacks a product term: it should be 1|has a product term too many: it is 1 also) whenever (.*)")
def _term(truth: Truth, m: re.Match[str]) -> bool:
    holds = read_condition(m[3], truth.inputs)
    came = int("too many" in m[2])
    return all((w != g) == holds(c) and (w == g or g == came) for c, w, g in _compared(truth, m[1]))
