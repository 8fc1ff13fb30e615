"""Operators on words against tables written down from IEEE 1364-2005 clause 5.1, digit by digit."""

from __future__ import annotations

from itertools import product

import pytest

from obento.core import values as v
from obento.core.planes import count_plane
from obento.core.sim.lanes.bits import BitOps
from obento.core.sim.lanes.graph import Graph
from obento.core.sim.lanes.tape import Tape

DIGITS = "01xz"
AND = {
    "00": "0",
    "01": "0",
    "0x": "0",
    "0z": "0",
    "11": "1",
    "1x": "x",
    "1z": "x",
    "xx": "x",
    "xz": "x",
    "zz": "x",
}  # table 5-13
OR = {
    "00": "0",
    "01": "1",
    "0x": "x",
    "0z": "x",
    "11": "1",
    "1x": "1",
    "1z": "1",
    "xx": "x",
    "xz": "x",
    "zz": "x",
}  # table 5-14
XOR = {
    "00": "0",
    "01": "1",
    "0x": "x",
    "0z": "x",
    "11": "0",
    "1x": "x",
    "1z": "x",
    "xx": "x",
    "xz": "x",
    "zz": "x",
}  # table 5-15
WIRE = {
    "00": "0",
    "01": "x",
    "0x": "x",
    "0z": "0",
    "11": "1",
    "1x": "x",
    "1z": "1",
    "xx": "x",
    "xz": "x",
    "zz": "z",
}  # table 4-2


@pytest.mark.parametrize(("op", "table"), [("and", AND), ("or", OR), ("xor", XOR), ("resolve", WIRE)])
def test_one_digit_tables(op: str, table: dict[str, str]) -> None:
    for a, b in product(DIGITS, DIGITS):
        expected = table.get(a + b) or table[b + a]
        assert v.to_digits(v.BINARY[op](v.from_digits(a), v.from_digits(b), 1), 1) == expected


def words(width: int) -> list[str]:
    return ["".join(p) for p in product(DIGITS, repeat=width)]


def number(digits: str, signed: bool = False) -> int | None:
    if set(digits) - {"0", "1"}:
        return None
    value = int(digits, 2)
    return value - (1 << len(digits)) if signed and digits[0] == "1" else value


def truncated(a: int, b: int) -> tuple[int, int]:
    q = abs(a) // abs(b) * (1 if (a < 0) == (b < 0) else -1)
    return q, a - q * b


def naive(op: str, a: str, b: str) -> str:
    """The result as digits, by plain arithmetic; any unknown digit makes it x (5.1.5, 5.1.7)."""
    width = len(a)
    signed = op in ("sdiv", "smod", "slt", "sle")
    x, y = number(a, signed), number(b, signed)
    if op == "eq":  # 5.1.8: a sure difference decides, otherwise unknown digits make it x
        if any({p, q} == {"0", "1"} for p, q in zip(a, b, strict=True)):
            return "0"
        return "x" if x is None or y is None else "1"
    if op == "ceq":
        return str(int(a == b))
    if op == "casez":  # 9.5.1
        return str(int(all("z" in (p, q) or p == q for p, q in zip(a, b, strict=True))))
    if op == "casex":
        return str(int(all({p, q} & {"x", "z"} or p == q for p, q in zip(a, b, strict=True))))
    size = 1 if op.endswith(("lt", "le")) else width
    if x is None or y is None or (op in ("div", "mod", "sdiv", "smod") and y == 0):
        return "x" * size
    result = {
        "add": lambda: x + y, "sub": lambda: x - y, "mul": lambda: x * y, "div": lambda: truncated(x, y)[0],
        "sdiv": lambda: truncated(x, y)[0], "mod": lambda: truncated(x, y)[1], "smod": lambda: truncated(x, y)[1],
        "lt": lambda: x < y, "le": lambda: x <= y, "slt": lambda: x < y, "sle": lambda: x <= y,
    }[op]()  # fmt: skip
    return format(int(result) & ((1 << size) - 1), f"0{size}b")


OPS = ["add", "sub", "mul", "div", "sdiv", "mod", "smod", "eq", "ceq", "casez", "casex", "lt", "le", "slt", "sle"]


@pytest.mark.parametrize("op", OPS)
def test_words_against_plain_arithmetic(op: str) -> None:
    for width in (1, 2, 3):
        for a, b in product(words(width), words(width)) if width < 3 else product(words(3)[::3], words(3)[::5]):
            got = v.BINARY[op](v.from_digits(a), v.from_digits(b), width)
            expected = naive(op, a, b)
            assert v.to_digits(got, len(expected)) == expected, (op, a, b)


def planes_of(pairs: list[tuple[str, str]], side: int, bit: int) -> tuple[int, int]:
    one = zero = 0
    for lane, pair in enumerate(pairs):
        digit = pair[side][-1 - bit]
        one |= (digit in "1z") << lane
        zero |= (digit in "0z") << lane
    return one, zero


