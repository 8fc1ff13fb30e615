"""What is said of a slip is proven on all cases: each circuit here has one, and no circuit gets a sentence that is not
true of it."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from obento.core.check.check import check_handin, open_spec
from obento.core.check.judging.outcome import Checked
from obento.core.handin import HandinFile

SPEC = """obento = "spec/1"
unit = "m"
[ports]
in = "a b c"
out = "y z w[2]"
[expect]
equations = '''
y = a & b | c
z = a ^ c
w = {a & b, c}
'''
"""


def checked(y: str = "a & b | c", z: str = "a ^ c", w: str = "{a & b, c}") -> Checked:
    loaded = open_spec("s.toml", SPEC.encode(), {})
    assert loaded.expectation is not None
    text = (
        f"module m(input a, b, c, output y, z, output [1:0] w); assign y = {y}; assign z = {z}; assign w = {w};"
        " endmodule"
    )
    return check_handin(loaded.expectation, [HandinFile("m.v", text.encode())])


@pytest.mark.parametrize(
    ("wrong", "kinds", "sentence"),
    [
        ({"y": "~(a & b | c)"}, ["inverted"], "y is always the opposite of what it should be"),
        ({"w": "~{a & b, c}"}, ["inverted"], "w is inverted in every bit"),
        ({"w": "{c, a & b}"}, ["reversed"], "w has its bits in reverse order"),
        ({"y": "a ^ c", "z": "a & b | c"}, ["exchanged-outputs"], "y and z are exchanged"),
        ({"y": "1'b1"}, ["constant"], "y is always 1"),
        ({"w": "2'b10"}, ["constant"], "w is always 10"),
        ({"y": "a | c"}, ["ignores"], "y does not depend on b, and should"),
        ({"z": "a & c"}, [], ""),
        (
            {"y": "b & c | a", "z": "c ^ a", "w": "{c & b, a}"},
            ["exchanged-inputs"],
            "a and c are taken for each other: exchanged, every case is right",
        ),
        ({"y": "a & b & c"}, [], ""),
        ({"y": "1'bx"}, [], ""),
    ],
)
def test_the_slip_that_explains_it_all(wrong: dict[str, str], kinds: list[str], sentence: str) -> None:
    found = [f for f in checked(**wrong).findings if f.kind not in ("wrong", "undefined")]
    assert [f.kind for f in found] == kinds
    assert [f.text for f in found] == [sentence] * len(kinds)


def test_nothing_is_said_of_a_right_one() -> None:
    assert checked().findings == []


WAYS = st.sampled_from(
    [
        "a",
        "b",
        "c",
        "~a",
        "a & b",
        "a | c",
        "a ^ c",
        "a & b | c",
        "~(a ^ c)",
        "1'b0",
        "a ? b : c",
        "b & c",
        "~b | a",
        "1'bx",
    ]
)


@settings(max_examples=120, deadline=None)
@given(WAYS, WAYS, st.tuples(WAYS, WAYS))
def test_whatever_is_said_is_true(y: str, z: str, w: tuple[str, str]) -> None:
    """Each sentence is held against values worked out here, one case after the other."""
    outcome = checked(y, z, f"{{{w[0]}, {w[1]}}}")
    given_ = {"y": [y], "z": [z], "w": list(w)}
    expected = {"y": ["a & b | c"], "z": ["a ^ c"], "w": ["a & b", "c"]}

    def value(texts: list[str], case: int) -> str:
        names = {"a": case >> 2 & 1, "b": case >> 1 & 1, "c": case & 1}
        return "".join(_value(t, names) for t in texts)

    cases = range(8)
    for f in outcome.findings:
        got = [value(given_[f.output], i) for i in cases]
        want = [value(expected[f.output], i) for i in cases]
        match f.kind:
            case "inverted":
                assert got == ["".join("10"[int(d)] for d in x) for x in want]
            case "reversed":
                assert got == [x[::-1] for x in want]
            case "constant":
                assert len(set(got)) == 1 and len(set(want)) > 1
            case "ignores":
                for deaf in f.text.partition(" depend on ")[2].partition(",")[0].split(" or "):
                    bit = {"a": 4, "b": 2, "c": 1}[deaf]
                    assert all(got[i] == got[i ^ bit] for i in cases) and any(want[i] != want[i ^ bit] for i in cases)
            case "exchanged-outputs":
                assert [value(given_["y"], i) for i in cases] == [value(expected["z"], i) for i in cases]


def _value(text: str, names: dict[str, int]) -> str:
    if "x" in text:
        return "x"
    text = text.replace("1'b0", "0")
    if "?" in text:
        return str(names["b"] if names["a"] else names["c"])
    return str(eval(text, {}, names) & 1)  # our own texts, from the list above


@pytest.mark.parametrize("seed", range(6))
def test_listed_rows_in_any_order_say_the_same(seed: int) -> None:
    """All combinations, listed in another order than counting: the same slips as in order, and no crash."""
    import random

    head = (
        "obento = 'spec/1'\nunit = 'm'\n[ports]\nin = 'a b k[2]'\nout = 'y z'\n[expect]\nequations = '''\ny = a & !b\nz"
        " = k == 2 | a\n'''\n"
    )
    rows = [f"{n >> 3 & 1} {n >> 2 & 1} {n & 3:02b}" for n in range(16)]
    plain = open_spec("s.toml", head.encode(), {}).expectation
    random.Random(seed).shuffle(rows)
    listed = open_spec(
        "s.toml", (head + "[cases]\nlisted = '''\na b k\n" + "\n".join(rows) + "\n'''\n").encode(), {}
    ).expectation
    assert plain is not None and listed is not None
    for y, z in (
        ("b & ~a", "k == 2 | b"),
        ("~(a & ~b)", "k == 2"),
        ("a & ~b", "{k[0], k[1]} == 2 | a"),
        ("1'b0", "a"),
        ("~(a | b)", "k == 1 | a"),
    ):
        text = f"module m(input a, b, input [1:0] k, output y, z); assign y = {y}, z = {z}; endmodule"
        found = [check_handin(e, [HandinFile("a.v", text.encode())]) for e in (plain, listed)]
        assert [(f.kind, f.text) for f in found[0].findings] == [(f.kind, f.text) for f in found[1].findings]
