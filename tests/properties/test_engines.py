"""Random designs: lanes, the levelized tape and the timeline must give the same answers."""

from __future__ import annotations

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from obento.core import values as v
from tests.core.designs import agree, build, in_lanes, known_cases, levelized, on_timeline

WIRES = ["a", "b", "c", "t"]


def expressions(depth: int, names: tuple[str, ...] = ("t",)) -> st.SearchStrategy[str]:
    leaf = st.sampled_from(
        [
            *names,
            "a",
            "b",
            "c",
            "a[1]",
            "b[0]",
            "{a, c}",
            "2'b10",
            "3'd5",
            "1'bx",
            "4'shc",
            "a[c]",
            "$signed(b)",
            "f(c, b)",
            "f(a[0], a)",
        ]
    )
    if depth == 0:
        return leaf
    inner = expressions(depth - 1, names)
    binary = st.sampled_from(
        [
            "+",
            "-",
            "*",
            "/",
            "%",
            "&",
            "|",
            "^",
            "~^",
            "==",
            "!=",
            "===",
            "<",
            "<=",
            ">",
            ">=",
            "&&",
            "||",
            "<<",
            ">>",
            ">>>",
        ]
    )
    return st.one_of(
        leaf,
        st.builds(lambda a, op, b: f"({a} {op} {b})", inner, binary, inner),
        st.builds(lambda op, a: f"({op}{a})", st.sampled_from(["~", "-", "!", "&", "|", "^", "~&"]), inner),
        st.builds(lambda c, a, b: f"({c} ? {a} : {b})", inner, inner, inner),
    )


EXPR = expressions(2)
EXPR_OF_INPUTS = expressions(2, ())


@st.composite
def statements(draw: st.DrawFn, depth: int = 2) -> str:
    kind = draw(
        st.sampled_from(
            ["assign", "assign", "later", "if", "case", "block", "bit", "for", "task", "repeat"]
            if depth
            else ["assign", "bit"]
        )
    )
    target = draw(st.sampled_from(["y", "u"]))
    if kind == "assign":
        return f"{target} = {draw(EXPR)};"
    if kind == "later":
        return f"z <= {draw(EXPR)};"
    if kind == "bit":
        return f"{target}[{draw(st.sampled_from(['0', '1', 'c', 'a']))}] = {draw(EXPR)};"
    if kind == "task":
        return (
            f"{draw(st.sampled_from(['keep', 'fresh']))}({draw(EXPR)}, {draw(st.sampled_from(['y', 'u', 'y[2:1]']))});"
        )
    inner = statements(depth - 1)
    if kind == "repeat":
        return f"repeat ({draw(st.sampled_from(['2', '0', '3']))}) begin {draw(inner)} end"
    if kind == "if":
        return f"if ({draw(EXPR)}) begin {draw(inner)} end else begin {draw(inner)} end"
    if kind == "for":
        return f"for (i = 0; i < 3; i = i + 1) begin {draw(inner)} end"
    if kind == "block":
        return draw(inner) + " " + draw(inner)
    word = draw(st.sampled_from(["case", "casez", "casex"]))
    labels = draw(st.lists(st.sampled_from(["2'b00", "2'b01", "2'b1?", "2'bx1", "2'b11", "b"]), min_size=1, max_size=3))
    arms = " ".join(f"{label}: begin {draw(inner)} end" for label in labels)
    return f"{word} (a) {arms} {'default: begin ' + draw(inner) + ' end' if draw(st.booleans()) else ''} endcase"


