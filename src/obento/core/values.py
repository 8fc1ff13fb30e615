"""Four-state words and the operators on them, exactly as IEEE 1364-2005 clause 5.1 has them.

A word is a pair of whole numbers `(one, zero)`, one bit of each per digit: 1 is (1, 0), 0 is (0, 1), x is (0, 0) and
z is (1, 1). Widths travel beside the words. Operators that demand logic values read z as x. Arithmetic and relational
operators on a word with any unknown digit give x throughout (5.1.5, 5.1.7).
"""

from __future__ import annotations

from collections.abc import Callable

Word = tuple[int, int]

X1: Word = (0, 0)
ZERO1: Word = (0, 1)
ONE1: Word = (1, 0)


def ones(width: int) -> int:
    """The number with so many digits, all 1."""
    return (1 << width) - 1


def word(value: int, width: int) -> Word:
    """A known word holding `value` modulo 2**width."""
    full = ones(width)
    return value & full, ~value & full


def unknown(width: int) -> Word:
    """A word of x."""
    return 0, 0


def floating(width: int) -> Word:
    """A word of z."""
    full = ones(width)
    return full, full


def is_known(a: Word, width: int) -> bool:
    """Whether every digit is 0 or 1."""
    return a[0] ^ a[1] == ones(width)


def signed_value(value: int, width: int) -> int:
    """A number in two's complement."""
    return value - (1 << width) if width and value >> (width - 1) & 1 else value


def no_z(a: Word) -> Word:
    """z read as a logic value is x."""
    both = a[0] & a[1]
    return a[0] ^ both, a[1] ^ both


def from_digits(digits: str) -> Word:
    """A word from digits 0 1 x z, leftmost the most significant."""
    one = zero = 0
    for d in digits:
        one = one << 1 | (d in "1z")
        zero = zero << 1 | (d in "0z")
    return one, zero


def to_digits(a: Word, width: int) -> str:
    """The digits 0 1 x z of a word, leftmost the most significant."""
    return "".join("x10z"[(a[0] >> i & 1) | (a[1] >> i & 1) << 1] for i in range(width - 1, -1, -1))


def bit(condition: bool) -> Word:
    """One digit for a condition."""
    return ONE1 if condition else ZERO1


# The operators below run for every event of a bench: each first tries the way without z or without unknown digits.


def v_not(a: Word, w: int) -> Word:
    """`~a`, table 5-15."""
    one, zero = a
    if one & zero:
        one, zero = no_z(a)
    return zero, one


def v_neg(a: Word, w: int) -> Word:
    """`-a`: x as a whole when a digit is unknown."""
    return word(-a[0], w) if is_known(a, w) else X1


def v_two(a: Word, w: int) -> Word:
    """What a two-state variable keeps of a value: x and z become 0 (1800 clause 6.3.1)."""
    one = a[0] & ~a[1]
    return one, ones(w) ^ one


def v_rand(a: Word, w: int) -> Word:
    """`&a`, table 5-17."""
    a = no_z(a)
    return bit(a[0] == ones(w)) if a[1] or a[0] == ones(w) else X1


def v_ror(a: Word, w: int) -> Word:
    """`|a`, table 5-18."""
    if a[0] & a[1]:
        a = no_z(a)
    return ONE1 if a[0] else (ZERO1 if a[1] == ones(w) else X1)


def v_rxor(a: Word, w: int) -> Word:
    """`^a`, table 5-19."""
    return bit(bool(a[0].bit_count() & 1)) if is_known(a, w) else X1


def v_lnot(a: Word, w: int) -> Word:
    """`!a`, clause 5.1.9."""
    truth = v_ror(a, w)
    return truth[1], truth[0]


def v_and(a: Word, b: Word, w: int) -> Word:
    """`a & b`, table 5-11."""
    a1, a0 = a
    b1, b0 = b
    if a1 & a0 or b1 & b0:
        (a1, a0), (b1, b0) = no_z(a), no_z(b)
    return a1 & b1, a0 | b0


