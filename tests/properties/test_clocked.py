"""Clocked designs: sequences side by side and one by one must agree; a function table must catch every change of its
rows."""

from __future__ import annotations

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from obento.core.check.check import check_handin, open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.check.running import steps as engine
from obento.core.check.running.binding import bind_ports
from obento.core.handin import HandinFile
from obento.core.limits import Limits
from tests.core.clocked import CLOCK, HEAD, VERILOG, clocked, ready
from tests.core.designs import build

EXPR = st.sampled_from(["en", "q + 1", "q", "{q[0], en}", "~q", "r", "q ^ r", "2'bx1", "r - 1", "q == 2 ? r : {2{en}}"])
ASSIGN = st.sampled_from(["=", "<="])


@st.composite
def modules(draw: st.DrawFn) -> str:
    """Two or three processes on any edges, with a copied clock now and then, blocking or not."""
    lines = ["module m(input clk, rst, en, output reg [1:0] q, output y);", " reg [1:0] r;", " wire k = clk & en;"]
    for name in ("q", "r"):
        edge = draw(
            st.sampled_from(
                [
                    "posedge clk",
                    "negedge clk",
                    "posedge clk or posedge rst",
                    "posedge clk or negedge rst",
                    "posedge k",
                    "negedge q[0] or posedge rst",
                ]
            )
        )
        if name == "q":
            edge = edge.replace("negedge q[0] or ", "")
        op = draw(ASSIGN)
        body = (
            f"if (rst) {name} {op} {draw(st.sampled_from(['0', '2', 'en']))}; else if"
            f" ({draw(st.sampled_from(['en', '1', 'r[0]', '!en']))}) {name} {op} {draw(EXPR)};"
        )
        if draw(st.booleans()):
            body = (
                f"begin {body} {name}[{draw(st.sampled_from(['0', '1', 'en']))}] {op}"
                f" {draw(st.sampled_from(['en', '1', 'q[1]']))}; end"
            )
        lines.append(f" always @({edge}) {body}")
    start = draw(st.sampled_from(["", " initial r = 1;", " initial q = 2;"]))
    return "\n".join(
        [*lines, start, f" assign y = {draw(st.sampled_from(['^q', 'q[0] & clk', 'r == q', '|r']))};", "endmodule"]
    )


def drives(seed: int, edge: str) -> Expectation:
    return ready(
        clocked(
            'model = "ref.v"',
            o="q[2] y",
            edge=edge,
            ref_v=b"module m(input clk, rst, en, output [1:0] q, output y); assign q = 0; assign y = 0; endmodule",
            rest=f"[cases]\nrandom = {{ count = 640, seed = {seed} }}\n",
        )
    )


Seen = list[dict[tuple[str, int], tuple[int, int]]]


def both_ways(expectation: Expectation, text: str, name: str) -> Seen:
    """Run a design in lanes and on the timeline; every output in every step must be the same. Returns the outputs of
    each run."""
    found = []
    for lanes_from in (1, 10_000):
        design = build(text, name=name)
        binding = bind_ports(expectation.spec, design)
        assert not binding.problems, binding.problems
        before, engine.LANES_FROM = engine.LANES_FROM, lanes_from
        try:
            found.append(engine.observe_steps(design, binding, expectation.spec.inputs, expectation.cases, Limits()))
        finally:
            engine.LANES_FROM = before
    lanes, alone = found
    assert lanes.engine == "event-driven" and alone.engine == "timeline", text
    for a, b in zip(lanes.runs, alone.runs, strict=True):
        assert a.stopped == b.stopped, text
        keep = ~a.stopped
        for key in a.outputs:
            assert (a.outputs[key][0] & keep, a.outputs[key][1] & keep) == (
                b.outputs[key][0] & keep,
                b.outputs[key][1] & keep,
            ), (text, key)
    return [run.outputs for run in lanes.runs]


@settings(max_examples=60, deadline=None, suppress_health_check=list(HealthCheck))
@given(modules(), st.integers(0, 5), st.sampled_from(["rise", "fall"]))
def test_side_by_side_is_one_by_one(text: str, seed: int, edge: str) -> None:
    both_ways(drives(seed, edge), text, "a.v")


