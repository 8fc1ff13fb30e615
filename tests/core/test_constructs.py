"""Small circuits with all their cases, by every engine: what the standard says of each construct, and no difference
between ways to run."""

from __future__ import annotations

import pytest

from tests.core.designs import outputs

GATES = "module m(input a, b, output y); {} endmodule"
CIRCUITS = [
    # clause 7: two drivers of every kind of net; a and b count 00 01 10 11
    (GATES, "assign y = a, y = b;", "0 x x 1"),
    (GATES, "wand w; assign w = a, w = b; assign y = w;", "0 0 0 1"),
    (GATES, "wor w; assign w = a, w = b; assign y = w;", "0 1 1 1"),
    (GATES, "bufif1 (y, b, a);", "z z 0 1"),
    (GATES, "notif0 (y, b, a);", "1 0 z z"),
    (GATES, "bufif1 (y, b, a); pullup (y);", "1 1 0 1"),
    (GATES, "bufif1 (y, b, a); bufif0 (y, ~b, a);", "1 0 0 1"),
    (GATES, "tri0 w; bufif1 (w, b, a); assign y = w;", "0 0 0 1"),
    (GATES, "assign (strong0, weak1) y = a; assign (weak0, strong1) y = b;", "0 x x 1"),
    (GATES, "assign (pull0, pull1) y = a; assign (strong0, strong1) y = b;", "0 1 0 1"),
    (GATES, "nmos (y, b, a);", "z z 0 1"),
    (GATES, "cmos (y, b, a, ~a);", "z z 0 1"),
    (GATES, "wire w; assign y = w === 1'bz ? a : b;", "0 0 1 1"),
    (GATES, "supply1 w; assign y = w ^ a;", "1 1 0 0"),
    (GATES, "nand #(3, 2) (y, a, b);", "1 1 1 0"),
    (GATES, "wire w; tranif1 (w, y, a); bufif1 (w, b, 1'b1);", "z z 0 1"),
    (GATES, "wire p, q; tran (y, p); rtranif0 (p, q, a); assign q = b; pulldown (y);", "0 1 0 0"),
    (GATES, "wire [1:0] w; tranif1 (w[0], w[1], a); assign w[0] = b; pullup (w[1]); assign y = w[1];", "1 1 0 1"),
    (GATES, "tri1 w; tranif0 (w, y, a); assign (pull0, weak1) w = b;", "x 1 z z"),
    # clause 8: primitives
    (
        "primitive p(o, i, j); output o; input i, j; table 0 1 : 1; 1 0 : 1; 0 0 : 0; endtable endprimitive " + GATES,
        "p (y, a, b);",
        "0 1 1 x",
    ),
    (
        "primitive p(o, i, j); output o; input i, j; table ? 1 : 0; b 0 : 1; endtable endprimitive " + GATES,
        "p #2 u(y, a, b);",
        "1 0 1 0",
    ),
    # clause 10: tasks and functions
    (GATES, "reg r; assign y = r; task t(input p, q, output s); s = p & ~q; endtask always @* t(a, b, r);", "0 0 1 0"),
    (
        GATES,
        (
            "reg r; assign y = r; task automatic t(input p, inout s); s = s ^ p; endtask always @* begin r = a; t(b,"
            " r); end"
        ),
        "0 1 1 0",
    ),
    (
        GATES,
        (
            "function f(input p); f = p ? g(~p) : 1; endfunction function g(input p); g = p; endfunction assign y ="
            " f(a) ^ b;"
        ),
        "1 0 0 1",
    ),
    (
        GATES,
        (
            "function automatic f(input [3:0] n, input [2:0] k); f = k == 0 ? 0 : n[0] ^ f(n >> 1, k - 1); endfunction"
            " assign y = f({a, b, 2'b01}, 4);"
        ),
        "1 0 0 1",
    ),
    # clause 9: loops, cases, disable
    (
        GATES,
        (
            "reg r; assign y = r; integer i; always @* begin r = 0; for (i = 0; i < 4; i = i + 1) if ({a, b} == i) r ="
            " i[0]; end"
        ),
        "0 1 0 1",
    ),
    (GATES, "reg r; assign y = r; always @* begin r = 0; repeat (3) r = r ^ a; end", "0 0 1 1"),
    (GATES, "reg r; assign y = r; always @* begin : k r = 0; if (a) disable k; r = b; end", "0 1 0 0"),
    (
        GATES,
        "reg r; assign y = r; always @* casez ({a, b}) 2'b1?: r = b; 2'b?1: r = 0; default: r = 1; endcase",
        "1 0 0 1",
    ),
    (GATES, "reg r; assign y = r; always @* case (1'b1) a: r = b; b: r = 0; default: r = 1'bx; endcase", "x 0 0 1"),
    # clause 5 and 4.9: operators and arrays
    (
        GATES,
        "reg [1:0] t [0:3]; initial begin t[0] = 1; t[1] = 2; t[2] = 3; t[3] = 0; end assign y = ^t[{a, b}];",
        "1 1 0 0",
    ),
    (GATES, "wire [3:0] w = 4'b0110; assign y = w[{a, b}];", "0 1 1 0"),
    (GATES, "wire signed [1:0] s = {a, b}; assign y = s < 0;", "0 0 1 1"),
    (GATES, "wire [2:0] s = {a, b} * {a, b}; assign y = s[2];", "0 0 1 0"),
    (GATES, "assign y = {a, b} % 2'd3 == 0;", "1 0 0 1"),
    (GATES, "assign y = (a ? 1'bx : 1'b1) & b;", "0 1 0 x"),
    (GATES, "assign y = (4'b0001 << {a, b}) > 4'd3;", "0 0 1 1"),
    # clause 12: arrays of instances, generate, ports of expressions
    (
        "module n(input p, output q); assign q = ~p; endmodule " + GATES,
        "wire [1:0] w; n u[1:0] ({a, b}, w); assign y = w[1] & ~w[0];",
        "0 1 0 0",
    ),
    (
        GATES,
        (
            "genvar g; wire [4:0] w; assign w[0] = a; generate for (g = 0; g < 4; g = g + 1) begin assign w[g + 1] ="
            " w[g] ^ b; end endgenerate assign y = w[3];"
        ),
        "0 1 1 0",
    ),
    (
        "module n(.i({p, q}), o); input p, q; output o; assign o = p & ~q; endmodule " + GATES,
        "n u(.i({a, b}), .o(y));",
        "0 0 1 0",
    ),
]


@pytest.mark.parametrize(("frame", "body", "expected"), CIRCUITS)
def test_every_engine_gives_what_the_clause_says(frame: str, body: str, expected: str) -> None:
    assert " ".join(outputs(frame.replace("{}", body))) == expected