@pytest.mark.parametrize("op", [*OPS, "and", "or", "xor", "resolve"])
def test_lanes_do_what_words_do(op: str) -> None:
    """Each operator on graph literals, over all pairs of four-state words of two digits at once."""
    pairs = list(product(words(2), words(2)))
    graph = Graph()
    ops = BitOps(graph, may_float=True)
    leaves = [graph.leaf() for _ in range(8)]
    a = [(leaves[0], leaves[1]), (leaves[2], leaves[3])]
    b = [(leaves[4], leaves[5]), (leaves[6], leaves[7])]
    from obento.core.ir.nodes import Binary, Const
    from obento.core.limits import Limits
    from obento.core.sim.lanes.symbolic import Symbolic

    class Two(Symbolic):
        def expr(self, e):  # type: ignore[no-untyped-def]
            return a if e is left else b if e is right else super().expr(e)

    left, right = Const(2, 0, 0), Const(2, 0, 0)
    width = 2 if op in ("and", "or", "xor", "resolve", "add", "sub", "mul", "div", "sdiv", "mod", "smod") else 1
    word = Two(ops, None, Limits()).expr(Binary(width, op, left, right))  # type: ignore[arg-type]
    inputs: list[int] = []
    for side in (0, 1):
        for bit in (0, 1):
            inputs += planes_of(pairs, side, bit)
    full = v.ones(len(pairs))
    out = Tape(graph, leaves, [literal for bit in word for literal in bit]).run(inputs, full)
    for lane, (x, y) in enumerate(pairs):
        got = "".join(
            "x10z"[(out[2 * i] >> lane & 1) | (out[2 * i + 1] >> lane & 1) << 1] for i in reversed(range(width))
        )
        assert got == v.to_digits(v.BINARY[op](v.from_digits(x), v.from_digits(y), 2), width), (op, x, y)


def test_shifts_power_selects() -> None:
    a = v.from_digits("1x01")
    assert v.to_digits(v.shift("shl", a, 4, v.word(1, 3), 3), 4) == "x010"
    assert v.to_digits(v.shift("shr", a, 4, v.word(2, 3), 3), 4) == "001x"
    assert v.to_digits(v.shift("sar", a, 4, v.word(2, 3), 3), 4) == "111x"
    assert v.to_digits(v.shift("shl", a, 4, v.from_digits("x"), 1), 4) == "xxxx"  # 5.1.12
    assert v.power(v.word(3, 8), 8, v.word(4, 8), 8, False, False) == v.word(81, 8)
    assert v.power(v.word(2, 8), 8, v.word(-1, 8), 8, True, True) == v.word(0, 8)  # table 5-6
    assert v.power(v.word(0, 8), 8, v.word(-1, 8), 8, True, True) == v.X1
    assert v.to_digits(v.select(a, 4, 3, 3), 3) == "xx1"  # 5.2.1
    assert v.to_digits(v.extend(v.from_digits("z1"), 2, 4, True), 4) == "zzz1"


def test_graph_keeps_planes_and_tautologies() -> None:
    g = Graph()
    a, b = g.leaf(), g.leaf()
    assert g.and_(a, a ^ 1) == 0 and g.or_(a, a ^ 1) == 1 and g.xor(a, a ^ 1) == 1
    assert g.and_(a, b) == g.and_(b, a)
    either = g.or_(g.and_(a, b), g.or_(g.and_(a, b ^ 1), a ^ 1))
    assert g.is_tautology(either)
    assert not g.is_tautology(g.or_(a, b))
    assert [count_plane(1, 8) >> i & 1 for i in range(8)] == [0, 0, 1, 1, 0, 0, 1, 1]


def test_an_xor_built_from_other_gates_becomes_one_node() -> None:
    g = Graph()
    a, b = g.leaf(), g.leaf()
    n1 = g.or_(a, b) ^ 1
    n2, n3 = g.or_(a, n1) ^ 1, g.or_(b, n1) ^ 1
    assert g.or_(n2, n3) ^ 1 == g.xor(a, b) ^ 1
    nand = g.and_(a, b) ^ 1
    assert g.and_(g.and_(a, nand) ^ 1, g.and_(b, nand) ^ 1) ^ 1 == g.xor(a, b)
    assert g.and_(a, g.and_(a, b)) == g.and_(a, b) and g.and_(a ^ 1, g.and_(a, b)) == 0


@pytest.mark.parametrize("a_signed", [False, True])
@pytest.mark.parametrize("b_signed", [False, True])
def test_every_power_of_four_bits(a_signed: bool, b_signed: bool) -> None:
    """1364-2005 clause 5.1.5, table 5-6: rows are the base, columns the sign of the exponent."""
    width = 4
    for a in range(16):
        for b in range(16):
            x = v.signed_value(a, width) if a_signed else a
            y = v.signed_value(b, width) if b_signed else b
            if y >= 0:
                wanted = v.word(x**y, width)
            elif x == 0:
                wanted = v.X1
            elif x in (1, -1):
                wanted = v.word(x if y % 2 else 1, width)
            else:
                wanted = v.word(0, width)
            assert v.power((a, a ^ 15), width, (b, b ^ 15), width, a_signed, b_signed) == wanted, (x, y)


def test_every_signed_division_of_four_bits() -> None:
    """Towards zero, the remainder with the sign of the left operand (1364-2005 clause 5.1.5, table 5-7)."""
    for a in range(16):
        for b in range(1, 16):
            x, y = v.signed_value(a, 4), v.signed_value(b, 4)
            quotient = int(x / y)
            assert v.v_sdiv((a, a ^ 15), (b, b ^ 15), 4) == v.word(quotient, 4), (x, y)
            assert v.v_smod((a, a ^ 15), (b, b ^ 15), 4) == v.word(x - quotient * y, 4), (x, y)
