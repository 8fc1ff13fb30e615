"""Power-up of VHDL with unknown inputs, errors of the run: whom they strike, and what they are called."""

from __future__ import annotations

import random

import pytest

from obento.core.check.check import check_handin, open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.check.judging.outcome import Checked
from obento.core.check.running.binding import bind_ports
from obento.core.check.running.case_by_case import Wires, observe_case_by_case
from obento.core.check.running.cases import observe
from obento.core.handin import HandinFile, read_handin
from obento.core.limits import Limits

USE = "library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;\n"
ENTITY = USE + "entity m is port (a : in std_logic_vector(1 downto 0); y : out std_logic_vector(1 downto 0)); end;\n"
TABLE = 'type t is array (1 to 3) of std_logic_vector(1 downto 0); constant k : t := ("10", "01", "00");'


def locks(listed: str = "1\n2\n3") -> Expectation:
    """What is left of three: a division or a table that has nothing at 0."""
    text = f"obento='spec/1'\nunit='m'\n[ports]\nin='a[2]:dec'\nout='y[2]:dec'\n[expect]\nequations='y = 3 - a'\n[cases]\nlisted='''\na\n{listed}\n'''\n"  # noqa: E501
    loaded = open_spec("s.toml", text.encode(), {})
    assert loaded.expectation is not None, [str(m) for m in loaded.messages]
    return loaded.expectation


def judged(body: str, decls: str = "", expectation: Expectation | None = None) -> Checked:
    text = f"{ENTITY}architecture z of m is {decls}\nbegin\n{body}\nend;\n"
    found = check_handin(expectation or locks(), [HandinFile("a.vhd", text.encode())])
    assert found.verdict is not None, [str(m) for m in found.messages]
    return found


RIGHT = {
    "index": ("y <= k(to_integer(unsigned(a)));", TABLE),
    "index in a process": ("process (a) begin y <= k(to_integer(unsigned(a))); end process;", TABLE),
    "index in a process that waits": ("process begin y <= k(to_integer(unsigned(a))); wait on a; end process;", TABLE),
    "division": (
        "y <= std_logic_vector(to_unsigned(6 / to_integer(unsigned(a)) - (6 / to_integer(unsigned(a)) + to_integer(unsigned(a)) - 3), 2));",  # noqa: E501
        "",
    ),
    "range": (
        "process (a) variable n : integer range 1 to 3; begin n := to_integer(unsigned(a)); y <= std_logic_vector(to_unsigned(3 - n, 2)); end process;",  # noqa: E501
        "",
    ),
    "vectors divided": ("y <= std_logic_vector(3 - unsigned(a) + resize(0 * (3 / unsigned(a)), 2));", ""),
    "assertion": ('assert not is_x(a) report "open" severity failure; y <= not a;', ""),
    "inside a block": ('b : block (a /= "00") begin y <= guarded k(to_integer(unsigned(a))); end block;', TABLE),
}


@pytest.mark.parametrize("way", RIGHT)
def test_what_is_right_for_every_real_input_is_right(way: str) -> None:
    body, decls = RIGHT[way]
    found = judged(body, decls)
    assert found.verdict is not None and found.verdict.cells() == "ppp", [f.text for f in found.findings]
    notes = [m for m in found.messages if m.code == "power-up"]
    if way != "vectors divided":  # there only a warning is printed: X comes out
        assert len(notes) == 1 and notes[0].severity == "note" and notes[0].line >= 4, found.messages
        assert "uninitialised" in notes[0].hint


def test_nothing_is_told_where_power_up_is_no_matter() -> None:
    found = judged("y <= not a;")
    assert found.verdict is not None and found.verdict.cells() == "ppp"
    assert not [m for m in found.messages if m.code in ("power-up", "run")]


