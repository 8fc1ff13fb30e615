"""VHDL as people run it: runaways end with place and reason, errors stop the run, languages mix, waveforms are
written."""

from __future__ import annotations

from pathlib import Path

import pytest

from obento.core.check.check import check_handin, open_spec
from obento.core.handin import HandinFile, read_handin
from obento.core.limits import Limits, for_simulation
from obento.core.simulate import Options, Outcome, simulate
from tests.properties.test_vhdl import EXPECTATION


def run(*files: tuple[str, str], top: str | None = None, dump: str | None = None) -> tuple[list[str], Outcome]:
    printed: list[str] = []
    outcome = simulate(
        [HandinFile(n, t.encode()) for n, t in files],
        printed.append,
        Options(top=top, dump=dump),
        for_simulation(2_000),
    )
    return "".join(printed).splitlines(), outcome


def bench(body: str, decls: str = "", variables: str = "variable n : integer := 0;") -> str:
    """The first statement of the process is at line 7."""
    return (
        f"entity t is end;\narchitecture a of t is\n{decls}\nbegin\n  process\n    {variables}\n  begin {body}\n  end"
        " process;\nend;\n"
    )


RUNAWAYS = [
    ("endless loop", bench("loop n := 1; end loop;"), 3, "t.vhd:7:9: error: this loop ran more than"),
    ("never waits", bench("n := 1;"), 3, "t.vhd:5:3: error: this loop ran more than"),
    ("deltas without end", bench("s <= not s; wait on s;", "  signal s : bit;"), 3, "error: time stands still"),
    ("time without end", bench("wait for 1 ns;"), 3, "still runs after 2000 steps"),
    (
        "recursion",
        bench("n := f(1); wait;", "  function f(i : integer) return integer is begin return f(i) + 1; end;"),
        3,
        "calls itself too deep",
    ),
    (
        "flood",
        bench('report "aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa" & time\'image(now);'),
        3,
        "t.vhd:5:3: error: the bench prints more than",
    ),
    (
        "huge type",
        bench("wait;", "  type b is array (0 to 2000000000) of integer;"),
        2,
        "t.vhd:3:13: error: an array of 2000000001 elements",
    ),
    (
        "growing string",
        bench("p := new string'(p.all & p.all);", "", 'type q is access string; variable p : q := new string\'("ab");'),
        3,
        "grows beyond",
    ),
    (
        "huge generate",
        bench("wait;").replace(
            "begin\n  process", "begin\n  g : for i in 0 to 99999 generate end generate;\n  process"
        ),
        2,
        "4096 rounds",
    ),
    (
        "constant without end",
        bench(
            "wait;", "  function f return bit is begin loop null; end loop; return '1'; end;\n  constant c : bit := f;"
        ),
        2,
        "takes too long",
    ),
    (
        "an entity in itself",
        (
            "entity t is generic (n : natural := 1); end;\narchitecture a of t is begin u : entity work.t generic map"
            " (n + 1); end;\n"
        ),
        2,
        "no module or entity",
    ),
    ("deep brackets", bench(f"n := {'(' * 400}1{')' * 400}; wait;"), 2, "t.vhd:7:"),
    ("large power", bench("n := 2 ** 2000000000; wait;"), 2, "the result of `**` is too large"),
]


@pytest.mark.parametrize(("text", "status", "said"), [pytest.param(*rest, id=name) for name, *rest in RUNAWAYS])
def test_runaways_end_with_place_and_reason(text: str, status: int, said: str) -> None:
    _, outcome = run(("t.vhd", text))
    assert outcome.status == status
    assert any(said in str(m) for m in outcome.messages), [str(m) for m in outcome.messages]


