"""Causes come before what follows from them; and what is no cause is not told."""

from __future__ import annotations

import pytest

from obento.core.check.check import check_handin, open_spec
from obento.core.check.judging.outcome import Checked
from obento.core.handin import HandinFile

PARITY = (
    'obento = "spec/1"\ntitle = "p"\nunit = "m"\n[ports]\nin = "a b"\nout = "y"\n[expect]\nequations = "y = a ^ b"\n'
)
TOGGLE = (
    'obento = "spec/1"\ntitle = "t"\nunit = "m"\n[ports]\nin = "clk clr"\nout = "y"\n[clock]\nport = "clk"\n[reset]\n'
    'port = "clr"\nactive = 1\nkind = "async"\n[expect]\nsteps = """\nclk clr | y\n. 1 | 0\nc 0 | 1\nc 0 | 0\n"""\n'
)
HOLD = (
    'obento = "spec/1"\ntitle = "h"\nunit = "m"\n[ports]\nin = "clk en"\nout = "n[2]:dec"\n[clock]\nport = "clk"\n'
    '[expect]\nsteps = """\nclk en | n\nc 1 | -\nc 0 | =\nc 1 | -\nc 1 | -\nc 0 | =\n"""\n'
)


def checked(spec: str, text: str, name: str = "m.v") -> Checked:
    expectation = open_spec("s.toml", spec.encode(), {}).expectation
    assert expectation is not None
    return check_handin(expectation, [HandinFile(name, text.encode())])


def module(body: str, ports: str = "input a, b, output reg y") -> str:
    return f"module m({ports});\n{body}\nendmodule\n"


NEVER = [
    ("reg s; always @* if (s) y = a ^ b; else y = a & b;", ["never-assigned", "wrong"]),
    ("wire s; always @* y = s ? a ^ b : a & b;", ["undriven", "undefined"]),
    ("reg s = 0; always @* y = s ? a ^ b : a & b;", ["wrong"]),  # its start value is one
    ("always @* y = a & b;", ["wrong"]),
]


@pytest.mark.parametrize(("body", "kinds"), NEVER)
def test_what_never_gets_a_value_is_said_first(body: str, kinds: list[str]) -> None:
    found = checked(PARITY, module(body))
    assert [f.kind for f in found.findings][: len(kinds)] == kinds, found.findings


def test_in_vhdl_too() -> None:
    text = (
        "library ieee; use ieee.std_logic_1164.all;\nentity m is port (a, b : in std_logic; y : out std_logic); end;\n"
        "architecture r of m is signal s : std_logic; begin\n  y <= a xor b when s = '1' else a and b;\nend;\n"
    )
    first = checked(PARITY, text, "m.vhd").findings[0]
    assert (first.kind, first.text, first.line) == ("never-assigned", "`s` is read but never given a value", 3)


def both_edges(first: str, second: str) -> str:
    return module(
        f"reg t, h; assign y = t;\nalways @(posedge clk or posedge clr) {first}\n"
        f"always @(negedge clk or posedge clr) {second}",
        "input clk, clr, output y",
    )


RACES = [
    # at the edge that both have, the level of the reset lets none of them read what the other sets
    ("if (clr) t = 0; else t = ~t;", "if (clr) h <= 0; else h <= t;", False),
    ("if (clr) t = 0; else t = ~t;", "if (!clr) h <= t; else h <= 0;", False),
    ("if (clr) t = 0; else t = ~t;", "if (clr == 1'b1) h <= 0; else h <= t;", False),
    ("if (clr) t = 0; else t = ~t;", "if (clr != 1'b0) h <= 0; else h <= t;", False),
    ("if (clr) t = 0; else t = ~t;", "h <= t;", True),  # read at the reset as well
    ("if (clr) t = 0; else t = ~t;", "if (clr) h <= t; else h <= 0;", True),
    ("if (clr) t <= 0; else t <= ~t;", "h <= t;", False),
]


@pytest.mark.parametrize(("first", "second", "is_race"), RACES)
def test_a_race_is_one_at_an_edge_where_both_happen(first: str, second: str, is_race: bool) -> None:
    codes = [m.code for m in checked(TOGGLE, both_edges(first, second)).messages]
    assert ("race" in codes) == is_race


def counter(start: str, body: str) -> str:
    ports = "input clk, en, output reg [1:0] n"
    return module(f"initial n = {start};\nalways @(posedge clk) {body}", ports)


def test_start_values_that_are_left_open_part_no_clusters() -> None:
    right = [checked(HOLD, counter(n, "if (en) n <= n + 1;")).verdict for n in ("0", "3")]
    wrong = [checked(HOLD, counter(n, "n <= n + 1;")).verdict for n in ("0", "2")]
    assert all(v is not None for v in (*right, *wrong))
    keys = [v.cluster if v is not None else "" for v in (*right, *wrong)]
    assert keys[0] == keys[1] and keys[2] == keys[3] and keys[0] != keys[2]


def test_of_carries_is_spoken_where_somebody_adds() -> None:
    rows = "\n".join(f"{n:04b} | {(n * 3) % 16:04b}" for n in range(16))
    table = (
        'obento = "spec/1"\ntitle = "c"\nunit = "m"\n[ports]\nin = "a[4]:bin"\nout = "y[4]:bin"\n[expect]\n'
        f"table = '''\na | y\n{rows}\n'''\n"
    )
    arms = "\n".join(f"    {n}: y = {(n * 3) % 16 & 7};" for n in range(16))
    ports = "input [3:0] a, output reg [3:0] y"
    looked_up = checked(table, module(f"always @* case (a)\n{arms}\n  endcase", ports)).findings
    assert looked_up and not any("carry" in f.text or "borrow" in f.text for f in looked_up), looked_up
