"""What follows within the same simulation cycle in VHDL: guards of blocks, ports joined to parts of signals or through
conversions.

A latch takes its data by such a signal; inputs change together, so that a guard or port that came a delta late would
let something through. Held against a model of one line, on the timeline and in lanes (IEEE 1076-1993 clause 12.6.2).
"""

from __future__ import annotations

import random

import pytest

from obento.core import values as v
from tests.core.designs import build, in_lanes, messages, on_timeline

HEAD = "library ieee; use ieee.std_logic_1164.all;\n"
PORTS = "(e : in std_logic_vector(1 downto 0); d : in std_logic; q : out std_logic)"
CELL = (
    HEAD + "entity cell is port (en, d : in std_logic; q : out std_logic); end;\n"
    "architecture a of cell is begin process (en, d) begin if en = '1' then q <= d; end if; end process; end;\n"
)

FORMS = {
    "guard": "b : block (e(0) = '1' and e(1) = '0') begin q <= guarded d; end block;",
    "guard of several assignments": (
        'b : block (e = "01") signal m : std_logic; begin m <= guarded d; q <= m; end block;'
    ),
    "nested blocks": (
        "o : block begin b : block (e(1) = '0' and e(0) = '1') begin q <= guarded d; end block; end block;"
    ),
    "guard read by a process": (
        'b : block (e = "01") begin process (guard, d) begin if guard then q <= d; end if; end process; end block;'
    ),
    "part of a signal": "w <= (e(0) and not e(1)) & d; u : entity work.cell port map (en => w(1), d => w(0), q => q);",
    "bits of an input": "u : entity work.gated port map (e(0) => e(0), e(1) => e(1), d => d, q => q);",
    "two levels of joins": "u : entity work.outer port map (e => e, d => d, q => q);",
    "conversion": "u : entity work.flagged port map (e0 => to_bit(e(0)), e1 => to_bit(e(1)), d => d, q => q);",
}

GATED = (
    HEAD
    + f'entity gated is port {PORTS}; end;\narchitecture a of gated is begin process (e, d) begin if e = "01" then q <='
    " d; end if; end process; end;\n"
)
OUTER = (
    HEAD
    + f"entity outer is port {PORTS}; end;\narchitecture a of outer is begin u : entity work.gated port map (e(1) =>"
    " e(1), e(0) => e(0), d => d, q => q); end;\n"
)
FLAGGED = (
    HEAD
    + "entity flagged is port (e0, e1 : in bit; d : in std_logic; q : out std_logic); end;\narchitecture a of flagged"
    " is begin process (e0, e1, d) begin if e0 = '1' and e1 = '0' then q <= d; end if; end process; end;\n"
)


@pytest.mark.parametrize("form", FORMS)
def test_nothing_passes_in_the_moment_in_which_the_guard_closes(form: str) -> None:
    body = FORMS[form]
    own = "signal w : std_logic_vector(1 downto 0);" if "w <=" in body else ""
    top = HEAD + f"entity m is port {PORTS}; end;\narchitecture a of m is {own} begin {body} end;\n"
    design = build(CELL + GATED + OUTER + FLAGGED + top, name="a.vhd")
    assert not design.parts[0].unfit
    dice = random.Random(form)
    sequences = [[(dice.randrange(4), dice.randrange(2)) for _ in range(12)] for _ in range(60)]
    truth = []
    for sequence in sequences:
        q = "x"
        for e, d in sequence:
            q = str(d) if e == 1 else q
        truth.append([q])
    cases = [[{"e": v.word(e, 2), "d": v.word(d, 1)} for e, d in sequence] for sequence in sequences]
    assert [on_timeline(design, sequence) for sequence in cases] == truth
    assert in_lanes(design, cases) == truth


def test_a_guard_has_no_other_source() -> None:
    text = (
        HEAD
        + f"entity m is port {PORTS}; end;\narchitecture a of m is begin b : block (e(0) = '1') begin guard <= true; q"
        " <= guarded d; end block; end;\n"
    )
    assert "3:59 error two-drivers" in messages(text, name="a.vhd")
