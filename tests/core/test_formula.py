"""The expression language of specs: values against a model in Python, the printed form, and what cannot be said."""

from __future__ import annotations

import random

import pytest

from obento.core.check.check import open_spec
from obento.core.diagnostics import Collector
from obento.core.formula.ast import Bits, Choice, Formula, Join, Minus, Name, Not, Number, Op
from obento.core.formula.parser import FormulaParser
from obento.core.formula.printer import printed

WIDTHS = {"a": 4, "b": 4, "c": 3, "s": 1, "t": 1}


def parse(text: str, widths: dict[str, int] | None = None) -> Formula | list[str]:
    collector = Collector()
    parser = FormulaParser(f"y = {text}", 0, collector, (widths or WIDTHS | {"y": 8}).get)
    equations = parser.equations(lambda name: None)
    items = list(collector.items())
    return [i.code for i in items] if items else equations[0].value


def model(f: Formula, given: dict[str, int]) -> tuple[int, int | None]:
    """The value as an exact whole number, and its width where it has one: from docs/formats.md, not the lowering."""
    match f:
        case Name():
            return given[f.name], WIDTHS[f.name]
        case Number():
            return f.value, f.width if f.width is not None else max(1, f.value.bit_length())
        case Bits():
            count = f.high - f.low + 1
            return given[f.name] >> f.low & (1 << count) - 1, count
        case Not():
            value, width = model(f.a, given)
            assert width is not None
            return ~value & (1 << width) - 1, width
        case Minus():
            return -model(f.a, given)[0], None
        case Join():
            joined = digits = 0
            for part in f.parts:
                v, w = model(part, given)
                assert w is not None
                joined, digits = joined << w | v, digits + w
            return joined, digits
        case Choice():
            arms = [model(f.a, given), model(f.b, given)]
            known = [w for _, w in arms if w is not None]
            return arms[0 if model(f.cond, given)[0] else 1][0], max(known) if len(known) == 2 else None
    assert isinstance(f, Op)
    (a, wa), (b, wb) = model(f.a, given), model(f.b, given)
    wide = None if wa is None or wb is None else max(wa, wb)
    mask = (1 << (wide or 0)) - 1
    match f.op:
        case "and" | "or" | "xor":
            return {"and": a & b, "or": a | b, "xor": a ^ b}[f.op], wide
        case "nand" | "nor" | "xnor":
            return ~{"nand": a & b, "nor": a | b, "xnor": a ^ b}[f.op] & mask, wide
        case "==" | "!=" | "<" | "<=" | ">" | ">=":
            return int({"==": a == b, "!=": a != b, "<": a < b, "<=": a <= b, ">": a > b, ">=": a >= b}[f.op]), 1
        case "+":
            return a + b, None
        case "-":
            return a - b, None
    assert f.op == "*"
    return a * b, None


LEAVES = {1: ["s", "t", "a[2]", "c[0]", "1b1"], 3: ["c", "b[3..1]", "3b101"], 4: ["a", "b", "4b0110"]}


def bits_formula(source: random.Random, depth: int, width: int) -> str:
    """A formula of so many digits."""
    if depth <= 0 and width in LEAVES:
        return source.choice(LEAVES[width])
    if width not in LEAVES or source.random() < 0.2:
        first = source.randint(1, width - 1) if width > 1 else 1
        if width > 1:
            return f"{{{bits_formula(source, depth - 1, first)}, {bits_formula(source, depth - 1, width - first)}}}"
    kind = source.randrange(5)
    if width == 1 and kind == 0:
        a, b = exact_formula(source, depth - 1), exact_formula(source, depth - 1)
        return f"(({a}) {source.choice(['==', '!=', '<', '<=', '>', '>='])} ({b}))"
    a, b = bits_formula(source, depth - 1, width), bits_formula(source, depth - 1, width)
    if kind == 1:
        return f"!({a})"
    if kind == 2:
        return f"(({exact_formula(source, depth - 1)}) == 0 ? ({a}) : ({b}))"
    return f"(({a}) {source.choice(['&', '|', '^', 'nand', 'nor', 'xnor'])} ({b}))"


def exact_formula(source: random.Random, depth: int) -> str:
    """A formula that may be a number without a width: sums, differences, products."""
    a = bits_formula(source, depth - 1, source.choice([1, 3, 4]))
    if depth <= 0 or source.random() < 0.3:
        return a
    b = exact_formula(source, depth - 1)
    return source.choice([f"({a}) {source.choice('+-*')} ({b})", f"-({a})"])


SPEC = """obento = "spec/1"
unit = "m"
[ports]
in = "a[4] b[4] c[3] s t"
out = "y[12]"
[expect]
equations = "y = {}"
[cases]
random = 40
"""


