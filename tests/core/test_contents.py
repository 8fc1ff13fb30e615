"""Tables that an `initial` process fills are constants where nobody else writes them, and only there."""

from __future__ import annotations

import pytest

from tests.core.designs import agree, build, known_cases, levelized

TABLES = [
    # what stands in the module, whether one run tells all cases
    ("reg [2:0] r [0:7]; integer i; initial for (i = 0; i < 8; i = i + 1) r[i] = i ^ 5; assign y = r[a];", True),
    ("reg [2:0] r [7:0]; integer i; initial for (i = 0; i < 8; i = i + 1) r[i] = 7 - i; assign y = r[a];", True),
    ("reg [2:0] r [0:3]; initial begin r[0] = 3; r[1] = 1; end assign y = r[a[1:0]];", True),
    ("reg [2:0] k; initial k = 5; assign y = a ^ k;", True),
    ("reg [2:0] k; initial k <= 5; assign y = a ^ k;", True),
    ("reg [2:0] k; reg [2:0] t; initial k = 5; always @(a) t = a ^ k; assign y = t;", True),
    ("reg [2:0] k; initial begin k = 5; k[0] = 0; end assign y = a & k;", True),
    ("reg [2:0] k, l; initial k = 5; initial l = 3; assign y = a ^ k ^ l;", True),
    ("reg [2:0] k; initial k = a; assign y = k;", False),  # what a was when it began
    ("reg [2:0] k; initial k = 5; always @(a) if (a == 3) k = 2; assign y = k;", False),
    ("reg [2:0] k; initial #1 k = 5; assign y = k;", False),
    ("reg [2:0] k, l; initial k = 5; initial l = k; assign y = l;", False),  # which of them begins
    ("reg [2:0] k; initial begin k = 5; k <= 3; end assign y = k ^ a;", False),
]


@pytest.mark.parametrize(("text", "levelled"), TABLES, ids=[t[0] for t in TABLES])
def test_contents(text: str, levelled: bool) -> None:
    design = build(f"module m(input [2:0] a, output [2:0] y); {text} endmodule")
    assert (levelized(design, known_cases(design)) is not None) is levelled
    agree(design)


def test_an_endless_initial_is_not_taken_for_a_table() -> None:
    design = build("module m(input a, output y); reg k; initial while (1) k = 0; assign y = a; endmodule")
    assert levelized(design, known_cases(design)) is None
