"""Verilog: results that follow from the standard, and messages in a beginner's words at the right place."""

from __future__ import annotations

import pytest

from obento.core import values as v
from tests.core.designs import build, in_lanes, messages, on_timeline, outputs


def test_gate_primitives_take_any_number_of_inputs() -> None:
    text = """module m(input [2:0] a, output [6:0] y);
      and (y[0], a[0], a[1], a[2]); nand (y[1], a[0], a[1], a[2]); or (y[2], a[0], a[1], a[2]);
      nor (y[3], a[0], a[1], a[2]); xor (y[4], a[0], a[1], a[2]); xnor (y[5], a[0], a[1], a[2]); not (y[6], a[0]);
    endmodule"""
    for n, got in enumerate(outputs(text)):
        ones = bin(n).count("1")
        want = [n == 7, n != 7, n > 0, n == 0, ones % 2 == 1, ones % 2 == 0, not n & 1]
        assert got == "".join(str(int(w)) for w in reversed(want))


WIDTHS = [  # clause 5.4 and 5.5: (declarations, expression, target width, expected digits)
    ("4'd15 + 4'd1", 4, "0000"),
    ("4'd15 + 4'd1", 5, "10000"),  # context-determined: the carry is kept
    ("(4'd15 + 4'd1) >> 1", 4, "0000"),  # lost before the shift
    ("(4'd15 + 4'd1 + 0) >> 1", 4, "1000"),  # 5.4.2: a 32-bit zero widens the sum
    ("{4'd15 + 4'd1}", 5, "00000"),  # self-determined inside { }
    ("-4'sd1", 8, "11111111"),
    ("-4'd1", 8, "11111111"),
    ("4'sd7 + 4'sd1", 8, "00001000"),
    ("4'b1000 >>> 1", 8, "00000100"),
    ("$signed(4'b1000) >>> 1", 8, "11111100"),
    ("$signed(4'b1000) + 4'b0", 8, "00001000"),  # one unsigned operand makes it all unsigned (5.5.1)
    ("-8'sd7 / 8'sd2", 8, "11111101"),  # towards zero (5.1.5)
    ("-8'sd7 % 8'sd2", 8, "11111111"),
    ("8'd7 / 8'd0", 8, "xxxxxxxx"),
    ("4'b1x0z == 4'b1x0z", 1, "x"),
    ("4'b1x0z === 4'b1x0z", 1, "1"),
    ("4'b10xx == 4'b01xx", 1, "0"),
    ("2'b1x && 1'b0", 1, "0"),
    ("!2'b1x", 1, "0"),
    ("1'bx ? 4'b1100 : 4'b1010", 4, "1xx0"),  # 5.1.13
    ("'bx", 8, "xxxxxxxx"),
    ("8'bz1", 8, "zzzzzzz1"),
    ("'h0z", 36, "0" * 32 + "zzzz"),
    ("3'd2 ** 3'd2", 4, "0100"),
    ("{2{2'b10}}", 4, "1010"),
    ("&4'b111x", 1, "x"),
    ("~|4'b0000", 1, "1"),
    ("4'd1 - 4'd2 < 4'd1", 1, "0"),
    ("4'sd1 - 4'sd2 < 4'sd1", 1, "1"),
    ("12'hx + 1", 12, "x" * 12),
]


@pytest.mark.parametrize(("expression", "width", "digits"), WIDTHS)
def test_widths_and_signs(expression: str, width: int, digits: str) -> None:
    text = f"module m(input a, output [{width - 1}:0] y); assign y = {expression}; endmodule"
    assert outputs(text) == [digits, digits]


def test_old_and_new_ports_parameters_and_hierarchy() -> None:
    text = """
    module stage #(parameter W = 2, parameter [3:0] K = 1) (input [W-1:0] x, output [W-1:0] y);
      localparam ONE = 1; assign y = x + K - ONE + 1;
    endmodule
    module m(a, y, z); input [2:0] a; output [2:0] y; output z; wire [2:0] t;
      stage #(3) first (a, t); stage #(.K(2), .W(3)) second (.y(y), .x(t)); assign z = y[2];
    endmodule"""
    assert outputs(text) == [f"{(n + 3) % 8:03b} {(n + 3) % 8 >> 2}" for n in range(8)]


