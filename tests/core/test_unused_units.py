"""Units that stand in a file without being used: what is wrong in them is said, and costs nobody a verdict."""

from __future__ import annotations

import pytest

from obento.core.handin import HandinFile
from obento.core.limits import for_simulation
from obento.core.simulate import ENDED, UNREADABLE, Options, simulate
from tests.core.test_check import cells, check, two

USE = "library ieee; use ieee.std_logic_1164.all;\n"
VHDL = (
    USE + "entity m is port (a, b : in std_logic; y : out std_logic); end;\narchitecture r of m is begin y <= a and b;"
    " end;\n"
)
VERILOG = "module m(input a, b, output y); assign y = a & b; endmodule\n"

WRONG = {
    "entity": (
        "a.vhd",
        VHDL,
        USE + "entity other is end;\narchitecture r of other is begin process begin report nothing; wait; end process;"
        " end;\n",
    ),
    "architecture": (
        "a.vhd",
        VHDL.replace("architecture r", "architecture old of m is begin y <= a xor c; end;\narchitecture r"),
        "",
    ),
    "package": ("a.vhd", VHDL, "package p is constant c : integer := nothing; end package;\n"),
    "module": ("a.v", VERILOG, "module other(input a, output y);\nassign y = nothing(a);\nendmodule\n"),
}
RIGHT = {
    "a generic without a value": (
        "a.vhd",
        VHDL,
        (
            "entity other is generic (n : integer); port (q : out bit_vector(n downto 0)); end;\narchitecture r of"
            " other is begin q <= (others => '0'); end;\n"
        ),
    ),
    "a unit that is not here": ("a.v", VERILOG, "module other(input a, output y); missing u(a, y); endmodule\n"),
    "a bench": (
        "a.v",
        VERILOG,
        "module tb; reg a, b; wire y; m u(a, b, y); initial begin a = 0; #1 $finish; end endmodule\n",
    ),
    "two architectures": (
        "a.vhd",
        VHDL.replace("architecture r", "architecture old of m is begin y <= a xor b; end;\narchitecture r"),
        "",
    ),
    "a package and its body": (
        "a.vhd",
        VHDL,
        (
            "package p is function f(n : integer) return integer; end package;\npackage body p is function f(n :"
            " integer) return integer is begin return n; end; end package body;\n"
        ),
    ),
    "a name from above": ("a.v", VERILOG, "module other(output y); assign y = above.k; endmodule\n"),
}


@pytest.mark.parametrize("kind", WRONG)
def test_what_is_wrong_elsewhere_is_said(kind: str) -> None:
    name, text, more = WRONG[kind]
    found = check(two("y = a & b"), text + more, name)
    assert cells(found) == "pppp"
    told = [m for m in found.messages if m.code == "unused-unit"]
    assert len(told) >= 1 and told[0].severity == "warning" and told[0].line > 0 and "does not use" in told[0].text


@pytest.mark.parametrize("kind", RIGHT)
def test_what_a_use_could_settle_is_not(kind: str) -> None:
    name, text, more = RIGHT[kind]
    found = check(two("y = a & b"), text + more, name)
    assert cells(found) == "pppp" and not [m for m in found.messages if m.code == "unused-unit"], found.messages


def test_files_that_are_not_needed_are_left_alone() -> None:
    found = check(
        two("y = a & b"), VERILOG, "a.v", other_v="module other(input a, output y); assign y = nothing; endmodule\n"
    )
    assert cells(found) == "pppp" and not [m for m in found.messages if m.code == "unused-unit"]


@pytest.mark.parametrize("kind", [*WRONG, *RIGHT])
def test_a_bench_does_not_run_from_a_file_that_no_compiler_takes(kind: str) -> None:
    name, text, more = (WRONG | RIGHT)[kind]
    bench = (
        'module tb; initial $display("ran"); endmodule\n'
        if name == "a.v"
        else 'entity tb is end;\narchitecture t of tb is begin process begin report "ran"; wait; end process; end;\n'
    )
    if kind == "a bench":
        bench = ""
    outcome = simulate(
        [HandinFile(name, (text + more + bench).encode())], lambda text: None, Options("tb"), for_simulation()
    )
    assert outcome.status == (UNREADABLE if kind in WRONG else ENDED), [str(m) for m in outcome.messages]