def test_the_three_languages_side_by_side() -> None:
    from tests.core.clocked import LANGUAGES

    expectation = ready(
        clocked('model = "ref.v"', ref_v=VERILOG.encode(), rest="[cases]\nrandom = { count = 1280, seed = 9 }\n")
    )
    for name, text in LANGUAGES.items():
        both_ways(expectation, text, name)


# The same registers in every language.

BITS = ["q[0]", "q[1]", "r[0]", "r[1]", "en", "d"]


@st.composite
def next_bits(draw: st.DrawFn, depth: int = 2) -> tuple[str, str, str]:
    """One bit of the next state: as Verilog, VHDL and in a wiring list."""
    if depth == 0 or draw(st.integers(0, 3)) == 0:
        leaf = draw(st.sampled_from(BITS))
        return leaf, leaf.replace("[", "(").replace("]", ")"), leaf
    (a, b, c), (d, e, f) = draw(next_bits(depth - 1)), draw(next_bits(depth - 1))
    op = draw(st.sampled_from(["and", "or", "xor", "nand", "not"]))
    if op == "not":
        return f"~{a}", f"(not {b})", f"not({c})"
    sign = {"and": "&", "or": "|", "xor": "^", "nand": "&"}[op]
    return f"{'~' if op == 'nand' else ''}({a} {sign} {d})", f"({b} {op} {e})", f"{op}({c}, {f})"


@st.composite
def registers(draw: st.DrawFn) -> dict[str, str]:
    """Two registers of two bits that load at the rising edge, with a reset at once, at the edge or none, and an enable
    or none.

    Rising edges only: the first fall of a clock, from nothing, is an edge in Verilog (1364-2005 table 9-1), in VHDL it
    is not."""
    verilog, vhdl, wires, flops = [], [], [], []
    for name in ("q", "r"):
        high, low = draw(next_bits()), draw(next_bits())
        reset = draw(st.sampled_from(["at once", "at once", "at the edge", "none"]))
        level = draw(st.sampled_from([0, 1]))
        enable = draw(st.sampled_from([True, False]))
        load = [f"{name} <= {{{high[0]}, {low[0]}}};", f"{name} <= {high[1]} & {low[1]};"]
        if enable:
            load = [f"if (en) {load[0]}", f"if en = '1' then {load[1]} end if;"]
        is_reset = [f"rst == {level}", f"rst = '{level}'"]
        at_once = reset == "at once"
        if reset == "at the edge":
            load = [
                f"if ({is_reset[0]}) {name} <= 0; else {load[0]}",
                f'if {is_reset[1]} then {name} <= "00"; else {load[1]} end if;',
            ]
        clear = ("rst", "clear") if level else ("not(rst)", "clear_low")
        off = f"not({clear[0]})" if reset == "at the edge" else "1"
        wires += [f"{name}1 <- and({high[2]}, {off})", f"{name}0 <- and({low[2]}, {off})"]
        pins = ["rise: clk"]
        if enable:  # a reset at the edge comes before it
            wires.append(f"{name}e <- or(en, not({off}))")
            pins.append(f"enable: {name}e")
        if at_once:
            pins.append(f"{clear[1]}: rst")
            edge = f"posedge clk or {'posedge' if level else 'negedge'} rst"
            verilog.append(f"always @({edge}) if ({is_reset[0]}) {name} <= 0; else {load[0]}")
            vhdl.append(
                f'process (clk, rst) begin if {is_reset[1]} then {name} <= "00"; elsif rising_edge(clk) then {load[1]}'
                " end if; end process;"
            )
        else:
            verilog.append(f"always @(posedge clk) {load[0]}")
            vhdl.append(f"process (clk) begin if rising_edge(clk) then {load[1]} end if; end process;")
        flops.append(f"{name} <- flipflop({{{name}1, {name}0}}, {', '.join(pins)})")
    y = draw(next_bits())
    newline = "\n  "
    return {
        "a.v": (
            "module m(input clk, rst, en, d, output reg [1:0] q, output y);\n  reg [1:0] r;\n "
            f" {newline.join(verilog)}\n  assign y = {y[0]};\nendmodule\n"
        ),
        "a.vhd": (
            f"""library ieee; use ieee.std_logic_1164.all;
entity m is port (clk, rst, en, d : in std_logic; q : buffer std_logic_vector(1 downto 0); y : out std_logic); end;
architecture rtl of m is signal r : std_logic_vector(1 downto 0); begin
  {newline.join(vhdl)}
  y <= {y[1]};
end;
"""
        ),
        "a.wiring": (
            f"wiring m\n  takes clk, rst, en, d\n  gives q[2], y\n  {newline.join([*wires, *flops])}\n  y <-"
            f" buf({y[2]})\nend\n"
        ),
    }


