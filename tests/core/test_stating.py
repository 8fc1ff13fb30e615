"""Sentences put into a wiring list: what they become, and that it is what was said."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obento.core.board.gates import ALL_GATES, Gate, NotPossible, Plain, Tree, negated, with_only, written
from obento.core.board.stating import state
from tests.core.designs import outputs

HEAD = "wiring m\n  takes a, b, c, d[4], s[2]\n  gives y, z[4]\n"
EMPTY = HEAD + "end\n"


def said(sentence: str, text: str = EMPTY, only: tuple[str, ...] = ()) -> str:
    """The line that a sentence becomes."""
    made = state(text, "m", sentence, only)
    assert not made.trouble, made
    return made.text.splitlines()[made.line - 1].strip()


@pytest.mark.parametrize(
    ("sentence", "line"),
    [
        ("y = nor(a, b)", "y <- nor(a, b)"),
        ("y <- and(a, not(b))", "y <- and(a, not(b))"),
        ("y = a & !b", "y <- and(a, !b)"),
        ("y = a · b' + c", "y <- or(and(a, !b), c)"),
        ("y = not (a or b)", "y <- nor(a, b)"),
        ("y = a ^ b ^ c", "y <- xor(a, b, c)"),
        ("y = a nand b", "y <- nand(a, b)"),
        ("y = c ? a : b", "y <- select(c, b, a)"),
        ("y = d == 5", "y <- zero(xor(d, 4d5))"),
        ("y = a == b", "y <- xnor(a, b)"),
        ("y = d > s", "y <- compare(widen(s, bits: 4), d)"),
        ("y = d[3..2] <= s", "y <- !compare(s, d[3..2])"),
        ("y = d[3]", "y <- d[3]"),
        ("z = {s, d[3..2]}", "z <- {s, d[3..2]}"),
        ("z = d + s", "z <- add(d, widen(s, bits: 4))"),
        ("z = d - 1", "z <- subtract(d, 4d1)"),
        ("z = d & 0x0f", "z <- and(d, 8d15)"),
        ("sum, over = add(d, z)", "sum, over <- add(d, z)"),
        ("add", "sum, carry <- add(_, _)"),
        ("counter", "count, wrap <- counter(rise: _, bits: 4)"),
        ("and", "w <- and(_, _)"),
        ("z[1..0] = s | d[1..0]", "z[1..0] <- or(s, d[1..0])"),
    ],
)  # fmt: skip
def test_a_sentence_becomes_a_line(sentence: str, line: str) -> None:
    assert said(sentence) == line


def test_a_line_that_drives_the_same_is_replaced_and_keeps_its_remark_and_label() -> None:
    text = HEAD + "  g1: y <- and(a, b)   // the gate\n  z <- d\nend\n"
    made = state(text, "m", "y = a | b")
    assert made.text == HEAD + "  g1: y <- or(a, b)   // the gate\n  z <- d\nend\n" and made.line == 4
    made = state(text, "m", "w = !y")
    assert made.text == HEAD + "  g1: y <- and(a, b)   // the gate\n  z <- d\n  w <- !y\nend\n" and made.line == 6


def test_other_lists_and_a_missing_end_stay_as_they_are() -> None:
    other = "wiring n\n  takes a\n  gives y\n  y <- a\nend\n"
    assert state(other + EMPTY, "m", "y = a").text == other + HEAD + "  y <- a\nend\n"
    assert state(HEAD, "m", "y = a").text == HEAD + "  y <- a\n"
    assert state(HEAD.rstrip(), "m", "y = a").text == HEAD + "  y <- a\n"


@pytest.mark.parametrize(
    ("sentence", "trouble"),
    [
        ("", "a sentence reads"),
        ("y =", "what it is made of is missing"),
        ("y = a &", "a name or number is missing"),
        ("a = b", "comes from outside"),
        ("1y = a", "is no name of a wire"),
        ("frob", "there is no part `frob`"),
        ("y = d * s", "is no gate"),
        ("y, q = a & b", "drives one wire"),
        ("y = " + "a & " * 1000 + "a", "more than 2000 letters"),
    ],
)
def test_what_cannot_be_stated_says_why_and_changes_nothing(sentence: str, trouble: str) -> None:
    made = state(EMPTY, "m", sentence)
    assert trouble in made.trouble and made.text == EMPTY and made.line == 0


def test_a_text_without_the_list_is_told() -> None:
    assert "no wiring list `m`" in state("wiring n\nend\n", "m", "y = a").trouble


@pytest.mark.parametrize(
    ("only", "line"),
    [
        (("nand",), "y <- nand(nand(a, nand(b)), nand(c))"),
        (("nor",), "y <- nor(nor(nor(nor(a), b), c))"),
        (("and", "not"), "y <- !and(!and(a, !b), !c)"),
        (("or", "not"), "y <- or(!or(!a, b), c)"),
    ],
)
def test_only_the_gates_that_are_allowed(only: tuple[str, ...], line: str) -> None:
    assert said("y = a & !b | c", only=only) == line


TREES: st.SearchStrategy[Tree] = st.recursive(
    st.sampled_from([Plain("a"), Plain("b"), Plain("c")]),
    lambda inner: st.one_of(
        inner.map(negated),
        st.tuples(st.sampled_from(["and", "or", "xor"]), st.lists(inner, min_size=2, max_size=3)).map(
            lambda made: Gate(made[0], tuple(made[1]))
        ),
    ),
    max_leaves=6,
)
COMPLETE = [
    ("nand",),
    ("nor",),
    ("and", "not"),
    ("or", "not"),
    ("and", "or", "not"),
    ("and", "xor"),
    ("nand", "xor"),
    ("nor", "xnor"),
]


def value(tree: Tree, wires: dict[str, int]) -> int:
    if isinstance(tree, Plain):
        return wires[tree.text]
    args = [value(a, wires) for a in tree.args]
    return {"and": min(args), "or": max(args), "xor": sum(args) % 2, "not": 1 - args[0]}[tree.op]


@given(TREES, st.sampled_from(COMPLETE))
def test_any_tree_out_of_any_gates_that_can_make_it(tree: Tree, only: tuple[str, ...]) -> None:
    wanted = [str(value(tree, {"a": n >> 2, "b": n >> 1 & 1, "c": n & 1})) for n in range(8)]
    for text in (written(tree), with_only(tree, only)):
        assert outputs(f"wiring m\n takes a, b, c\n gives y\n y <- {text}\nend\n", name="a.wiring") == wanted
    used = {
        word for word in with_only(tree, only).replace("!", "not(").replace("(", " ( ").split() if word in ALL_GATES
    }
    assert used <= set(only)


def test_gates_that_cannot_make_it_are_told() -> None:
    with pytest.raises(NotPossible):
        with_only(negated(Plain("a")), ["and", "or"])
    assert "cannot invert" in state(EMPTY, "m", "y = !(a & b)", ["and"]).trouble
