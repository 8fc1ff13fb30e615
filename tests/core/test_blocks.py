"""Lines made a block and put back: it does what it did before, whatever was chosen."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from obento.core.board.blocks import from_block, to_block
from tests.core.designs import outputs

CIRCUIT = """wiring m
  takes a, b, c, d[2]
  gives y, z[2], p
  n1 <- and(a, !b)       // one
  n2 <- or(n1, c)
  w <- xor(d, {n1, n2})
  s, over <- add(w, d)
  z[0] <- zero(s)
  z[1] <- over
  y <- nand(n2, s[1])
  p <- n1
end
"""
LINES = range(4, 12)


def does(text: str) -> list[str]:
    return outputs(text, name="a.wiring")


@given(st.sets(st.sampled_from(LINES), min_size=1))
def test_any_lines_become_a_block_and_come_back(numbers: set[int]) -> None:
    made = to_block(CIRCUIT, "m", numbers, "part1")
    if made.trouble:
        assert made.text == CIRCUIT and ("driven elsewhere" in made.trouble or "nothing outside" in made.trouble)
        return
    assert does(made.text) == does(CIRCUIT)
    assert "part1(" in made.text.splitlines()[made.line - 1] and "wiring part1" in made.text
    back = from_block(made.text, "m", made.line)
    assert not back.trouble and does(back.text) == does(CIRCUIT)
    assert "part1(" not in back.text


def test_a_block_reads_as_one_would_write_it() -> None:
    made = to_block(CIRCUIT, "m", [4, 5], "gate")
    assert made.text.splitlines()[3] == "  n1, n2 <- gate(a, b, c)"
    assert made.text.endswith(
        "\nwiring gate\n  takes a, b, c\n  gives n1, n2\n\n  n1 <- and(a, !b)       // one\n  n2 <- or(n1, c)\nend\n"
    )


def test_a_block_used_with_parts_of_buses_comes_back_with_wires_of_its_own() -> None:
    text = (
        "wiring m\n  takes d[4], k\n  gives y[4]\n  y[3..2] <- turn(d[1..0], on: !k)\n"
        "  g: y[1..0] <- turn(d[3..2], k)\nend\n"
        "wiring turn\n  takes x[2], on\n  gives q[2]\n  n: w <- {x[0], x[1]}\n  q <- select(on, x, w)\nend\n"
    )
    once = from_block(text, "m", 4)
    assert not once.trouble and does(once.text) == does(text)
    number = next(i for i, row in enumerate(once.text.splitlines(), 1) if "g: y[1..0]" in row)
    twice = from_block(once.text, "m", number)
    assert not twice.trouble and does(twice.text) == does(text)
    assert "g_x <- d[3..2]" in twice.text and "y[1..0] <- g_q" in twice.text


def test_what_cannot_be_a_block_says_why() -> None:
    assert "no line of a part" in to_block(CIRCUIT, "m", [1, 2], "x").trouble
    assert "cannot be the name" in to_block(CIRCUIT, "m", [4], "and").trouble
    assert "cannot be the name" in to_block(CIRCUIT, "m", [4], "9x").trouble
    assert "already" in to_block(CIRCUIT, "m", [4], "m").trouble
    assert "driven elsewhere" in to_block(CIRCUIT, "m", [8], "x").trouble
    assert "no block is chosen" in from_block(CIRCUIT, "m", 1).trouble
    assert "is no block in this text" in from_block(CIRCUIT, "m", 4).trouble
    assert "no wiring list" in to_block("", "m", [1], "x").trouble
