"""One small task in the many ways in which people write it, right and wrong; verdicts worked out by hand.

A priority encoder of four requests: `code` is the number of the highest one that is 1, and is not compared where there
is none."""

from __future__ import annotations

import pytest

from obento.core.check.check import check_handin, open_spec
from obento.core.check.judging.outcome import Checked
from obento.core.handin import HandinFile

SPEC = """
obento = "spec/1"
unit = "prio"
[ports]
in = "r[4]"
out = "code[2] valid"
[expect]
equations = '''
valid = r[3] | r[2] | r[1] | r[0]
code = r[3] ? 3 : r[2] ? 2 : r[1] ? 1 : 0
'''
table = '''
r | code valid
0000 | -- 0
'''
"""
EXPECTATION = open_spec("s.toml", SPEC.encode(), {}).expectation
HEAD = "module prio(input [3:0] r, output [1:0] code, output valid);\n"
REGS = "module prio(input [3:0] r, output reg [1:0] code, output reg valid);\n"
CHOICE = "r[3] ? 3 : r[2] ? 2 : r[1] ? 1 : 0"
ALL = "p" * 16

RIGHT = {
    "casez": (
        f"{REGS}always @* begin valid = |r; casez (r) 4'b1???: code=3; 4'b01??: code=2; 4'b001?: code=1; default:"
        " code=0; endcase end\nendmodule"
    ),
    "casex": (
        f"""{REGS}always @(r) begin {{valid, code}} = 0; casex (r)
        4'b1xxx : {{valid,code}} = 7; 4'bx1xx : {{valid,code}} = 6; 4'bxx1x : {{valid,code}} = 5;
        4'bxxx1 : {{valid,code}} = 4; endcase end\nendmodule"""
    ),
    "if chain, old ports, a stray semicolon": (
        """module prio(r, code, valid);
        input [3:0] r; output [1:0] code; output valid; reg [1:0] code; reg valid;
        always @(r) begin valid = 1'b1; if (r[3]==1) code = 2'b11; else if (r[2]) code = 2'd2;
        else if (r[1]) code = 'b01;
        else if (r[0]) code = 0; else begin code = 2'bxx; valid = 0; end end\nendmodule;"""
    ),
    "a loop, the last one wins": (
        f"""module prio #(parameter N=4) (input wire [N-1:0] r, output reg [1:0] code, output reg valid); integer i;
        always @(*) begin code = 0; valid = 0; for (i=0;i<N;i=i+1) if (r[i]) begin code = i; valid = 1;
        end end\nendmodule{""}"""
    ),
    "gates, several in one statement": (
        f"""{HEAD}wire n2, t; not (n2, r[2]); or (valid, r[0], r[1], r[2], r[3]), (code[1], r[3], r[2]);
        and a1(t, n2, r[1]); or (code[0], r[3], t);\nendmodule"""
    ),
    "a latch where nothing is compared": (
        f"""{REGS}always @(*) if (r[3]) begin code = 3; valid = 1; end else if (r[2]) begin code = 2; valid = 1; end
        else if (r[1]) begin code = 1; valid = 1; end else if (r[0]) begin code = 0; valid = 1;
        end else valid = 0;\nendmodule"""
    ),
    "numbered from the left": (
        f"""module prio(input [0:3] r, output [0:1] code, output valid); assign valid = |r;
        assign code = r[0] ? 2'd3 : r[1] ? 2'd2 : r[2] ? 2'd1 : 2'd0;\nendmodule{""}"""
    ),
    "every edge by itself": (
        f"""{REGS}always @(posedge r[0] or posedge r[1] or posedge r[2] or posedge r[3] or
        negedge r[0] or negedge r[1] or negedge r[2] or negedge r[3]) begin valid = |r; code = {CHOICE};
        end\nendmodule"""
    ),
    "delays": (
        f"`timescale 1ns/1ns\n{HEAD.replace('output [1:0]', 'output reg [1:0]')}assign #5 valid = |r; always @* begin"
        f" #2 code = {CHOICE}; end\nendmodule"
    ),
    "generate with a wire in each round": (
        f"""{HEAD}wire [4:0] found; assign found[4] = 0; genvar i;
        generate for (i = 3; i >= 0; i = i - 1) begin : stage wire mine = r[i] & ~found[i+1];
        assign found[i] = found[i+1] | r[i]; end endgenerate
        assign code = {{stage[3].mine | stage[2].mine, stage[3].mine | stage[1].mine}}, valid = found[0];\nendmodule"""
    ),
    "ports declared again": (
        f"{HEAD}wire [1:0] code; wire valid; wire [3:0] r;\nassign code[1] = r[3] || r[2], code[0] = r[3] || !r[2] &&"
        " r[1], valid = !(!r);\nendmodule"
    ),
    "cross-coupled gates that hold nothing": (
        f"""{HEAD}wire q, qn; nor (q, r[0], qn); nor (qn, ~r[0], q);
        assign code = {{r[3]|r[2], r[3]|(~r[2]&r[1])}}, valid = |r[3:1] | qn;\nendmodule"""
    ),
    "two drivers that take turns": (
        f"{HEAD}assign code = r[3] ? 3 : 2'bz; assign code = !r[3] ? (r[2] ? 2 : r[1]) : 2'bz; assign valid ="
        " |r;\nendmodule"
    ),
    "a while loop": (
        f"{REGS}reg [3:0] t; always @(r) begin t = r; code = 0; valid = r != 0; while (t > 1) begin t = t >> 1; code ="
        " code + 1; end end\nendmodule"
    ),
    "a logarithm": f"{HEAD}assign valid = r > 0; wire [31:0] w = $clog2(r + 1) - 1; assign code = w[1:0];\nendmodule",
    "a task": (
        f"""{REGS}task enc(input [3:0] x, output [1:0] c, output v); begin v = x ? 1 : 0;
        c = x[3] ? 3 : x[2] ? 2 : x[1] ? 1 : 0; end endtask
        always @(r) enc(r, code, valid);\nendmodule"""
    ),
    "a bench in the same file": (
        f"""`timescale 1ns / 1ps\n{HEAD}assign valid = |r, code = {{r[3]|r[2], r[3]|(~r[2]&r[1])}};\nendmodule
        module tb; reg [3:0] r; wire [1:0] code; wire valid; prio dut(.r(r), .code(code), .valid(valid));
        initial begin $dumpfile("x.vcd"); $dumpvars(0,tb); for (r=0; r<15; r=r+1) #10 $display("%b", code); $finish;
        end\nendmodule"""
    ),
}

