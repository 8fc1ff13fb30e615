"""What was read before in the same process changes nothing: a hand-in is told the same after any other."""

from __future__ import annotations

from obento.core.handin import HandinFile, read_handin
from obento.core.limits import Limits
from tests.conformance.programs import HERE
from tests.slips.slips import LANGUAGES, read

LIMITS = Limits(deltas=200)

OWN_ARRAY_THEN_NUMERIC = """
library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;
entity n is port (a, b : in std_logic; y : out std_logic); end;
architecture r of n is signal u : unsigned(1 downto 0); begin u <= a & b; y <= u(0); end;
library ieee; use ieee.std_logic_1164.all;
entity m is port (a, b : in std_logic; y : out std_logic); end;
architecture r of m is type own is array (natural range <>) of std_logic;
begin k : entity work.n port map (a, b, y); end;
"""
JOINED = """
library ieee; use ieee.std_logic_1164.all; use ieee.{}.all;
entity m is port (a, b : in {}; y : out {}); end;
architecture r of m is signal u : unsigned(1 downto 0); begin u <= a & b; y <= u(0); end;
"""
WRONG = "entity m is port (a, b : in bit; y : out bit); end;\narchitecture r of m is begin y <= a & b; end;\n"


def told(name: str, text: str) -> list[str]:
    """Every message of reading and building all units of a text."""
    reading = read_handin([HandinFile(name, text.encode())], LIMITS)
    for unit in reading.units if not reading.collector.errors else ():
        reading.elaborate(unit)
    return [f"{m.line}:{m.column} {m.severity} {m.text} {m.hint}" for m in reading.messages()]


def test_a_package_that_was_read_for_one_is_whole_for_the_next() -> None:
    of_bits, of_logic = JOINED.format("numeric_bit", "bit", "bit"), JOINED.format("numeric_std", *["std_logic"] * 2)
    before = told("a.vhd", WRONG)
    for text in (OWN_ARRAY_THEN_NUMERIC, of_logic, of_bits, OWN_ARRAY_THEN_NUMERIC, of_bits, of_logic):
        assert not [m for m in told("a.vhd", text) if " error " in m], text
    assert told("a.vhd", WRONG) == before


def test_every_program_is_told_the_same_after_all_others() -> None:
    programs = [
        (path.name, path.read_text(encoding="utf-8"))
        for language in ("vhdl", "verilog")
        for path in sorted((HERE / language).iterdir())
        if path.suffix in (".v", ".sv", ".vhd")
    ]
    programs += [(f"a{suffix}", slip.text) for language, (suffix, _) in LANGUAGES.items() for slip in read(language)]
    first = [told(*program) for program in programs]
    again = [told(*program) for program in reversed(programs)]
    for program, once, twice in zip(programs, first, reversed(again), strict=True):
        assert once == twice, program