@pytest.mark.parametrize(
    ("body", "decls", "named"),
    [
        ("\ny <= k(to_integer(unsigned(a)));", TABLE, "index 0 is outside"),
        ("\nprocess (a) begin y <= std_logic_vector(to_unsigned(3 - to_integer(unsigned(a)) + 0 * (1 / to_integer(unsigned(a))), 2)); end process;", "", "division by zero"),  # noqa: E501
        ("\nprocess (a) variable n : integer range 1 to 3; begin n := to_integer(unsigned(a)); y <= not a; end process;", "", "value 0 is outside of the range 1 to 3"),  # noqa: E501
        ("\nassert a /= \"00\" report \"none\" severity failure; y <= not a;", "", "severity failure"),
        ("\nprocess begin y <= k(to_integer(unsigned(a))); wait on a; end process;", TABLE, "index 0 is outside"),
    ],
)  # fmt: skip
def test_an_error_with_real_values_strikes_its_cases_and_is_called_what_it_is(
    body: str, decls: str, named: str
) -> None:
    found = judged(body, decls, locks("0\n1\n2\n3"))
    assert found.verdict is not None and found.verdict.cells() == "sppp"
    first = found.findings[0]
    assert first.kind == "run-error" and named in first.text and "whenever a = 0: 1 of 4" in first.text
    assert first.line == 6 and first.file == "a.vhd"
    assert not any("settle" in f.text for f in found.findings)


def test_what_does_not_settle_is_still_called_that() -> None:
    found = judged(
        'process (a, t) begin if a = "00" then t <= not t; end if; end process; y <= not a;',
        "signal t : bit;",
        locks("0\n1\n2"),
    )
    assert found.verdict is not None and found.verdict.cells() == "spp"
    assert [f.text for f in found.findings if f.kind in ("stopped", "run-error")] == ["does not settle: 1 of 3"]


def test_eight_cases_that_end_in_an_error_say_nothing_of_the_others() -> None:
    """The waiting process keeps it on the timeline; only what does not settle lets the rest be passed over."""
    spec = "obento='spec/1'\nunit='m'\n[ports]\nin='a[6]'\nout='y'\n[expect]\nequations='y = a[5]'\n"
    loaded = open_spec("s.toml", spec.encode(), {})
    assert loaded.expectation is not None
    text = (
        USE
        + "entity m is port (a : in std_logic_vector(5 downto 0); y : out std_logic); end;\narchitecture z of m is type t is array (32 to 63) of std_logic;\n"  # noqa: E501
        "constant k : t := (others => '1'); begin process begin y <= k(to_integer(unsigned(a))); wait on a; y <= k(to_integer(unsigned(a))); wait on a; end process; end;\n"  # noqa: E501
    )
    found = check_handin(loaded.expectation, [HandinFile("a.vhd", text.encode())])
    assert found.verdict is not None and found.verdict.cells() == "s" * 32 + "p" * 32
    assert found.engine == "timeline"


def test_what_settles_in_half_of_the_cases_is_run_in_all() -> None:
    spec = "obento='spec/1'\nunit='m'\n[ports]\nin='a[6]'\nout='y'\n[expect]\nequations='y = a[5]'\n"
    loaded = open_spec("s.toml", spec.encode(), {})
    assert loaded.expectation is not None
    text = "module m(input [5:0] a, output y); reg t = 0; always @(a or t) if (!a[5]) begin #1 t = ~t; end assign y = a[5]; endmodule"  # noqa: E501
    found = check_handin(loaded.expectation, [HandinFile("a.v", text.encode())])
    assert found.verdict is not None and found.engine == "timeline"
    assert found.verdict.cells()[32:] == "p" * 32


