"""Random VHDL: all cases at once must give what the run step by step gives, and the other languages what VHDL gives."""

from __future__ import annotations

import re

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from obento.core.check.check import open_spec
from obento.core.check.running.binding import bind_ports
from obento.core.check.running.cases import observe
from obento.core.check.running.observation import Observation
from obento.core.handin import HandinFile, read_handin
from obento.core.ir.design import Design
from obento.core.limits import Limits

LIMITS = Limits(deltas=200)
SPEC = """
obento = "spec/1"
unit = "m"
[ports]
in = "a[3] b[3] c"
out = "y[3] z z2"
[expect]
equations = '''
y = a
z = c
z2 = c
'''
"""
_SPEC = open_spec("m.toml", SPEC.encode(), {}).expectation
assert _SPEC is not None
EXPECTATION = _SPEC
assert EXPECTATION is not None


@st.composite
def vectors(draw: st.DrawFn, depth: int = 2) -> str:
    leaf = ["a", "b", "t", "v", '"101"', "(others => c)", "(c, '1', a(0))", '"0X1"']
    kind = draw(
        st.sampled_from(
            ["leaf", "leaf", "logic", "sum", "shift", "join", "call", "number", "not", "field", "word"]
            if depth
            else ["leaf"]
        )
    )
    if kind == "leaf":
        return draw(st.sampled_from(leaf))
    e = draw(vectors(depth - 1))
    e = f"vec'({e})"
    if kind == "not":
        return f"(not {e})"
    if kind == "logic":
        return (
            f"({e} {draw(st.sampled_from(['and', 'or', 'xor', 'nand', 'nor', 'xnor']))}"
            f" vec'({draw(vectors(depth - 1))}))"
        )
    if kind == "sum":
        other = draw(st.sampled_from(["unsigned(b)", "1", "unsigned(v)", "5"]))
        return f"std_logic_vector(unsigned({e}) {draw(st.sampled_from(['+', '-']))} {other})"
    if kind == "shift":
        return (
            f"std_logic_vector({draw(st.sampled_from(['shift_left(unsigned', 'shift_right(unsigned', 'shift_right(signed', 'rotate_left(unsigned']))}({e}),"  # noqa: E501
            f" {draw(st.sampled_from(['1', '2', '4']))}))"
        )
    if kind == "join":
        return f"(c & std_logic_vector(resize({draw(st.sampled_from(['unsigned', 'signed']))}({e}), 2)))"
    if kind == "call":
        return f"{draw(st.sampled_from(['f', 'g', 'folded']))}({e}, {draw(bits(depth - 1))})"
    if kind == "word":
        return "rn.word"
    if kind == "field":
        return f"r.{draw(st.sampled_from(['p', 'q']))}"
    return f"std_logic_vector(to_unsigned({draw(numbers(depth - 1))} mod 8, 3))"


@st.composite
def bits(draw: st.DrawFn, depth: int = 1) -> str:
    leaf = ["c", "a(1)", "b(0)", "t(2)", "v(0)", "'1'", "'0'", "(xor a)"]
    if not depth or draw(st.booleans()):
        return draw(st.sampled_from(leaf))
    return draw(
        st.sampled_from(
            [
                f"(a(0) and {draw(bits(0))})",
                f"a({draw(numbers(0))} mod 3)",
                f"(not {draw(bits(0))})",
                f"mem({draw(numbers(0))} mod 4)(1)",
            ]
        )
    )


@st.composite
def numbers(draw: st.DrawFn, depth: int = 1) -> str:
    leaf = ["n", "3", "to_integer(unsigned(a))", "to_integer(unsigned(v))", "k", "tri(0)", "tri(k mod 3)", "rn.count"]
    leaf += ["ones(a & c)", "tri(2)"]
    signed = [
        "to_integer(signed(a)) / 3",
        "to_integer(signed(b)) mod 3",
        "(n - 9) mod 4",
        "(k - 5) rem 3 + 4",
        "(n - 6) / 2 + 3",
    ]
    leaf += [f"(({s} + 16) mod 16)" for s in signed]
    if not depth:
        return draw(st.sampled_from(leaf))
    x, y = draw(numbers(depth - 1)), draw(numbers(depth - 1))
    return draw(st.sampled_from([f"({x} + {y})", f"({x} * 2 + 1)", f"({x} / 2)", f"maximum({x}, {y})", x]))


