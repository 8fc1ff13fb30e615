"""Sentences with none, one and many: what is counted and listed reads as people say it."""

from __future__ import annotations

import pytest

from obento.core.check.check import check_handin, open_spec
from obento.core.check.judging.outcome import Checked
from obento.core.handin import HandinFile
from obento.core.sentences.said import say
from obento.core.words import counted


def test_counts_and_lists() -> None:
    assert [counted(n, "step") for n in (0, 1, 2)] == ["0 steps", "1 step", "2 steps"]
    assert [counted(n, "entry", "entries") for n in (1, 3)] == ["1 entry", "3 entries"]
    often = [say("goes-wrong", when="a", count=n).rpartition(": ")[2] for n in (1, 2, 3)]
    assert often == ["once", "twice", "3 times"]
    names = [say("odd-number", names=list(n)) for n in ("", "a", "ab", "abc")]
    listed = [text.removeprefix("an odd number of ").removesuffix(" is 1") for text in names]
    assert listed == ["", "a", "a and b", "a, b and c"]
    assert say("ignores", output="y", names=["a", "b"]) == "y does not depend on a or b, and should"


def checked(spec: str, text: str) -> Checked:
    expectation = open_spec("s.toml", spec.encode(), {}).expectation
    assert expectation is not None
    return check_handin(expectation, [HandinFile("m.v", text.encode())])


def combinational(right: str, ports: str = 'in = "a b c"\nout = "y"') -> str:
    return f'obento = "spec/1"\ntitle = "t"\nunit = "m"\n[ports]\n{ports}\n[expect]\nequations = "{right}"\n'


@pytest.mark.parametrize(("watched", "words"), [
    ("a or b", "when `c` changes"), ("a", "when `b` or `c` changes"), ("y", "when `a`, `b` or `c` changes"),
])  # fmt: skip
def test_what_a_process_does_not_wake_for(watched: str, words: str) -> None:
    text = f"module m(input a, b, c, output reg y);\nalways @({watched}) y = a & b & c;\nendmodule\n"
    said = [m.text for m in checked(combinational("y = a & b & c"), text).messages if m.code == "sensitivity"]
    assert said and words in said[0]


@pytest.mark.parametrize(("width", "words"), [(2, "the upper one is lost"), (1, "the upper 2 are lost")])
def test_digits_that_are_cut(width: int, words: str) -> None:
    ports = f'in = "a[3]"\nout = "y[{width}]"'
    right = "y = a[1:0]" if width == 2 else "y = a[0]"
    text = f"module m(input [2:0] a, output [{width - 1}:0] y);\nassign y = a;\nendmodule\n"
    assert any(words in m.text for m in checked(combinational(right, ports), text).messages)


def test_one_bit_ports_go_by_their_name() -> None:
    text = "module m(input a, b, c, output y);\nassign y = a & b & c | a & ~b;\nendmodule\n"
    said = [f.text for f in checked(combinational("y = a & b & c"), text).findings]
    assert said and all("[0]" not in s for s in said) and any("a = 1" in s for s in said)


CLOCKED = (
    'obento = "spec/1"\ntitle = "t"\nunit = "m"\n[ports]\nin = "clk rst en"\nout = "q"\n[clock]\nport = "clk"\n'
    '[reset]\nport = "rst"\nactive = 1\nkind = "async"\n[expect]\nsteps = """\nclk rst en | q\n. 1 0 | 0\nc 0 1 | 1\n'
    'c 0 0 | 1\nc 0 1 | 0\nc 0 0 | 0\nc 0 1 | 1\n"""\n'
)


def test_where_a_clocked_one_goes_astray() -> None:
    text = (
        "module m(input clk, rst, en, output reg q);\nalways @(posedge clk or posedge rst)\n"
        "  if (rst) q <= 0; else if (!en) q <= ~q;\nendmodule\n"
    )
    found = checked(CLOCKED, text)
    assert all("whenever at" not in f.text and "1 times" not in f.text for f in found.findings), found.findings
