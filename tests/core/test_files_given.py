"""A circuit may read the files that were handed in beside it: tables of a ROM above all."""

from __future__ import annotations

import pytest

from obento.core.check.check import check_handin, open_spec
from obento.core.check.judging.outcome import Checked
from obento.core.handin import HandinFile, read_handin
from obento.core.ir.design import Design
from tests.core.designs import LIMITS, agree, known_cases, levelized

SPEC = 'obento = "spec/1"\nunit = "m"\n[ports]\nin = "a[3]"\nout = "y[3]"\n[expect]\nequations = "y = a ^ 5"\n'
TABLE = "5 4 7 6\n1 0 3 2"


def rom(load: str, name: str = "a.v", body: str = "") -> HandinFile:
    text = f"module m(input [2:0] a, output [2:0] y); reg [2:0] r [0:7]; {load} {body} assign y = r[a]; endmodule"
    return HandinFile(name, text.encode())


def checked(*files: HandinFile) -> Checked:
    expectation = open_spec("s.toml", SPEC.encode(), {}).expectation
    assert expectation is not None
    return check_handin(expectation, files)


def right(outcome: Checked) -> int:
    assert outcome.verdict is not None, outcome.messages
    return outcome.verdict.right.bit_count()


def design(load: str, table: str = TABLE, body: str = "") -> Design:
    reading = read_handin([rom(load, body=body), HandinFile("t/r.hex", table.encode())], LIMITS)
    found = reading.elaborate("m")
    assert found is not None, [str(m) for m in reading.messages()]
    return found


LOADS = [
    # how it is read, what stands in the file, whether one run tells all cases
    ('initial $readmemh("r.hex", r);', TABLE, True),
    ('initial $readmemh("t/r.hex", r);', TABLE, True),
    ('initial $readmemh("../somewhere/r.hex", r);', TABLE, True),
    ('initial $readmemb("r.hex", r);', "101 100 // two\n111_ 1x0 /* and */ zz1 0 11 10", True),
    ('initial $readmemh("r.hex", r, 2);', TABLE, True),
    ('initial $readmemh("r.hex", r, 5, 2);', TABLE, True),
    ('initial $readmemh("r.hex", r);', "@4 1 2 @0 7 6 5", True),
    ('initial $readmemh("r.hex", r);', "1 2 nonsense 3", True),
    ('initial $readmemh("r.hex", r);', "1 2 3 4 5 6 7 0 1 2", True),
    ('initial $readmemh("missing.hex", r);', "", True),
    ('parameter FILE = "r.hex"; initial $readmemh(FILE, r);', TABLE, True),
    ('integer i; initial begin for (i = 0; i < 8; i = i + 1) r[i] = 0; $readmemh("r.hex", r); end', "7 6", True),
    ('reg [39:0] f; initial begin f = "r.hex"; $readmemh(f, r); end', TABLE, False),
    ('always @(a) $readmemh("r.hex", r);', TABLE, False),
    ('initial $readmemh("r.hex", r); always @(a) if (a == 3) r[0] = 1;', TABLE, False),
]


@pytest.mark.parametrize(("load", "table", "levelled"), LOADS, ids=[f"{t[0]} {t[1][:12]}" for t in LOADS])
def test_lanes_read_what_the_timeline_reads(load: str, table: str, levelled: bool) -> None:
    built = design(load, table)
    assert (levelized(built, known_cases(built)) is not None) is levelled
    agree(built)


@pytest.mark.parametrize("load", [t[0] for t in LOADS if t[1] == TABLE and "2)" not in t[0] and "a ==" not in t[0]])
def test_a_table_of_a_hand_in_counts(load: str) -> None:
    assert right(checked(rom(load), HandinFile("r.hex", TABLE.encode()))) == 8


@pytest.mark.parametrize(
    ("load", "table", "said"),
    [
        ('initial $readmemh("rom.hex", r);', TABLE, "$readmemh finds no file `rom.hex` among those given"),
        ('initial $readmemh("r.hex", r);', "1 2\nq", "`r.hex` line 2: `q` is no number for $readmemh"),
        ('initial $readmemb("r.hex", r);', "1 2", "`r.hex` line 1: `2` is no number for $readmemb"),
        (
            'initial $readmemh("r.hex", r);',
            TABLE + " 1",
            "`r.hex` holds more than fits: address 8 is outside of [0:7]",
        ),
    ],
)
def test_what_is_wrong_with_a_table_is_said(load: str, table: str, said: str) -> None:
    outcome = checked(rom(load), HandinFile("r.hex", table.encode()))
    (message,) = [m for m in outcome.messages if m.code == "memory-file"]
    assert message.text == said and message.file == "a.v" and message.line == 1


def test_what_a_circuit_writes_is_lost_and_costs_nothing() -> None:
    body = 'integer f; always @(a) begin f = $fopen("log.txt", "w"); $fdisplay(f, "%h", a); $fclose(f); end'
    outcome = checked(rom('initial $readmemh("r.hex", r);', body=body), HandinFile("r.hex", TABLE.encode()))
    assert right(outcome) == 8


def test_scanned_tables() -> None:
    load = """integer f, i, n; initial begin f = $fopen("r.txt", "r");
        for (i = 0; i < 8; i = i + 1) n = $fscanf(f, "%d", r[i]); $fclose(f); end"""
    outcome = checked(rom(load), HandinFile("r.txt", b"5 4 7 6 1 0 3 2\n"))
    assert right(outcome) == 8


VHDL = """library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all; use std.textio.all;
entity m is port (a : in std_logic_vector(2 downto 0); y : out std_logic_vector(2 downto 0)); end;
architecture x of m is
  type rom_t is array (0 to 7) of integer range 0 to 7;
  impure function init return rom_t is
    file f : text open read_mode is "r.txt"; variable l : line; variable v : integer; variable r : rom_t;
  begin
    for i in r'range loop readline(f, l); read(l, v); r(i) := v; end loop;
    return r;
  end;
  constant rom : rom_t := init;
begin
  y <= std_logic_vector(to_unsigned(rom(to_integer(unsigned(a))), 3));
end;
"""


def test_constants_of_vhdl_come_from_files_too() -> None:
    table = "\n".join(TABLE.split()).encode()
    assert right(checked(HandinFile("a.vhd", VHDL.encode()), HandinFile("r.txt", table))) == 8
    missing = checked(HandinFile("a.vhd", VHDL.encode()))
    assert missing.status == "unreadable" and "`r.txt` is not among the files given" in str(missing.messages)
