"""The kind of slip that explains all wrong cases of an output at once: inverted, exchanged, reversed, stuck, deaf to an
input.

Each is proven on every compared case before it is said: with the slip undone, or under it, the hand-in agrees with what
is expected wherever something is compared. What fits only some cases is not said."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from itertools import combinations

from obento.core.check.expectation.model import Expectation, Planes
from obento.core.check.explaining.word_slips import WORD_SLIPS, find_word_slips
from obento.core.check.judging.verdict import Verdict
from obento.core.planes import count_plane, plane_digits
from obento.core.sentences.said import say
from obento.core.spec.cases import match_plane
from obento.core.spec.model import SpecPort

SLIPS = (
    frozenset(["exchanged-inputs", "exchanged-outputs", "constant", "inverted", "reversed", "ignores", "dont-care"])
    | WORD_SLIPS
)
"""All kinds of slips."""

_MOST_PAIRS = 120
_FEWEST_CASES = 4


@dataclass(frozen=True, slots=True)
class Slip:
    """`kind` is a stable name, `text` the sentence, `output` the output it is about (empty: several)."""

    kind: str
    text: str
    output: str


def find_slips(expectation: Expectation, verdict: Verdict, adds: bool = False) -> list[Slip]:
    """All slips that explain everything wrong with an output, or with several at once. None where memory is
    involved.

    Parameters
    ----------
    adds
        Whether the spec or the hand-in adds or subtracts: else nothing is said of carries.
    """
    if verdict.count < _FEWEST_CASES or verdict.stopped or any(name != "fresh" for name, _ in verdict.failing_runs):
        return []
    return _Search(expectation, verdict, adds).slips()


class _Search:
    """One hand-in's outputs beside what is expected of them."""

    def __init__(self, expectation: Expectation, verdict: Verdict, adds: bool) -> None:
        self._e = expectation
        self._adds = adds
        self._verdict = verdict
        self._shown = verdict.shown
        self._bits = expectation.bits
        self._cases = expectation.cases
        self._ports = {p.name: p for p in expectation.spec.outputs}
        self._wrong = [name for name, o in verdict.outputs.items() if o.failed or o.undefined]
        self._digit: dict[int, int] = {}
        """Of each input bit the digit that it is of a case's number, where all combinations are there."""
        self._places: list[int] | None = None
        """Of each number the case that has it, where the cases do not stand in counting order."""
        if self._cases.all_known and self._cases.count == 1 << len(self._cases.one):
            self._number_cases()

    def _number_cases(self) -> None:
        """The combinations in counting order, first port slowest, whatever order they are listed in."""
        cases = self._cases
        low, first = len(cases.one), 0
        for port in self._e.spec.inputs:
            low -= port.width
            self._digit |= {first + i: low + i for i in range(port.width)}
            first += port.width
        if all(cases.one[plane] == count_plane(digit, cases.count) for plane, digit in self._digit.items()):
            return
        columns = [
            plane_digits(cases.one[plane], cases.count) for plane in sorted(self._digit, key=lambda p: -self._digit[p])
        ]
        numbers = [int("".join(digits), 2) for digits in zip(*columns, strict=True)]
        self._places = sorted(range(cases.count), key=numbers.__getitem__)
        self._shown = {key: (self._in_order(one), self._in_order(zero)) for key, (one, zero) in self._shown.items()}
        self._bits = {
            key: Planes(self._in_order(b.one), self._in_order(b.zero), self._in_order(b.care))
            for key, b in self._e.bits.items()
        }

    def _in_order(self, plane: int) -> int:
        """A plane over the cases as one over their numbers."""
        assert self._places is not None
        digits = plane_digits(plane, self._cases.count)
        return int("".join([digits[case] for case in reversed(self._places)]), 2)

    def slips(self) -> list[Slip]:
        found: list[Slip] = []
        exchanged = self._exchanged_inputs()
        if exchanged:
            return [exchanged]
        told: set[str] = set()
        for a, b in combinations(self._wrong, 2):
            if not {a, b} & told and self._exchanged_outputs(a, b):
                told |= {a, b}
                found.append(Slip("exchanged-outputs", say("exchanged-outputs", a=a, b=b), a))
        for name in self._wrong:
            if name not in told:
                found += self._of_one(name)
        return found or self._dont_cares()

    def _dont_cares(self) -> list[Slip]:
        """Right where every `-` on the left of the table is read as 0, and wrong only where one of them is 1."""
        bad = 0
        for o in self._verdict.outputs.values():
            bad |= o.failed | o.undefined
        with_one = 0
        is_whole_row = False
        for row in self._e.spec.table or ():
            plane = match_plane(row, self._e.spec, self._cases)
            ones_, bit = 0, 0
            for port, cell in zip(self._e.spec.inputs, row.inputs, strict=True):
                for i in range(port.width):
                    if not cell.care >> i & 1:
                        ones_ |= self._cases.one[bit + i]
                bit += port.width
            with_one |= plane & ones_
            is_whole_row = is_whole_row or (bool(plane & ones_) and not plane & ones_ & ~bad)
        if not bad or bad & ~with_one or not is_whole_row:
            return []
        return [Slip("dont-care", say("dont-care"), "")]

    # One output.

    def _of_one(self, name: str) -> list[Slip]:
        port = self._ports[name]
        stuck = self._constant(port)
        if stuck is not None:
            return [Slip("constant", say("constant", output=name, value=stuck), name)]
        if self._is(port, lambda i: self._inverse(name, i)):
            return [Slip("inverted", say("inverted" if port.width == 1 else "inverted-word", output=name), name)]
        if port.width > 1 and self._is(port, lambda i: self._shown[name, port.width - 1 - i]):
            return [Slip("reversed", say("reversed", output=name), name)]
        deaf = self._ignored(port)
        if deaf:
            return [Slip("ignores", say("ignores", output=name, names=deaf), name)]
        return [Slip(s.kind, s.text, name) for s in find_word_slips(self._e, self._verdict, port, self._adds)]

    def _expected(self, name: str, i: int) -> Planes:
        return self._bits[name, i]

    def _inverse(self, name: str, i: int) -> tuple[int, int]:
        one, zero = self._shown[name, i]
        return zero, one

    def _is(self, port: SpecPort, got: Callable[[int], tuple[int, int]]) -> bool:
        """Whether an output would be right everywhere if its bits were those that `got` gives."""
        return all(self._matches(got(i), self._expected(port.name, i)) for i in range(port.width))

    @staticmethod
    def _matches(got: tuple[int, int], expected: Planes) -> bool:
        return not ((got[0] ^ expected.one) | (got[1] ^ expected.zero)) & expected.care

    def _constant(self, port: SpecPort) -> str | None:
        """The value that an output has in every compared case, where more than one is expected."""
        one = zero = 0
        varies = False
        for i in range(port.width):
            expected = self._expected(port.name, i)
            got = self._shown[port.name, i]
            care = expected.care
            if not care or (got[0] & care, got[1] & care) not in ((care, 0), (0, care)):
                return None
            one |= bool(got[0] & care) << i
            zero |= bool(got[1] & care) << i
            varies = varies or (bool(expected.one & care) and bool(expected.zero & care))
        return port.show((one, zero)) if varies else None

    # Inputs.

    def _flipped(self, plane: int, digit: int) -> int:
        """A plane over the neighbours: of each case the one with this digit of its number turned."""
        set_ = count_plane(digit, self._cases.count)
        return (plane & set_) >> (1 << digit) | (plane & ~set_) << (1 << digit)

    def _ignored(self, port: SpecPort) -> list[str]:
        """Inputs whose turning never changes the output although it should; all combinations are needed to tell."""
        unknown = (
            ~(self._shown[port.name, i][0] ^ self._shown[port.name, i][1]) & self._expected(port.name, i).care
            for i in range(port.width)
        )
        if not self._digit or any(unknown):
            return []
        names: list[str] = []
        first = 0
        for given in self._e.spec.inputs:
            digits = [self._digit[first + i] for i in range(given.width)]
            first += given.width
            if not any(self._turns(port, d, actual=True) for d in digits) and any(
                self._turns(port, d, actual=False) for d in digits
            ):
                names.append(given.name)
        return names

    def _turns(self, port: SpecPort, digit: int, actual: bool) -> bool:
        """Whether turning an input digit changes the output in any case, or should in one compared on both sides."""
        for i in range(port.width):
            expected = self._expected(port.name, i)
            both = self._cases.full if actual else expected.care & self._flipped(expected.care, digit)
            one, zero = self._shown[port.name, i] if actual else (expected.one, expected.zero)
            if ((one ^ self._flipped(one, digit)) | (zero ^ self._flipped(zero, digit))) & both:
                return True
        return False

    def _swapped(self, plane: int, low: int, high: int) -> int:
        """A plane over the cases with two digits of their numbers exchanged."""
        low, high = min(low, high), max(low, high)
        here = count_plane(low, self._cases.count) & ~count_plane(high, self._cases.count)
        step = (1 << high) - (1 << low)
        return plane & ~(here | here << step) | (plane & here) << step | (plane >> step) & here

    def _exchanged_inputs(self) -> Slip | None:
        """Two inputs of one width that, taken for each other, explain everything that is wrong."""
        if not self._digit or not self._wrong:
            return None
        starts: list[tuple[SpecPort, int]] = []
        first = 0
        for given in self._e.spec.inputs:
            starts.append((given, first))
            first += given.width
        pairs = [(a, b) for a, b in combinations(starts, 2) if a[0].width == b[0].width][:_MOST_PAIRS]
        for (a, at_a), (b, at_b) in pairs:
            digits = [(self._digit[at_a + i], self._digit[at_b + i]) for i in range(a.width)]
            if all(self._explained(name, digits) for name in self._ports):
                return Slip(
                    "exchanged-inputs",
                    say("exchanged-inputs", a=a.name, b=b.name),
                    self._wrong[0],
                )
        return None

    def _explained(self, name: str, digits: list[tuple[int, int]]) -> bool:
        for i in range(self._ports[name].width):
            one, zero = self._shown[name, i]
            for low, high in digits:
                one, zero = self._swapped(one, low, high), self._swapped(zero, low, high)
            if not self._matches((one, zero), self._expected(name, i)):
                return False
        return True

    def _exchanged_outputs(self, a: str, b: str) -> bool:
        if self._ports[a].width != self._ports[b].width:
            return False
        return self._is(self._ports[b], lambda i: self._shown[a, i]) and self._is(
            self._ports[a], lambda i: self._shown[b, i]
        )
