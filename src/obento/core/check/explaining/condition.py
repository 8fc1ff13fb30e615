"""The failing cases as the shortest condition on the inputs: a small sum of products.

On up to `_EXACT_BITS` inputs bits all prime implicants are found (Quine 1955, McCluskey 1956) and covered greedily with
the essential ones first; beyond, single cubes are grown from failing cases, the largest first. Cases that were not run
or not compared are free: a product may cover them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import compress

from obento.core import values
from obento.core.check.explaining.relations import relation
from obento.core.covers import Cubes, Product, cover, exact_primes, grown_primes
from obento.core.planes import case_flags, set_bits, spelled
from obento.core.sentences.said import any_of, every, say
from obento.core.spec.cases import Cases
from obento.core.spec.model import Spec, SpecPort

ALWAYS = "always"
"""What is said of a condition that holds in every case."""

_EXACT_BITS = 8
_MOST_BITS = 16
_MOST_PRODUCTS = 6
_NARROW = 4
_WIDEST_BY_VALUE = 12
_CHANCE = 8
"""In so many classes of this kind one would be told a coincidence; two values for each input bit, each halving with
every failing case."""


def failing_condition(spec: Spec, cases: Cases, failing: int, free: int = 0) -> str:
    """In words, or empty when there is no short one.

    Parameters
    ----------
    failing, free
        Planes over the cases.
    """
    by_value = _by_value(spec, cases, failing)
    if by_value:
        return by_value
    products = products_of(spec, cases, failing, free)
    words = _sum_words(spec, products) if products else ""
    if len(products) == 1:
        return words
    other = _with_relation(spec, cases, failing, free)
    return other if other and (not words or len(other) < len(words)) else words


def one_product(spec: Spec, cases: Cases, failing: int, free: int = 0) -> str:
    """The failing cases as one product of inputs; empty where they are none, or all of them."""
    products = products_of(spec, cases, failing, free)
    return _words(spec, products[0]) if len(products) == 1 and products[0].care else ""


def _with_relation(spec: Spec, cases: Cases, failing: int, free: int) -> str:
    """`key = 1 and boat_clear differs from (level_eq and gate_shut)`: bits that are the same in all failing cases, and
    a relation that holds in just these among such cases."""
    right = cases.full & ~failing & ~free
    if not failing or not right or not cases.all_known:
        return ""
    words, _ = relation(spec, cases, failing, right)
    if words:
        return words
    same: dict[int, int] = {}  # of each such bit the right cases in which it is like that
    bits = [plane for port in _ports_first(spec, cases) for plane in port][::-1]
    for i, plane in enumerate(bits):
        if not failing & ~plane or not failing & plane:
            same[i] = right & (plane if failing & plane else plane ^ cases.full)
    left = right
    for kept in same.values():
        left &= kept
    words, holds = relation(spec, cases, failing, left) if same else ("", 0)
    if not words:
        return ""
    for i in list(same):  # what is not needed is not said
        others = right & holds
        for j, kept in same.items():
            others &= kept if j != i else cases.full
        if not others:
            del same[i]
    care = sum(1 << i for i in same)
    value = sum(1 << i for i in same if failing & bits[i])
    return every([*_literals(spec, Product(care, value)), words]) if care else words


def _ports_first(spec: Spec, cases: Cases) -> Iterator[list[int]]:
    """The planes of each input, its leftmost bit first."""
    first = 0
    for port in spec.inputs:
        yield [cases.one[first + i] for i in range(port.width - 1, -1, -1)]
        first += port.width


def _shared(products: Sequence[Product]) -> Product:
    """What all products have in common; nothing where there are none."""
    if not products:
        return Product(0, 0)
    care = products[0].care
    for p in products[1:]:
        care &= p.care & ~(p.value ^ products[0].value)
    return Product(care, products[0].value & care)


def necessary_condition(spec: Spec, cases: Cases, failing: int) -> tuple[str, int]:
    """What all failing cases have in common though not all such cases fail: values of one narrow input, else one bit of
    a wide one.

    Returns the words and how many cases they hold for; empty words when there is nothing of the kind, or when so few
    cases fail that some input is likely to be the same in all of them by chance."""
    best = ("", cases.count)
    if not cases.all_known or 1 << failing.bit_count() < _CHANCE * spec.input_bits:
        return best
    first = 0
    for port in spec.inputs:
        where = _value_planes(cases.one[first : first + port.width], cases.full) if port.width <= _NARROW else []
        first += port.width
        bad = [value for value, plane in enumerate(where) if plane & failing]
        words = _value_words(port, bad)
        holds = sum(where[value].bit_count() for value in bad)
        if words and holds < best[1]:
            best = words, holds
    if best[0]:
        return best
    first = 0
    for port in spec.inputs:
        for i in range(port.width):
            plane = cases.one[first + i]
            for value, holding in ((1, plane), (0, cases.full & ~plane)):
                if not failing & ~holding and holding.bit_count() < best[1]:
                    best = say("is", name=port.bit_word(i), value=value), holding.bit_count()
        first += port.width
    return best


def _value_planes(bits: Sequence[int], full: int) -> list[int]:
    """The cases in which a bus (bit 0 first) has the value 0, 1, 2, ..."""
    planes = [full]
    for bit in bits:
        planes = [p & ~bit for p in planes] + [p & bit for p in planes]
    return planes


def _sum_words(spec: Spec, products: list[Product]) -> str:
    """`key = 1 and (level_eq = 0 or gate_shut = 0)`: what all products share stands once."""
    if len(products) == 1:
        return _words(spec, products[0])
    shared = _shared(products)
    rests = [Product(p.care & ~shared.care, p.value & ~shared.care) for p in products]
    parts = [_literals(spec, p) for p in rests]
    either = any_of([say("grouped", part=every(part)) if len(part) > 1 else part[0] for part in parts])
    return every([*_literals(spec, shared), say("grouped", part=either)]) if shared.care else either


def _by_value(spec: Spec, cases: Cases, failing: int) -> str:
    """`depth = 5` or `depth from 3 to 6`, where the failing cases are all those with certain values of one bus."""
    if not cases.all_known:
        return ""
    first = 0
    right = cases.full & ~failing
    for port in spec.inputs:
        planes = cases.one[first : first + port.width]
        first += port.width
        if failing and right and 1 < port.width <= _WIDEST_BY_VALUE:
            bad = _values_apart(planes, failing, right)
            if bad:
                return _value_words(port, bad)
    return ""


def _values_apart(bits: Sequence[int], failing: int, right: int) -> list[int]:
    """The values of a bus (bit 0 first) in the failing cases, in order; empty where one of them stands in a right case
    too, or where they are in too many runs to be said."""
    found: list[int] = []
    runs = 0

    def split(i: int, value: int, failing: int, right: int) -> bool:
        nonlocal runs
        if not failing:
            return True
        if i < 0:
            runs += not found or found[-1] + 1 != value
            found.append(value)
            return not right and runs <= _MOST_PRODUCTS
        bit = bits[i]
        return split(i - 1, value, failing & ~bit, right & ~bit) and split(
            i - 1, value | 1 << i, failing & bit, right & bit
        )

    return found if split(len(bits) - 1, 0, failing, right) else []


def _value_words(port: SpecPort, bad: list[int]) -> str:
    """Words of a bus in order, as values and runs of values; what stands there as a number below 0 comes before 0."""
    full = values.ones(port.width)
    first = 0
    if port.signed and port.radix == "dec":
        first = 1 << (port.width - 1)
        bad = sorted(bad, key=lambda word: word ^ first)
    last = first - 1 & full
    runs: list[tuple[int, int]] = []
    for value in bad:
        if runs and value == runs[-1][1] + 1 & full:
            runs[-1] = (runs[-1][0], value)
        else:
            runs.append((value, value))
    if not runs or len(runs) > _MOST_PRODUCTS:
        return ""

    def show(value: int) -> str:
        return port.show((value, value ^ full))

    (low, high) = runs[0]
    if len(runs) == 1 and low != high and (not port.signed or port.radix == "dec"):
        if first and (low, high) in ((first, full), (0, last)):
            return say("negative" if high == full else "not-negative", name=port.name)
        if (low, high) in ((first + 1 & full, last), (first, last - 1 & full)):
            return say("differs", a=port.name, b=show(first if high == last else last))
        if high == last:
            return say("at-least", a=port.name, b=show(low))
        if low == first:
            return say("at-most", a=port.name, b=show(high))
    parts = [show(a) if a == b else say("from-to", low=show(a), high=show(b)) for a, b in runs]
    return say("one-of", name=port.name, values=parts)


def products_of(spec: Spec, cases: Cases, failing: int, free: int = 0) -> list[Product]:
    """The products; empty when there are too many inputs or too many products to be of use."""
    bits = spec.input_bits
    if not failing or bits > _MOST_BITS or not cases.all_known:
        return []
    planes = [plane for port in _ports_first(spec, cases) for plane in port]
    right = cases.full & ~failing & ~free
    if not right:
        return [Product(0, 0)]
    cubes = Cubes(bits)
    if cubes.are_in_order(planes, cases.count):
        on_table, off_table = failing, right
    else:
        points = spelled(planes, cases.count)
        on_table, off_table = (cubes.table(compress(points, case_flags(p, cases.count))) for p in (failing, right))
    if bits <= _EXACT_BITS:
        primes = exact_primes(set(set_bits(on_table)), set(set_bits(off_table)), bits)
    else:
        primes = grown_primes(cubes, on_table, off_table, _MOST_PRODUCTS)
    chosen = cover(cubes, on_table, primes)
    return chosen if len(chosen) <= _MOST_PRODUCTS else []


def _words(spec: Spec, product: Product) -> str:
    """`key = 1 and level_eq = 0`."""
    return every(_literals(spec, product)) if product.care else say(ALWAYS)


def _literals(spec: Spec, product: Product) -> list[str]:
    """`key = 1`, `level_eq = 0`; a bus with every bit fixed as one value."""
    parts: list[str] = []
    low = spec.input_bits
    for port in spec.inputs:
        low -= port.width
        full = (1 << port.width) - 1
        care, value = product.care >> low & full, product.value >> low & full
        if care == full:
            parts.append(say("is", name=port.name, value=port.show((value, value ^ full))))
            continue
        for i in range(port.width - 1, -1, -1):
            if care >> i & 1:
                parts.append(say("is", name=port.bit_word(i), value=value >> i & 1))
    return parts