def test_ascending_ranges_and_part_selects() -> None:
    text = """module m(input [0:3] a, input [1:0] i, output [1:0] p, q, output r);
      assign p = a[0:1]; assign q = a[1 +: 2]; assign r = a[i]; endmodule"""
    for n, got in enumerate(outputs(text)):
        bits, i = f"{n >> 2:04b}", n & 3
        assert got == f"{bits[0:2]} {bits[1:3]} {bits[i]}"


def test_functions_loops_and_generate() -> None:
    text = """module m(input [3:0] a, output [2:0] n, output [3:0] g, output reg [3:0] r);
      function [2:0] ones(input [3:0] v); integer i; begin ones = 0; for (i = 0; i < 4;
      i = i + 1) ones = ones + v[i]; end endfunction
      assign n = ones(a);
      genvar k; generate for (k = 0; k < 4; k = k + 1) begin : bits
        if (k == 3) assign g[k] = a[k]; else assign g[k] = a[k] ^ a[k + 1]; end endgenerate
      integer j; always @* for (j = 0; j < 4; j = j + 1) r[j] = a[3 - j];
    endmodule"""
    for n, got in enumerate(outputs(text)):
        assert got == f"{bin(n).count('1'):03b} {n ^ n >> 1:04b} {f'{n:04b}'[::-1]}"


def test_declarations_inside_blocks() -> None:
    text = """module m(input [2:0] a, output reg [1:0] n);
      always @* begin : outer reg [1:0] t; t = 0;
        if (a != 0) begin : count integer i; for (i = 0; i < 3; i = i + 1) if (a[i]) t = t + 1; end
        n = t; end endmodule"""
    assert outputs(text) == [f"{bin(n).count('1'):02b}" for n in range(8)]
    loop = (
        "module m(input [2:0] a, output reg y); always @* begin y = 0; for (int i = 0; i < 3; i++) y = y ^ a[i]; end"
        " endmodule"
    )
    assert outputs(loop, name="a.sv") == [str(bin(n).count("1") % 2) for n in range(8)]


def test_case_kinds_treat_x_and_z_by_their_own_rules() -> None:
    text = """module m(input [1:0] s, output reg [1:0] c, z, x);
      always @* begin
        case (s) 2'b1x: c = 1; 2'bz1: c = 2; default: c = 3; endcase
        casez (s) 2'b1?: z = 1; 2'b0x: z = 2; default: z = 3; endcase
        casex (s) 2'b1x: x = 1; 2'b0x: x = 2; default: x = 3; endcase
      end endmodule"""
    design = build(text)
    pairs = [a + b for a in "01xz" for b in "01xz"]
    cases = [[{"s": v.from_digits(p)}] for p in pairs]
    got = in_lanes(design, cases)
    assert got == [on_timeline(design, c) for c in cases]
    by = dict(zip(pairs, got, strict=True))
    assert by["1x"] == ["01", "01", "01"]
    assert by["z1"] == ["10", "01", "01"]
    assert by["0x"] == ["11", "10", "10"]
    assert by["00"] == ["11", "11", "10"]


def test_latch_keeps_and_a_stale_list_does_not_wake() -> None:
    latch = build("module m(input d, en, output reg q); always @* if (en) q = d; endmodule")
    high, low = v.word(1, 1), v.word(0, 1)
    assert on_timeline(latch, [{"d": high, "en": low}]) == ["x"]
    assert on_timeline(latch, [{"d": high, "en": high}, {"d": low, "en": low}]) == ["1"]
    stale = build("module m(input a, b, output reg y); always @(a) y = a & b; endmodule")
    assert on_timeline(stale, [{"a": high, "b": low}, {"a": high, "b": high}]) == ["0"]