ERRORS = [
    ("division", bench("n := 1 / n; wait;"), "7:14: error: division by zero"),
    (
        "index",
        bench("v(n) := '1'; wait;", "", "variable v : bit_vector(1 to 3); variable n : integer := 7;"),
        "index 7 is outside of the array's range 1 to 3",
    ),
    (
        "slice",
        bench(
            "report integer'image(v(n downto 1)'length); wait;",
            "",
            "variable v : bit_vector(3 downto 0); variable n : integer := 7;",
        ),
        "index 7",
    ),
    (
        "range",
        bench("m := n; wait;", "", "variable n : integer := 7; variable m : integer range 0 to 3;"),
        "value 7 is outside of the range 0 to 3",
    ),
    (
        "enumeration",
        bench("c := colour'succ(c); wait;", "  type colour is (red, blue);", "variable c : colour := blue;"),
        "blue has no next value",
    ),
    (
        "null",
        bench("n := p.all; wait;", "", "type q is access integer; variable p : q; variable n : integer;"),
        "a null pointer is followed",
    ),
    (
        "length",
        bench("v := w(1 to n); wait;", "", "variable v, w : bit_vector(1 to 3); variable n : integer := 2;"),
        "a value of 2 elements does not fit into 3",
    ),
    ("negative time", bench("wait for n * 1 ns;", "", "variable n : integer := -1;"), "the time to wait is negative"),
    (
        "no return",
        bench(
            "n := f(n); wait;", "  function f(i : integer) return integer is begin if i > 0 then return 1; end if; end;"
        ),
        "ends without a return",
    ),
    (
        "end of file",
        "use std.textio.all;\n"
        + bench(
            'file_open(h, "x", write_mode); file_close(h); file_open(h, "x", read_mode); readline(h, l);',
            "",
            "file h : text; variable l : line;",
        ),
        "past the end",
    ),
]


@pytest.mark.parametrize(("text", "said"), [pytest.param(*rest, id=name) for name, *rest in ERRORS])
def test_errors_of_the_run_end_it_with_their_place(text: str, said: str) -> None:
    _, outcome = run(("t.vhd", text))
    assert outcome.status == 1
    assert any(said in str(m) for m in outcome.messages), [str(m) for m in outcome.messages]


VERILOG_PART = """module vpart(input [3:0] a, input en, output [3:0] y, output reg q);
  assign y = en ? ~a : 4'bz;
  always @(posedge en) q <= a[0];
endmodule
"""
VHDL_BENCH = """library ieee; use ieee.std_logic_1164.all;
entity tb is end;
architecture t of tb is
  component vpart port (a : in std_logic_vector(3 downto 0); en : in std_logic;
  y : out std_logic_vector(3 downto 0); q : out std_logic); end component;
  signal a, y, y2 : std_logic_vector(3 downto 0); signal en, q : std_logic;
begin
  u : vpart port map (a, en, y, q);
  u2 : entity work.vpart port map (a => a, en => '1', y => y2, q => open);
  process begin
    a <= "0101"; en <= '0'; wait for 1 ns;
    report to_string(y) & " " & to_string(y2) & std_logic'image(q);
    en <= '1'; wait for 1 ns;
    report to_string(y) & " " & to_string(y2) & std_logic'image(q);
    wait;
  end process;
end;
"""
VHDL_PART = """library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;
entity step is port (clk : in std_logic; d : in unsigned(3 downto 0); q : out unsigned(3 downto 0)); end;
architecture t of step is begin
  process (clk) begin if rising_edge(clk) then q <= d + 1; end if; end process;
end;
"""
VERILOG_BENCH = """module tb;
  reg clk = 0; reg [3:0] d = 3; wire [3:0] q, q2;
  step u(.clk(clk), .d(d), .q(q));
  step u2(clk, q, q2);
  always #5 clk = ~clk;
  initial begin #4 $display("%b %b", q, q2); #2 $display("%b %b", q, q2); d <= 7; #10 $display("%b %b", q, q2);
  $finish; end
endmodule
"""


def test_a_vhdl_bench_runs_a_module_and_a_verilog_bench_an_entity() -> None:
    assert run(("tb.vhd", VHDL_BENCH), ("p.v", VERILOG_PART))[0] == ["note: ZZZZ 1010'X'", "note: 1010 1010'1'"]
    # Both ways the border adds no delay of its own: the second stage takes what the first had before the edge.
    assert run(("tb.v", VERILOG_BENCH), ("p.vhd", VHDL_PART))[0] == ["xxxx xxxx", "0100 xxxx", "1000 0101"]