@st.composite
def modules(draw: st.DrawFn) -> str:
    wait = draw(
        st.sampled_from(["*", "*", "(a or b or c)", "(a)", "(c or a)", "(posedge c)", "(negedge a[0] or posedge c)"])
    )
    start = draw(st.sampled_from(["", "initial begin y = 0; u = 3; end", ""]))
    function = draw(
        st.sampled_from(
            [
                "f = p + q;",
                "if (p) f = q;",
                "begin f = 0; for (k = 0; k < 2; k = k + 1) f = f ^ q; end",
                "case (q) 1: f = p; 2: f = 3; endcase",
            ]
        )
    )
    more = draw(
        st.sampled_from(
            [
                "",
                "always @(u) z2 = u ^ z;",
                "always @* z2 = y + {u[0], c};",
                "always @(y or posedge u[0]) z2 = y;",
                "wire [2:0] k; assign k = {k[1:0] & a, c}; always @(k) z2 = k;",
                "wire k; assign k = c & ~k; always @(k) z2 = z2 ^ k;",
                "wand k; assign k = c; assign k = a[0]; bufif1 (k, b[0], b[1]); always @(k) z2 = k;",
                "wor [1:0] k; assign k = a; assign k = b; always @* z2 = k;",
                "tri1 k; bufif1 (k, a[0], c); notif0 (k, b[0], b[1]); always @* z2 = k;",
                "wire k; pulldown (k); bufif0 (k, a[0], c); bufif1 (weak0, weak1) (k, b[0], b[1]); always @* z2 = k;",
                "wire [1:0] k; assign k = c ? a : 2'bz; assign (pull0, pull1) k = b; always @* z2 = k;",
                "wire k; latch l(k, c, a[0]); always @* z2 = k;",
                "wire k; edges l(k, c, a[0], b); always @* z2 = k;",
                "reg [1:0] k [0:3]; always @(c or a) k[a] = {c, a[0]}; always @* z2 = k[b];",
            ]
        )
    )
    return f"""
primitive latch(output reg q, input e, d); table 1 0 : ? : 0; 1 1 : ? : 1; 0 ? : ? : -; x 0 : 0 : -;
endtable endprimitive
primitive edge_(output reg q, input c, d); table (01) 0 : ? : 0; r 1 : ? : 1; n ? : ? : -; ? * : ? : -;
endtable endprimitive
module edges(output q, input c, d, input [1:0] b); wire k; edge_ e(k, c, d); xor (q, k, b[0]); endmodule
module m(input [1:0] a, input [1:0] b, input c, output reg [3:0] y, output reg [2:0] u, z, z2, output [3:0] w);
  wire [2:0] t;
  integer i;
  function [1:0] f(input p, input [1:0] q); integer k; {function} endfunction
  assign t = {draw(st.sampled_from(["a + b", "{c, a}", "a ^ b", "c ? a : 3'bz"]))};
  assign w = {draw(EXPR)};
  task keep(input [2:0] p, inout [2:0] q); integer k; begin k = k + p; q = q ^ p; end endtask
  task automatic fresh(input [1:0] p, output [2:0] q); reg [2:0] k; begin if (p[0]) k = p; q = k; end endtask
  {start}
  always @{wait} begin {draw(statements())} {draw(statements())} end
  {more}
endmodule
"""


@settings(max_examples=120, deadline=None, suppress_health_check=list(HealthCheck))
@given(modules())
def test_every_case_fresh(text: str) -> None:
    agree(build(text))


word2 = st.sampled_from([v.from_digits(a + b) for a in "01xz" for b in "01xz"])
word1 = st.sampled_from([v.from_digits(a) for a in "01xz"])
cases = st.builds(lambda a, b, c: {"a": a, "b": b, "c": c}, word2, word2, word1)
cases_without_z = cases.filter(lambda case: not any(one & zero for one, zero in case.values()))


@settings(max_examples=80, deadline=None, suppress_health_check=list(HealthCheck))
@given(modules(), st.lists(st.lists(cases, min_size=3, max_size=3), min_size=4, max_size=4))
def test_sequences_of_four_state_inputs(text: str, sequences: list[list[dict[str, v.Word]]]) -> None:
    """What came before matters: three cases one after the other, x and z among them."""
    design = build(text)
    assert in_lanes(design, sequences) == [on_timeline(design, s) for s in sequences]


