"""Two circuits over the same cases: held against a comparison of their values one by one."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obento.core.board.trying import Beside, beside
from obento.core.check.check import open_spec
from obento.core.check.inspecting.wires import Inside
from obento.core.handin import HandinFile

SPEC = b"""
obento = "spec/1"
title = "t"
unit = "m"
[ports]
in = "a b c"
out = "y z"
[expect]
equations = '''
y = a & b
z = c
'''
"""
OPENED = open_spec("s.toml", SPEC, {}).expectation
assert OPENED is not None
EXPECTED = OPENED

KINDS = ["and", "or", "xor", "nand", "nor", "xnor"]
gate = st.tuples(st.sampled_from(KINDS), st.sampled_from("abcn"), st.sampled_from("abcn"))


def circuit(y: tuple[str, str, str], z: tuple[str, str, str]) -> str:
    body = "".join(f"  {name} <- {k}({p}, {q})\n" for name, (k, p, q) in (("y", y), ("z", z)))
    return f"wiring m\n  takes a, b, c\n  gives y, z\n  n <- xor(a, c)\n{body}end\n"


def held(one: str, other: str, name: str = "b.wiring") -> Beside:
    return beside(EXPECTED, [HandinFile("a.wiring", one.encode())], [HandinFile(name, other.encode())], (), {})


def value(text: str, output: str, case: int) -> int:
    """A wire of such a circuit by hand."""
    a, b, c = case >> 2 & 1, case >> 1 & 1, case & 1
    values = {"a": a, "b": b, "c": c, "n": a ^ c}
    line = next(row for row in text.splitlines() if row.startswith(f"  {output} <-"))
    kind, _, inputs = line.partition("<- ")[2].partition("(")
    p, q = (values[x] for x in inputs.rstrip(")").split(", "))
    return {"and": p & q, "or": p | q, "xor": p ^ q, "nand": 1 - (p & q), "nor": 1 - (p | q), "xnor": 1 - (p ^ q)}[kind]


@given(gate, gate, gate, gate)
def test_the_cases_in_which_two_part_are_those_in_which_a_value_differs(
    y1: tuple[str, str, str], z1: tuple[str, str, str], y2: tuple[str, str, str], z2: tuple[str, str, str]
) -> None:
    one, other = circuit(y1, z1), circuit(y2, z2)
    found = held(one, other)
    wanted = sum(1 << k for k in range(8) if any(value(one, o, k) != value(other, o, k) for o in "yz"))
    assert found.differs == wanted
    assert found.outputs == [o for o in "yz" if any(value(one, o, k) != value(other, o, k) for k in range(8))]
    assert found.one.cases == found.other.cases == list(range(8))


def test_languages_are_mixed() -> None:
    verilog = "module m(input a, b, c, output y, z); assign y = a & b, z = c; endmodule"
    vhdl = (
        "entity m is port (a, b, c : in bit; y, z : out bit); end;\n"
        "architecture r of m is begin y <= a and b; z <= not c when b = '1' else c; end;"
    )
    mine = "wiring m\n  takes a, b, c\n  gives y, z\n  y <- and(a, b)\n  z <- c\nend\n"
    assert held(mine, verilog, "b.v").differs == 0
    found = held(mine, vhdl, "b.vhd")
    assert found.differs == 0b11001100 and found.outputs == ["z"]
    assert isinstance(found.one.inside, Inside) and isinstance(found.other.inside, Inside)


@pytest.mark.parametrize("broken", ["wiring m\n", "", "wiring m\n  takes a\n  gives y, z\n  y <- a\n  z <- a\nend\n"])
def test_where_one_cannot_be_run_that_is_said_and_the_other_is_there(broken: str) -> None:
    fine = circuit(("and", "a", "b"), ("or", "c", "c"))
    found = held(fine, broken)
    assert found.differs is None and found.other.checked.verdict is None
    assert found.one.checked.verdict is not None and isinstance(found.one.inside, Inside)
