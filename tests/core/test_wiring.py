"""Wiring lists: what they mean, and a message at the line for each slip."""

from __future__ import annotations

import pytest

from obento.core.handin import HandinFile, read_handin
from obento.core.limits import Limits
from tests.core.designs import agree, messages, outputs


def lines(body: str, takes: str = "a, b, c", gives: str = "y") -> str:
    return f"wiring m\n  takes {takes}\n  gives {gives}\n{body}\nend\n"


def test_gates_of_any_number_of_inputs() -> None:
    got = outputs(lines("  n <- nand(a, b, c)\n  g2: y <- and(or(a, b), n)"), name="a.wiring")
    assert got == [str(int(((n >> 2) | (n >> 1 & 1)) and n != 7)) for n in range(8)]


def test_buses_bits_slices_joins_constants_and_selectors() -> None:
    body = "  w <- {d[3], d[2..1]}\n  y <- select(s, w, {d[0], 2b10})\n  z <- buf(1)"
    got = outputs(lines(body, "d[4], s", "y[3], z"), name="a.wiring")
    for n, line in enumerate(got):
        bits, s = f"{n >> 1:04b}", n & 1
        assert line == f"{bits[3] + '10' if s else bits[0:3]} 1"


def test_ascending_bus() -> None:
    assert outputs(lines("  y <- buf(p[0])", "p[0..2]"), name="a.wiring") == ["0"] * 4 + ["1"] * 4


def test_blocks_of_wiring_and_of_verilog() -> None:
    text = (
        "wiring m\n takes a, b\n gives y, z\n s, t <- pair(x: b, w: a)\n y <- buf(s)\n z <- inv(t)\nend\nwiring pair\n"
        " takes w, x\n gives p, q\n p <- and(w, x)\n q <- or(w, x)\nend\n"
    )
    verilog = "module inv(input i, output o); assign o = ~i; endmodule"
    reading = read_handin([HandinFile("a.wiring", text.encode()), HandinFile("b.v", verilog.encode())], Limits())
    design = reading.elaborate("m")
    assert design is not None, reading.messages()
    assert agree(design) == [[str(n >> 1 & n & 1), str(int(n == 0))] for n in range(4)]


@pytest.mark.parametrize(
    ("body", "expected"),
    [
        ("  y <- and(a, q)", "4:15 error undriven"),
        ("  y <- and(a, b)\n  y <- or(a, b)", "5:3 error two-drivers"),
        ("  y <- and(a, {b, c})", "4:15 error width-misfit"),
        ("  y <- {a, b}", "4:3 error width-misfit"),
        ("  a <- not(b)\n  y <- buf(a)", "4:3 error input-driven"),
        ("  y <- frob(a)", "4:8 error no-block"),
        ("  y <- not(a, b)", "4:8 error gate-count"),
        ("  y = and(a, b)", "4:5 error strange-character"),
        ("  y <- and(a, b", "4:16 error missing"),
        ("  y <- nor(a, t)\n  t <- nor(b, y)", "4:3 warning loop"),
        ("  t <- nor(a, b)", "3:9 warning open-output"),
        ("  y <- buf(a[3])", "4:12 error out-of-range"),
    ],
)
def test_slips_are_told_at_their_line(body: str, expected: str) -> None:
    assert expected in messages(lines(body), name="a.wiring")


@pytest.mark.parametrize(
    ("line", "truth"),
    [
        ("and(a)", "01"), ("or(a)", "01"), ("xor(a)", "01"), ("nand(a)", "10"), ("nor(a)", "10"), ("xnor(a)", "10"),
    ],
)  # fmt: skip
def test_a_gate_of_one_input(line: str, truth: str) -> None:
    assert outputs(lines(f"  y <- {line}", "a"), name="a.wiring") == list(truth)


@pytest.mark.parametrize("gate", ["and", "or", "xor", "nand", "nor", "xnor"])
def test_inverting_gates_invert_once_at_the_end(gate: str) -> None:
    fold = {"and": lambda n: n == 7, "or": lambda n: n != 0, "xor": lambda n: n.bit_count() % 2 == 1}[
        {"nand": "and", "nor": "or", "xnor": "xor"}.get(gate, gate)
    ]
    got = outputs(lines(f"  y <- {gate}(a, b, c)"), name="a.wiring")
    assert got == [str(int(fold(n) != (gate in ("nand", "nor", "xnor")))) for n in range(8)]
