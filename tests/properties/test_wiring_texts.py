"""Wiring lists that are cut, mixed up and mistyped: always messages, never an exception; on the board too."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from obento.core.board.blocks import from_block, to_block
from obento.core.board.stating import state
from obento.core.circuit.draw import draw
from obento.core.handin import HandinFile, read_handin
from obento.core.limits import Limits

LIST = """wiring m
  takes a, b, clk, d[4], s[2]
  gives y, z[4]
  g1: n1 <- and(a, !b)
  w <- xor(d, {n1, n1, b, a})
  sum, over <- add(w, d, carry: a)
  q, wrap <- counter(bits: 4, rise: clk, clear_low: b, last: 4d11)
  t <- tristate(a, when: b)
  t <- pull(1)
  r <- rom(s, bits: 4, from: {4h3, 4hc})
  m <- ram(s, d, rise: clk, write: a)
  z <- select(s, sum, q, r, m)
  y <- two(x: over, _)
  place g1 40 12
end
wiring two
  takes x, k
  gives p
  p <- latch(x, open: k)
end
"""
WORDS = sorted(
    set(LIST.replace("(", " ( ").replace(")", " ) ").replace(",", " , ").split()) | {"_", "!", "8d255", "bits:", "{"}
)
TOKENS = LIST.replace("\n", " \n ").replace("(", " ( ").replace(")", " ) ").replace(",", " , ").split(" ")


@st.composite
def mixed_up(draw_from: st.DrawFn) -> str:
    """The list with some of its words exchanged, doubled or left out, and perhaps cut off."""
    tokens = list(TOKENS)
    for _ in range(draw_from(st.integers(1, 4))):
        at = draw_from(st.integers(0, len(tokens) - 1))
        what = draw_from(st.sampled_from(["other", "gone", "twice"]))
        if what == "other":
            tokens[at] = draw_from(st.sampled_from(WORDS))
        elif what == "gone":
            del tokens[at]
        else:
            tokens.insert(at, tokens[at])
    text = " ".join(tokens)
    return text[: draw_from(st.integers(0, len(text)))] if draw_from(st.booleans()) else text


@given(mixed_up(), st.sampled_from(["y = a & b", "z = d + s", "counter", "y = nand(a, b)", "t <-", "= ="]))
def test_a_list_that_is_mixed_up_is_told_and_never_breaks_anything(text: str, said: str) -> None:
    reading = read_handin([HandinFile("a.wiring", text.encode())], Limits())
    for unit in list(reading.units):
        design = reading.elaborate(unit)
        if design is not None:
            draw(design, lambda position: "")
    reading.messages()
    stated = state(text, "m", said)
    assert stated.trouble or stated.line >= 1
    for number in range(1, 18):
        for made in (to_block(text, "m", [number, number + 1], "made"), from_block(text, "m", number)):
            assert made.trouble or made.line == number or made.line == number + 1
