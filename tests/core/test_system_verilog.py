"""What .sv files make illegal is told with its clause; what is legal beside it stays so. Verdicts on hand-ins that use
their types."""

from __future__ import annotations

import pytest

from tests.core.designs import messages, outputs
from tests.core.test_check import cells, check, two

FRAME = "module m(input logic a, b, clk, output logic y, z);\n{}\nendmodule\n"


def told(body: str, name: str = "a.sv") -> list[str]:
    return messages(FRAME.format(body), name=name)


ILLEGAL = [
    ("assign y = a; assign y = b;", "variable-drivers"),
    ("assign y = a; always @* y = b;", "variable-drivers"),
    ("assign y = a; initial y = 0;", "variable-drivers"),
    ("buf (y, a); assign y = b;", ""),
    ("logic [1:0] k; assign k = {a, b}; assign k[0] = a;", "variable-drivers"),
    ("always_comb y = a; always_comb y = b;", "variable-drivers"),
    ("always_ff @(posedge clk) y <= a; always_ff @(negedge clk) y <= b;", "variable-drivers"),
    ("always_comb y = a; always @(posedge clk) y <= b;", "variable-drivers"),
    ("always_latch if (clk) y = a; always_comb y = b;", "variable-drivers"),
    ("task t; y = b; endtask always_comb y = a; always @(b) t;", "variable-drivers"),
    ("always_ff @(posedge clk) begin y <= a; #1 z <= b; end", "ff-waits"),
    ("always_ff @(posedge clk) y = #1 a;", "ff-waits"),
    ("always_ff @(posedge clk) begin @(negedge clk); y <= a; end", "ff-waits"),
    ("always_ff @* y <= a;", "ff-event"),
    ("always_ff y <= a;", "ff-event"),
    ("always_comb begin #1 y = a; end", "comb-waits"),
    ("final #1 $display(\"x\");", "final-waits"),
    ("typedef enum logic [1:0] {P, Q} s_t; s_t s; always_comb s = 0;", "enum-cast"),
    ("typedef enum logic [1:0] {P, Q} s_t; s_t s; always_ff @(posedge clk) s <= 2'b01;", "enum-cast"),
    ("typedef enum {P, Q} s_t; s_t s; always_ff @(posedge clk) s <= s + 1;", "enum-cast"),
    ("typedef enum {P, Q} s_t; typedef enum {R, S} r_t; s_t s; r_t r; always_comb s = r;", "enum-cast"),
    ("typedef enum {P, Q} s_t; s_t s; assign s = a;", "enum-cast"),
    ("typedef enum {P, Q} s_t; s_t s = 1;", "enum-cast"),
    ("typedef enum {P, Q} s_t; function s_t f(input logic k); return k; endfunction", "enum-cast"),
    ("enum {P, Q} s; always_comb s = 1;", "enum-cast"),
]  # fmt: skip


@pytest.mark.parametrize(("body", "code"), ILLEGAL)
def test_what_is_illegal_is_told(body: str, code: str) -> None:
    found = [m.split()[-1] for m in told(body) if " error " in m]
    assert (code in found) if code else True, told(body)


LEGAL = [
    "always @(posedge clk) y <= a; always @(negedge clk) y <= b;",
    "logic [1:0] k; assign k[0] = a; assign k[1] = b;",
    "logic [1:0] k; always_comb k[0] = a; always_comb k[1] = b; assign y = ^k;",
    "logic [1:0] k; assign k[0] = a; always_comb k[1] = b;",
    "always_ff @(posedge clk) y <= #1 a;",
    "logic q = 0; always_ff @(posedge clk) q <= a; assign y = q;",
    "wire w; assign w = a; assign w = b;",
    "int n; assign n = a + b; byte k; always_comb k = n[7:0];",
    "reg r; assign r = a;",
    "for (genvar i = 0; i < 2; i++) begin : g logic k; assign k = a; end",
    (
        "typedef enum logic [1:0] {P, Q} s_t; s_t s, t; always_comb begin t = s; case (s) P: t = Q; default: t = a ? P"
        " : Q; endcase end always_ff @(posedge clk) s <= t;"
    ),
    "typedef enum logic [1:0] {P, Q} s_t; s_t s; always_comb s = s_t'({a, b});",
    "typedef enum logic [1:0] {P, Q} s_t; s_t s; logic [1:0] k; always_comb k = s; assign y = s == 2'b01;",
    "initial force y = 1; always_comb y = a;",
]


