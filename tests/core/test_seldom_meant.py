"""Warnings of what is legal and seldom meant: each fires on wrong programs, and is silent on right ones."""

from __future__ import annotations

import pytest

from tests.core.designs import messages

HEAD = "module m (input [3:0] a, input signed [3:0] s, input [7:0] w, input c, r, d, output reg [3:0] y, z);\n  "


def codes(body: str, name: str = "a.v") -> list[str]:
    """The codes of all warnings of a module with this body."""
    found = messages(HEAD + body + "\nendmodule", name=name)
    assert not any(" error " in m for m in found), found
    return [m.rpartition(" ")[2] for m in found]


@pytest.mark.parametrize(
    "body",
    [
        "always @* y = a >= 0;",
        "always @* y = a < 0;",
        "always @* if (a == 16) y = 1; else y = 0;",
        "always @* y = 20 > a;",
        "always @* y = a[1:0] != 5;",
        "integer i; reg [2:0] k; initial for (k = 0; k <= 7; k = k + 1) y = k;",
    ],
)
def test_comparisons_with_one_answer_are_told(body: str) -> None:
    assert "settled-comparison" in codes(body)


@pytest.mark.parametrize(
    "body",
    [
        "always @* y = s >= 0;",
        "always @* y = a >= 1;",
        "always @* y = a == 15;",
        "parameter N = 20; always @* y = a < N;",
        "always @* y = w == 200;",
        "always @* y = a[0] <= 1;",
        "always @* y = a + 1 > 15;",
        "always @* y = a === 4'bxxxx;",
    ],
)
def test_comparisons_that_can_go_either_way_are_not(body: str) -> None:
    assert "settled-comparison" not in codes(body)


@pytest.mark.parametrize(
    "body",
    [
        "always @* case (a) 0: y = 1; 1: y = 2; 0: y = 3; default: y = 0; endcase",
        "always @* casez (a) 4'b1???: y = 1; 4'b11??: y = 2; default: y = 0; endcase",
        "always @* casex (a) 4'bxx11: y = 1; 4'b0011, 4'b0000: y = 2; default: y = 0; endcase",
        "localparam A = 2, B = 2; always @* case (a) A: y = 1; B: y = 2; default: y = 0; endcase",
    ],
)
def test_labels_that_are_never_reached_are_told(body: str) -> None:
    assert "covered-label" in codes(body)


@pytest.mark.parametrize(
    "body",
    [
        "always @* case (a) 0: y = 1; 1: y = 2; default: y = 0; endcase",
        "always @* casez (a) 4'b11??: y = 1; 4'b1???: y = 2; default: y = 0; endcase",
        "always @* case (a) w[3:0]: y = 1; 4'd1: y = 2; default: y = 0; endcase",
        "always @* case (a) 4'b1xxx: y = 1; 4'b1zzz: y = 2; default: y = 0; endcase",
        "always @* case (1'b1) a[0]: y = 1; a[1]: y = 2; default: y = 0; endcase",
    ],
)
def test_labels_that_can_be_reached_are_not(body: str) -> None:
    assert "covered-label" not in codes(body)


@pytest.mark.parametrize(
    "body",
    [
        "always @(posedge c or posedge r) if (r) y <= 0; else begin y <= a; z <= a; end",
        "always @(posedge c, negedge r) begin if (!r) y <= 0; else begin y <= a; if (d) z <= y; end end",
        "always @(posedge c or posedge r) if (r) y[1:0] <= 0; else begin y <= a; z[0] <= d; end",
    ],
)
def test_what_an_asynchronous_reset_forgets_is_told(body: str) -> None:
    assert "reset-forgets" in codes(body)


@pytest.mark.parametrize(
    "body",
    [
        "always @(posedge c or posedge r) if (r) begin y <= 0; z <= 0; end else begin y <= a; z <= a; end",
        "always @(posedge c) if (r) y <= 0; else begin y <= a; z <= a; end",
        "always @(posedge c or posedge r) if (r) y <= 0; else y <= a; always @(posedge c) z <= a;",
        "reg [3:0] k [0:3]; always @(posedge c or posedge r) if (r) y <= 0; else begin y <= a; k[a[1:0]] <= a; end",
        "always @* if (r) y = 0; else begin y = a; z = a; end",
    ],
)
def test_a_reset_that_sets_all_is_not(body: str) -> None:
    assert "reset-forgets" not in codes(body)


MACHINE = """localparam A = 0, B = 1, C = 2, D = 3;
  reg [1:0] state;
  always @(posedge c or posedge r)
    if (r) state <= A;
    else case (state)
      A: {}
      B: {}
      C: {}
      {}
    endcase
"""


def machine(*arms: str) -> str:
    """A state machine with these arms."""
    text = MACHINE
    for arm in arms:
        text = text.replace("{}", arm, 1)
    return text


@pytest.mark.parametrize(
    "body",
    [
        machine("if (d) state <= B;", "state <= C;", "state <= A;", "D: state <= A;"),
        machine("if (d) state <= C;", "state <= C;", "state <= A;", ""),
        "reg [2:0] state, next;\n  always @(posedge c) state <= next;\n"
        "  always @* begin next = state; case (state) 0: next = 1; 1: next = d ? 2 : 0; 2: next = 0; 5: next = 1;"
        " default: next = 0; endcase end",
    ],
)
def test_states_that_nothing_leads_to_are_told(body: str) -> None:
    assert "unreachable-state" in codes(body)


