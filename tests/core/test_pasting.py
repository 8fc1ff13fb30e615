"""Lines copied and pasted: they do in their new place what they did, and take nobody's wire."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obento.core.board.pasting import paste
from tests.core.designs import messages, outputs

CIRCUIT = """wiring m
  takes a, b, c
  gives y, z
  n1 <- and(a, !b)       // one
  k: n2 <- or(n1, c)
  place k 4 4
  y <- nand(n2, n1)
end
"""


@given(st.sets(st.sampled_from([4, 5, 7]), min_size=1))
def test_a_circuit_does_what_it_did_whatever_is_pasted_into_it(numbers: set[int]) -> None:
    rows = CIRCUIT.splitlines()
    made = paste(CIRCUIT, "m", "\n".join(rows[n - 1] for n in sorted(numbers)))
    assert not made.trouble
    assert not any("error" in m for m in messages(made.text, name="a.wiring"))
    assert [o.split()[:1] for o in outputs(made.text, name="a.wiring")] == [
        o.split()[:1] for o in outputs(CIRCUIT, name="a.wiring")
    ]
    assert made.text.startswith(CIRCUIT.removesuffix("end\n")) and made.text.endswith("\nend\n")


def test_names_that_are_taken_become_others_and_the_lines_follow() -> None:
    made = paste(CIRCUIT, "m", "  n1 <- and(a, !b)\n  k: n2 <- or(n1, c)\n  place k 4 4\n  z <- xor(n1, n2)")
    assert made.line == 8
    assert made.text.splitlines()[7:] == ["  n12 <- and(a, !b)", "  n22 <- or(n12, c)", "  z <- xor(n12, n22)", "end"]


def test_what_comes_from_elsewhere_keeps_its_names() -> None:
    made = paste("wiring t\n  takes p\n  gives q\n\nend\n", "t", "  w <- not(p)\n  q <- and(w, far)")
    assert made.text == "wiring t\n  takes p\n  gives q\n\n  w <- not(p)\n  q <- and(w, far)\nend\n"


@pytest.mark.parametrize(
    ("text", "copied", "trouble"),
    [
        (CIRCUIT, "  // nothing", "no line of a part"),
        (CIRCUIT, "?!", "no line of a part"),
        (CIRCUIT, "  a1 <- not(a)\n" * 201, "more than 200"),
        ("nothing", "  q <- not(p)", "no wiring list `m`"),
    ],
)
def test_what_cannot_be_pasted_is_said_and_changes_nothing(text: str, copied: str, trouble: str) -> None:
    made = paste(text, "m", copied)
    assert trouble in made.trouble and made.text == text


def test_a_text_that_is_not_closed_yet_is_gone_on_with() -> None:
    made = paste("wiring m\n  takes a\n  gives y\n", "m", "  y <- not(a)")
    assert made.text == "wiring m\n  takes a\n  gives y\n  y <- not(a)\n"