@st.composite
def memoryless(draw: st.DrawFn) -> str:
    """Only assignments and gates, so that most can be levelized whatever the inputs."""
    function = draw(st.sampled_from(["f = p + q;", "f = p ? q : ~q;"]))
    return f"""
module m(input [1:0] a, input [1:0] b, input c, output [3:0] y, output [1:0] u, output k, w);
  wire [2:0] t;
  function [1:0] f(input p, input [1:0] q); {function} endfunction
  assign t = {draw(EXPR_OF_INPUTS)};
  assign y = {draw(EXPR)};
  {draw(st.sampled_from(["nand", "xnor", "nor", "and"]))} (u[0], a[0], b[1], t[0], y[3]);
  {draw(st.sampled_from(["not", "buf"]))} (u[1], t[1]);
  {
        draw(
            st.sampled_from(
                [
                    "bufif1 (k, a[0], c); notif0 (k, b[0], y[0]);",
                    "assign k = c ? y[1] : 1'bz;",
                    "or (k, t[2], c, u[0]);",
                ]
            )
        )
    }
  assign w = {draw(EXPR)} === {draw(EXPR)};
endmodule
"""


@settings(max_examples=150, deadline=None, suppress_health_check=list(HealthCheck))
@given(
    st.one_of(memoryless(), memoryless(), modules()),
    st.one_of(
        [st.lists(st.lists(c, min_size=2, max_size=2), min_size=6, max_size=6) for c in (cases, cases_without_z)]
    ),
)
def test_the_tape_on_four_state_inputs(text: str, sequences: list[list[dict[str, v.Word]]]) -> None:
    """x and z among the inputs, fresh and after another case: what is levelized answers like the timeline."""
    design = build(text)
    found = levelized(design, [s[-1] for s in sequences], inputs="any")
    if not any(one & zero for s in sequences for one, zero in s[-1].values()):
        assert levelized(design, [s[-1] for s in sequences], inputs="unknown") == found
    if found is not None:
        assert found == [on_timeline(design, s[-1:]) for s in sequences]
        assert found == [on_timeline(design, s) for s in sequences]


@settings(max_examples=120, deadline=None, suppress_health_check=list(HealthCheck))
@given(modules(), st.lists(st.tuples(st.integers(0, 31), st.integers(0, 31)), min_size=12, max_size=12))
def test_a_levelled_design_does_not_care_what_came_before(text: str, steps: list[tuple[int, int]]) -> None:
    """The proof of having no memory, tried: any case after any other gives what it gives fresh."""
    design = build(text)
    cases = known_cases(design)
    fresh = levelized(design, cases)
    if fresh is not None:
        for before, after in steps:
            assert on_timeline(design, [cases[before], cases[after]]) == fresh[after]


@st.composite
def delayed(draw: st.DrawFn) -> str:
    """Chains of processes and assignments with delays of many kinds;
    those at the head of a process are left out in lanes."""
    head = st.sampled_from(["", "#1", "#2", "#3", "#1; #2", "begin #1; end #1", "#0"])
    wait = st.sampled_from(["*", "*", "(a or b or c)", "(a or b or c or p)", "(a or b or c or p or q)", "(a)"])
    value = expressions(1, ("p",))
    later = expressions(1, ("p", "q"))
    tail = draw(st.sampled_from(["", "", "", "#1;", "q = #2 q;"]))
    return f"""
module m(input [1:0] a, input [1:0] b, input c, output reg [3:0] y, output [1:0] w);
  reg [2:0] q; wire [2:0] p;
  function [1:0] f(input p, input [1:0] q); f = p ? q : ~q; endfunction
  assign {draw(st.sampled_from(["", "#1 ", "#4 "]))}p = {draw(EXPR_OF_INPUTS)};
  always @{draw(wait)} begin {draw(head)} q = {draw(value)}; if (c) q[0] = {draw(value)}; {tail} end
  always @{draw(wait)} begin {draw(head)} y = {draw(later)}; y = y ^ {draw(later)}; end
  assign {draw(st.sampled_from(["", "#2 "]))}w = {draw(later)};
endmodule
"""


@settings(max_examples=150, deadline=None, suppress_health_check=list(HealthCheck))
@given(delayed(), st.lists(st.tuples(st.integers(0, 31), st.integers(0, 31)), min_size=8, max_size=8))
def test_delays_at_the_head_of_a_process_do_not_matter_in_the_end(text: str, steps: list[tuple[int, int]]) -> None:
    design = build(text)
    cases = known_cases(design)
    found = levelized(design, cases)
    if found is not None:
        assert found == [on_timeline(design, [case]) for case in cases]
        for before, after in steps:
            assert on_timeline(design, [cases[before], cases[after]]) == found[after]