def v_or(a: Word, b: Word, w: int) -> Word:
    """`a | b`, table 5-12."""
    a1, a0 = a
    b1, b0 = b
    if a1 & a0 or b1 & b0:
        (a1, a0), (b1, b0) = no_z(a), no_z(b)
    return a1 | b1, a0 & b0


def v_xor(a: Word, b: Word, w: int) -> Word:
    """`a ^ b`, table 5-13."""
    a1, a0 = a
    b1, b0 = b
    if a1 & a0 or b1 & b0:
        (a1, a0), (b1, b0) = no_z(a), no_z(b)
    return a1 & b0 | a0 & b1, a1 & b1 | a0 & b0


def v_resolve(a: Word, b: Word, w: int) -> Word:
    """Two drivers of equal strength on one wire (clause 7.10, table of `wire`): z yields, conflict is x."""
    za, zb = a[0] & a[1], b[0] & b[1]
    both = ones(w) & ~za & ~zb
    one = a[0] & b[0] & both | za & b[0] | zb & a[0]
    zero = a[1] & b[1] & both | za & b[1] | zb & a[1]
    return one, zero


def v_add(a: Word, b: Word, w: int) -> Word:
    """`a + b`: x as a whole when a digit is unknown."""
    full = (1 << w) - 1
    if a[0] ^ a[1] == full == b[0] ^ b[1]:
        result = a[0] + b[0] & full
        return result, result ^ full
    return X1


def v_sub(a: Word, b: Word, w: int) -> Word:
    """`a - b`: x as a whole when a digit is unknown."""
    full = (1 << w) - 1
    if a[0] ^ a[1] == full == b[0] ^ b[1]:
        result = a[0] - b[0] & full
        return result, result ^ full
    return X1


def v_mul(a: Word, b: Word, w: int) -> Word:
    """`a * b`: x as a whole when a digit is unknown."""
    full = (1 << w) - 1
    if a[0] ^ a[1] == full == b[0] ^ b[1]:
        result = a[0] * b[0] & full
        return result, result ^ full
    return X1


def _divide(a: Word, b: Word, w: int, signed: bool, remainder: bool) -> Word:
    if not (is_known(a, w) and is_known(b, w)) or b[0] == 0:
        return X1  # 5.1.5: division by zero is x
    x, y = a[0], b[0]
    if signed:
        x, y = signed_value(x, w), signed_value(y, w)
    q = abs(x) // abs(y)
    if (x < 0) != (y < 0):
        q = -q
    return word(x - q * y if remainder else q, w)


def v_div(a: Word, b: Word, w: int) -> Word:
    """`a / b` without sign: x by zero."""
    return _divide(a, b, w, False, False)


def v_sdiv(a: Word, b: Word, w: int) -> Word:
    """`a / b` with sign, towards zero: x by zero."""
    return _divide(a, b, w, True, False)


def v_mod(a: Word, b: Word, w: int) -> Word:
    """`a % b` without sign: x by zero."""
    return _divide(a, b, w, False, True)


def v_smod(a: Word, b: Word, w: int) -> Word:
    """`a % b` with sign, that of `a`: x by zero."""
    return _divide(a, b, w, True, True)


def power(a: Word, wa: int, b: Word, wb: int, a_signed: bool, b_signed: bool) -> Word:
    """`a ** b` to the width of `a` (table 5-6 for negative exponents)."""
    if not (is_known(a, wa) and is_known(b, wb)):
        return X1
    x = signed_value(a[0], wa) if a_signed else a[0]
    y = signed_value(b[0], wb) if b_signed else b[0]
    if y >= 0:
        return word(pow(x, y, 1 << wa), wa)
    if x == 0:
        return X1
    if x == 1:
        return word(1, wa)
    if x == -1:
        return word(-1 if y & 1 else 1, wa)
    return word(0, wa)


def shift(op: str, a: Word, wa: int, b: Word, wb: int) -> Word:
    """shl, shr (filling zeros) and sar (filling the sign digit); an unknown amount gives x (5.1.12)."""
    if not is_known(b, wb):
        return X1
    n = min(b[0], wa)
    full = ones(wa)
    if op == "shl":
        return (a[0] << n) & full, ((a[1] << n) | ones(n)) & full
    fill = full ^ (full >> n)
    if op == "sar":
        top1, top0 = a[0] >> (wa - 1) & 1, a[1] >> (wa - 1) & 1
        return a[0] >> n | fill * top1, a[1] >> n | fill * top0
    return a[0] >> n, a[1] >> n | fill


