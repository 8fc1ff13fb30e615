"""Texts past a bound: a message with the line it was at, and never a verdict; just below it they are judged."""

from __future__ import annotations

import sys
from collections.abc import Iterator

import pytest

from obento.core.check.check import check_handin, open_spec
from obento.core.check.judging.outcome import Checked
from obento.core.handin import HandinFile
from obento.core.limits import Limits
from tests.effort import calls_of

SPEC = """obento = "spec/1"
title = "Odd numbers"
unit = "odd"
[ports]
in = "a[4]"
out = "y"
[expect]
equations = "y = a[0]"
"""
EXPECTATION = open_spec("spec.toml", SPEC.encode(), {}).expectation
HEAD = """library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;
entity odd is port (a : in std_logic_vector(3 downto 0); y : out std_logic); end;
architecture r of odd is
begin
"""


def vhdl(*lines: str) -> tuple[str, str]:
    return "odd.vhd", HEAD + "\n".join(lines) + "\nend;\n"


def verilog(*lines: str) -> tuple[str, str]:
    return "odd.v", "module odd(input [3:0] a, output reg y);\n" + "\n".join(lines) + "\nendmodule\n"


def vhdl_case(n: int) -> tuple[str, str]:
    arms = [f"when {i} => y <= '{i % 2}';" for i in range(n - 1)]
    return vhdl("process (all) begin", "case to_integer(unsigned(a)) is", *arms, "when others => y <= '1';",
                "end case; end process;")  # fmt: skip


def verilog_case(n: int) -> tuple[str, str]:
    arms = [f"{i}: y = {i % 2};" for i in range(n - 1)]
    return verilog("always @*", "case (a)", *arms, "default: y = 1;", "endcase")


def else_if(n: int) -> tuple[str, str]:
    return verilog("always @*", *[f"if (a == {i}) y = {i % 2}; else" for i in range(n)], "y = 1;")


def conditional(n: int) -> tuple[str, str]:
    return verilog("always @* y =", *[f"a == {i} ? {i % 2} :" for i in range(n)], "1;")


def vhdl_processes(n: int) -> tuple[str, str]:
    return vhdl("y <= a(0);", *[f"p{i}: process (a) begin end process;" for i in range(n - 1)])


BOUNDS = {
    "VHDL arms": (vhdl_case, Limits(case_arms=16), 16, 6),
    "Verilog arms": (verilog_case, Limits(case_arms=15), 16, 3),
    "else if": (else_if, Limits(chain=15), 16, 19),
    "conditional operators": (conditional, Limits(chain=16), 16, 20),
    "VHDL processes": (vhdl_processes, Limits(vhdl_processes=16), 16, 21),
}


def checked(handin: tuple[str, str], limits: Limits) -> Checked:
    assert EXPECTATION is not None
    return check_handin(EXPECTATION, [HandinFile(handin[0], handin[1].encode())], limits=limits)


@pytest.mark.parametrize("kind", BOUNDS)
def test_past_a_bound_the_line_is_said(kind: str) -> None:
    make, limits, most, line = BOUNDS[kind]
    inside = checked(make(most), limits)
    assert inside.status == "checked" and inside.verdict is not None and inside.verdict.right == 0xFFFF, inside.messages
    past = checked(make(most + 1), limits)
    assert past.status == "unreadable" and past.verdict is None
    errors = [m for m in past.messages if m.severity == "error"]
    assert [(m.line, m.code in ("limit", "too-deep")) for m in errors] == [(line, True)]


@pytest.fixture
def deep_calls() -> Iterator[None]:
    """As many calls of calls as a worker takes."""
    before = sys.getrecursionlimit()
    sys.setrecursionlimit(12_000)
    yield
    sys.setrecursionlimit(before)


@pytest.mark.usefixtures("deep_calls")
@pytest.mark.parametrize("make", [else_if, conditional])
def test_a_long_chain_is_ordinary(make: object) -> None:
    assert callable(make)
    found = checked(make(600), Limits())
    assert found.verdict is not None and found.verdict.right == 0xFFFF, found.messages


NESTED = {
    "loops": ("for i{0} in 0 to 0 loop", "end loop;"),
    "conditions": ("if a(0) = '0' or a(0) = '1' then", "end if;"),
}


@pytest.mark.parametrize("kind", NESTED)
def test_nested_deeper_than_can_be_run_is_no_verdict(kind: str) -> None:
    opens, closes = NESTED[kind]
    # A time to wait for keeps it out of the lanes.
    body = [opens.format(i) for i in range(120)] + ["y <= a(0);"] + [closes] * 120
    found = checked(vhdl("process begin", *body, "wait on a; wait for 0 ns; end process;"), Limits())
    assert found.status == "stopped", found.messages
    error = next(m for m in found.messages if m.severity == "error")
    assert error.line == 5 and "deeper than can be run" in error.text


def test_loops_nested_deeper_than_can_be_run() -> None:
    names = [f"i{k}" for k in range(30)]
    loops = [f"for ({i} = 0; {i} < 1; {i} = {i} + 1)" for i in names]
    text = verilog("wire b = a[0];", f"integer {', '.join(names)};", "always @*", *loops, "begin #0 y = b; end")
    found = checked(text, Limits())
    assert found.status == "stopped", found.messages
    assert [(m.line, m.text) for m in found.messages if m.severity == "error"] == [
        (4, "`odd` nests deeper than can be run")
    ]


def written_in_parts(n: int) -> tuple[str, str]:
    parts = [f"always @* w[{i}] = a[0];" for i in range(n)]
    return verilog(f"reg [{n - 1}:0] w;", *parts, "always @* y = w[0];")


def test_many_processes_of_one_vector_take_work_by_their_number() -> None:
    def work(n: int) -> int:
        return calls_of(lambda: checked(written_in_parts(n), Limits()))

    work(4)  # what is read once
    short, long = work(60), work(120)
    assert long < 2.6 * short, (short, long)
