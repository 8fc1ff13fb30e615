"""A function of a spec as two levels, as NAND alone, as NOR alone: right in every case, and of these gates only."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obento.core.board.forms import FORMS, Form, NoForm, form_of
from obento.core.check.check import check_handin, open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.handin import HandinFile
from tests.core.clocked import COUNTER, clocked, ready

HEAD = 'obento = "spec/1"\nunit = "m"\n[ports]\n'


def expectation(inputs: str, outputs: str, expect: str) -> Expectation:
    return ready(open_spec("s.toml", f'{HEAD}in = "{inputs}"\nout = "{outputs}"\n[expect]\n{expect}\n'.encode(), {}))


def gates_only(form: Form, text: str) -> bool:
    words = {w for line in text.splitlines() if "<-" in line for w in line.replace("(", " ( ").split() if w.isalpha()}
    used = words & {"and", "or", "xor", "not", "nand", "nor", "xnor"}
    return used <= set(FORMS[form]) if FORMS[form] else used <= {"and", "or"}


@pytest.mark.parametrize("form", FORMS)
@given(truth=st.lists(st.sampled_from("01-"), min_size=16, max_size=16))
def test_any_function_of_four_inputs_comes_out_right(form: Form, truth: list[str]) -> None:
    if set(truth) == {"-"}:
        truth[0] = "1"
    rows = "\n".join(f"{n >> 2:02b} {n & 3:02b} | {wanted}" for n, wanted in enumerate(truth))
    spec = expectation("a[2] b[2]", "y", f"table = '''\na b | y\n{rows}\n'''")
    made = form_of(spec, form)
    checked = check_handin(spec, [HandinFile("a.wiring", made.text.encode())])
    assert checked.verdict is not None and checked.verdict.right == spec.cases.full, (made.text, checked.messages)
    assert gates_only(form, made.text), made.text
    assert len(made.steps) >= 1


def test_words_and_several_outputs() -> None:
    spec = expectation("a[3..1] b", "y[0..1] z", "equations = '''\ny = {a[3] & b, a[1] | b}\nz = a == 5\n'''")
    for form in FORMS:
        made = form_of(spec, form)
        checked = check_handin(spec, [HandinFile("a.wiring", made.text.encode())])
        assert checked.verdict is not None and checked.verdict.right == spec.cases.full, made.text


def test_the_steps_say_what_was_done() -> None:
    spec = expectation("a b c", "y", "equations = 'y = a & b | c'")
    assert form_of(spec, "nand").text.splitlines()[4] == "  y <- nand(nand(c), nand(a, b))"
    assert form_of(spec, "nand").steps == [
        "`y` is 1 in 5 of 8 combinations of the inputs",
        "its ones are covered by 2 products",
        "as a sum of products: `y = or(c, and(a, b))`",
        "inverted twice, the sum of products is NAND of NANDs",
    ]
    assert form_of(spec, "two-level").text.splitlines()[4] == "  y <- or(c, and(a, b))"


def test_what_has_no_such_form_says_why() -> None:
    with pytest.raises(NoForm, match="remembers"):
        form_of(ready(clocked(COUNTER)), "nand")
    with pytest.raises(NoForm, match="16 input bits"):
        form_of(expectation("a[8] b[8]", "y", "equations = 'y = a == b'"), "nor")