WRONG = {
    "a loop without end": (
        f"{REGS}always @(r) begin valid = 0; code = 0; while (r > 3) code = code + 1; valid = |r; end\nendmodule",
        "pp" + 2 * "f" + 12 * "s",
        "this loop ran more than 262144 rounds without time passing: the run ends there whenever r is at least 0100",
    ),
    "x in plain case labels never matches": (
        (
            f"{REGS}always @(r) begin {{valid,code}} = 0; case (r) 4'b1xxx: {{valid,code}} = 7; 4'b01xx: {{valid,code}}"
            " = 6; 4'b001x: {valid,code} = 5; 4'b0001: {valid,code} = 4; endcase end\nendmodule"
        ),
        "pp" + 14 * "f",
        "code is always 00",
    ),
    "a list that leaves out two bits": (
        f"{REGS}always @(r[3] or r[2]) begin valid = |r; code = {CHOICE}; end\nendmodule",
        "ffff" + 12 * "p",
        "the result depends on the case before",
    ),
    "| binds tighter than &&": (
        (
            "module prio(input r3, r2, r1, r0, output code1, code0, valid); assign valid = r3|r2|r1|r0, code1 = r3|r2,"
            " code0 = r3 | !r2 && r1; endmodule"
        ),
        "ppppppppffppffpp",
        "code is 1 too small",
    ),
    "a sign where there is none": (
        (
            "module prio(input signed [3:0] r, output [1:0] code, output valid); assign valid = r > 0, code = r[3] ? 3"
            " : r >= 4 ? 2 : r >= 2 ? 1 : 0; endmodule"
        ),
        8 * "p" + 8 * "f",
        "valid is wrong whenever r is at least 1000: 8 of 16",
    ),
    "a stage late by non-blocking assignment": (
        (
            f"{REGS}reg t; always @(r) begin t <= r[3] | r[2]; valid <= |r; code[1] <= t; code[0] <= r[3] | (~r[2] &"
            " r[1]); end\nendmodule"
        ),
        "p" + 15 * "u",
        "code is undefined whenever r differs from 0000: 15 of 16",
    ),
    "only start values": (
        f"{REGS}initial begin code = 0; valid = 1; end\nendmodule",
        "fp" + 14 * "f",
        "code is always 00",
    ),
}