@st.composite
def conditions(draw: st.DrawFn) -> str:
    return draw(
        st.sampled_from(
            [
                f"{draw(bits())} = '1'",
                f"vec'({draw(vectors(1))}) = b",
                "unsigned(a) < unsigned(b)",
                "signed(v) >= signed(a)",
                f"{draw(numbers())} > 2",
                f"unsigned'(unsigned(t)) = {draw(st.sampled_from(['3', '0', '9']))}",
                "c",
                "a /= v",
                "(c = '1' and n < 3)",
                "not (b(1) = '0' or k = 2)",
                "st = two",
                "st > one",
                'std_match(a, "1-0")',
                "a > b",
                "v <= a",
            ]
        )
    )


@st.composite
def statements(draw: st.DrawFn, depth: int = 2) -> str:
    """Statements; `i` of a loop hides nothing."""
    simple = ["signal", "variable", "element", "number", "state", "slice", "numbers", "varying"]
    kind = draw(st.sampled_from([*simple, "if", "if", "case", "for", "two", "call", "memory"] if depth else simple))
    if kind == "signal":
        after = draw(st.sampled_from([*[""] * 9, " after 2 ns", " after 1 ns", " after 0 ns"]))
        return f"{draw(st.sampled_from(['t', 'y']))} <= {draw(vectors())}{after};"
    if kind == "variable":
        return f"v := {draw(vectors())};"
    if kind == "element":
        return draw(
            st.sampled_from(
                [
                    f"y({draw(numbers())} mod 3) <= {draw(bits())};",
                    f"v({draw(numbers())} mod 3) := {draw(bits())};",
                    f"z <= {draw(bits())};",
                ]
            )
        )
    if kind == "number":
        return draw(
            st.sampled_from(
                [
                    f"n := {draw(numbers())} mod 8;",
                    f"k <= {draw(numbers())} mod 4;",
                    f"n := ({draw(numbers())}) / 3;",
                    f"k <= {draw(numbers(0))};",
                ]
            )
        )
    if kind == "state":
        return draw(
            st.sampled_from(
                ["st := one;", "st := two;", "if st = three then st := one; else st := state'succ(st); end if;"]
            )
        )
    if kind == "slice":
        return draw(
            st.sampled_from(
                [
                    f"v(2 downto 1) := {draw(bits())} & c;",
                    "y(1 downto 0) <= v(2 downto 1);",
                    f"r.p := {draw(vectors(1))};",
                    "r := (p => a, q => v);",
                ]
            )
        )
    if kind == "numbers":
        return draw(
            st.sampled_from(
                [
                    f"tri := ({draw(numbers())} mod 8, 1, {draw(numbers(0))} mod 8);",
                    f"tri := (1 => {draw(numbers())} mod 8, others => {draw(st.sampled_from(['2', '0', 'n mod 8']))});",
                    "tri := tri(1 to 2) & 3;",
                    f"tri({draw(numbers(0))} mod 3) := {draw(numbers())} mod 8;",
                    f"rn := (count => 5, word => {draw(vectors(1))});",
                    f"rn := ({draw(vectors(1))}, {draw(numbers())} mod 8);",
                ]
            )
        )
    if kind == "varying":
        return draw(
            st.sampled_from(
                [
                    f"v({draw(numbers(0))} mod 3 downto 0) := (others => {draw(bits())});",
                    f"v(2 downto {draw(numbers(0))} mod 3) := (others => {draw(bits())});",
                    f"v({draw(numbers(0))} mod 3 downto k mod 2) := (others => {draw(bits(0))});",
                    "y(k mod 3 downto 0) <= v(2 downto 2 - k mod 3);",
                    f"v := ({draw(numbers(0))} mod 3 => {draw(bits())}, others => {draw(bits())});",
                    "t(n downto 1) <= (others => c);",
                    "n := to_integer(unsigned(v(k mod 3 downto 0)));",
                ]
            )
        )
    if kind == "memory":
        return f"mem({draw(numbers())} mod 4) <= {draw(vectors(1))};"
    inner = statements(depth - 1)
    if kind == "two":
        return draw(inner) + " " + draw(inner)
    if kind == "call":
        return draw(st.sampled_from(["p(v, n);", "p(v, n); v := not v;", "q(t);"]))
    if kind == "if":
        end = f" elsif {draw(conditions())} then {draw(inner)}" if draw(st.booleans()) else ""
        end += f" else {draw(inner)}" if draw(st.booleans()) else ""
        return f"if {draw(conditions())} then {draw(inner)}{end} end if;"
    if kind == "for":
        jump = draw(st.sampled_from(["", f"exit when {draw(conditions())};", f"next when {draw(conditions())};"]))
        bounds = draw(
            st.sampled_from(["0 to 2", "2 downto 1", "a'range", "1 to 0", "0 to k mod 3", "n mod 3 downto 0"])
        )
        return f"for i in {bounds} loop {jump} v(i) := {draw(bits())}; {draw(inner)} end loop;"
    if draw(st.booleans()):
        return (
            f'case a is when "000" | "011" => {draw(inner)} when "101" => {draw(inner)} when others => {draw(inner)}'
            " end case;"
        )
    return f"case n is when 0 | 2 to 4 => {draw(inner)} when others => {draw(inner)} end case;"


