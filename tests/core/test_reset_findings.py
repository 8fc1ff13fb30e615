"""Resets that set something else, that wake at one level and ask for the other; registers on both edges."""

from __future__ import annotations

import pytest

from obento.core.check.check import check_handin
from obento.core.handin import HandinFile
from tests.core.clocked import COUNTER, VERILOG, VHDL, clocked, ready

PAIR = (
    "module m(input clk, rst, en, output [1:0] q);\n  reg lo, hi; assign q = {hi, lo};\n"
    "  always @(posedge clk) lo <= rst ? 0 : lo ^ en;\n  always @(posedge clk) seen <= 1;\n  reg seen;\n"
    "  always @(negedge clk) hi <= rst ? 0 : hi ^ (en & lo);\nendmodule\n"
)


def kinds(text: str, name: str = "m.v", spec: str = COUNTER) -> dict[str, str]:
    outcome = check_handin(ready(clocked(spec)), [HandinFile(name, text.encode())])
    return {f.kind: f.text for f in outcome.findings}


@pytest.mark.parametrize(
    ("text", "name"),
    [(VERILOG.replace("q <= 0", "q <= 2"), "m.v"), (VHDL.replace('n <= "00"', 'n <= "10"'), "m.vhd")],
)
def test_a_reset_to_something_else(text: str, name: str) -> None:
    assert kinds(text, name)["reset-value"] == "q is 2 at every reset, and should be 0"


@pytest.mark.parametrize(
    "text",
    [
        VERILOG,
        VERILOG.replace("q + 1", "q + 2"),  # wrong elsewhere
        VERILOG.replace("if (rst)", "if (!rst)"),  # what a reset shows is no one value
    ],
)
def test_no_reset_to_something_else(text: str) -> None:
    assert "reset-value" not in kinds(text)


@pytest.mark.parametrize(
    ("old", "new", "words"),
    [
        ("posedge rst", "negedge rst", "this wakes when `rst` turns 0, and what it does first is for `rst` = 1"),
        ("if (rst)", "if (!rst)", "this wakes when `rst` turns 1, and what it does first is for `rst` = 0"),
    ],
)
def test_a_reset_that_wakes_at_one_level_and_asks_for_the_other(old: str, new: str, words: str) -> None:
    found = kinds(VERILOG.replace(old, new))
    assert next(iter(found)) == "reset-edge" and found["reset-edge"] == words


def test_both_the_wrong_way_round_is_no_such_thing() -> None:
    both = VERILOG.replace("posedge rst", "negedge rst").replace("if (rst)", "if (!rst)")
    assert "reset-edge" not in kinds(both) and "reset-level" in kinds(both)


def test_one_register_at_the_other_edge() -> None:
    found = kinds(PAIR)
    assert found["other-edge"] == "this is clocked at the falling edge of `clk`, all else at the rising one"
    turned = PAIR.replace("posedge", "edge").replace("negedge", "posedge").replace("(edge", "(negedge")
    assert kinds(turned)["other-edge"] == "this is clocked at the rising edge of `clk`, all else at the falling one"
    assert "other-edge" not in kinds(PAIR.replace("negedge", "posedge"))
    assert "other-edge" not in kinds(PAIR.replace("  always @(posedge clk) seen <= 1;\n", ""))  # one here, one there