@pytest.mark.parametrize(
    "body",
    [
        machine("if (d) state <= B;", "state <= C;", ";", "default: state <= A;"),
        machine("if (d) state <= B;", "state <= d ? B : B;", "state <= A;", "default: state <= C;"),
        "reg [2:0] state, next;\n  always @(posedge c) if (r) state <= 0; else state <= next;\n"
        "  always @* begin next = state; case (state) 0: next = 1; 1: if (d) next = 2; 2: next = 2; endcase end",
    ],
)
def test_states_that_nothing_leads_out_of_are_told(body: str) -> None:
    assert "stuck-state" in codes(body)


@pytest.mark.parametrize(
    "body",
    [
        machine("if (d) state <= B;", "state <= C;", "state <= D;", ""),
        "reg [1:0] state; always @(posedge c) case (state) 0: state <= 1; 1: state <= 3; 2: state <= 0; endcase"
        "\n  initial state = 0;",
        "reg [2:0] k; always @(posedge c) if (r) k <= 4; else case (k) 1: k <= 2; 2: k <= 1; 3: k <= 2; endcase",
    ],
)
def test_states_without_an_arm_are_told(body: str) -> None:
    assert "missing-state" in codes(body)


@pytest.mark.parametrize(
    "body",
    [
        machine("if (d) state <= B;", "state <= C;", "state <= A;", "default: state <= A;"),
        machine("if (d) state <= B;", "if (a == 3) state <= C;", "state <= d ? A : D;", "D: state <= C;"),
        "reg [1:0] n; always @(posedge c) begin n <= n + 1; case (n) 0: y <= 1; 1: y <= 2; 2: y <= 3; endcase end",
        "reg [2:0] state, next;\n  always @(posedge c) state <= next;\n"
        "  always @* begin next = 0; case (state) 0: next = 1; 1: next = 2; 2: if (d) next = 2; endcase end",
        "reg [1:0] state; always @(posedge c) begin case (state) 0: state <= 1; 1: state <= 2; 2: ; endcase\n"
        "  if (d) state <= 0; end",
        "reg [1:0] state; always @(posedge c) if (d) state <= a[1:0]; else case (state) 0: state <= 1; 1: state <= 2;"
        " 2: ; endcase",
    ],
)
def test_machines_that_are_whole_are_not(body: str) -> None:
    assert not {"unreachable-state", "stuck-state", "missing-state"} & set(codes(body))


@pytest.mark.parametrize(
    "body",
    [
        "reg q; always @(posedge c) q <= d; always @* y = {3'b0, q & c};",
        "reg q; always @(posedge c) q <= d; wire g = c ? q : d; always @* z = {4{g}};",
        "reg q; always @(negedge c) q <= d; and (g, c, q); always @* y = {3'b0, g};",
    ],
)
def test_clocks_that_are_values_are_told(body: str) -> None:
    assert "clock-as-value" in codes(body)


@pytest.mark.parametrize(
    "body",
    [
        "reg q; always @(posedge c) q <= d; always @* y = {3'b0, q};",
        "wire k = c; reg q; always @(posedge k) q <= d;",
        "reg q; always @(posedge c or posedge r) if (r) q <= 0; else q <= d; always @* y = {3'b0, q & r};",
        "reg h = 0, q; always @(posedge c) h <= ~h; always @(posedge h) q <= d; always @* y = {2'b0, h, q};",
        "reg q; always @(posedge c) q <= d; not (n, c); reg p; always @(posedge n) p <= q;",
    ],
)
def test_clocks_that_are_clocks_are_not(body: str) -> None:
    assert "clock-as-value" not in codes(body)


VHDL = """library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;
entity m is port (c, r, d : in std_logic; y : out unsigned(1 downto 0)); end;
architecture a of m is
  type st is (s0, s1, s2, s3);
  signal s : st; signal u : unsigned(1 downto 0);
begin
"""
FSM = "process (c) begin if rising_edge(c) then if r = '1' then s <= s0; else case s is {} end case; end if; end if;\n"
FSM += '  end process; y <= "01" when s = s1 else "00";'


@pytest.mark.parametrize(
    ("body", "code"),
    [
        (
            FSM.format("when s0 => s <= s1; when s1 => s <= s2; when s2 => s <= s0; when s3 => s <= s0;"),
            "unreachable-state",
        ),
        (FSM.format("when s0 => s <= s1; when s1 => s <= s2; when s2 => null; when others => s <= s0;"), "stuck-state"),
        ('u <= "01" when d = \'1\' else "10"; u <= "00" when r = \'1\' else "11"; y <= u;', "two-drivers"),
        (
            'y <= "0" & (c and d); process (c) begin if rising_edge(c) then u(0) <= d; end if; end process;',
            "clock-as-value",
        ),
    ],
)
def test_the_same_in_vhdl(body: str, code: str) -> None:
    found = messages(VHDL + "  " + body + "\nend;", name="a.vhd")
    assert code in [m.rpartition(" ")[2] for m in found], found


@pytest.mark.parametrize(
    "body",
    [
        FSM.format("when s0 => s <= s1; when s1 => s <= s2; when s2 => s <= s3; when s3 => s <= s0;"),
        FSM.format("when s0 => if d = '1' then s <= s1; end if; when s1 => s <= s0; when others => s <= s0;"),
        'u <= "01" when d = \'1\' else "ZZ"; u <= "00" when r = \'1\' else "ZZ"; y <= u;',
        "u(0) <= d; u(1) <= r; y <= u;",
        "process (c) begin if rising_edge(c) then u(0) <= d; end if; end process; y <= u; u(1) <= '0';",
    ],
)
def test_right_ones_in_vhdl(body: str) -> None:
    found = messages(VHDL + "  " + body + "\nend;", name="a.vhd")
    told = {m.rpartition(" ")[2] for m in found}
    assert not told & {"unreachable-state", "stuck-state", "missing-state", "clock-as-value", "two-drivers"}, found
