"""A function of the spec as a circuit of two levels, of NAND alone, of NOR alone; with what was done said step by step.

The products are those of `covers`: all primes, the essential ones first. Combinations that the spec says nothing of
are free. A form is given out only where it was run over all cases and found right by whoever asks."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from obento.core.board.gates import Gate, Plain, Tree, negated, with_only, written
from obento.core.board.heading import heading
from obento.core.check.expectation.model import Expectation
from obento.core.covers import Cubes, Product, cover, exact_primes, grown_primes
from obento.core.planes import set_bits, spelled
from obento.core.spec.model import Spec, SpecPort
from obento.core.words import counted

Form = Literal["two-level", "nand", "nor"]
FORMS: dict[Form, tuple[str, ...]] = {"two-level": (), "nand": ("nand",), "nor": ("nor",)}
_RULE = {
    "nand": "inverted twice, the sum of products is NAND of NANDs",
    "nor": "the products are those of the zeros; inverted, each a NOR of inverted inputs, it is NOR of NORs",
}
_EXACT_BITS = 8
_MOST_BITS = 12
_MOST_PRODUCTS = 200


class NoForm(Exception):
    """There is none: a sentence says why."""


@dataclass(frozen=True, slots=True)
class Formed:
    """A wiring list, and how it came about, sentence by sentence."""

    text: str
    steps: list[str]


def form_of(expectation: Expectation, form: Form) -> Formed:
    """The expected function as a circuit.

    Raises
    ------
    NoForm
        It remembers, has too many inputs, or is not expected in known cases.
    """
    spec = expectation.spec
    if expectation.cases.stimulus is not None or spec.clock is not None:
        raise NoForm("what remembers has no such form")
    if spec.input_bits > _MOST_BITS:
        raise NoForm(f"{spec.input_bits} input bits are more than {_MOST_BITS}: state it in parts")
    if not expectation.cases.all_known:
        raise NoForm("some cases have inputs that are unknown")
    lines, steps = list[str](), list[str]()
    for port, bit in _outputs(spec):
        name = port.bit_word(bit) if port.width > 1 else port.name
        tree, said = _one_output(expectation, port.name, bit, name, form)
        steps += said
        lines.append(f"  {name} <- {with_only(tree, FORMS[form]) if FORMS[form] else written(tree)}")
    return Formed("\n".join([*heading(spec), *lines, "end", ""]), steps)


def _outputs(spec: Spec) -> Iterator[tuple[SpecPort, int]]:
    for port in spec.outputs:
        for bit in range(port.width - 1, -1, -1):
            yield port, bit


def _one_output(expectation: Expectation, port: str, bit: int, name: str, form: Form) -> tuple[Tree, list[str]]:
    spec, cases = expectation.spec, expectation.cases
    wanted = expectation.bits[port, bit]
    points = spelled([plane for p in _ports_first(expectation) for plane in p], cases.count)
    ones = {points[i] for i in set_bits(wanted.one & wanted.care)}
    zeros = {points[i] for i in set_bits(wanted.zero & wanted.care)}
    if ones & zeros or (not ones and not zeros):
        raise NoForm(f"what `{name}` should be is not said by its inputs alone")
    free = (1 << spec.input_bits) - len(ones) - len(zeros)
    open_ones = f", {free} are free" if free else ""
    steps = [f"`{name}` is 1 in {len(ones)} of {1 << spec.input_bits} combinations of the inputs{open_ones}"]
    if not ones or not zeros:
        return Plain("1" if ones else "0"), steps
    of_zeros = form == "nor"
    on, off = (zeros, ones) if of_zeros else (ones, zeros)
    products = _products(on, off, spec.input_bits)
    literals = [_literals(spec, p) for p in products]
    which = "zeros" if of_zeros else "ones"
    steps.append(f"its {which} are covered by {counted(len(products), 'product')}")
    tree = _sum([_all_of(one) for one in literals])
    if of_zeros:
        tree = negated(tree)
    steps.append(f"as a sum of products: `{name} = {written(tree)}`")
    if FORMS[form]:
        steps.append(_RULE[form])
    return tree, steps


def _products(on: set[int], off: set[int], bits: int) -> Sequence[Product]:
    cubes = Cubes(bits)
    on_table, off_table = cubes.table(on), cubes.table(off)
    exact = bits <= _EXACT_BITS
    primes = exact_primes(on, off, bits) if exact else grown_primes(cubes, on_table, off_table, _MOST_PRODUCTS)
    found = cover(cubes, on_table, primes)
    if not found:
        raise NoForm(f"it would need more than {_MOST_PRODUCTS} products")
    return found


def _ports_first(expectation: Expectation) -> Iterator[list[int]]:
    """The planes of each input, leftmost digit first."""
    planes = iter(expectation.cases.one)
    for port in expectation.spec.inputs:
        yield [next(planes) for _ in range(port.width)][::-1]


def _literals(spec: Spec, product: Product) -> list[Tree]:
    found: list[Tree] = []
    low = spec.input_bits
    for port in spec.inputs:
        low -= port.width
        for i in range(port.width - 1, -1, -1):
            if product.care >> low + i & 1:
                wire = Plain(port.bit_word(i) if port.width > 1 else port.name)
                found.append(wire if product.value >> low + i & 1 else negated(wire))
    return found


def _all_of(literals: list[Tree]) -> Tree:
    return literals[0] if len(literals) == 1 else Gate("and", tuple(literals))


def _sum(products: list[Tree]) -> Tree:
    return products[0] if len(products) == 1 else Gate("or", tuple(products))
