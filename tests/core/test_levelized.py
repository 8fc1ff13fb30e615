"""Which designs may be run as one tape: each rule of `sim/levelized` with a design that breaks it, and one that just
does not."""

from __future__ import annotations

import pytest

from obento.core.limits import Limits
from obento.core.sim.event_driven import EventDriven
from obento.core.sim.lanes.bits import Unfit
from obento.core.sim.levelized import HasMemory, Levelized
from tests.core.designs import agree, build

WITHOUT_MEMORY = [
    "assign y = a ^ b;",
    "reg t; always @* t = a; assign y = t & b;",
    "reg t; always @(a, b) begin t = 0; if (a) t = b; end assign y = t;",
    "reg t; always @* case ({a, b}) 0, 1: t = 0; 2: t = b; 3: t = a; endcase assign y = t;",
    "reg t; always @* t <= a & b; assign y = t;",
    "integer i; reg t; always @* begin t = 0; for (i = 0; i < 3; i = i + 1) t = t ^ a; end assign y = t;",
    "wire [1:0] t; assign t[1] = a; assign t[0] = b; assign y = &t;",
    "assign #5 y = a | b;",
    "function f(input p, q); if (p) f = q; else f = 0; endfunction assign y = f(a, b);",
]
WITH_MEMORY = [
    "reg t; always @* if (a) t = b; assign y = t;",
    "reg t; always @(a) t = a & b; assign y = t;",
    "reg t = 0; always @* t = a & b; assign y = t;",
    "reg t; initial t = 0; always @* t = a; assign y = t;",
    "reg t; always @(posedge a) t <= b; assign y = t;",
    "reg t; always @* t = 1'b0; assign y = t | a;",
    "wire t; assign t = a & ~t; assign y = t;",
    "wire q, n; nor (q, a, n); nor (n, b, q); assign y = q;",
    "reg t; always @* begin t = t ^ a; end assign y = t;",
    "reg t, u; always @* u = t; always @* begin if (a) t = b; end assign y = u;",
    "function f(input p, q); if (p) f = q; endfunction assign y = f(a, b);",
    "reg t; always @* begin t = a; end always @* begin t = b; end assign y = t;",
]


def design_of(body: str):  # type: ignore[no-untyped-def]
    return build(f"module m(input a, b, output y); {body} endmodule")


@pytest.mark.parametrize("body", WITHOUT_MEMORY)
def test_functions_of_the_inputs_become_one_tape(body: str) -> None:
    design = design_of(body)
    Levelized(design, Limits())
    agree(design)


@pytest.mark.parametrize("body", WITH_MEMORY)
def test_what_may_remember_does_not(body: str) -> None:
    design = design_of(body)
    with pytest.raises(HasMemory):
        Levelized(design, Limits())
    agree(design)


def test_inputs_nobody_binds_float() -> None:
    design = build("module m(input a, b, output y, z); assign y = b === 1'bz; assign z = a & b; endmodule")
    tape = Levelized(design, Limits(), frozenset(["b"]))
    found = tape.run([0b10], 0b11)
    y, z = (p.signal.offset for p in design.ports if p.direction == "out")
    assert found[y] == (0b11, 0) and found[z] == (0, 0b01)  # 0 and z is 0, 1 and z is x


def test_a_constant_that_a_process_sets_has_to_be_woken_for() -> None:
    """`z` is x until its process has run; who reads it without waking for it may have been too early."""
    text = (
        "module m(input [1:0] a, output reg [2:0] u, z, z2); always @* begin u = a; z <= 2'b10; end always @(u) z2 = u"
        " ^ z; endmodule"
    )
    with pytest.raises(HasMemory):
        Levelized(build(text), Limits())


LISTENS = (
    "library ieee; use ieee.std_logic_1164.all; entity m is port (a, b : in {kind}; y : out {kind}); end; architecture"
    " r of m is {body} end;"
)