def test_nor_latch_ring_and_edges() -> None:
    assert outputs("module m(input s, r, output q, n); nor (q, r, n); nor (n, s, q); endmodule")[1:3] == ["0 1", "1 0"]
    assert outputs("module m(input a, output y); assign y = a ? ~y : 1'b0; endmodule") == ["0", "x"]
    ring = "module m(input a, output y); wire #1 t = a & ~y; assign y = a === 1'b1 ? (y === 1'b0) : 1'b0; endmodule"
    assert outputs(ring) == ["0", "*"]
    flop = build("module m(input c, d, output reg q); always @(posedge c) q <= d; endmodule")
    one, zero, x = v.word(1, 1), v.word(0, 1), v.X1
    for path, fires in (
        ([zero, one], True),
        ([zero, x], True),
        ([x, one], True),
        ([one, zero], False),
        ([one, x], False),
    ):  # table 9-1
        steps = [{"c": path[0], "d": x}, {"c": path[0], "d": one}, {"c": path[1], "d": one}]
        assert on_timeline(flop, steps) == (["1"] if fires else ["x"])
        assert in_lanes(flop, [steps]) == [["1"] if fires else ["x"]]


def test_a_case_that_never_settles_leaves_the_others_alone() -> None:
    """Non-blocking updates of settled cases still happen when another case is given up."""
    text = (
        "module m(input a, c, output reg z); wire k; assign k = (c === 1'b1) ? ~(k === 1'b1) : 1'b0; always @* z <= a;"
        " endmodule"
    )
    assert outputs(text) == ["0", "*", "1", "*"]


def test_two_drivers_and_tristate() -> None:
    text = (
        "module m(input a, b, e, output y, z); assign y = a; assign y = b; bufif1 (z, a, e); bufif0 (z, b, e);"
        " endmodule"
    )
    assert "1:" in messages(text)[0] and "two-drivers" in messages(text)[0]
    for n, got in enumerate(outputs(text)):
        a, b, e = n >> 2, n >> 1 & 1, n & 1
        assert got == f"{a if a == b else 'x'} {a if e else b}"


def test_preprocessor_and_several_files() -> None:
    text = """`define W 3
`define ADD(x, y) ((x) + (y))
`ifdef NOTHING
 this is not read
`else
module m(input [`W-1:0] a, output [`W-1:0] y); assign y = `ADD(a, 3'd1); endmodule
`endif"""
    assert outputs(text) == [f"{(n + 1) % 8:03b}" for n in range(8)]


MISTAKES = [
    ("module m(input a, output y);\n  assign y = a\n  wire t;\nendmodule", "2:15 error missing-semicolon"),
    ("module m(input a, output y)\n  assign y = a;\nendmodule", "1:28 error missing-semicolon"),
    ("module m(input a, output y);\n  assign y = a;\n", "2:16 error missing-endmodule"),
    ("module m(input a, output reg y);\n always @* begin\n  y = a;\nendmodule", "3:9 error missing-end"),
    (
        "module m(input a, output reg y);\n always @* case (a)\n  0: y = 1;\n default: y = 0;\nendmodule",
        "4:17 error missing-endcase",
    ),
    ("module m(input a, output reg y);\n always @* if (a = 1) y = 1;\nendmodule", "2:18 error assign-for-compare"),
    ("module m(input a, output y);\n assign y <= a;\nendmodule", "2:11 error assign-arrow"),
    ("module m(input a, output y);\n assign y = b;\nendmodule", "2:13 error undeclared"),
    ("module m(input a, output reg y);\n assign y = a;\nendmodule", "2:9 error reg-driven"),
    ("module m(input a, output y);\n always @* y = a;\nendmodule", "2:12 error net-in-process"),
    ("module m(input a, output y);\n and g(y, a, a);\n or g(y, a, a);\nendmodule", "3:5 error duplicate"),
    ("module m(input a, output y);\n sub u(a, y);\nendmodule", "2:6 error no-module"),
    ("module m(input a, output y);\n assign y = 4'b12;\nendmodule", "2:13 error bad-number"),
    ("module m(input a, output reg y);\n always @* begin y := a; end\nendmodule", "2:18 error vhdl-assign"),
    ("module m(input a, output y);\n y = a;\nendmodule", "2:2 error outside-process"),
    ("module m(input a, output y,);\n assign y = a;\nendmodule", "1:27 error extra-comma"),
    ("module m(input a, output y);\n assign a = y;\nendmodule", "2:9 error input-driven"),
    (
        "module m(input a, output reg y);\n always @* if (a) y = 1; y = 0; else y = 1;\nendmodule",
        "2:26 error process-of-two",
    ),
    ("module m(a, y); input a; output q; assign y = a;\nendmodule", "1:33 error not-a-port"),
    ("module m(input a, output y);\n wire reg;\n assign y = a;\nendmodule", "2:7 error reserved-word"),
    ("module m(input a, output y);\n /* assign y = a;\nendmodule", "2:2 error open-comment"),
    ("module m(input a, output reg y);\n always y = a;\nendmodule", "2:2 error always-no-event"),
]