@settings(max_examples=40, deadline=None, suppress_health_check=list(HealthCheck))
@given(registers(), st.integers(0, 5))
def test_registers_are_the_same_in_every_language(texts: dict[str, str], seed: int) -> None:
    """Side by side and one by one, in Verilog, VHDL and as a wiring list: what was never loaded is x in all of them."""
    expectation = ready(
        clocked(
            'model = "ref.v"',
            i="clk rst en d",
            o="q[2] y",
            ref_v=b"module m(input clk, rst, en, d, output [1:0] q, output y); assign q = 0; assign y = 0; endmodule",
            rest=f"[cases]\nrandom = {{ count = 320, seed = {seed} }}\n",
        )
    )
    seen = {name: both_ways(expectation, text, name) for name, text in texts.items()}
    assert seen["a.vhd"] == seen["a.v"], (texts["a.v"], texts["a.vhd"])
    assert seen["a.wiring"] == seen["a.v"], (texts["a.v"], texts["a.wiring"])


@st.composite
def tables(draw: st.DrawFn) -> list[int]:
    """The next state of each state of two bits under each value of two inputs; all of them told row by row."""
    return draw(st.lists(st.integers(0, 3), min_size=16, max_size=16))


def spec_of(table: list[int]) -> Expectation:
    rows = "\n".join(f"r 0 {i >> 2} {i & 3} | {after}" for i, after in enumerate(table))
    text = f"[expect]\nfunction = '''\nclk rst d q | q\n- 1 - - | 0\n{rows}\n'''\n"
    return ready(
        open_spec(
            "s.toml", (HEAD.format(i="clk rst d[2]:dec", o="q[2]:dec") + CLOCK.format(edge="rise") + text).encode(), {}
        )
    )


def module_of(table: list[int]) -> HandinFile:
    arms = " ".join(f"{i}: q <= {after};" for i, after in enumerate(table))
    text = (
        "module m(input clk, rst, input [1:0] d, output reg [1:0] q); always @(posedge clk or posedge rst) if (rst) q"
        f" <= 0; else case ({{d, q}}) {arms} endcase endmodule"
    )
    return HandinFile("a.v", text.encode())


def reached(table: list[int]) -> set[int]:
    """The states that a walk from reset can come to, worked out apart."""
    seen, todo = {0}, [0]
    while todo:
        state = todo.pop()
        for d in range(4):
            after = table[d << 2 | state]
            if after not in seen:
                seen.add(after)
                todo.append(after)
    return seen


@settings(max_examples=40, deadline=None, suppress_health_check=list(HealthCheck))
@given(tables(), st.integers(0, 15), st.integers(1, 3))
def test_every_change_of_a_reachable_row_is_caught(table: list[int], place: int, by: int) -> None:
    expectation = spec_of(table)
    states = reached(table)
    assert expectation.coverage is not None and expectation.coverage.states == len(states)
    assert expectation.coverage.taken == expectation.coverage.possible == 5 * len(states)
    right = check_handin(expectation, [module_of(table)])
    assert right.verdict is not None and right.verdict.right == expectation.cases.full
    changed = [*table[:place], (table[place] + by) % 4, *table[place + 1 :]]
    verdict = check_handin(expectation, [module_of(changed)]).verdict
    assert verdict is not None and (verdict.right == expectation.cases.full) == (place & 3 not in states)