REFUSED = {
    "a semicolon left out": (
        f"{REGS}always @* begin\n  valid = |r\n  code = {CHOICE};\nend\nendmodule",
        "unreadable",
        3,
        "`;` is missing here",
    ),
    "a wire written in a process": (
        f"{HEAD}always @* begin\n  valid = |r; end\nendmodule",
        "unreadable",
        3,
        "`valid` is a wire and cannot be written inside a process",
    ),
    "SystemVerilog in a .v file": (
        (
            "module prio(input logic [3:0] r, output logic [1:0] code, output logic valid);\nalways_comb begin code ="
            " '0; for (int i=0;i<4;i++) if (r[i]) code = i; end\nassign valid = |r;\nendmodule"
        ),
        "unreadable",
        1,
        "`logic` is SystemVerilog",
    ),
    "marks of a pasted text": (
        f"```verilog\n{HEAD}assign valid = |r; assign code = {CHOICE};\nendmodule\n```\n",
        "unreadable",
        1,
        "these back-ticks mark code in a pasted text",
    ),
}


def checked(text: str, name: str = "prio.v") -> Checked:
    assert EXPECTATION is not None
    return check_handin(EXPECTATION, [HandinFile(name, text.encode())])


def cells(found: Checked) -> str:
    assert found.status == "checked" and found.verdict is not None, [str(m) for m in found.messages]
    return found.verdict.cells().replace("n", "p")


@pytest.mark.parametrize("style", RIGHT)
def test_right_in_every_style(style: str) -> None:
    assert cells(checked(RIGHT[style])) == ALL


def test_all_that_are_right_are_one_cluster() -> None:
    clusters = {found.verdict.cluster for found in map(checked, RIGHT.values()) if found.verdict is not None}
    assert len(clusters) == 1


@pytest.mark.parametrize("slip", WRONG)
def test_wrong_just_where_it_is(slip: str) -> None:
    text, expected, said = WRONG[slip]
    found = checked(text)
    assert cells(found) == expected
    assert any(f.text.startswith(said) for f in found.findings), [f.text for f in found.findings]


@pytest.mark.parametrize("what", REFUSED)
def test_what_is_said_of_what_cannot_be_checked(what: str) -> None:
    text, status, line, said = REFUSED[what]
    found = checked(text)
    first = found.messages[0]
    assert (found.status, first.line) == (status, line) and first.text.startswith(said), [
        str(m) for m in found.messages
    ]


def test_in_a_sv_file_the_same_is_right() -> None:
    assert cells(checked(REFUSED["SystemVerilog in a .v file"][0], "prio.sv")) == ALL


@pytest.mark.parametrize("encoding", ["utf-8-sig", "utf-16", "latin-1"])
def test_whatever_the_editor_wrote(encoding: str) -> None:
    text = f"// gehört Jörg\r\n{RIGHT['casez']}".replace("\n", "\r\n")
    assert EXPECTATION is not None
    assert cells(check_handin(EXPECTATION, [HandinFile("Prio (1).v", text.encode(encoding))])) == ALL


def test_units_in_several_files_with_an_include() -> None:
    files = {
        "top.v": (
            '`include "enc.vh"\nmodule Prio(input [3:0] R, output [1:0] Code, output Valid); enc u(R, Code); any'
            " a(.y(Valid), .x(R)); endmodule"
        ),
        "enc.vh": (
            "`ifndef ENC\n`define ENC\nmodule enc(input [3:0] i, output [1:0] o);\nfunction [1:0] f; input [3:0] x;"
            " casez(x) `define ONE 1'b1\n4'b1???: f = {`ONE,`ONE}; 4'b01??: f = 2; 4'b001?: f = 1; default f = 0;"
            " endcase endfunction\nassign o = f(i);\nendmodule\n`endif"
        ),
        "any.v": '`include "enc.vh"\nmodule any(input [3:0] x, output y); assign y = |x; endmodule',
    }
    assert EXPECTATION is not None
    found = check_handin(EXPECTATION, [HandinFile(n, t.encode()) for n, t in files.items()])
    assert cells(found) == ALL and {b.how for b in found.binding} == {"case"}
