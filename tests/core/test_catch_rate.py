"""Which likely mistakes the cases of a spec catch: counted by hand on small ones, and proven by adding the cases it
asks for."""

from __future__ import annotations

import re

import pytest

from obento.core.check.check import LoadedSpec, open_spec
from obento.core.check.mutation.catch_rate import CatchRate, NoReference, catch_rate

HEAD = "obento = 'spec/1'\nunit = 'm'\n"
AND = HEAD + "[ports]\nin = 'a b'\nout = 'y'\n[expect]\nequations = 'y = a & b'\n"
WORDS = (
    HEAD
    + "[ports]\nin = 'p[8]:dec q[8]:dec'\nout = 'least[8]:dec same'\n[expect]\nequations = '''\nleast = p < q ? p :"
    " q\nsame = p == q\n'''\n"
)


def loaded(text: str, **others: str) -> LoadedSpec:
    spec = open_spec("s.toml", text.encode(), {f"{n}.v": t.encode() for n, t in others.items()})
    assert spec.expectation is not None, [str(m) for m in spec.messages]
    return spec


def rate(text: str, **others: str) -> CatchRate:
    return catch_rate(loaded(text, **others), {f"{n}.v": t.encode() for n, t in others.items()})


def listed(*rows: str) -> str:
    return "[cases]\nlisted = '''\n" + "\n".join(["a b", *rows]) + "\n'''\n"


def test_every_combination_catches_everything() -> None:
    found = rate(AND)
    assert found.share == 1.0 and found.caught == found.tried - found.harmless > 4 and found.missed == []


def test_what_one_case_misses() -> None:
    """With 1 1 alone an OR looks like the AND; an inverted or exchanged output does not."""
    found = rate(AND + listed("1 1"))
    by_text = {m.change: m for m in found.missed}
    assert 0 < found.share < 1 and "`|` for `&`" in by_text
    assert by_text["`|` for `&`"].inputs == "a = 0, b = 1" and by_text["`|` for `&`"].shows == "y is 1 instead of 0"
    assert not any("`^`" in text for text in by_text)  # 1 xor 1 is 0: caught
    assert by_text["`|` for `&`"].file == "s.toml" and by_text["`|` for `&`"].line == 7


def test_each_case_that_is_asked_for_catches_its_mistake() -> None:
    weak = WORDS + "[cases]\nrandom = { count = 3, seed = 1 }\n"
    found = rate(weak)
    assert found.missed
    rows = [re.sub(r"[a-z]+ = ", "", m.inputs).replace(", ", " ") for m in found.missed]
    better = rate(weak + "listed = '''\np q\n" + "\n".join(dict.fromkeys(rows)) + "\n'''\n")
    assert better.share == 1.0 and better.tried == found.tried and better.harmless == found.harmless


def test_a_model_is_changed_where_there_is_one() -> None:
    text = HEAD + "[ports]\nin = 'a b c'\nout = 'y'\n[expect]\nmodel = 'ref.v'\n"
    model = "module m(input a, b, c, output reg y);\n  always @*\n    if (a) y = b & c;\n    else y = b;\nendmodule\n"
    assert rate(text, ref=model).share == 1.0
    few = rate(text + "[cases]\nlisted = '''\na b c\n1 1 1\n0 1 1\n'''\n", ref=model)
    assert few.reference == "ref.v" and ("ref.v", 3, "`|` for `&`") in {(m.file, m.line, m.change) for m in few.missed}


def test_what_is_not_compared_is_harmless() -> None:
    table = "table = '''\na b | y\n0 - | -\n1 0 | 0\n1 1 | 1\n'''\n"
    found = rate(AND.replace("'y = a & b'\n", "'y = a & b'\n" + table))
    assert found.harmless >= 1 and found.share == 1.0  # where a is 0 nothing is compared: `y = b` does as well


def test_where_there_is_none() -> None:
    with_table = HEAD + "[ports]\nin = 'a b'\nout = 'y'\n[expect]\ntable = '''\na b | y\n0 - | 0\n1 - | 1\n'''\n"
    assert rate(with_table) == CatchRate("", 0, 0, 0, [], True, 4, 4)  # all combinations: nothing to be missed
    assert rate(with_table).share == 1.0
    for text, why in (
        (with_table + listed("1 1"), "needs equations"),
        (
            HEAD
            + "[ports]\nin = 'clk d'\nout = 'q'\n[clock]\nport = 'clk'\nedge = 'rise'\n[expect]\nsteps = '''\nd | q\n1"
            " | 1\n'''\n",
            "clock",
        ),
    ):
        with pytest.raises(NoReference, match=why):
            rate(text)
    broken = open_spec("s.toml", b"unit = 3", {})
    with pytest.raises(NoReference, match="errors"):
        catch_rate(broken, {})


def test_combinations_that_no_row_covers_are_not_caught() -> None:
    """Two rows of sixteen are no 100 %, whatever the others were meant to say."""
    text = (
        HEAD + "[ports]\nin = 'a b c d'\nout = 'y'\n[expect]\ntable = '''\na b c d | y\n0 0 0 0 | 0\n0 0 0 1 | 1\n'''\n"
    )
    found = rate(text)
    assert (found.compared, found.cases, found.share) == (2, 16, 0.125)


def test_how_much_is_compared_stands_beside_the_share() -> None:
    table = "table = '''\na b | y\n0 - | -\n1 0 | 0\n1 1 | 1\n'''\n"
    found = rate(AND.replace("'y = a & b'\n", "'y = a & b'\n" + table))
    assert (found.compared, found.cases) == (2, 4)
