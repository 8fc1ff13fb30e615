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
