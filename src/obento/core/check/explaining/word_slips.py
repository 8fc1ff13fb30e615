"""Slips in numbers: off by one, a carry lost, cut short, a sign not looked at, values exchanged, a flag of the wrong
value.

Words are lists of planes, rightmost digit first, over the cases in which all digits of an output are compared and known
on both sides. Everything is computed for all of these at once. A slip is only said when it holds in every wrong case,
and its opposite in every right one where that is part of what it claims."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from itertools import combinations, product

from obento.core.check.expectation.model import Expectation
from obento.core.check.explaining.condition import failing_condition, one_product
from obento.core.check.judging.verdict import Verdict
from obento.core.sentences.said import every, say
from obento.core.spec.model import SpecPort

WORD_SLIPS = frozenset(
    [
        "off-by-one",
        "carry-lost",
        "no-carries",
        "cut",
        "sign",
        "boundary",
        "values-exchanged",
        "wrong-flag",
        "constant-in",
        "other-operation",
        "term-missing",
        "term-added",
    ]
)
"""All kinds of slips that this module finds."""

_FEWEST = 2
_FEWEST_FOR_OPERATIONS = 8
_NARROWEST_FLAGGED = 3
"""Of narrower words too many things are properties."""
_MOST_CONTROL_BITS = 8
Word = list[int]


@dataclass(frozen=True, slots=True)
class WordSlip:
    """A slip in numbers: its kind, and the sentence that says it."""

    kind: str
    text: str


def find_word_slips(expectation: Expectation, verdict: Verdict, port: SpecPort, adds: bool) -> list[WordSlip]:
    """Slips that explain everything that is wrong with an output; the first that does is enough. Of carries is spoken
    where somebody `adds`."""
    found = _Output.of(expectation, verdict, port)
    if found is None:
        return []
    found.adds = adds
    return [slip for slip in (next(found.slips(), None),) if slip is not None]


def add(a: Word, b: Word, full: int, carry: int = 0) -> Word:
    """The sum of two words of one width, modulo that."""
    out = []
    for x, y in zip(a, b, strict=True):
        out.append(x ^ y ^ carry)
        carry = (x & y) | (carry & (x ^ y))
    return [p & full for p in out]


def _below(a: Word, b: Word, full: int) -> int:
    """The cases in which a word is less than another, as numbers without signs: a borrow comes out of their
    difference."""
    borrow = 0
    for x, y in zip(a, b, strict=True):
        borrow = (~x & y) | (~(x ^ y) & borrow)
    return borrow & full


def constant(value: int, width: int, full: int) -> Word:
    """A constant as planes, one a digit, over all cases in `full`."""
    return [full if value >> i & 1 else 0 for i in range(width)]


def differ(a: Word, b: Word) -> int:
    """The cases in which two words differ; the shorter one is taken to begin with zeros."""
    out = 0
    for i in range(max(len(a), len(b))):
        out |= (a[i] if i < len(a) else 0) ^ (b[i] if i < len(b) else 0)
    return out


def number_at(word: Word, case: int) -> int:
    """The number that planes hold in one case."""
    return sum((p >> case & 1) << i for i, p in enumerate(word))


@dataclass(slots=True)
class _Output:
    """One output: what is expected and what came, `bad` among the cases `compared`. `inputs` are known in all of
    those."""

    expectation: Expectation
    verdict: Verdict
    port: SpecPort
    expected: Word
    got: Word
    compared: int
    bad: int
    inputs: dict[str, Word]
    adds: bool = False

    @classmethod
    def of(cls, expectation: Expectation, verdict: Verdict, port: SpecPort) -> _Output | None:
        """None where too little is wrong to tell, or values are unknown."""
        outcome = verdict.outputs[port.name]
        compared = expectation.cases.full
        expected, got = [], []
        for i in range(port.width):
            want, (one, zero) = verdict.expected[port.name, i], verdict.shown[port.name, i]
            compared &= want.care & (want.one ^ want.zero) & (one ^ zero)
            expected.append(want.one)
            got.append(one)
        inputs: dict[str, Word] = {}
        bit = 0
        for given in expectation.spec.inputs:
            planes = list(
                zip(
                    expectation.cases.one[bit : bit + given.width],
                    expectation.cases.zero[bit : bit + given.width],
                    strict=True,
                )
            )
            bit += given.width
            for one, zero in planes:
                compared &= one ^ zero
            inputs[given.name] = [one for one, _ in planes]
        wrong = outcome.failed | outcome.undefined | outcome.stopped
        if wrong & ~compared or wrong.bit_count() < _FEWEST:
            return None
        cut = [p & compared for p in expected], [p & compared for p in got]
        return cls(
            expectation, verdict, port, *cut, compared, wrong, {n: [p & compared for p in w] for n, w in inputs.items()}
        )

    def slips(self) -> Iterator[WordSlip]:
        if self.port.width > 1:
            yield from self._cut()
            yield from self._sign()
            yield from self._offset()
            yield from self._no_carries()
            yield from self._values_exchanged()
        else:
            yield from self._boundary()
            yield from self._flag()
            yield from self._sign()
        yield from self._other_operation()
        yield from self._constant_in()
        if self.port.width == 1:
            yield from self._term()

    # Words.

    def _offset(self) -> Iterator[WordSlip]:
        """The same number too much or too little wherever it is wrong."""
        width, case = self.port.width, (self.bad & -self.bad).bit_length() - 1
        by = (number_at(self.got, case) - number_at(self.expected, case)) % (1 << width)
        if differ(add(self.expected, constant(by, width, self.compared), self.compared), self.got) & self.bad:
            return
        name = self.port.name
        if by in (1, (1 << width) - 1):
            key = "off-by-one-large" if by == 1 else "off-by-one-small"
            yield WordSlip("off-by-one", say(key, output=name, count=self.bad.bit_count()))
            return
        less = -by % (1 << width)
        if less == by:  # only the highest digit: which way it went shows in what was expected
            lost, gained = not self.bad & ~self.expected[-1], not self.bad & self.expected[-1]
        else:
            lost, gained = less & (less - 1) == 0, by & (by - 1) == 0
        if lost:
            what = say("too-small", output=name, by=less, count=self.bad.bit_count())
            yield WordSlip("carry-lost", self._lost("carry-lost", what, less))
        elif gained:
            what = say("too-large", output=name, by=by, count=self.bad.bit_count())
            yield WordSlip("carry-lost", self._lost("borrow-lost", what, by))

    def _lost(self, key: str, what: str, weight: int) -> str:
        """Of carries and borrows is spoken where there are any."""
        return say(key, what=what, bit=weight.bit_length() - 1) if self.adds else what

    def _no_carries(self) -> Iterator[WordSlip]:
        """A sum whose digits are added each for itself."""
        for a, b in self._pairs(narrowest=1):
            sums = add(self._fit(a), self._fit(b), self.compared)
            alone = [x ^ y for x, y in zip(self._fit(a), self._fit(b), strict=True)]
            if not differ(sums, self.expected) & self.bad and not differ(alone, self.got) & self.bad:
                count = self.bad.bit_count()
                yield WordSlip("no-carries", say("no-carries", output=self.port.name, a=a, b=b, count=count))

    def _cut(self) -> Iterator[WordSlip]:
        """Right in its lower digits, and nothing above them."""
        top = max((i for i, p in enumerate(self.got) if p), default=-1)
        if 0 <= top < self.port.width - 1 and not differ(self.expected[: top + 1], self.got[: top + 1]) & self.compared:
            above = self.port.bit_word(top + 1)
            if top + 2 < self.port.width:
                above = say("bits-to", high=self.port.bit_word(self.port.width - 1), low=above)
            key = "cut" if top else "cut-to-one"
            yield WordSlip("cut", say(key, output=self.port.name, count=top + 1, above=above))

    def _values_exchanged(self) -> Iterator[WordSlip]:
        """Two values that come for each other."""
        case = (self.bad & -self.bad).bit_length() - 1
        a, b = number_at(self.expected, case), number_at(self.got, case)
        is_a = [self._equals(w, a) for w in (self.expected, self.got)]
        is_b = [self._equals(w, b) for w in (self.expected, self.got)]
        exchanged = (is_a[0] & is_b[1]) | (is_b[0] & is_a[1])
        if is_b[0] & is_a[1] and not self.bad & ~exchanged:
            shown = [self.port.show((v, ~v & (1 << self.port.width) - 1)) for v in sorted((a, b))]
            count = self.bad.bit_count()
            text = say("values-exchanged", output=self.port.name, a=shown[0], b=shown[1], count=count)
            yield WordSlip("values-exchanged", text)

    # Single bits.

    def _boundary(self) -> Iterator[WordSlip]:
        """Wrong just where two inputs are equal."""
        for a, b in self._pairs():
            equal = self.compared & ~differ(self.inputs[a], self.inputs[b])
            if not self._is_just(equal, {a, b}):
                continue
            region, among = self._region({a, b}), self._among({a, b})
            orders = [w[0] for signed in (False, True) for w in self._orders(a, b, signed).values()]
            if among is not None and any(not (p ^ self.expected[0]) & region for p in orders):
                yield WordSlip("boundary", say("boundary", output=self.port.name, a=a, b=b, among=among))

    def _flag(self) -> Iterator[WordSlip]:
        """What is expected is a property of one word, what comes is the same property of another."""
        fits = {
            (name, kind): of(w, self.compared)
            for kind, of in _PROPERTIES.items()
            for name, w in self._words().items()
            if len(w) >= _NARROWEST_FLAGGED
        }
        if not self.expected[0] or not ~self.expected[0] & self.compared:
            return
        right = next((key for key, plane in fits.items() if not (plane ^ self.expected[0]) & self.compared), None)
        taken = next((key for key, plane in fits.items() if not (plane ^ self.got[0]) & self.compared), None)
        if right is None or taken is None:
            return
        word, held = taken[0], say(taken[1])
        if right[1] == taken[1]:
            text = say("wrong-flag", output=self.port.name, word=word, property=held, other=right[0])
        else:
            wanted = say(right[1])
            text = say("wrong-property", output=self.port.name, word=word, property=held, other=right[0], wanted=wanted)
        yield WordSlip("wrong-flag", text)

    def _term(self) -> Iterator[WordSlip]:
        """A sum of products with one product too few or too many: the wrong cases are one product, all wrong in one
        way."""
        spec, cases = self.expectation.spec, self.expectation.cases
        missing, added = not self.bad & ~self.expected[0], not self.bad & self.expected[0]
        if cases.count != 1 << len(cases.one) or not (missing or added):
            return
        product = one_product(spec, cases, self.bad, cases.full & ~self.compared)
        if product:
            kind = "term-missing" if missing else "term-added"
            yield WordSlip(kind, say(kind, output=self.port.name, when=product))

    def _other_operation(self) -> Iterator[WordSlip]:
        """What comes is one operation on two inputs, where another one is expected."""
        for a, b in self._pairs():
            region = self._region({a, b})
            if region.bit_count() < _FEWEST_FOR_OPERATIONS:
                continue
            of = self._operations(a, b)
            got = next((text for text, w in of.items() if not differ(w, self.got) & region), None)
            wanted = next((text for text, w in of.items() if not differ(w, self.expected) & region), None)
            if got is None or wanted is None:
                continue
            among = self._among({a, b})
            if among is not None:
                key = "other-test" if self.port.width == 1 else "other-operation"
                text = say(key, output=self.port.name, got=got, among=among, wanted=wanted)
                yield WordSlip("other-operation", text)
                return

    def _operations(self, a: str, b: str) -> dict[str, Word]:
        full = self.compared
        if self.port.width == 1:
            equal = full & ~differ(self.inputs[a], self.inputs[b])
            same = {f"{a} = {b}": [equal], f"{a} ≠ {b}": [full & ~equal]}
            return self._orders(a, b, signed=False) | same
        x, y = self._fit(a), self._fit(b)
        not_x, not_y = [full & ~p for p in x], [full & ~p for p in y]
        return {
            f"{a} + {b}": add(x, y, full),
            f"{a} - {b}": add(x, not_y, full, full),
            f"{b} - {a}": add(y, not_x, full, full),
            f"{a} + {a}": add(x, x, full),
            f"{b} + {b}": add(y, y, full),
            a: x,
            b: y,
            "0": [0] * len(x),
            say("digit-by-digit", a=a, b=b, operation="and"): [p & q for p, q in zip(x, y, strict=True)],
            say("digit-by-digit", a=a, b=b, operation="or"): [p | q for p, q in zip(x, y, strict=True)],
            say("digit-by-digit", a=a, b=b, operation="xor"): [p ^ q for p, q in zip(x, y, strict=True)],
        }

    def _orders(self, a: str, b: str, signed: bool) -> dict[str, Word]:
        """Which of two words of one width is the larger, as numbers with signs or without."""
        full, x, y = self.compared, self.inputs[a], self.inputs[b]
        if signed:
            x, y = [*x[:-1], full & ~x[-1]], [*y[:-1], full & ~y[-1]]
        less, more = _below(x, y, full), _below(y, x, full)
        return {
            f"{a} < {b}": [less],
            f"{a} > {b}": [more],
            f"{a} ≤ {b}": [full & ~more],
            f"{a} ≥ {b}": [full & ~less],
        }

    def _constant_in(self) -> Iterator[WordSlip]:
        """Always one value in some operations, where it should not be."""
        if all(len(w) == 1 for w in self.inputs.values()):
            return  # the condition says it shorter
        for name, word in self.inputs.items():
            if len(word) > _MOST_CONTROL_BITS:
                continue
            apart = set(self.inputs) - {name}
            region = self._region(apart)
            if region in (0, self.compared) or self.bad.bit_count() < _FEWEST:
                continue
            case = (region & -region).bit_length() - 1
            value, wanted = number_at(self.got, case), number_at(self.expected, case)
            if not region & ~self._equals(self.got, value) and region & ~self._equals(self.expected, wanted):
                shown = self.port.show((value, ~value & (1 << self.port.width) - 1))
                text = self._among(apart)
                if text:
                    yield WordSlip("constant-in", say("constant-in", output=self.port.name, value=shown, among=text))
                    return

    # Signs.

    def _sign(self) -> Iterator[WordSlip]:
        """Wrong just where it matters whether numbers have signs."""
        names = {n: w for n, w in self.inputs.items() if len(w) > 1}
        if self.port.width == 1:
            for a, b in self._pairs():
                if not self._is_just(names[a][-1] ^ names[b][-1], {a, b}):
                    continue
                region, among = self._region({a, b}), self._among({a, b})
                for wanted, came in product(self._orders(a, b, False).items(), self._orders(a, b, True).items()):
                    planes = {self.expected[0] & region, self.got[0] & region}
                    if (
                        among is not None
                        and wanted[0] == came[0]
                        and planes == {wanted[1][0] & region, came[1][0] & region}
                    ):
                        yield WordSlip("sign", say("signs", output=self.port.name, a=a, b=b, among=among))
            return
        for name, word in names.items():
            if len(word) >= self.port.width or not self._is_just(word[-1], {name}):
                continue
            low, among = len(word), self._among({name})
            if among is not None and not differ(self.expected[:low], self.got[:low]) & self.bad:
                yield WordSlip("sign", say("sign-lost", output=self.port.name, name=name, among=among))

    # Helpers.

    def _fit(self, name: str) -> Word:
        word = self.inputs[name][: self.port.width]
        return word + [0] * (self.port.width - len(word))

    def _pairs(self, narrowest: int = 2) -> Iterator[tuple[str, str]]:
        """Words of one width, two by two."""
        for a, b in combinations([n for n, w in self.inputs.items() if len(w) >= narrowest], 2):
            if len(self.inputs[a]) == len(self.inputs[b]):
                yield a, b

    def _equals(self, word: Word, value: int) -> int:
        return self.compared & ~differ(word, constant(value, len(word), self.compared))

    def _region(self, apart: set[str]) -> int:
        """The cases in which all other inputs are as in some wrong case: the same operation, say. 0 where these are too
        many to tell."""
        others = [p for name, w in self.inputs.items() if name not in apart for p in w]
        if len(others) > _MOST_CONTROL_BITS:
            return self.compared
        region, left = 0, self.bad
        while left:
            case = (left & -left).bit_length() - 1
            same = self.compared
            for plane in others:
                same &= plane if plane >> case & 1 else ~plane
            region |= same
            left &= ~same
        return region

    def _is_just(self, where: int, apart: set[str]) -> bool:
        """Whether it is wrong in these cases and in no others, as far as the operations go in which it is wrong at
        all."""
        region = self._region(apart)
        return bool(where & region) and self.bad == where & region and region != self.bad

    def _among(self, apart: set[str]) -> str | None:
        """`, with key = 1 and sel = 2`: just the cases of the region; empty where it is all, None where it cannot be
        said."""
        region = self._region(apart)
        if region == self.compared:
            return ""
        case = (region & -region).bit_length() - 1
        shown, holds = [], self.compared
        for p in self.expectation.spec.inputs:
            if p.name in apart:
                continue
            value = number_at(self.inputs[p.name], case)
            same = self._equals(self.inputs[p.name], value)
            if not region & ~same:
                shown.append(say("is", name=p.name, value=p.show((value, ~value & (1 << p.width) - 1))))
                holds &= same
        if holds == region:
            return say("with", when=every(shown))
        spec, cases = self.expectation.spec, self.expectation.cases
        words = failing_condition(spec, cases, region, cases.full & ~self.compared)
        return say("with", when=words) if words else None

    def _words(self) -> dict[str, Word]:
        """Words that a flag could be of: expected outputs, outputs as they came, inputs; and an output with a one-bit
        one above it."""
        words: dict[str, Word] = {}
        bits: dict[str, int] = {}
        for p in self.expectation.spec.outputs:
            if p.name == self.port.name:
                continue
            planes = [self.verdict.expected[p.name, i] for i in range(p.width)]
            if any(self.compared & ~(x.care & (x.one ^ x.zero)) for x in planes):
                continue
            if p.width == 1:
                bits[p.name] = planes[0].one & self.compared
            else:
                words[p.name] = [x.one & self.compared for x in planes]
        joined = {say("together", a=b, b=n): [*w, plane] for n, w in words.items() for b, plane in bits.items()}
        return words | {n: w for n, w in self.inputs.items() if len(w) > 1} | joined


def _is_zero(word: Word, full: int) -> int:
    out = full
    for p in word:
        out &= ~p
    return out


def _parity(word: Word, full: int) -> int:
    out = 0
    for p in word:
        out ^= p
    return out & full


def _is_full(word: Word, full: int) -> int:
    out = full
    for p in word:
        out &= p
    return out


_PROPERTIES: dict[str, Callable[[Word, int], int]] = {
    "is-zero": _is_zero,
    "is-full": _is_full,
    "is-not-full": lambda w, full: full & ~_is_full(w, full),
    "is-not-zero": lambda w, full: full & ~_is_zero(w, full),
    "is-negative": lambda w, full: w[-1] & full,
    "is-odd-parity": _parity,
    "is-odd": lambda w, full: w[0] & full,
}
