"""Processes that nothing shows are left out, and no other."""

from __future__ import annotations

import pytest

from obento.core.ir.unread import without_unread
from tests.core.designs import build

HEAD = "module m(input clk, a, output reg q, output y);\n  always @(posedge clk) q <= a;\n  assign y = ~q;\n"


def left(text: str) -> int:
    """How many processes of some text beside those of `HEAD` stay."""
    return len(without_unread(build(f"{HEAD}{text}\nendmodule\n")).processes) - 2


@pytest.mark.parametrize(
    "text",
    [
        "reg [7:0] u; always @(posedge clk) u <= u + a;",
        "wire t = a & q; wire k = t ^ clk;",
        "reg t; always @* if (a) t = q; else t = clk;",
        "reg t, k; always @* begin t = a; k = t; end",
        "reg [3:0] mem [0:7]; always @(posedge clk) mem[a] <= q;",
        "reg t; initial t = 0; always @(posedge clk) t <= ~t;",
    ],
)
def test_what_nothing_shows_goes(text: str) -> None:
    assert left(text) == 0


@pytest.mark.parametrize(
    "text",
    [
        'always @(posedge clk) $display("%b", a);',
        "always @(posedge clk) if (a) $finish;",
        "integer i; always @(a) for (i = 0; i < 4; i = i + 1) ;",
        "reg t; always @(posedge clk) t <= $random;",
        "reg t; initial begin #5 t = 1; end",
        "reg t; function f(input x); f = x; endfunction always @(posedge clk) t <= f(a);",
        "wire t; assign t = ~t | a;",
        "reg t; always @(t or a) t <= ~t;",
        "reg t, k; always @(k) t <= ~k; always @(t) k <= t;",
    ],
)
def test_what_could_be_noticed_stays(text: str) -> None:
    assert left(text) >= 1


def test_all_that_leads_to_an_output_stays() -> None:
    text = """module m(input clk, a, output reg q);
      reg [1:0] s; wire t = s[0] & a; reg unused; wire k = unused;
      always @(posedge clk) s <= s + 1;
      always @(posedge clk) q <= t;
      always @(posedge clk) unused <= t;
    endmodule"""
    design = build(text)
    assert len(without_unread(design).processes) == len(design.processes) - 2
    whole = build(HEAD + "endmodule\n")
    assert without_unread(whole) is whole


def test_each_signal_is_followed_once() -> None:
    """Four thousand writers of one signal, all of which it reads: a list of all for each would be sixteen million."""
    size = 4_000
    links = "".join(f"always @* s[{i + 1}] = ~s[{i}];" for i in range(size))
    chain = f"reg [{size}:0] s; always @* s[0] = a; {links}"
    assert left(f"{chain} wire t = s[{size}];") == size + 2  # each may wake itself
    assert left(f"{chain} reg t; always @(posedge clk) if (s[{size}]) $finish;") == size + 2
