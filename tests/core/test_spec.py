"""Spec files: what they mean, and every mistake at its place."""

from __future__ import annotations

import pytest

from obento.core.check.check import LoadedSpec, open_spec
from obento.core.check.expectation.model import expected_word
from obento.core.values import to_digits

HEAD = 'obento = "spec/1"\ntitle = "t"\nunit = "m"\n[ports]\nin = "{i}"\nout = "{o}"\n'


def load(body: str, i: str = "a b", o: str = "y", **others: bytes) -> LoadedSpec:
    text = HEAD.format(i=i, o=o) + body
    return open_spec("s.toml", text.encode(), {k.replace("_", "."): data for k, data in others.items()})


def column(body: str, i: str = "a b", o: str = "y", **others: bytes) -> str:
    """The expected digits of the first output, case by case; `-` where it is not compared."""
    loaded = load(body, i, o, **others)
    assert loaded.expectation is not None, [str(m) for m in loaded.messages]
    port = loaded.expectation.spec.outputs[0]
    out = []
    for case in range(loaded.expectation.cases.count):
        word, care = expected_word(loaded.expectation, port.name, port.width, case)
        digits = to_digits(word, port.width)
        out.append("".join(d if care >> (port.width - 1 - k) & 1 else "-" for k, d in enumerate(digits)))
    return " ".join(out) if port.width > 1 else "".join(out)


def equation(text: str) -> str:
    return f"[expect]\nequations = '''\n{text}\n'''\n"


NOTATIONS = [
    "y = a & !b",
    "y = a && ~b",
    "y = a · b'",
    "y = a * b'",
    "y = a and not b",
    "y = a ∧ ¬b",
    "y = a & b̅",
    "y = nor(!a, b)",
    "n = not b\ny = a & n",
    "y = !(a' + b)",
    "y = a ^ (a · b)",
    "y = a ⊕ a·b",
    "y = a ? !b : 0",
    "y = (a == 1) & (b == 0)",
    "y = a > b",
]


@pytest.mark.parametrize("text", NOTATIONS)
def test_notations_read_alike(text: str) -> None:
    assert column(equation(text)) == "0010"


def test_plus_and_times_by_the_widths_of_the_equation() -> None:
    assert column(equation("y = a + b")) == "0111"  # one-bit names only: OR
    assert column(equation("y = a + b"), "a[2] b", "y[3]") == "000 001 001 010 010 011 011 100"
    assert column(equation("y = (a + b) >> 1"), "a[2] b[2]", "y[2]").split()[15] == "11"  # exact: (3 + 3) >> 1 is 3
    assert column(equation("y = a - 1 > 0"), "a[2]", "y") == "0011"  # 0 - 1 is negative, not large
    assert column(equation("y = a * b"), "a[2]s b[2]s", "y[4]").split()[10] == "0100"  # -2 times -2
    assert column(equation("y = {a[0], a[1]}"), "a[2]", "y[2]") == "00 10 01 11"
    assert column(equation("y = a + b & a"), "a b", "y") == "0011"  # AND binds tighter than + as OR


def test_table_with_dont_cares_on_both_sides() -> None:
    body = "[expect]\ntable = '''\na b | y\n0 - | 1   // comment\n1 0 | -\n1 1 | 0\n'''\n"
    assert column(body) == "11-0"
    assert column("[expect]\ntable = '''\na b | y\n00|1\n01|1\n1-|0\n'''\n") == "1100"
    csv = "[expect]\ntable = '''\na,b,,y\n0,-,,1\n1,-,,0\n'''\n"
    assert column(csv) == "1100"
    assert column('[expect]\ntable = "t.csv"\n', t_csv=b"a,b,|,y\n0,0,|,1\n0,1,|,0\n1,-,|,1\n") == "1011"


def test_dash_in_a_table_wins_over_other_sources() -> None:
    assert column("[expect]\nequations = 'y = a'\ntable = '''\na b | y\n1 1 | -\n'''\n") == "001-"


def test_values_in_every_radix() -> None:
    body = "[expect]\ntable = '''\nn | s\n0 | -8\n0d1 | 7\n0x2 | 0b1111\n3 | 0xf\n'''\n"
    assert column(body, "n[2]:dec", "s[4]s:dec") == "1000 0111 1111 1111"


def test_listed_corners_random_and_groups() -> None:
    listed = "[expect]\nequations = 'y = a'\n[cases]\nlisted = '''\na b\n1 -\n0 0\n'''\n"
    assert column(listed) == "110"
    wide = (
        "[expect]\nequations = 'y = a == b'\n[cases]\ncorners = true\nrandom = { count = 50, seed = 7 }\ngroups = {"
        " same = 'a == b' }\n"
    )
    loaded = load(wide, "a[16] b[16]")
    assert loaded.expectation is not None and 80 < loaded.expectation.cases.count <= 100
    assert 0 < loaded.expectation.groups["same"].bit_count() < 20
    again = load(wide, "a[16] b[16]").expectation
    assert again is not None and again.cases == loaded.expectation.cases


