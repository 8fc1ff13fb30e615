"""Four-state operators digit by digit on a graph: what `values` says of words, said of lanes.

A `Bit` is a pair of literals `(one, zero)` with the meaning of `values`. A bit whose `zero` is the inverse of its `one`
is known in every lane; on such bits each operator costs what it costs in two-state logic. Words are lists, bit 0 first.
"""

from __future__ import annotations

from obento.core.sim.lanes.graph import FALSE, TRUE, Graph

Bit = tuple[int, int]
BitWord = list[Bit]

X: Bit = (FALSE, FALSE)
ZERO: Bit = (FALSE, TRUE)
ONE: Bit = (TRUE, FALSE)


class Unfit(Exception):
    """This construct cannot run in lanes; the design goes to the timeline, case by case."""


class BitOps:
    """Operators over one graph. With `may_float` false no signal ever holds z, which saves the conversions.

    Where it may, the bits that operators put out are remembered as never z: a pair of literals stands for the same two
    functions wherever it is met, so what is true of it once is true of it always.
    """

    def __init__(self, graph: Graph, may_float: bool) -> None:
        self.g = graph
        self.may_float = may_float
        self._logic: set[Bit] = set()

    def never_z(self, bit: Bit) -> Bit:
        """The same bit, remembered as one that is never z."""
        if self.may_float:
            self._logic.add(bit)
        return bit

    def known(self, bit: Bit) -> int:
        """Where a bit is 0 or 1."""
        return TRUE if bit[0] ^ bit[1] == 1 else self.g.xor(bit[0], bit[1])

    def floats(self, bit: Bit) -> int:
        """Where a bit is z."""
        one, zero = bit
        if one ^ zero == 1:
            return FALSE
        if one < 2 and zero < 2:
            return one & zero
        if not self.may_float or bit in self._logic:
            return FALSE
        return self.g.and_(one, zero)

    def logic(self, bit: Bit) -> Bit:
        """z read as a logic value is x."""
        z = self.floats(bit)
        if z == FALSE:
            return bit
        return self.never_z((self.g.and_(bit[0], z ^ 1), self.g.and_(bit[1], z ^ 1)))

    def flag(self, literal: int) -> Bit:
        """A digit that is 1 where a literal is true, else 0."""
        return literal, literal ^ 1

    def and_(self, a: Bit, b: Bit) -> Bit:
        """1364 table 5-11, digit by digit."""
        if a[0] ^ a[1] == 1 and b[0] ^ b[1] == 1:
            one = self.g.and_(a[0], b[0])
            return one, one ^ 1
        a, b = self.logic(a), self.logic(b)
        return self.never_z((self.g.and_(a[0], b[0]), self.g.or_(a[1], b[1])))

    def not_(self, a: Bit) -> Bit:
        """1364 table 5-15, digit by digit."""
        if a[0] ^ a[1] == 1:
            return a[1], a[0]
        a = self.logic(a)
        return self.never_z((a[1], a[0]))

    def or_(self, a: Bit, b: Bit) -> Bit:
        """1364 table 5-12, digit by digit."""
        if a[0] ^ a[1] == 1 and b[0] ^ b[1] == 1:
            one = self.g.or_(a[0], b[0])
            return one, one ^ 1
        return self.not_(self.and_(self.not_(a), self.not_(b)))

    def xor(self, a: Bit, b: Bit) -> Bit:
        """1364 table 5-13, digit by digit."""
        g = self.g
        if a[0] ^ a[1] == 1 and b[0] ^ b[1] == 1:
            one = g.xor(a[0], b[0])
            return one, one ^ 1
        a, b = self.logic(a), self.logic(b)
        one = g.or_(g.and_(a[0], b[1]), g.and_(a[1], b[0]))
        return self.never_z((one, g.or_(g.and_(a[0], b[0]), g.and_(a[1], b[1]))))

    def choose(self, c: int, a: Bit, b: Bit) -> Bit:
        """`a` in the lanes of literal `c`, else `b`; nothing is converted."""
        one = self.g.mux(c, a[0], b[0])
        if a[0] ^ a[1] == 1 and b[0] ^ b[1] == 1:
            return one, one ^ 1
        return one, self.g.mux(c, a[1], b[1])

    def merge(self, truth: Bit, a: Bit, b: Bit) -> Bit:
        """The operator `?:` (5.1.13)."""
        if truth[0] ^ truth[1] == 1:
            return self.choose(truth[0], a, b)
        g = self.g
        la, lb = self.logic(a), self.logic(b)
        unknown: Bit = (g.and_(la[0], lb[0]), g.and_(la[1], lb[1]))
        return self.choose(truth[0], a, self.choose(truth[1], b, unknown))

    def resolve(self, a: Bit, b: Bit) -> Bit:
        """Two drivers of equal strength on one wire."""
        g = self.g
        za, zb = self.floats(a), self.floats(b)
        same: Bit = (g.and_(a[0], b[0]), g.and_(a[1], b[1]))
        return self.choose(za, b, self.choose(zb, a, same))

    def resolved(self, levels: list[list[tuple[Bit, Bit]]]) -> Bit:
        """One digit of a wire under drivers of several strengths, the strongest first.

        Of each driver its value, and what it might be instead of floating (see `nodes.Resolve`). Kept are three
        literals: the wire may be 0, may be 1, may float. It is 1 where it may be nothing else, and so on."""
        g = self.g
        may0, may1, may_float = FALSE, FALSE, TRUE
        for level in levels:
            zero, one, floating = FALSE, FALSE, TRUE
            for value, might in level:
                unsure = self.floats(might) ^ 1
                seen = self.choose(unsure, might, value)
                rests = self.floats(seen)
                zero = g.or_(zero, g.and_(rests ^ 1, seen[0] ^ 1))
                one = g.or_(one, g.and_(rests ^ 1, seen[1] ^ 1))
                floating = g.and_(floating, g.or_(rests, unsure))
            may0 = g.or_(may0, g.and_(may_float, zero))
            may1 = g.or_(may1, g.and_(may_float, one))
            may_float = g.and_(may_float, floating)
        return g.and_(may0 ^ 1, g.or_(may_float ^ 1, may1 ^ 1)), g.and_(may1 ^ 1, g.or_(may_float ^ 1, may0 ^ 1))

    def wired_and(self, a: Bit, b: Bit) -> Bit:
        """Two drivers on a wand (1364 table 7-2): z yields, else the AND."""
        return self._wired(a, b, self.and_(a, b))

    def wired_or(self, a: Bit, b: Bit) -> Bit:
        """Two drivers on a wor (1364 table 7-3): z yields, else the OR."""
        return self._wired(a, b, self.or_(a, b))

    def _wired(self, a: Bit, b: Bit, both: Bit) -> Bit:
        return self.choose(self.floats(a), b, self.choose(self.floats(b), a, both))

    def truth(self, word: BitWord) -> Bit:
        """Whether a word is true: 1 where any digit is 1, 0 where all are 0, else x."""
        result = ZERO
        for bit in word:
            result = self.or_(result, bit)
        return result

    def is_true(self, word: BitWord) -> int:
        """Where a condition holds: the literal of "known to be 1"."""
        return self.truth(word)[0]

    def all_known(self, *words: BitWord) -> int:
        """Whether every digit of some words is 0 or 1."""
        return self.g.all_of(self.known(bit) for word in words for bit in word)

    def guarded(self, literals: list[int], known: int) -> BitWord:
        """Two-state results, x where the operands were not all known."""
        if known == TRUE:
            return [(n, n ^ 1) for n in literals]
        g = self.g
        return [(g.and_(n, known), g.and_(n ^ 1, known)) for n in literals]

    # Two-state arithmetic on literals, bit 0 first.

    def add(self, a: list[int], b: list[int], carry: int = FALSE) -> tuple[list[int], int]:
        """Sum of two-state words, lowest digit first; what is carried out is lost."""
        g = self.g
        total = []
        for x, y in zip(a, b, strict=True):
            p = g.xor(x, y)
            total.append(g.xor(p, carry))
            carry = g.or_(g.and_(x, y), g.and_(p, carry))
        return total, carry

    def negate(self, a: list[int]) -> list[int]:
        """Two's complement of a two-state word."""
        return self.add([x ^ 1 for x in a], [FALSE] * len(a), TRUE)[0]

    def multiply(self, a: list[int], b: list[int]) -> list[int]:
        """Product of two-state words, as wide as each."""
        g = self.g
        width = len(a)
        total = [FALSE] * width
        for i, y in enumerate(b):
            if y == FALSE:
                continue
            row = [g.and_(x, y) for x in a[: width - i]]
            high, _ = self.add(total[i:], row)
            total = total[:i] + high
        return total

    def less(self, a: list[int], b: list[int]) -> int:
        """Where a < b, both unsigned."""
        _, carry = self.add(a, [y ^ 1 for y in b], TRUE)
        return carry ^ 1

    def divide(self, a: list[int], b: list[int]) -> tuple[list[int], list[int]]:
        """Quotient and remainder of unsigned numbers; meaningless where b is 0.

        Digit by digit; what is left is always less than `b` and never more than `a`, so that zeros in front of either
        cost nothing."""
        width, size, most = len(a), _significant(b), _significant(a)
        rest = [FALSE] * (size + 1)
        divisor = [*b[:size], FALSE]
        quotient = [FALSE] * width
        for i in range(most - 1, -1, -1):
            rest = [a[i], *rest[:-1]]
            difference, fits = self.add(rest, [y ^ 1 for y in divisor], TRUE)
            quotient[i] = fits
            rest = [self.g.mux(fits, d, r) for d, r in zip(difference, rest, strict=True)]
        known = min(size, most)
        return quotient, rest[:known] + [FALSE] * (width - known)

    def signed_divide(self, a: list[int], b: list[int]) -> tuple[list[int], list[int]]:
        """Quotient towards zero; the remainder has the sign of `a` (5.1.5)."""
        g = self.g
        sa, sb = a[-1], b[-1]
        mag_a = [g.mux(sa, n, x) for n, x in zip(self.negate(a), a, strict=True)]
        mag_b = [g.mux(sb, n, x) for n, x in zip(self.negate(b), b, strict=True)]
        q, r = self.divide(mag_a, mag_b)
        sign = g.xor(sa, sb)
        quotient = [g.mux(sign, n, x) for n, x in zip(self.negate(q), q, strict=True)]
        rest = [g.mux(sa, n, x) for n, x in zip(self.negate(r), r, strict=True)]
        return quotient, rest

    # Comparisons giving one bit.

    def equal(self, a: BitWord, b: BitWord) -> Bit:
        """`==`: x where an unknown digit keeps it from being told."""
        differs = ZERO
        for x, y in zip(a, b, strict=True):
            differs = self.or_(differs, self.xor(x, y))
        return self.not_(differs)

    def identical(self, a: BitWord, b: BitWord) -> int:
        """Where two words agree digit for digit, x and z included."""
        g = self.g
        result = TRUE
        for x, y in zip(a, b, strict=True):
            result = g.and_(result, g.xor(x[0], y[0]) ^ 1)
            if x[0] ^ x[1] != 1 or y[0] ^ y[1] != 1:
                result = g.and_(result, g.xor(x[1], y[1]) ^ 1)
        return result

    def matches_casez(self, a: BitWord, b: BitWord) -> int:
        """Whether words match where z on either side matches anything (9.5.1)."""
        g = self.g
        result = TRUE
        for x, y in zip(a, b, strict=True):
            wild = g.or_(self.floats(x), self.floats(y))
            result = g.and_(result, g.or_(wild, self.identical([x], [y]))) if wild != TRUE else result
        return result

    def matches_casex(self, a: BitWord, b: BitWord) -> int:
        """Whether words match where x and z on either side match anything (9.5.1)."""
        g = self.g
        result = TRUE
        for x, y in zip(a, b, strict=True):
            care = g.and_(self.known(x), self.known(y))
            result = g.and_(result, g.or_(care ^ 1, g.xor(x[0], y[0]) ^ 1))
        return result


def _significant(number: list[int]) -> int:
    """How many digits a number has without the zeros in front."""
    size = len(number)
    while size and number[size - 1] == FALSE:
        size -= 1
    return size
