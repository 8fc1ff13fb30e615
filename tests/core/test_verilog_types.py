"""Types of Verilog and SystemVerilog as records: widths, layouts, start values, what fits what."""

from __future__ import annotations

import pytest

from obento.core.verilog.model.types import DataType, Member, Shape, array_of, builtin, count_of, vector
from tests.core.designs import build, messages, outputs

NIBBLE = vector("logic", False, 3, 0)
BYTE = builtin("byte")


def structure(packed: bool, *members: tuple[str, DataType]) -> DataType:
    """A structure of these members, laid out as the text would be."""
    width, found = 0, {}
    for name, of in reversed(members):
        found[name] = Member(name, width, of)
        width += of.width
    two_state = all(of.two_state for _, of in members)
    return DataType("struct", width, False, two_state, (width - 1, 0), None, dict(reversed(found.items())), packed)


@pytest.mark.parametrize(
    ("word", "width", "signed", "two_state"),
    [("int", 32, True, True), ("integer", 32, True, False), ("byte", 8, True, True), ("logic", 1, False, False),
     ("time", 64, False, False), ("longint", 64, True, True), ("bit", 1, False, True)],
)  # fmt: skip
def test_words_of_types(word: str, width: int, signed: bool, two_state: bool) -> None:
    of = builtin(word)
    assert (of.width, of.signed, of.two_state) == (width, signed, two_state)  # 1800 tables 6-8 and 6-9


def test_packed_arrays_multiply() -> None:
    of = array_of(array_of(NIBBLE, 1, 0), 0, 2)
    assert of.width == 24 and of.step == -1 and of.element is not None and of.element.width == 8


def test_shapes_count_all_dimensions() -> None:
    assert count_of(((3, 0), (0, 1))) == 8 and Shape(NIBBLE, ((3, 0), (0, 1))).width == 32


def test_what_begins_as_zero_is_of_two_states() -> None:
    mixed = structure(False, ("a", NIBBLE), ("b", BYTE))
    assert mixed.start_value() == (0, 0xFF)  # b is 0, a is x
    assert structure(True, ("a", NIBBLE), ("b", BYTE)).start_value() == (0, 0)  # four states as a whole (7.2.1)
    assert BYTE.start_value() == (0, 0xFF)


def test_packed_types_fit_by_their_digits_unpacked_ones_by_their_name() -> None:
    assert structure(True, ("a", NIBBLE)).is_like(NIBBLE)  # 6.22.2
    assert not structure(False, ("a", NIBBLE)).is_like(structure(False, ("a", NIBBLE)))
    assert not BYTE.is_like(vector("logic", True, 7, 0))
    assert Shape(NIBBLE, ((0, 3),)).fits(Shape(NIBBLE, ((7, 4),)))
    assert not Shape(NIBBLE, ((0, 3),)).fits(Shape(NIBBLE, ((0, 4),)))


BESIDE = """
module m (input logic [2:0] i, input logic [3:0] d, output logic [11:0] y);
  struct packed {{ logic [3:0] a; logic [3:0] b; logic [3:0] c; }} s;
  always_comb begin
    s = 12'h5a5;
    {}
  end
  assign y = s;
endmodule
"""


@pytest.mark.parametrize("write", ["s.b[4] = 1;", "s.b[i + 4] = d[0];", "s.b[7:4] = d;"])
def test_nothing_is_written_beside_a_member(write: str) -> None:
    assert set(outputs(BESIDE.format(write), name="a.sv")) == {"010110100101"}


def test_an_element_does_not_reach_into_its_neighbour() -> None:
    text = "module m (input a, output [7:0] y); reg [3:0] k [0:1]; always @* begin k[0] = 0; k[1] = 0; k[0][5] = a; end"
    assert set(outputs(text + " assign y = {k[1], k[0]}; endmodule")) == {"00000000"}


def test_ports_of_the_unit_that_is_checked_are_vectors() -> None:
    text = (
        "module m (input logic [1:0] a [2], output logic y [0:1]); assign y[0] = a[0] > a[1], y[1] = ^a[1]; endmodule"
    )
    design = build(text, name="a.sv")
    assert [(p.name, p.signal.width) for p in design.ports] == [("a", 4), ("y", 2)]
    assert outputs(text, name="a.sv")[0b0100] == "10"  # a[0] = 01, a[1] = 00: the leftmost element on the left


def test_a_variable_of_an_automatic_function_begins_anew() -> None:
    text = """
module m (input logic [1:0] a, output logic [1:0] y);
  function automatic logic [1:0] turned (logic [1:0] k);
    logic [1:0] t = k;
    t[0] = k[1];
    return t;
  endfunction
  assign y = turned(a);
endmodule
"""
    assert outputs(text, name="a.sv") == ["00", "00", "11", "11"]


@pytest.mark.parametrize(
    ("body", "code"),
    [
        ("typedef struct packed {logic a; logic a;} s_t;", "duplicate"),
        ("int [3:0] x;", "word-range"),
        ("typedef struct {logic a;} s_t; s_t [3:0] x;", "packed-of-unpacked"),
        ("typedef logic n_t [3]; n_t [1:0] x;", "array-of-array"),
        ("union packed {logic a;} u; initial u = '{1};", "union-pattern"),
        ("logic [3:0] x; initial x[0].y = 1;", "no-member"),
        ("struct packed {logic a;} s; initial s.a.b = 1;", "no-member"),
        ("struct {logic a;} s; initial s[0] = 1;", "struct-index"),
        ("logic x [3]; initial x[0:1] = '{0: 1, 0: 2};", "pattern-count"),
        ("logic x [3]; initial x = '{5: 1, default: 0};", "out-of-range"),
        ("logic [7:0] x; initial x = {<<{x}} + 1;", "stream-operand"),
        ("logic [3:0] x; initial x = {<<{8'h12}};", "stream-wide"),
        ("logic x; initial x = undefined_t'(1);", "undeclared"),
    ],
)
def test_what_does_not_fit_is_told(body: str, code: str) -> None:
    found = messages(f"module m;\n  {body}\nendmodule", name="a.sv")
    assert any(m.endswith(f"error {code}") for m in found), found