def test_a_wiring_list_uses_an_entity_and_a_module(root: Path) -> None:
    files = {
        "top.wiring": (
            "wiring m\n  takes a[3], b[3], c\n  gives y[3], z, z2\n  y <- inner(a, b)\n  z <- buf(c)\n  z2 <-"
            " last(c)\nend\n"
        ),
        "inner.vhd": (
            "library ieee; use ieee.std_logic_1164.all;\nentity inner is port (p, q : in std_logic_vector(2 downto 0);"
            " r : out std_logic_vector(2 downto 0)); end;\narchitecture x of inner is begin process (all) begin r <= p;"
            " if q = p then r <= q; end if; end process; end;\n"
        ),
        "last.v": "module last(input i, output o); assign o = i; endmodule\n",
    }
    assert EXPECTATION is not None
    found = check_handin(EXPECTATION, [HandinFile(n, t.encode()) for n, t in files.items()])
    assert found.verdict is not None and set(found.verdict.digits()) == {"1"}, [str(m) for m in found.messages]


def test_an_entity_can_be_the_reference(root: Path) -> None:
    spec = (
        'obento = "spec/1"\nunit = "lock_interlock"\n[ports]\nin = "level_eq gate_shut boat_clear key"\nout = "open_ok'
        ' alarm"\n[expect]\nmodel = "ref.vhd"\n'
    )
    reference = (root / "demo/lab1/drop-1/04224/interlock.vhd").read_bytes()
    loaded = open_spec("s.toml", spec.encode(), {"ref.vhd": reference})
    assert loaded.expectation is not None, loaded.messages
    folder = root / "demo/lab1/drop-1/04120"
    found = check_handin(loaded.expectation, [HandinFile(p.name, p.read_bytes()) for p in folder.iterdir()])
    assert found.verdict is not None and set(found.verdict.digits()) == {"1"}


def test_waveforms_show_what_is_declared() -> None:
    text = bench(
        "s <= '1' after 3 ns; k <= blue after 3 ns; w <= \"01\"; wait;",
        "  type c is (red, blue);\n  signal s : bit;\n  signal k : c;\n  signal w : bit_vector(4 to 5);",
    )
    _, outcome = run(("t.vhd", text), dump="w.vcd")
    dump = outcome.written["w.vcd"]
    assert "$timescale 1fs $end" in dump and "$scope module t $end" in dump
    assert "$var reg 2 # w [4:5] $end" in dump
    assert '#3000000\n1!\n1"' in dump


def test_what_is_forgotten_is_said_but_does_not_stand_in_the_way() -> None:
    text = """library ieee; use ieee.std_logic_1164.all;
entity m is port (a : in std_logic; y, z : out std_logic); end;
architecture r of m is
  signal t : std_logic;
begin
  process (a)
    variable v : std_logic;
  begin
    if v = '1' then y <= t; else y <= a; end if;
    v := a;
  end process;
end;
"""
    reading = read_handin([HandinFile("m.vhd", text.encode())], Limits())
    assert reading.elaborate("m") is not None
    found = [f"{m.line}:{m.column} {m.code}" for m in reading.messages()]
    assert found == ["2:40 never-assigned", "4:10 never-assigned", "9:8 read-early", "9:26 sensitivity"]


def test_a_value_out_of_range_ends_its_case_only() -> None:
    spec = 'obento = "spec/1"\nunit = "m"\n[ports]\nin = "a[3]"\nout = "y"\n[expect]\nequations = "y = a == 2"\n'
    loaded = open_spec("s.toml", spec.encode(), {})
    assert loaded.expectation is not None
    text = """library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;
entity m is port (a : in std_logic_vector(2 downto 0); y : out std_logic); end;
architecture r of m is
  signal n : integer range 0 to 5;
begin
  n <= to_integer(unsigned(a));
  y <= '1' when n = 2 else '0';
end;
"""
    found = check_handin(loaded.expectation, [HandinFile("m.vhd", text.encode())])
    assert found.verdict is not None
    assert found.verdict.stopped == 0b11000000 and found.verdict.digits() == "11111100"
    assert any("value 6 is outside of the range 0 to 5" in m.text for m in found.messages)