@pytest.mark.parametrize("kind", ["std_logic", "bit"])
@pytest.mark.parametrize(
    ("body", "remembers"),
    [
        ("begin process (a, b) begin y <= a and b; end process;", False),
        ("begin y <= a and b;", False),
        ("begin process (a) begin y <= a and b; end process;", True),
        ("begin process (a) begin y <= not b; end process;", True),
        ("begin process (b) begin y <= (a xor b) or not (a and b); end process;", True),
    ],
)
def test_a_process_of_one_gate_must_wake_for_its_inputs(kind: str, body: str, remembers: bool) -> None:
    """1076-1993 clause 9.2: a process with a sensitivity list runs when something in the list changes, and at no other
    time."""
    design = build(LISTENS.format(kind=kind, body=body), name="m.vhd")
    if remembers:
        with pytest.raises(HasMemory, match="does not wake"):
            Levelized(design, Limits())
    else:
        Levelized(design, Limits())


def test_gates_written_backwards_or_with_gates_inside_are_the_same_tape() -> None:
    forward = "wire n1, n2; and (n1, a, b); nor (n2, n1, a); xor (y, n2, b);"
    backward = "wire n1, n2; xor (y, n2, b); nor (n2, n1, a); and (n1, a, b);"
    nested = "assign y = ~((a & b) | a) ^ b;"
    runs = []
    for body in (forward, backward, nested):
        tape = Levelized(design_of(body), Limits())
        runs.append((list(tape.run([0b1010, 0b1100], 0b1111).values()), len(tape.tape.ops)))
    assert runs[0] == runs[1] == runs[2]
    assert runs[0][0] == [(0b1001, 0b0110)]  # a xnor b, once the AND is absorbed


AT_THE_HEAD = [
    "always @* begin #1 t = a & b; end",
    "always @(a or b) #3 t = a & b;",
    "always @* begin #1; #2 t = a; t = t & b; end",
    "always @* begin begin #0.5; end if (a) t = b; else t = 0; end",
]
ELSEWHERE = [
    "always @* begin t = a & b; #1; end",  # what changes while it sleeps is missed
    "always @* t = #1 a & b;",
    "always @* begin #1 t = a; #1 t = t & b; end",
    "always @* begin #(a) t = a & b; end",  # nobody knows how long
    "always begin @(a or b); @(a or b) t = a & b; end",
    "always @(a) #1 t = a & b;",
]


@pytest.mark.parametrize("process", AT_THE_HEAD)
def test_delays_at_the_head_of_a_process_are_left_out(process: str) -> None:
    design = design_of(f"reg t; {process} assign y = ~t;")
    Levelized(design, Limits())
    agree(design)


@pytest.mark.parametrize("process", ELSEWHERE)
def test_delays_anywhere_else_are_not(process: str) -> None:
    with pytest.raises((HasMemory, Unfit)):
        Levelized(design_of(f"reg t; {process} assign y = ~t;"), Limits())


def test_a_process_that_sleeps_misses_nothing_that_it_looks_at_later() -> None:
    """`t` comes at 5; the process wakes at 0 for `b`, gets up at 2, and wakes again for `t`."""
    design = design_of("wire t; reg u; assign #5 t = a; always @(t or b) begin #2 u = t & b; end assign y = u;")
    Levelized(design, Limits())
    assert agree(design) == [["0"], ["0"], ["0"], ["1"]]


def test_after_in_vhdl_is_left_out_only_where_nothing_remembers() -> None:
    gates = "signal t : bit; begin t <= a and b after 3 ns; y <= not t after 2 ns;"
    design = build(LISTENS.format(kind="bit", body=gates), name="m.vhd")
    Levelized(design, Limits())
    with pytest.raises(Unfit):
        EventDriven(design, Limits())
    for body in (
        "begin process (a) begin y <= a and b after 2 ns; end process;",
        "begin process (a, b) begin if a = '1' then y <= b after 2 ns; end if; end process;",
        "begin y <= a, b after 2 ns;",
    ):
        with pytest.raises((HasMemory, Unfit)):
            Levelized(build(LISTENS.format(kind="bit", body=body), name="m.vhd"), Limits())