CLOCKED = """obento='spec/1'
unit='m'
[ports]
in='clk rst'
out='y[2]:dec'
[clock]
port='clk'
[reset]
port='rst'
active=1
kind='async'
[expect]
function='''
clk rst y | y
-   1   - | 2
r   0   - | y-1
'''
"""
CLOCKED_TEXT = (
    USE + "entity m is port (clk, rst : in std_logic; y : out std_logic_vector(1 downto 0)); end;\n"
    'architecture z of m is type t is array (1 to 2) of std_logic_vector(1 downto 0); constant k : t := ("10", "01");\n'
    "signal n : unsigned(1 downto 0); begin\n"
    "process (clk, rst) begin if rst = '1' then n <= \"10\"; elsif clk'event and clk = '1' then n <= n - 1; end if; end process;\n"  # noqa: E501
    "assert rst = '0' or rst = '1' report \"reset is open\" severity failure;\ny <= std_logic_vector(n); end;\n"
)


@pytest.mark.parametrize("lanes_from", [1, 10_000])
def test_clocked_designs_begin_again_without_an_edge(lanes_from: int) -> None:
    """An assertion forbids unknown resets;
    the clock is at rest from the beginning, which is no edge for `clk'event`."""
    from obento.core.check.running.steps import observe_steps

    loaded = open_spec("s.toml", CLOCKED.encode(), {})
    assert loaded.expectation is not None, [str(m) for m in loaded.messages]
    expectation = loaded.expectation
    reading = read_handin([HandinFile("a.vhd", CLOCKED_TEXT.encode())], Limits())
    design = reading.elaborate("m")
    assert design is not None
    seen = observe_steps(
        design, bind_ports(expectation.spec, design), expectation.spec.inputs, expectation.cases, Limits(), lanes_from
    )
    assert seen.engine == ("event-driven" if lanes_from == 1 else "timeline")
    assert seen.refused is not None and not seen.ends
    found = check_handin(expectation, [HandinFile("a.vhd", CLOCKED_TEXT.encode())])
    assert found.verdict is not None and set(found.verdict.cells()) <= {"p", "n"}


@pytest.mark.parametrize("seed", range(12))
def test_lanes_and_timeline_begin_alike(seed: int) -> None:
    """Random tables read at random places: some right for all, some only for unknown or only for some real inputs."""
    dice = random.Random(seed)
    low, size = dice.randrange(4), dice.randrange(2, 9)
    shift, times = dice.randrange(3), dice.choice([1, 1, 2])
    fill = ", ".join(f'"{dice.randrange(4):02b}"' for _ in range(size))
    place = f"to_integer(unsigned(a)) * {times} + {shift}"
    kind = dice.choice(
        [
            "y <= k({p});",
            "process (a) begin y <= k({p}); end process;",
            "process (a) variable n : integer range {l} to {h}; begin n := {p}; y <= k(n); end process;",
        ]
    )
    body = kind.format(p=place, l=low, h=low + size - 1)
    text = (
        ENTITY.replace("1 downto 0); y", "2 downto 0); y")
        + f"architecture z of m is type t is array ({low} to {low + size - 1}) of std_logic_vector(1 downto 0); constant k : t := ({fill}); begin {body} end;\n"  # noqa: E501
    )
    spec = open_spec(
        "s.toml", b"obento='spec/1'\nunit='m'\n[ports]\nin='a[3]'\nout='y[2]'\n[expect]\nequations='y = 0'\n", {}
    ).expectation
    assert spec is not None
    design = read_handin([HandinFile("a.vhd", text.encode())], Limits()).elaborate("m")
    assert design is not None
    binding = bind_ports(spec.spec, design)
    fast = observe(design, binding, spec.spec.inputs, spec.cases, Limits())
    port = design.port("a").signal
    watched = {("y", i): design.port("y").signal.offset + i for i in range(2)}
    wires = Wires([port.offset + i for i in range(3)], [f"a[{i}]" for i in range(3)], [], watched)
    slow = observe_case_by_case(design, wires, spec.cases, Limits(), neighbours=len(fast.runs) > 1)
    assert (fast.refused is None) == (slow.refused is None)
    for one, two in zip(fast.runs, slow.runs, strict=True):
        assert one.stopped == two.stopped
        for key in watched:
            alive = ~one.stopped
            assert one.outputs[key][0] & alive == two.outputs[key][0] & alive