@pytest.mark.parametrize("body", LEGAL)
def test_what_is_legal_is_not(body: str) -> None:
    assert not [m for m in told(body) if " error " in m], told(body)


def test_an_initial_beside_always_ff_is_a_warning() -> None:
    """Illegal by the letter, and accepted by most tools: nobody's work should be unreadable for it."""
    assert [
        m.split()[1:] for m in told("initial y = 0; always_ff @(posedge clk) y <= a;") if "variable-drivers" in m
    ] == [["warning", "variable-drivers"]]


def test_verilog_files_know_none_of_it() -> None:
    text = "module m(input a, b, clk, output reg y); always @(a) y = a; always @(b) y = b; initial y = 0; endmodule"
    assert not [m for m in messages(text) if " error " in m]
    assert "system-verilog" in " ".join(messages("module m(input a, output y); assign y = 1'(a); endmodule"))


def test_what_functions_read_is_said_of_star() -> None:
    body = (
        "module m(input a, b, output reg y); function f(input k); f = k & b; endfunction always @* y = f(a); endmodule"
    )
    assert [m for m in messages(body) if "sensitivity" in m] == ["1:88 warning sensitivity"]
    found = check(two("y = a & b"), body)
    assert (
        "wake for `b`, which `f` reads" in " ".join(f.text for f in found.findings if f.kind == "sensitivity")
        and found.verdict is not None
        and found.verdict.failed
    )
    for right in (
        body.replace("always @* y = f(a);", "always @(a or b) y = f(a);"),
        body.replace("f(a)", "f(a) & (b | 1)"),
    ):
        assert not [m for m in messages(right) if "sensitivity" in m]
    comb = body.replace("output reg", "output logic").replace("always @*", "always_comb")
    assert cells(check(two("y = a & b"), comb, "a.sv")) == "pppp" and not [
        m for m in messages(comb, name="a.sv") if "sensitivity" in m
    ]
    assert "sensitivity" in " ".join(messages(body.replace("output reg", "output").replace("always @* y", "assign y")))


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("typedef int unsigned n_t; n_t n; always_comb begin n = a; y = n > 3; end", "00001111"),
        ("byte unsigned n; always_comb begin n = a - 1; y = n > 200; end", "10000000"),
        ("byte n; always_comb begin n = a - 1; y = n > 200; end", "00000000"),
        ("bit k; logic u; always_comb begin k = u; y = k === 1'b0; end", "11111111"),
        ("bit [2:0] k; assign k = a[0] ? 3'bx11 : a; assign y = k[2];", "00001010"),
        ("function bit f(input bit k); return k; endfunction assign y = f(a[2] ? 1'bz : a[0]) === 1'b0;", "10101111"),
        (
            (
                "typedef enum logic [1:0] {P, Q, R} s_t; s_t s; always_comb begin s = P; if (a[0]) s = R; y = s =="
                " 2'd2; end"
            ),
            "01010101",
        ),
    ],
)
def test_types_in_all_engines(text: str, expected: str) -> None:
    assert "".join(outputs(f"module m(input logic [2:0] a, output logic y); {text} endmodule", name="a.sv")) == expected


def test_a_two_state_input_reads_0_where_it_is_unknown() -> None:
    """Before the first case its inputs are x outside, and 0 inside."""
    text = (
        "module m(input bit a, b, output logic y); logic seen = 0; always @(a or b) if (a === 1'bx) seen = 1; assign y"
        " = (a & b) | seen; endmodule"
    )
    assert cells(check(two("y = a & b"), text, "a.sv")) == "pppp"