@st.composite
def entities(draw: st.DrawFn) -> str:
    wait = draw(st.sampled_from(["all", "all", "a, b, c, t, k, mem", "a, b", "c", "a(1), c"]))
    start = draw(
        st.sampled_from(
            [
                "v := a; n := 0; r := (a, b); st := one; y <= a; z <= c; t <= b; k <= 1;",
                "v := a; n := 0; r := (a, b); st := one;",
                "",
            ]
        )
    )
    body = draw(statements())
    if draw(st.sampled_from([0, 0, 1])):
        body = draw(
            st.sampled_from(
                [
                    f"if rising_edge(c) then {body} end if;",
                    f"if a = \"000\" then y <= b; elsif c'event and c = '1' then {body} end if;",
                ]
            )
        )
    more = draw(
        st.sampled_from(
            [
                "z2 <= t(0) when c = '1' else a(1);",
                'with b select z2 <= t(1) when "001" | "110", c when "111", \'0\' when others;',
                "u : entity work.inner port map (x => t(1 downto 0), y => z2);",
                "z2 <= 'Z' when k = 2 else t(2);",
                "u : entity work.inner port map (x(1) => c, x(0) => t(2), y => z2);",
                # Buses: several drivers on the same digits, one of them from the random process.
                "bus_t <= t when c = '1' else (others => 'Z'); bus_t <= a when c = '0' else \"ZZZ\"; z2 <= bus_t(1);",
                "bus_t <= a; bus_t <= t; bus_t(0) <= b(0) and c; z2 <= bus_t(0);",
                "z <= c; z <= a(0) when b(0) = '1' else 'Z'; z2 <= 'Z';",
                "t <= b when c = '1' else (others => 'Z'); z2 <= t(0);",
                "grid(to_integer(unsigned(t(1 downto 1))), 1) <= a; grid(0, 0) <= b; z2 <= grid(k / 2, k mod 2)(1);",
                "z2 <= and t; gg : for i in 0 to 1 generate w(i) <= w(i + 1) xor t(i); end generate; w(2) <= c;",
            ]
        )
    )
    return f"""
library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;
entity inner is port (x : in std_logic_vector(1 downto 0); y : out std_logic); end entity;
architecture rtl of inner is begin y <= x(1) and not x(0); end architecture;
library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;
entity m is port (a, b : in std_logic_vector(2 downto 0); c : in std_logic; y : out std_logic_vector(2 downto 0);
z, z2 : out std_logic); end entity;
architecture rtl of m is
  subtype vec is std_logic_vector(2 downto 0);
  type state is (one, two, three);
  type pair is record p, q : std_logic_vector(2 downto 0); end record;
  type mem_t is array (0 to 3) of std_logic_vector(2 downto 0);
  signal t, w : std_logic_vector(2 downto 0);
  signal k : integer range 0 to 3;
  signal mem : mem_t := ("000", "001", "010", "110");
  type grid_t is array (0 to 1, 1 downto 0) of std_logic_vector(2 downto 0);
  signal bus_t : std_logic_vector(2 downto 0);
  signal grid : grid_t := (("011", "001"), ("010", "110"));
  type triple is array (natural range <>) of integer range 0 to 7;
  type counted is record word : std_logic_vector(2 downto 0); count : integer range 0 to 7; end record;
  function ones (x : std_logic_vector) return natural is
    alias q : std_logic_vector(x'length - 1 downto 0) is x;
  begin
    if x'length = 1 then
      if q(0) = '1' then return 1; end if;
      return 0;
    end if;
    return ones(q(x'length - 1 downto x'length / 2)) + ones(q(x'length / 2 - 1 downto 0));
  end function;
  function folded (x : std_logic_vector; s : std_logic) return std_logic_vector is
    constant n : natural := x'length;
    alias q : std_logic_vector(n - 1 downto 0) is x;
    variable r : std_logic_vector(n - 1 downto 0) := q;
    variable k : integer range 0 to 3;
  begin
    if n = 1 then
      if s = '1' then return not q; end if;
      return q;
    end if;
    k := to_integer(unsigned(q(0 downto 0))) mod n;
    r(k downto 0) := (others => s);
    r(to_integer(unsigned(q(n - 1 downto n - 1))) downto 0) := (others => q(0));
    return folded(r(n / 2 - 1 downto 0), q(n - 1)) & folded(r(n - 1 downto n / 2), s);
  end function;
  function f (x : std_logic_vector(2 downto 0); s : std_logic) return std_logic_vector is
  begin
    if s = '1' then return x; end if;
    return not x;
  end function;
  function g (x : std_logic_vector; s : std_logic) return std_logic_vector is
    variable r : std_logic_vector(x'range) := (others => '0');
  begin
    for i in x'low to x'high loop
      if x(i) = s then r(i) := '1'; exit when i = 1; end if;
      next when r(0) = '1';
      r(x'high) := not r(x'high);
    end loop;
    return r;
  end function;
begin
  process ({wait})
    variable v : std_logic_vector(2 downto 0) := "000";
    variable n : integer range 0 to 15 := 0;
    variable st : state;
    variable r : pair := ("000", "111");
    variable tri : triple(0 to 2) := (others => 0);
    variable rn : counted := ("000", 0);
    procedure p (x : inout std_logic_vector; i : in integer) is
    begin
      if i > 4 then return; end if;
      x(0) := x(2);
      x(2) := not x(1);
    end procedure;
    procedure q (signal x : out std_logic_vector(2 downto 0)) is
    begin
      x <= v;
    end procedure;
  begin
    {start}
    {body}
  end process;
  {more}
end architecture;
"""


