"""A smallest change is a change of the text: in its words, at its line, and right when the text is read again."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obento.core.check.check import check_handin, open_spec
from obento.core.check.mutation.literals import rewritten, value_of
from obento.core.check.mutation.smallest_change import Change, find_repair
from obento.core.handin import HandinFile

WRITTEN = {
    "verilog": ["{n}", "8'd{n}", "8'b{n:b}", "8'h{n:x}", "8'H{n:X}", "'o{n:o}", "8'sb{n:08b}"],
    "vhdl": ["{n}", '"{n:08b}"', 'x"{n:02X}"', 'B"{n:08b}"'],
    "wiring": ["{n}", "8d{n}", "8b{n:b}", "8h{n:x}"],
}


@given(st.sampled_from([(lang, form) for lang, forms in WRITTEN.items() for form in forms]), st.integers(0, 255),
       st.integers(0, 255))  # fmt: skip
def test_another_number_is_written_as_the_one_before(how: tuple[str, str], old: int, new: int) -> None:
    language, form = how
    word = form.format(n=old)
    assert value_of(word, language) == old
    written = rewritten(word, new, language)
    assert written is not None and value_of(written, language) == new
    before, after = (w.rstrip('0123456789abcdefABCDEF_"') for w in (word, written))
    assert before == after
    assert rewritten(word, old, language).lower() == word.lower()  # type: ignore[union-attr]


@pytest.mark.parametrize(("word", "language"), [
    ("4'bx01z", "verilog"), ("'1", "verilog"), ("abc", "verilog"), ("'z'", "vhdl"), ('"01Z"', "vhdl"), ("'", "vhdl"),
])  # fmt: skip
def test_what_is_no_known_number_is_none(word: str, language: str) -> None:
    assert value_of(word, language) is None and rewritten(word, 1, language) is None


def test_a_number_that_does_not_fit_is_not_written() -> None:
    assert rewritten("2'd3", 4, "verilog") is None and rewritten("'1'", 2, "vhdl") is None
    assert rewritten('"11"', 4, "vhdl") is None and rewritten("3", 4, "vhdl") == "4"


def spec(ports: str, expect: str) -> str:
    return f'obento = "spec/1"\ntitle = "t"\nunit = "m"\n[ports]\n{ports}\n[expect]\n{expect}\n'


VHDL = (
    "library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;\n"
    "entity m is port (a, b : in std_logic_vector(3 downto 0); y : out std_logic); end;\n"
    "architecture r of m is begin\n  {}\nend;\n"
)
VERILOG = "module m(input [3:0] a, b, output y);\n  {}\nendmodule\n"
WORDS = 'in = "a[4] b[4]"\nout = "y"'
LESS = spec(WORDS, 'equations = "y = a >= 8"')
SEEDED = [
    (LESS, "m.vhd", VHDL.format("y <= '1' when unsigned(a) > 8 else '0';"), "`>=` for `>`"),
    (LESS, "m.v", VERILOG.format("assign y = a > 8;"), "`>=` for `>`"),
    (LESS, "m.v", VERILOG.format("assign y = 4'b1001 <= a;"), "`4'b1000` for `4'b1001`"),
    (LESS, "m.vhd", VHDL.format('y <= \'1\' when a >= "1001" else \'0\';'), '`"1000"` for `"1001"`'),
    (LESS, "m.v", VERILOG.format("assign y = a[2];"), "`a[3]` for `a[2]`"),
    (LESS, "m.vhd", VHDL.format("y <= a(2);"), "`a(3)` for `a(2)`"),
    (LESS, "m.v", VERILOG.format("assign y = ~a[3];"), "no `~` before `a[3]`"),
    (LESS, "m.v", VERILOG.format("assign y = (a < 8) ? 1 : 0;"), "the two values exchanged"),
    (spec(WORDS, 'equations = "y = a < b"'), "m.v", VERILOG.format("assign y = b < a;"),
     "the operands of `<` exchanged"),
    (spec(WORDS, 'equations = "y = a[0] & b[0]"'), "m.v",
     VERILOG.format("reg t; assign y = t; always @* if (a[0]) t = 0; else t = b[0];"),
     "the condition of this `if` turned round"),
    (spec(WORDS, 'equations = "y = a == 5"'), "m.v",
     VERILOG.format("localparam FIVE = 5, SIX = 6; assign y = a == SIX;"), "`FIVE` for `SIX`"),
]  # fmt: skip


@pytest.mark.parametrize(("text", "name", "handin", "said"), SEEDED)
def test_it_is_said_in_the_words_of_the_text(text: str, name: str, handin: str, said: str) -> None:
    expectation = open_spec("s.toml", text.encode(), {}).expectation
    assert expectation is not None
    found = find_repair(expectation, [HandinFile(name, handin.encode())], (), {})
    assert found is not None and said in [c.text for c in found.changes], found


def clocked(expect: str) -> str:
    return (
        'obento = "spec/1"\ntitle = "r"\nunit = "m"\n[ports]\nin = "clk rst"\nout = "q[2]:dec"\n[clock]\nport = "clk"\n'
        f'[reset]\nport = "rst"\nactive = 1\nkind = "async"\n[expect]\n{expect}\n'
    )


def test_what_stands_nowhere_in_the_text_is_not_said() -> None:
    """The check of a range is no text of theirs, and so no place for a change."""
    text = (
        "library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;\n"
        "entity m is port (clk, rst : in std_logic; q : out std_logic_vector(1 downto 0)); end;\n"
        "architecture a of m is signal c : integer range 0 to 3; begin\n process (clk, rst) begin\n"
        "  if rst = '1' then c <= 0;\n  elsif rising_edge(clk) then c <= c + 1;\n  end if;\n end process;\n"
        " q <= std_logic_vector(to_unsigned(c, 2));\nend;\n"
    )
    steps = "clk rst q | q\n-   1   - | 0\nr   0   - | q+1\n"
    expectation = open_spec("s.toml", clocked(f"function = '''\n{steps}'''").encode(), {}).expectation
    assert expectation is not None
    files = [HandinFile("c.vhd", text.encode())]
    assert check_handin(expectation, files).findings[0].kind == "run-error"
    found = find_repair(expectation, files, (), {})
    assert found is not None and found.changes == []


def test_of_two_numbers_that_do_the_same_the_plain_one() -> None:
    text = (
        "module m(input clk, rst, output reg [1:0] q);\nalways @(posedge clk or posedge rst)\n  if (rst) q <= 1;\n"
        "  else q <= q + 1;\nendmodule\n"
    )
    steps = "clk rst | q\n. 1 | 0\nc 0 | 1\nc 0 | 2\nc 0 | 3\nc 0 | 0\n"
    expectation = open_spec("s.toml", clocked(f"steps = '''\n{steps}'''").encode(), {}).expectation
    assert expectation is not None
    found = find_repair(expectation, [HandinFile("m.v", text.encode())], (), {})
    assert found is not None and found.changes == [Change("m.v", 3, "0 for 1")]


EXCHANGED = spec('in = "a[4] b[4]"\nout = "y z"', "equations = '''\ny = a < b\nz = a == b\n'''")


@pytest.mark.parametrize(("name", "handin"), [
    ("m.v", "module m(input [3:0] a, b, output y, z);\n  assign z = a < b;\n  assign y = a == b;\nendmodule\n"),
    ("m.v", "module m(a, b, y, z);\n  input [3:0] a, b; output y, z; reg y, z;\n  always @* begin z = a < b;"
            " y = a == b; end\nendmodule\n"),
    ("m.vhd", VHDL.replace("y : out", "y, z : out").format("Z <= '1' when unsigned(a) < unsigned(b) else '0';\n"
                                                          "  y <= '1' when a = b else '0';")),
])  # fmt: skip
def test_two_outputs_exchanged_are_one_change(name: str, handin: str) -> None:
    expectation = open_spec("s.toml", EXCHANGED.encode(), {}).expectation
    assert expectation is not None
    found = find_repair(expectation, [HandinFile(name, handin.encode())], (), {})
    assert found is not None and [c.text for c in found.changes] == ["`y` and `z` exchanged"]


@pytest.mark.parametrize(("name", "handin", "said"), [
    ("m.v", VERILOG.replace("output y", "output reg y").format("always @(a) y = a < b;"),
     "`always @*` for a list with `a` in it"),
    ("m.vhd", VHDL.format("process (a) begin if unsigned(a) < unsigned(b) then y <= '1'; else y <= '0'; end if;"
                          " end process;"), "`process (all)` for a list with `a` in it"),
])  # fmt: skip
def test_what_a_process_wakes_for(name: str, handin: str, said: str) -> None:
    expectation = open_spec("s.toml", spec(WORDS, 'equations = "y = a < b"').encode(), {}).expectation
    assert expectation is not None
    found = find_repair(expectation, [HandinFile(name, handin.encode())], (), {})
    assert found is not None and [c.text for c in found.changes] == [said]


@pytest.mark.parametrize(("kind", "edges", "said"), [
    ("async", "posedge clk", "`or posedge rst` in what this process wakes for"),
    ("sync", "posedge clk or posedge rst", "no `or posedge rst` in what this process wakes for"),
])  # fmt: skip
def test_the_kind_of_a_reset(kind: str, edges: str, said: str) -> None:
    text = (
        f"module m(input clk, rst, output reg [1:0] q);\nalways @({edges})\n  if (rst) q <= 0;\n  else q <= q + 1;\n"
        "endmodule\n"
    )
    first, still = ("c", 1) if kind == "sync" else (".", 0)
    steps = f"clk rst | q\n{first} 1 | 0\nc 0 | 1\n. 1 | {still}\nc 1 | 0\nc 0 | 1\nc 0 | 2\n"
    text_of = clocked(f"steps = '''\n{steps}'''").replace('kind = "async"', f'kind = "{kind}"')
    expectation = open_spec("s.toml", text_of.encode(), {}).expectation
    assert expectation is not None
    found = find_repair(expectation, [HandinFile("m.v", text.encode())], (), {})
    assert found is not None and said in [c.text for c in found.changes], found
