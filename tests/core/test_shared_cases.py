"""Two versions of a spec: which cases are the same ones, and where both expect the same."""

from __future__ import annotations

from obento.core.check.check import open_spec
from obento.core.check.expectation.model import Expectation, expected_word
from obento.core.check.expectation.shared import behave_alike, shared_cases


def expectation(text: str) -> Expectation:
    loaded = open_spec("s.toml", text.encode(), {})
    assert loaded.expectation is not None, loaded.messages
    return loaded.expectation


def gate(right: str, ports: str = 'in = "a b"\nout = "y"', more: str = "") -> Expectation:
    return expectation(
        f'obento = "spec/1"\ntitle = "g"\nunit = "g"\n[ports]\n{ports}\n[expect]\nequations = "{right}"\n{more}'
    )


def clocked(table: str) -> Expectation:
    return expectation(
        'obento = "spec/1"\ntitle = "t"\nunit = "t"\n[ports]\nin = "clk d"\nout = "q"\n[clock]\nport = "clk"\n'
        f'[expect]\nsteps = """\nd | q\n{table}"""\n'
    )


def test_the_same_cases_whatever_their_order_and_number() -> None:
    whole, some = gate("y = a & b"), gate("y = a", more='[cases]\nlisted = """\na b\n1 1\n0 1\n1 0\n"""\n')
    found = shared_cases(some, whole)
    labels = {0: (1, 1), 1: (0, 1), 2: (1, 0)}
    assert {(labels[a], divmod(b, 2)) for a, b in found.pairs} == {(x, x) for x in labels.values()}
    assert {a for a, _ in found.alike} == {0, 1}  # of a = 1, b = 0 they expect something else
    back = shared_cases(whole, some)
    assert {(b, a) for a, b in back.pairs} == set(found.pairs)
    assert {(b, a) for a, b in back.alike} == set(found.alike)


def test_every_pair_is_one_case_and_alike_means_expected_alike() -> None:
    first, second = gate("y = a ^ b"), gate("y = a | b")
    found = shared_cases(first, second)
    assert len(found.pairs) == 4
    for a, b in found.pairs:
        same = expected_word(first, "y", 1, a) == expected_word(second, "y", 1, b)
        assert ((a, b) in found.alike) == same


def test_other_inputs_or_outputs_share_nothing_to_be_compared() -> None:
    first = gate("y = a & b")
    assert shared_cases(first, gate("y = a", 'in = "a c"\nout = "y"')).pairs == ()
    assert shared_cases(first, gate("y = a[0]", 'in = "a[2] b"\nout = "y"')).pairs == ()
    more = shared_cases(first, gate("y = a & b\\nz = a", 'in = "a b"\nout = "y z"'))
    assert len(more.pairs) == 4 and more.alike == () and more.outputs == (("y", 0),)


def test_a_step_is_the_same_when_everything_before_it_is() -> None:
    first, second = clocked("1 | 1\n0 | 0\n1 | 1\n"), clocked("1 | 1\n1 | 1\n1 | 1\n")
    assert shared_cases(first, second).pairs == ((0, 0),)
    longer = clocked("1 | 1\n0 | 0\n1 | 0\n0 | 0\n")
    found = shared_cases(first, longer)
    assert found.pairs == ((0, 0), (1, 1), (2, 2)) and found.alike == ((0, 0), (1, 1))


def test_alike_is_what_both_show_in_cases_that_count() -> None:
    found = shared_cases(gate("y = a ^ b"), gate("y = a | b"))  # they differ where both are 1: case 3
    key = ("y", 0)
    assert behave_alike(found, {key: (0b0110, 0b1001)}, {key: (0b1110, 0b0001)})
    assert not behave_alike(found, {key: (0b0110, 0b1001)}, {key: (0b0111, 0b1000)})
    assert not behave_alike(found, {key: (0b0110, 0b1001)}, {key: (0b0110, 0b1011)})  # 0 and unknown