def design(text: str, name: str = "m.vhd") -> Design:
    reading = read_handin([HandinFile(name, text.encode())], LIMITS)
    found = reading.elaborate("m") if not reading.collector.errors else None
    assert found is not None, [str(m) for m in reading.messages()]
    return found


def seen(d: Design) -> Observation:
    binding = bind_ports(EXPECTATION.spec, d)
    assert not binding.problems
    return observe(d, binding, EXPECTATION.spec.inputs, EXPECTATION.cases, LIMITS)


Texts = tuple[str, str, str]


def gates(depth: int) -> st.SearchStrategy[Texts]:
    """A function of a[2:0] and c: as Verilog, VHDL and for a wiring list."""
    leaf = st.sampled_from(
        [("c", "c", "c"), *((f"a[{i}]", f"a({i})", f"a[{i}]") for i in range(3)), ("b[1]", "b(1)", "b[1]")]
    )
    if depth == 0:
        return leaf
    inner = gates(depth - 1)
    words = {
        "and": "({} & {})",
        "or": "({} | {})",
        "xor": "({} ^ {})",
        "nand": "~({} & {})",
        "nor": "~({} | {})",
        "xnor": "~({} ^ {})",
    }

    def two(op: str, p: Texts, q: Texts) -> Texts:
        return words[op].format(p[0], q[0]), f"({p[1]} {op} {q[1]})", f"{op}({p[2]}, {q[2]})"

    return st.one_of(
        leaf,
        st.builds(two, st.sampled_from(sorted(words)), inner, inner),
        st.builds(lambda p: (f"~{p[0]}", f"(not {p[1]})", f"not({p[2]})"), inner),
    )


@st.composite
def gates_that_listen(draw: st.DrawFn) -> str:
    """Gates, each an assignment or a process of its own that wakes for some of what it reads, or for something else."""
    kind = draw(st.sampled_from(["std_logic", "std_logic", "bit"]))
    made = []
    for target in draw(st.permutations(["t", "z", "z2", "y(0)", "y(1)", "y(2)"])):
        value = draw(gates(draw(st.integers(0, 2))))[1]
        if target != "t" and draw(st.booleans()):
            value = value.replace("c", "t")
        read = [name for name in ("a", "b", "c", "t") if name in re.findall(r"[a-z]+", value)]
        heard = draw(st.sampled_from([read, read, read[:1], [*read, "c"], ["a(1)", "b"]]))
        after = draw(st.sampled_from(["", "", " after 1 ns", " after 3 ns", " after 0 ns"]))
        made.append(
            draw(
                st.sampled_from(
                    [
                        f"{target} <= {value}{after};",
                        f"process ({', '.join(heard)}) begin {target} <= {value}{after}; end process;",
                    ]
                )
            )
        )
    return f"""
library ieee; use ieee.std_logic_1164.all;
entity m is port (a, b : in {kind}_vector(2 downto 0); c : in {kind}; y : out {kind}_vector(2 downto 0);
z, z2 : out {kind}); end entity;
architecture rtl of m is
  signal t : {kind};
begin
  {chr(10).join(made)}
end architecture;
"""


