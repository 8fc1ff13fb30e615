"""The mistakes beginners make: each is told in its own words, at the place where it was made, and nothing else with
it."""

from __future__ import annotations

import pytest

from tests.core.designs import messages

MISTAKES = [
    ("module m(input a, output y)\nassign y = a;\nendmodule\n", ["1:28 error missing-semicolon"]),
    ("module m(input a, output y);\nassign y = a\nendmodule\n", ["2:13 error missing-semicolon"]),
    (
        "module m(input a, b, output reg y);\nalways @(*) begin\n y = a\n if (b) y = 0;\nend\nendmodule\n",
        ["3:7 error missing-semicolon"],
    ),
    (
        "module m(input a, output reg y);\nalways @(*) begin\n if (a) begin\n y = 1;\n else y = 0;\nend\nendmodule\n",
        ["4:8 error missing-end"],
    ),
    ("module m(input a, output reg y);\nalways @(*) begin\n y = a;\nendmodule\n", ["3:8 error missing-end"]),
    ("module m(input a, output y);\nassign y = a;\n", ["2:14 error missing-endmodule"]),
    ("module m(input a, output y);\nassign y = a & bb;\nendmodule\n", ["2:16 error undeclared"]),
    ("module m(input enable, output reg y);\nalways @* y = enabel;\nendmodule\n", ["2:15 error undeclared"]),
    ("module m(input a, output reg y);\nassign y = a;\nendmodule\n", ["2:8 error reg-driven"]),
    ("module m(input a, output y);\nalways @* y = a;\nendmodule\n", ["2:11 error net-in-process"]),
    (
        (
            "module s(input a, output y); assign y=a; endmodule\nmodule m(input a, output y, z);\ns u1(a,y);\ns"
            " u1(a,z);\nendmodule\n"
        ),
        ["4:3 error duplicate"],
    ),
    (
        "module s(input a, output y); assign y=a; endmodule\nmodule m(input a, output y);\ns u1(a,y,a);\nendmodule\n",
        ["3:3 error too-many"],
    ),
    (
        (
            "module s(input a, output y); assign y=a; endmodule\nmodule m(input a, output y);\ns"
            " u1(.a(a),.out(y));\nendmodule\n"
        ),
        ["3:12 error no-port"],
    ),
    (
        "module m(input a,b, output reg y);\nalways @* if (a = b) y = 1; else y = 0;\nendmodule\n",
        ["2:17 error assign-for-compare"],
    ),
    ("module m(output reg y);\nreal r;\nalways @(posedge r) y = 1;\nendmodule\n", ["3:10 error real-edge"]),
    (
        "module m(output reg y);\nreg [3:0] w [0:3];\ninitial force w[1] = 4'd3;\nendmodule\n",
        ["3:15 error held-memory"],
    ),
    (
        "module m(output reg y);\nreg [3:0] w [0:3];\ninitial begin assign w[1] = 4'd3; end\nendmodule\n",
        ["3:22 error held-memory"],
    ),
    ("module m(output [3:0] y);\nassign y = 4'b1021;\nendmodule\n", ["2:12 error bad-number"]),
    ("module m(output [3:0] y);\nassign y = 4'd1A;\nendmodule\n", ["2:12 error bad-number"]),
    (
        (
            "module adder(input a, output y); assign y=a; endmodule\nmodule m(input a, output y);\nader"
            " u1(a,y);\nendmodule\n"
        ),
        ["3:6 error no-module"],
    ),
    (
        "entity m is\nport(a: in bit; y: out bit);\nend m;\narchitecture r of m is begin y <= a; end r;\n",
        ["1:1 warning wrong-suffix"],
    ),
    (
        "module m(input a, output reg y);\nalways @* begin\n if a = 1 then\n y := 0;\n end if;\nend\nendmodule\n",
        [
            "3:2 error vhdl-then",
            "3:11 error vhdl-then",
            "4:2 error vhdl-assign",
            "5:2 error vhdl-end",
            "5:9 error missing-end",
            "6:1 error extra-end",
        ],
    ),
    (
        "module m(input a,b, output reg y);\nalways @* begin\n if (a) y=1;\n elsif (b) y=0;\n end\nendmodule\n",
        ["4:2 error else-if"],
    ),
    (
        "module m(input a, output and);\nassign and = a;\nendmodule\n",
        ["1:26 error reserved-word", "2:8 error reserved-word"],
    ),
    ("module m(input a,b, output y);\nassign y = (a & b;\nendmodule\n", ["2:18 error missing"]),
    ("module m(input a, output y);\nassign y = a;\nend\nendmodule\n", ["3:1 error extra-end"]),
    ("module m(input a, output reg y);\nif (a) y = 1;\nendmodule\n", ["2:8 error outside-process"]),
    ("module m(input a, output reg y);\ny = a;\nendmodule\n", ["2:1 error outside-process"]),
    (
        "module m(input [1:0] a, output reg y);\nalways @* case (a)\n 0: y=1;\n default: y=0;\nend\nendmodule\n",
        ["5:1 error missing-endcase"],
    ),
    (
        "module m(input [1:0] a, output reg y);\nalways @* case (a)\n 0 y=1;\n default: y=0;\nendcase\nendmodule\n",
        ["3:4 error missing"],
    ),
    ("module m(input a, output y);\nassign y <= a;\nendmodule\n", ["2:10 error assign-arrow"]),
    ("module m(input reg a, output y);\nassign y = a;\nendmodule\n", ["1:20 error input-reg"]),
    ("module m(input a, output y);\nassign a = y;\nendmodule\n", ["2:8 error input-driven"]),
    ("module m(input a, output y);\nwire t;\nreg t;\nassign y=a;\nendmodule\n", ["3:5 error duplicate"]),
    ("module m(input [3:0] a, output y);\nassign y = a[0:3];\nendmodule\n", ["2:12 error reversed-part"]),
    ("module m(input a, output reg y);\nalways @* {\n y = a;\n}\nendmodule\n", ["2:11 error brace", "4:1 error brace"]),
    ("module m(input a,b output y);\nassign y = a & b;\nendmodule\n", ["1:19 error missing-comma"]),
    (
        "module m(input a, output reg y);\nalways @* begin\n if (a) y=0; ;\n else y = 1;\nend\nendmodule\n",
        ["4:2 error stray-else"],
    ),
    ("module m(input a, output reg y);\nalways begin y = a; end\nendmodule\n", ["2:1 error always-no-event"]),
    ("module m(input a, b, output y,);\nassign y = a;\nendmodule\n", ["1:30 error extra-comma"]),
    ("module m(a, y);\ninput a;\nassign y = a;\nendmodule\n", ["1:13 error port-undeclared"]),
    ("module m(a, y);\ninput a; output y; output z;\nassign y = a;\nendmodule\n", ["2:27 error not-a-port"]),
    (
        'module m(input a, output y);\ninitial $display("hi);\nassign y=a;\nendmodule\n',
        ["2:18 error open-string", "2:23 error missing"],
    ),
    ("module m(input a, output y);\n/* hi\nassign y=a;\nendmodule\n", ["2:1 error open-comment"]),
    (
        "module m(input a, output y);\nfunction f; input p, q; f = p & q; endfunction\nassign y = f(a);\nendmodule\n",
        ["3:12 error arguments"],
    ),
    ("module m(input a, output y);\nassign y = inv(a);\nendmodule\n", ["2:12 error no-function"]),
    ("`define W 4\nmodule m(input [`WW-1:0] a, output y);\nassign y = a[0];\nendmodule\n", ["2:17 error no-macro"]),
    (
        "module m(input logic a, output logic y);\nalways_comb y = a;\nendmodule\n",
        ["1:16 error system-verilog", "2:1 error system-verilog"],
    ),
    (
        "module m(input a, output reg [3:0] y);\ninteger i;\nalways @* for (i=0;i<4;i++) y[i]=a;\nendmodule\n",
        ["3:27 error system-verilog"],
    ),
    ("modul m(input a, output y);\nassign y = a;\nendmodule\n", ["1:1 error outside-module"]),
    ("module m(input a, output y);\nasign y = a;\nendmodule\n", ["2:1 error misspelt"]),
    ("module m(input a, output reg y);\nalways @(*) begn\n y = a;\nend\nendmodule\n", ["2:13 error misspelt"]),
    ("module m(inptu a, output y);\nassign y = a;\nendmodule\n", ["1:10 error misspelt"]),
    ("module m(input a, output y);\nassign y = a;\nendmodul\n", ["3:1 error misspelt"]),
    ("module m(input [2:0] n, output [7:0] y);\nwire [n:0] t;\nassign y = t;\nendmodule\n", ["2:7 error not-constant"]),
    ("module m(input a, output [3:0] y);\nassign y = {4{a};\nendmodule\n", ["2:17 error missing"]),
    ("module m(input a, output [3:0] y);\nassign y = {1, a};\nendmodule\n", ["2:13 error unsized"]),
    ("module m(input [1:0] a, output y);\nand g(y, a, a);\nendmodule\n", ["2:10 error gate-width"]),
    ("module m(input a,b, output y);\nand g(y, a, b\nendmodule\n", ["2:14 error missing"]),
    ("module m(input clk,d, output reg q);\nalways @(posedge) q <= d;\nendmodule\n", ["2:17 error edge-of-nothing"]),
    (
        (
            "module s #(parameter W=1)(input a, output y); assign y=a; endmodule\nmodule m(input a, output y);\ns"
            " #(.X(3)) u1(a,y);\nendmodule\n"
        ),
        ["3:5 error no-parameter"],
    ),
    ("module m(input [7:0] a, output [3:0] y);\nassign y = a;\nendmodule\n", ["2:8 warning width-cut"]),
    (
        "module m(input a,b, output y);\nwire t, u;\nassign y = a & u;\nendmodule\n",
        ["1:18 warning unused-input", "2:9 warning undriven"],
    ),
    (
        "module m(input a,b, output reg y);\nalways @(posedge a) y <= 0;\nalways @(posedge b) y <= 1;\nendmodule\n",
        ["3:1 warning two-processes"],
    ),
    (
        "module m(input c,d, output reg q);\nalways @(posedge c) begin q = d; q <= ~d; end\nendmodule\n",
        ["2:27 warning mixed-assignment"],
    ),
    ('module m(input a, output y);\nassign y=a;\ninitial $dispay("x");\nendmodule\n', ["3:9 error no-system-task"]),
    (
        "module m(input a, output y);\nassign y = t(a);\ntask t; input x; begin end endtask\nendmodule\n",
        ["2:12 error task-in-expression"],
    ),
    ("module m(input a, output [3:0] y);\nassign y = 4’b0000;\nendmodule\n", ["2:13 error strange-character"]),
    (
        "module s(input a, output y); assign y=a; endmodule\nmodule m(input a, output y);\ns (a,y);\nendmodule\n",
        ["3:1 error instance-name"],
    ),
    ("module m(input a,b, output y);\nassign y = a and b;\nendmodule\n", ["2:14 error word-operator"]),
    (
        "module m(input a, output y);\nassign y=a;\nmodule n(input b); endmodule\nendmodule\n",
        ["2:12 error missing-endmodule", "4:1 error outside-module"],
    ),
    (
        "module m(input a, output reg y);\nalways @(a): begin y = a; end\nendmodule\n",
        ["2:12 error expected-statement", "2:27 error extra-end"],
    ),
]


@pytest.mark.parametrize(("text", "expected"), MISTAKES)
def test_told_where_it_was_made(text: str, expected: list[str]) -> None:
    assert messages(text) == expected