@pytest.mark.parametrize("seed", range(60))
def test_values_are_those_of_the_model(seed: int) -> None:
    source = random.Random(seed)
    text = exact_formula(source, 3) if seed % 2 else bits_formula(source, 3, source.randint(1, 12))
    loaded = open_spec("s.toml", SPEC.format(text).encode(), {})
    assert loaded.expectation is not None, (text, [m.text for m in loaded.messages])
    formula = parse(text)
    assert not isinstance(formula, list)
    cases, bits = loaded.expectation.cases, loaded.expectation.bits
    for case in range(cases.count):
        at, given = 0, {}
        for name, width in WIDTHS.items():
            given[name] = cases.word(case, at, width)[0]
            at += width
        wanted = model(formula, given)[0] & 0xFFF
        got = sum((bits["y", i].one >> case & 1) << i for i in range(12))
        assert got == wanted, (text, given)


@pytest.mark.parametrize("seed", range(40))
def test_the_printed_form_reads_back_as_the_same(seed: int) -> None:
    source = random.Random(1000 + seed)
    formula = parse(exact_formula(source, 4))
    assert not isinstance(formula, list)
    text = printed(formula)
    again = parse(text)
    assert not isinstance(again, list), (text, again)
    assert printed(again) == text
    for _ in range(20):
        given = {name: source.randrange(1 << width) for name, width in WIDTHS.items()}
        assert model(again, given) == model(formula, given), text


ONE_BIT = dict.fromkeys("abcdy", 1)


@pytest.mark.parametrize(
    ("written", "same"),
    [
        ("a + b * c", "a | b & c"),  # every name is one bit wide: the signs of Boolean algebra
        ("a · b ∨ c", "a & b | c"),
        ("a' & b'", "!a & !b"),
        ("¬a ⊕ b", "(!a) ^ b"),
        ("not a and b or c", "((!a) & b) | c"),
        ("a xnor b", "a ~^ b"),
        ("a ^ b & c | d", "(a ^ (b & c)) | d"),
        ("a\u0305 & b", "!a & b"),
        ("!a & b", "(!a) & b"),
        ("a ? b : c ? d : a", "a ? b : (c ? d : a)"),
        ("a && b || c", "a & b | c"),
    ],
)
def test_signs_that_mean_the_same(written: str, same: str) -> None:
    a, b = parse(written, ONE_BIT), parse(same, ONE_BIT)
    assert not isinstance(a, list) and not isinstance(b, list)
    assert printed(a) == printed(b)


def test_times_and_plus_are_numbers_as_soon_as_one_name_is_wide() -> None:
    wide = parse("a + b * c")
    assert isinstance(wide, Op) and wide.op == "+"
    narrow = parse("a + b * c", ONE_BIT)
    assert isinstance(narrow, Op) and narrow.op == "or"


@pytest.mark.parametrize(
    ("text", "code"),
    [
        ("a b", "expected-operator"),
        ("a & § b", "strange-character"),
        ("(a & b", "expected-parenthesis"),
        ("a nand b nand c", "nand-chain"),
        ("a[1", "expected-bracket"),
        ("{a, b", "expected-brace"),
        ("a ? b", "expected-colon"),
        ("a = b", "expected-operator"),
        ("a &", "expected-value"),
    ],
)
def test_what_is_wrong_is_said_once(text: str, code: str) -> None:
    assert parse(text) == [code]


DEEP = {
    "parentheses": "(" * 5000 + "a" + ")" * 5000,
    "primes": "a" + "'" * 5000,
    "negations": "!" * 5000 + "a",
    "choices": "a == 0 ? b : " * 3000 + "a",
    "calls": "and(" * 3000 + "a" + ", b)" * 3000,
}


@pytest.mark.parametrize("kind", DEEP)
def test_deep_nesting_ends_with_a_message(kind: str) -> None:
    assert parse(DEEP[kind]) == ["too-deep"]


def test_as_deep_as_is_read_can_be_worked_out() -> None:
    loaded = open_spec("s.toml", SPEC.format("!(" * 45 + "a" + ")" * 45).encode(), {})
    assert loaded.expectation is not None


@pytest.mark.parametrize("op", ["&", "|", "^"])
def test_a_long_sum_of_products_is_ordinary(op: str) -> None:
    loaded = open_spec("s.toml", SPEC.format(f" {op} ".join(["(s & t)", "t"] * 3000)).encode(), {})
    assert loaded.expectation is not None, [m.text for m in loaded.messages]
    t_plane = loaded.expectation.cases.one[WIDTHS["a"] + WIDTHS["b"] + WIDTHS["c"] + WIDTHS["s"]]
    s_plane = loaded.expectation.cases.one[WIDTHS["a"] + WIDTHS["b"] + WIDTHS["c"]]
    assert loaded.expectation.bits["y", 0].one == {"&": s_plane & t_plane, "|": t_plane, "^": 0}[op]


def test_a_chain_of_numbers_too_long_to_be_worked_out_is_told() -> None:
    loaded = open_spec("s.toml", SPEC.format(" + ".join(["a"] * 5000)).encode(), {})
    assert loaded.expectation is None
    assert [m.code for m in loaded.messages if m.severity == "error"] in (["too-deep"], ["too-wide"])


def test_the_printed_form_of_a_long_chain_has_no_parentheses() -> None:
    formula = parse(" | ".join(["a"] * 100))
    assert not isinstance(formula, list)
    assert printed(formula) == " ∨ ".join(["a"] * 100)