@settings(max_examples=120, deadline=None, suppress_health_check=list(HealthCheck))
@given(st.one_of(entities(), gates_that_listen()))
def test_all_cases_at_once_are_what_each_one_is(text: str) -> None:
    at_once = seen(design(text))
    stepped = design(text)
    for part in stepped.parts:
        part.unfit = "wanted step by step"
    one_by_one = seen(stepped)
    assert one_by_one.engine == "timeline"
    names = {run.name: run for run in at_once.runs}
    for run in one_by_one.runs:
        other = names.get(run.name, names["fresh"])  # without memory, every way to a case is as good as a fresh start
        assert run.stopped == other.stopped, run.name
        still = ~run.stopped
        assert {k: (p & still, q & still) for k, (p, q) in run.outputs.items()} == {
            k: (p & still, q & still) for k, (p, q) in other.outputs.items()
        }, run.name


# The same function in every language.


def sums(depth: int) -> st.SearchStrategy[tuple[str, str]]:
    """A function of words of three digits: as Verilog and VHDL."""
    leaf = st.sampled_from(
        [("a", "ua"), ("b", "ub"), ("3'd5", "to_unsigned(5, 3)"), ("{c, a[1:0]}", "(c & ua(1 downto 0))")]
    )
    if depth == 0:
        return leaf
    inner = sums(depth - 1)
    binary = {"+": "+", "-": "-", "and": "&", "or": "|", "xor": "^"}
    return st.one_of(
        leaf,
        st.builds(
            lambda op, p, q: (f"({p[0]} {binary[op]} {q[0]})", f"({p[1]} {op} {q[1]})"),
            st.sampled_from(sorted(binary)),
            inner,
            inner,
        ),
        st.builds(lambda p: (f"(~{p[0]})", f"(not {p[1]})"), inner),
        st.builds(lambda p, n: (f"(({p[0]}) << {n})", f"shift_left({p[1]}, {n})"), inner, st.sampled_from([1, 2])),
        st.builds(
            lambda p, q, r, s, op: (
                f"(({p[0]} {op} {q[0]}) ? {r[0]} : {s[0]})",
                f"pick({p[1]} {'=' if op == '==' else op} {q[1]}, {r[1]}, {s[1]})",
            ),
            inner,
            inner,
            inner,
            inner,
            st.sampled_from(["==", "<", "<=", ">"]),
        ),
    )


@settings(max_examples=60, deadline=None, suppress_health_check=list(HealthCheck))
@given(sums(3), gates(3), gates(3))
def test_a_function_is_the_same_in_every_language(word: tuple[str, str], one: Texts, two: Texts) -> None:
    verilog = f"""module m(input [2:0] a, b, input c, output [2:0] y, output z, z2);
  assign y = {word[0]}; assign z = {one[0]}; assign z2 = {two[0]};
endmodule"""
    vhdl = f"""library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;
entity m is port (a, b : in std_logic_vector(2 downto 0); c : in std_logic; y : out std_logic_vector(2 downto 0);
z, z2 : out std_logic); end;
architecture rtl of m is
  signal ua, ub : unsigned(2 downto 0);
  function pick (w : boolean; p, q : unsigned(2 downto 0)) return unsigned is begin if w then return p;
  else return q; end if; end;
begin
  ua <= unsigned(a); ub <= unsigned(b);
  y <= std_logic_vector({word[1]});
  z <= {one[1]};
  process (all) begin
    z2 <= {two[1]};
  end process;
end;"""
    wiring = (
        f"wiring m\n  takes a[3], b[3], c\n  gives y[3], z, z2\n  y <- a\n  z <- buf({one[2]})\n  z2 <-"
        f" buf({two[2]})\nend\n"
    )
    in_verilog, in_vhdl, wired = (
        seen(design(text, name)).runs[0].outputs
        for text, name in ((verilog, "m.v"), (vhdl, "m.vhd"), (wiring, "m.wiring"))
    )
    assert in_vhdl == in_verilog
    assert {k: p for k, p in wired.items() if k[0] != "y"} == {k: p for k, p in in_verilog.items() if k[0] != "y"}