def v_eq(a: Word, b: Word, w: int) -> Word:
    """Logical equality (5.1.8): x whenever a digit is unknown and the relation is ambiguous."""
    full = (1 << w) - 1
    if a[0] ^ a[1] == full == b[0] ^ b[1]:
        return ONE1 if a[0] == b[0] else ZERO1
    a, b = no_z(a), no_z(b)
    return ZERO1 if a[0] & b[1] | a[1] & b[0] else X1


def v_ne(a: Word, b: Word, w: int) -> Word:
    """`a != b`, clause 5.1.8."""
    r = v_eq(a, b, w)
    return r[1], r[0]


def v_ceq(a: Word, b: Word, w: int) -> Word:
    """`a === b`, clause 5.1.8."""
    return ONE1 if a == b else ZERO1


def v_casez(a: Word, b: Word, w: int) -> Word:
    """casez match: z on either side is a wildcard (9.5.1)."""
    care = ones(w) & ~(a[0] & a[1]) & ~(b[0] & b[1])
    return bit((a[0] & care, a[1] & care) == (b[0] & care, b[1] & care))


def v_casex(a: Word, b: Word, w: int) -> Word:
    """casex match: x and z on either side are wildcards (9.5.1)."""
    care = (a[0] ^ a[1]) & (b[0] ^ b[1])
    return bit(a[0] & care == b[0] & care)


def _relation(f: Callable[[int, int], bool], signed: bool) -> Callable[[Word, Word, int], Word]:
    def op(a: Word, b: Word, w: int) -> Word:
        if not (is_known(a, w) and is_known(b, w)):
            return X1
        if signed:
            return bit(f(signed_value(a[0], w), signed_value(b[0], w)))
        return bit(f(a[0], b[0]))

    return op


v_lt = _relation(lambda a, b: a < b, False)
v_le = _relation(lambda a, b: a <= b, False)
v_slt = _relation(lambda a, b: a < b, True)
v_sle = _relation(lambda a, b: a <= b, True)


def merge(a: Word, b: Word) -> Word:
    """The two branches of `?:` under an unknown condition: equal digits stay, the rest is x (5.1.13)."""
    a, b = no_z(a), no_z(b)
    return a[0] & b[0], a[1] & b[1]


def extend(a: Word, width: int, to: int, signed: bool) -> Word:
    """Widen by the sign digit (which may be x or z) or by zeros."""
    fill = ones(to) ^ ones(width)
    if signed and width:
        return a[0] | fill * (a[0] >> (width - 1) & 1), a[1] | fill * (a[1] >> (width - 1) & 1)
    return a[0], a[1] | fill


def select(a: Word, width: int, low: int, count: int) -> Word:
    """`count` digits from offset `low`; digits outside the word are x (5.2.1)."""
    if low >= 0:
        full = (1 << count) - 1
        return a[0] >> low & full, a[1] >> low & full
    return (a[0] << -low) & ones(count), (a[1] << -low) & ones(count)


UNARY: dict[str, Callable[[Word, int], Word]] = {
    "not": v_not, "neg": v_neg, "rand": v_rand, "ror": v_ror, "rxor": v_rxor, "lnot": v_lnot, "two": v_two,
}  # fmt: skip
"""Unary operators by name; the width given is the operand's."""

BINARY: dict[str, Callable[[Word, Word, int], Word]] = {
    "and": v_and, "or": v_or, "xor": v_xor, "resolve": v_resolve, "add": v_add, "sub": v_sub, "mul": v_mul,
    "div": v_div, "sdiv": v_sdiv, "mod": v_mod, "smod": v_smod, "eq": v_eq, "ne": v_ne, "ceq": v_ceq,
    "casez": v_casez, "casex": v_casex, "lt": v_lt, "le": v_le, "slt": v_slt, "sle": v_sle,
}  # fmt: skip
"""Binary operators on operands of one width; the width given is the operands'."""
