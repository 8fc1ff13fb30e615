"""Texts that are long and ordinary: the work they take grows with their length, not faster."""

from __future__ import annotations

import pytest

from obento.core.handin import HandinFile
from obento.core.limits import Limits
from obento.core.simulate import ENDED, Options, simulate
from tests.effort import calls_of


def printed(text: str, name: str) -> str:
    out: list[str] = []
    outcome = simulate([HandinFile(name, text.encode())], out.append, Options(), Limits())
    assert outcome.status == ENDED, [str(m) for m in outcome.messages]
    return "".join(out)


def calls_to_run(text: str) -> int:
    return calls_of(lambda: printed(text, "m.vhd"))


def vhdl(statement: str) -> str:
    return (
        "library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;\nentity m is end; architecture a of m is"
        ' begin process\nvariable n : integer := 3; variable u : unsigned(7 downto 0) := x"05"; variable b : boolean'
        f" := true;\nbegin {statement} wait; end process; end;"
    )


CHAINS = {
    "a report line": lambda n: "report " + " & ".join(f'" v{i}=" & integer\'image(n)' for i in range(n // 2)) + ";",
    "single characters": lambda n: 'report "" & ' + " & ".join(["'x'"] * n) + ";",
    "joined vectors": lambda n: f'report boolean\'image(({" & ".join(["u(0 downto 0)"] * n)}) = {n}b"1");',
    "sums": lambda n: "u := " + " + ".join(["u"] * n) + ";",
    "conditions": lambda n: "b := " + " and ".join([f"(n = {i} or u = {i})" for i in range(n)]) + ";",
    "mixed sums": lambda n: "u := " + " + ".join(["u", "1"] * (n // 2)) + ";",
}


@pytest.mark.parametrize("kind", CHAINS)
def test_chains_take_work_by_their_length(kind: str) -> None:
    make = CHAINS[kind]
    calls_to_run(vhdl(make(8)))  # the packages are read
    short, long = calls_to_run(vhdl(make(32))), calls_to_run(vhdl(make(64)))
    assert long < 2.6 * short, (short, long)


def test_an_ordinary_report_line_of_ten_values() -> None:
    line = " & ".join(f'" v{i}=" & integer\'image(n + {i})' for i in range(10))
    assert printed(vhdl(f"report {line};"), "m.vhd") == "note: " + "".join(f" v{i}={3 + i}" for i in range(10)) + "\n"


def test_a_text_repeated_often_is_no_loop() -> None:
    assert printed('module m; initial $display("%0s", {5000{"a"}}); endmodule', "m.v") == "a" * 5000 + "\n"
    assert printed('module m; initial $display("%s|", {3{"ab"}}); endmodule', "m.v") == "ababab|\n"