def test_model_as_a_source() -> None:
    model = b"module m(input a, b, output y); assign y = a ^ b; endmodule"
    assert column('[expect]\nmodel = "r.v"\n', r_v=model) == "0110"
    both = load('[expect]\nmodel = "r.v"\nequations = "y = a | b"\n', r_v=model)
    assert both.expectation is None
    assert "disagree in 1 of 4 cases: a = 1, b = 1 (y)" in both.messages[0].text


MISTAKES = [
    ("[expect]\nequations = 'y = a & q'\n", "8:22", "undeclared"),
    ("[expect]\nequations = '''\ny = a &\n'''\n", "9:8", "expected-value"),
    ("[expect]\nequations = '''\ny = a b\n'''\n", "9:7", "expected-operator"),
    ("[expect]\nequations = '''\ny = a\ny = b\n'''\n", "10:1", "duplicate"),
    ("[expect]\nequations = '''\np = q\nq = p\ny = p\n'''\n", "9:1", "circle"),
    ("[expect]\ntable = '''\na b | y\n0 2 | 1\n'''\n", "10:3", "bad-value"),
    ("[expect]\ntable = '''\na b | y\n0 | 1\n'''\n", "10:5", "row-length"),
    ("[expect]\ntable = '''\na c | y\n0 0 | 1\n'''\n", "9:3", "unknown-column"),
    ("[expect]\ntable = '''\na | y\n0 | 1\n'''\n", "9:1", "missing-column"),
    ("[expect]\ntable = '''\na b | y\n0 - | 1\n- 0 | 0\n'''\n", "11:1", "rows-contradict"),
    ("[expect]\nequations = 'y = a'\ntable = '''\na b | y\n1 0 | 0\n'''\n", "11:1", "sources-disagree"),
    ("[expect]\nfoo = 1\n", "8:1", "unknown-key"),
    ("[expekt]\nequations = 'y = a'\n", "7:1", "unknown-key"),
    ("[expect]\nmodel = 'nix.v'\n", "8:1", "no-model"),
    ("[cases]\nall = true\n", "1:1", "no-source"),
    ("[expect]\nequations = 'y = a'\n[marks]\nby = 'luck'\n", "10:1", "bad-value"),
    ("[expect]\nequations = y\n", "8:13", "toml"),
    ("[expect]\nequations = 'y = a'\n[clock]\nedge = 'up'\n", "9:1", "bad-value"),
]


@pytest.mark.parametrize(("body", "place", "code"), MISTAKES)
def test_every_mistake_at_its_place(body: str, place: str, code: str) -> None:
    loaded = load(body)
    assert loaded.expectation is None
    assert (place, code) in [(f"{m.line}:{m.column}", m.code) for m in loaded.messages], [
        str(m) for m in loaded.messages
    ]


def test_what_no_row_covers_is_told_row_by_row() -> None:
    loaded = load("[expect]\ntable = '''\na b | y\n0 0 | 1\n1 1 | 0\n'''\n")
    assert loaded.expectation is not None and loaded.expectation.uncovered == 2
    text = loaded.messages[0].text
    assert "a = 0, b = 1; a = 1, b = 0" in text
    assert column("[expect]\ntable = '''\na b | y\n0 0 | 1\n1 1 | 0\n'''\n") == "1--0"


def test_too_many_inputs_need_a_choice() -> None:
    loaded = load("[expect]\nequations = 'y = a[0]'\n", "a[17]")
    assert [m.code for m in loaded.messages] == ["too-many-cases"]


def test_printed_formulas_read_back() -> None:
    from obento.core.diagnostics import Collector
    from obento.core.formula.parser import FormulaParser
    from obento.core.formula.printer import printed

    for text in ["a & (b | !c)", "a ^ b ^ c", "!(a & b) | c", "a ? b : c", "(a | b) & c", "a == b", "!a & !(b ^ c)"]:
        once = printed(FormulaParser(text, 1, Collector(), lambda _: 1).single())
        assert printed(FormulaParser(once, 1, Collector(), lambda _: 1).single()) == once
    assert (
        printed(FormulaParser("key & (safe ^ boat_clear)", 1, Collector(), lambda _: 1).single())
        == "key · (safe ⊕ boat_clear)"
    )


def corners_of(ports: str) -> list[str]:
    """The cases that corners give, as digits."""
    loaded = open_spec(
        "s.toml",
        f"obento = 'spec/1'\nunit = 'm'\n[ports]\nin = '{ports}'\nout = 'y'\n[expect]\nequations = 'y ="
        " 1'\n[cases]\ncorners = true\n".encode(),
        {},
    )
    assert loaded.expectation is not None, [str(m) for m in loaded.messages]
    cases = loaded.expectation.cases
    return ["".join(str(plane >> i & 1) for plane in cases.one) for i in range(cases.count)]


def test_corners_crossed_or_where_these_are_too_many_port_by_port() -> None:
    assert len(corners_of("a[8] b[8]")) == 49  # seven of each
    single = corners_of(" ".join(f"n{i}" for i in range(40)))
    assert len(single) == 2 + 40 + 40  # all 0, all 1, one of them 1, one of them 0
    assert {case.count("1") for case in single} == {0, 1, 39, 40}
    wide = corners_of(" ".join(f"w{i}[8]" for i in range(8)))
    assert 7 < len(wide) < 7 + 2 * 8 * 7 + 1 and len(set(wide)) == len(wide)