@pytest.mark.parametrize(("text", "expected"), MISTAKES)
def test_beginners_mistakes_are_told_where_they_were_made(text: str, expected: str) -> None:
    assert expected in messages(text), messages(text)


def test_more_than_the_first_mistake_is_told() -> None:
    text = "module m(input a, output y, output z);\n assign y = a\n assign z = 4'q1;\n wire t = ;\nendmodule"
    codes = [m.split()[2] for m in messages(text)]
    assert codes[:2] == ["missing-semicolon", "bad-number"] and codes[-1] == "expected-value"


def test_positions_with_tabs_crlf_and_byte_order_mark() -> None:
    text = "\ufeffmodule m(input a, output y);\r\n\tassign y = b;\r\nendmodule\r\n"
    assert "2:13 error undeclared" in messages(text)


def test_hostile_texts_end_with_a_message() -> None:
    deep = "module m(input a, output y); assign y = " + "(" * 5000 + "a" + ")" * 5000 + "; endmodule"
    assert any("too-deep" in m for m in messages(deep))
    wide = "module m(input a, output [99999999:0] y); assign y = a; endmodule"
    assert any("too-wide" in m for m in messages(wide))
    self_use = "module m(input a, output y); m u(a, y); endmodule"
    assert any("limit" in m for m in messages(self_use))
    macro = "`define A `A `A\nmodule m(input a, output y); assign y = `A; endmodule"
    assert any("limit" in m for m in messages(macro))
    endless = (
        "module m(input a, output y); genvar i; generate for (i = 0; i >= 0; i = i + 1) begin : b wire t; end"
        " endgenerate endmodule"
    )
    assert any("limit" in m for m in messages(endless))


CUTS = [
    ("y = a + b;", True),
    ("y = a & 4'hf;", False),
    ("y = (a + b) >> 4;", False),
    ("y = a / 16;", False),
    ("y = i;", False),
    ("y = y + 1;", False),
    ("y = {a[3:0]};", False),
    ("y = {a[3:0], b[3:0]};", True),
    ("y = c ? a : 0;", True),
    ("y = a == b;", False),
    ("y = ~a;", True),
]


@pytest.mark.parametrize(("statement", "warned"), CUTS)
def test_what_is_cut_without_a_word(statement: str, warned: bool) -> None:
    text = (
        "module m(input [7:0] a, b, input c, output reg [3:0] y); integer i; always @* begin i = a; y = b[3:0] & c;"
        f" {statement} end endmodule"
    )
    assert ("width-cut" in " ".join(messages(text))) == warned


def test_drivers_that_let_go_may_share_a_net() -> None:
    frame = "module m(input a, b, e, output y); {} endmodule"
    assert "two-drivers" in " ".join(messages(frame.replace("{}", "assign y = a & e; assign y = b;")))
    assert "two-drivers" not in " ".join(
        messages(frame.replace("{}", "assign y = e ? a : 1'bz; assign y = e ? 1'bz : b;"))
    )
    assert "two-drivers" not in " ".join(messages(frame.replace("{}", "bufif1 (y, a, e); bufif0 (y, b, e);")))
