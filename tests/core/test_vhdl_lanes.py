"""VHDL on digits: the functions of the packages and the statements of processes, for all inputs, on the lanes engines
and on the timeline, against Python."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from obento.core import values as v
from obento.core.check.check import check_handin, open_spec
from obento.core.handin import HandinFile
from obento.core.ir.design import Design
from obento.core.sim.lanes.bits import Unfit
from tests.core.designs import agree, build, in_lanes, known_cases, levelized, on_timeline

W = 3
M = 1 << W
ENTITY = """library ieee; use ieee.std_logic_1164.all; {uses}
entity m is port (a, b : in std_logic_vector(2 downto 0); y : out std_logic_vector({top} downto 0)); end;
architecture r of m is {declared} begin {body} end;
"""
NUMERIC = "use ieee.numeric_std.all;"


def s(value: int, width: int = W) -> int:
    """Read as a signed number."""
    return v.signed_value(value & (1 << width) - 1, width)


def toward_zero(a: int, b: int) -> int:
    return abs(a) // abs(b) * (1 if (a < 0) == (b < 0) else -1)


def designed(body: str, width: int, uses: str = NUMERIC, declared: str = "") -> str:
    return ENTITY.format(uses=uses, top=width - 1, body=body, declared=declared)


def runs_in_lanes(design: Design) -> bool:
    """Whether all cases run at once, few of them told by the timeline or none."""
    try:
        in_lanes(design, [[case] for case in known_cases(design)])
    except Unfit:
        return False
    return True


def is_levelled(design: Design) -> bool:
    """Whether one run tells all cases."""
    return levelized(design, known_cases(design)) is not None


def held(text: str, width: int, wanted: Callable[[int, int], int | None], lanes: bool = True) -> None:
    """All engines agree, and say what Python says; None where nothing is said."""
    design = build(text, name="m.vhd")
    got = agree(design)
    for n, outputs in enumerate(got):
        value = wanted(n >> W, n & M - 1)
        if value is not None:
            assert outputs == [format(value & (1 << width) - 1, f"0{width}b")], (n >> W, n & M - 1)
    assert runs_in_lanes(design) is lanes


U = "unsigned(a)", "unsigned(b)"
Row = tuple[str, int, Callable[[int, int], int | None]]
EXPRESSIONS: list[Row] = [
    # numeric_std, unsigned
    ("std_logic_vector(unsigned(a) + unsigned(b))", 3, lambda a, b: a + b),
    ("std_logic_vector(unsigned(a) - unsigned(b))", 3, lambda a, b: a - b),
    ("std_logic_vector(unsigned(a) * unsigned(b))", 6, lambda a, b: a * b),
    ("std_logic_vector(unsigned(a) + 5)", 3, lambda a, b: a + 5),
    ("std_logic_vector(3 + unsigned(b))", 3, lambda a, b: 3 + b),
    ("std_logic_vector(unsigned(a) - 1)", 3, lambda a, b: a - 1),
    ("std_logic_vector(unsigned(a) / unsigned(b))", 3, lambda a, b: a // b if b else None),
    ("std_logic_vector(unsigned(a) mod unsigned(b))", 3, lambda a, b: a % b if b else None),
    ("std_logic_vector(unsigned(a) rem unsigned(b))", 3, lambda a, b: a % b if b else None),
    ("std_logic_vector(resize(unsigned(a), 5) + unsigned(b))", 5, lambda a, b: a + b),
    ("std_logic_vector(resize(unsigned(a), 2))", 2, lambda a, b: a),
    ("std_logic_vector(('0' & unsigned(a)) + ('0' & unsigned(b)))", 4, lambda a, b: a + b),
    ("std_logic_vector(shift_left(unsigned(a), 1))", 3, lambda a, b: a << 1),
    ("std_logic_vector(shift_right(unsigned(a), 1))", 3, lambda a, b: a >> 1),
    ("std_logic_vector(shift_left(unsigned(a), to_integer(unsigned(b))))", 3, lambda a, b: a << b),
    ("std_logic_vector(shift_right(unsigned(a), to_integer(unsigned(b))))", 3, lambda a, b: a >> b),
    ("std_logic_vector(rotate_left(unsigned(a), 1))", 3, lambda a, b: a << 1 | a >> 2),
    ("std_logic_vector(rotate_right(unsigned(a), 1))", 3, lambda a, b: a >> 1 | a << 2),
    ("std_logic_vector(rotate_left(unsigned(a), 5))", 3, lambda a, b: a << 2 | a >> 1),
    ("std_logic_vector(unsigned(a) sll 2)", 3, lambda a, b: a << 2),
    ("std_logic_vector(unsigned(a) srl 2)", 3, lambda a, b: a >> 2),
    ("std_logic_vector(not unsigned(a))", 3, lambda a, b: ~a),
    ("std_logic_vector(unsigned(a) nand unsigned(b))", 3, lambda a, b: ~(a & b)),
    # numeric_std, signed
    ("std_logic_vector(signed(a) + signed(b))", 3, lambda a, b: a + b),
    ("std_logic_vector(-signed(a))", 3, lambda a, b: -a),
    ("std_logic_vector(abs(signed(a)))", 3, lambda a, b: abs(s(a))),
    ("std_logic_vector(signed(a) * signed(b))", 6, lambda a, b: s(a) * s(b)),
    ("std_logic_vector(signed(a) / signed(b))", 3, lambda a, b: toward_zero(s(a), s(b)) if b else None),
    ("std_logic_vector(signed(a) rem signed(b))", 3, lambda a, b: s(a) - s(b) * toward_zero(s(a), s(b)) if b else None),
    ("std_logic_vector(resize(signed(a), 5))", 5, lambda a, b: s(a)),
    ("std_logic_vector(resize(signed(a), 2))", 2, lambda a, b: (a >> 2 << 1) | a & 1),  # the sign stays (1076.3)
    ("std_logic_vector(shift_right(signed(a), 1))", 3, lambda a, b: s(a) >> 1),
    ("std_logic_vector(shift_left(signed(a), 1))", 3, lambda a, b: a << 1),
    ("std_logic_vector(signed(a) - 2)", 3, lambda a, b: a - 2),
    ("std_logic_vector(to_unsigned(to_integer(unsigned(a)) + to_integer(unsigned(b)), 4))", 4, lambda a, b: a + b),
    ("std_logic_vector(to_signed(to_integer(signed(a)) - to_integer(signed(b)), 4))", 4, lambda a, b: s(a) - s(b)),
    ("std_logic_vector(to_unsigned(to_integer(unsigned(a)) * 3, 5))", 5, lambda a, b: a * 3),
    ("std_logic_vector(to_unsigned(to_integer(unsigned(a)) mod 3, 2))", 2, lambda a, b: a % 3),
    # std_logic_1164
    ("a and b", 3, lambda a, b: a & b),
    ("a nor b", 3, lambda a, b: ~(a | b)),
    ("a xnor b", 3, lambda a, b: ~(a ^ b)),
    ("to_x01(a)", 3, lambda a, b: a),
    ("to_stdlogicvector(to_bitvector(a))", 3, lambda a, b: a),
    ("a(0) & b(2 downto 1)", 3, lambda a, b: (a & 1) << 2 | b >> 1),
    ("(2 => a(0), others => b(0))", 3, lambda a, b: (a & 1) << 2 | (b & 1) * 3),
    ("a(1 downto 0) & '1'", 3, lambda a, b: a << 1 | 1),
    ("a(to_integer(unsigned(b(0 downto 0)))) & a(2 downto 1)", 3, lambda a, b: (a >> (b & 1) & 1) << 2 | a >> 1),
]


@pytest.mark.parametrize(("expression", "width", "wanted"), EXPRESSIONS, ids=[e[0] for e in EXPRESSIONS])
def test_an_expression(expression: str, width: int, wanted: Callable[[int, int], int | None]) -> None:
    held(designed(f"y <= {expression};", width), width, wanted)


CONDITIONS: list[tuple[str, Callable[[int, int], bool]]] = [
    ("unsigned(a) < unsigned(b)", lambda a, b: a < b),
    ("unsigned(a) <= 3", lambda a, b: a <= 3),
    ("4 > unsigned(b)", lambda a, b: b < 4),
    ("unsigned(a) >= unsigned(b)", lambda a, b: a >= b),
    ("signed(a) < signed(b)", lambda a, b: s(a) < s(b)),
    ("signed(a) > -2", lambda a, b: s(a) > -2),
    ("signed(a) = -3", lambda a, b: s(a) == -3),
    ("unsigned(a) /= unsigned(b)", lambda a, b: a != b),
    ("a = b", lambda a, b: a == b),
    ('a = "101"', lambda a, b: a == 5),
    ("a < b", lambda a, b: a < b),  # left to right, alike for equal lengths
    ("a(0) = '1' and not (b(1) = '1')", lambda a, b: a & 1 == 1 and b >> 1 & 1 == 0),
    ("a(0) = '1' xor b(0) = '1'", lambda a, b: (a ^ b) & 1 == 1),
    ("to_integer(unsigned(a)) + 1 = to_integer(unsigned(b))", lambda a, b: a + 1 == b),
    ("to_integer(unsigned(a)) mod 2 = 0", lambda a, b: a % 2 == 0),
    ('std_match(a, "1-0")', lambda a, b: a & 0b101 == 0b100),
    ("is_x(a)", lambda a, b: False),
    ("a'length = 3", lambda a, b: True),
]


@pytest.mark.parametrize(("condition", "wanted"), CONDITIONS, ids=[c[0] for c in CONDITIONS])
def test_a_condition(condition: str, wanted: Callable[[int, int], bool]) -> None:
    held(designed(f'y <= "1" when {condition} else "0";', 1), 1, lambda a, b: int(wanted(a, b)))


OTHER_PACKAGES: list[tuple[str, str, int, Callable[[int, int], int]]] = [
    ("use ieee.std_logic_unsigned.all;", "a + b", 3, lambda a, b: a + b),
    ("use ieee.std_logic_unsigned.all;", "a - 1", 3, lambda a, b: a - 1),
    ("use ieee.std_logic_signed.all;", "a + b", 3, lambda a, b: a + b),
    ("use ieee.std_logic_arith.all;", "unsigned(a) + unsigned(b)", 3, lambda a, b: a + b),
    ("use ieee.std_logic_arith.all;", "ext(a, 4)", 4, lambda a, b: a),
    ("use ieee.std_logic_arith.all;", "sxt(a, 4)", 4, lambda a, b: s(a)),
    ("use ieee.std_logic_arith.all;", "conv_std_logic_vector(unsigned(a), 4)", 4, lambda a, b: a),
    ("use ieee.std_logic_arith.all;", "shl(unsigned(a), unsigned(b))", 3, lambda a, b: a << b),
    ("use ieee.numeric_std_unsigned.all;", "a + b", 3, lambda a, b: a + b),
]


@pytest.mark.parametrize(
    ("uses", "expression", "width", "wanted"), OTHER_PACKAGES, ids=[o[0] + o[1] for o in OTHER_PACKAGES]
)
def test_the_other_packages(uses: str, expression: str, width: int, wanted: Callable[[int, int], int]) -> None:
    text = (
        expression
        if "unsigned(a) +" not in expression and "shl" not in expression
        else f"std_logic_vector({expression})"
    )
    design = build(designed(f"y <= {text};", width, uses), name="m.vhd")
    for n, outputs in enumerate(agree(design)):
        assert outputs == [format(wanted(n >> W, n & M - 1) & (1 << width) - 1, f"0{width}b")], n


STATEMENTS: list[tuple[str, str, int, Callable[[int, int], int]]] = [
    (
        "if and elsif",
        'if unsigned(a) > unsigned(b) then y <= "01"; elsif a = b then y <= "10"; else y <= "11"; end if;',
        2,
        lambda a, b: 1 if a > b else 2 if a == b else 3,
    ),
    (
        "case with ranges of choices",
        'case a is when "000" => y <= "00"; when "001" | "111" => y <= "01";'
        " when others => y <= b(1 downto 0); end case;",
        2,
        lambda a, b: 0 if a == 0 else 1 if a in (1, 7) else b & 3,
    ),
    (
        "case of a number",
        'case to_integer(unsigned(a)) is when 0 to 2 => y <= "0"; when 3 | 5 => y <= "1";'
        " when others => y <= b(0 downto 0); end case;",
        1,
        lambda a, b: 0 if a <= 2 else 1 if a in (3, 5) else b & 1,
    ),
    (
        "a loop over the digits",
        "for i in a'range loop y(i) <= a(i) xor b(a'left - i); end loop;",
        3,
        lambda a, b: a ^ int(f"{b:03b}"[::-1], 2),
    ),
    (
        "counting ones in a variable",
        "n := 0; for i in 0 to 2 loop if a(i) = '1' then n := n + 1; end if; end loop;"
        " y <= std_logic_vector(to_unsigned(n, 2));",
        2,
        lambda a, b: a.bit_count(),
    ),
    (
        "exit from a loop",
        "n := 3; for i in 0 to 2 loop if a(i) = '1' then n := i; exit; end if; end loop;"
        " y <= std_logic_vector(to_unsigned(n, 2));",
        2,
        lambda a, b: 3 if a == 0 else (a & -a).bit_length() - 1,
    ),
    (
        "next in a loop",
        "n := 0; for i in 0 to 2 loop next when a(i) = '0'; n := n + i; end loop;"
        " y <= std_logic_vector(to_unsigned(n, 2));",
        2,
        lambda a, b: sum(i for i in range(3) if a >> i & 1),
    ),
    (
        "a while loop",
        "n := to_integer(unsigned(a)); while n >= 3 loop n := n - 3; end loop;"
        " y <= std_logic_vector(to_unsigned(n, 2));",
        2,
        lambda a, b: a % 3,
    ),
    (
        "a variable vector, slice by slice",
        "w := a; w(2 downto 1) := b(1 downto 0); w(0) := not w(0); y <= w;",
        3,
        lambda a, b: (b & 3) << 1 | (a & 1) ^ 1,
    ),
    (
        "a place that is computed",
        "w := a; w(to_integer(unsigned(b)) mod 3) := '1'; y <= w;",
        3,
        lambda a, b: a | 1 << b % 3,
    ),
    ("a later assignment wins", 'y <= a; if b = "111" then y <= "000"; end if;', 3, lambda a, b: 0 if b == 7 else a),
    (
        "case? with a don't-care",
        'case? a is when "1--" => y <= "00"; when "01-" => y <= "01"; when others => y <= "11"; end case?;',
        2,
        lambda a, b: 0 if a & 4 else 1 if a & 2 else 3,
    ),
    ("a procedure", "twice(a, w); y <= w;", 3, lambda a, b: a << 1),
    ("a function with a loop", "y <= reversed(a) xor reversed(b);", 3, lambda a, b: int(f"{a ^ b:03b}"[::-1], 2)),
    (
        "a table",
        "y <= TABLE(to_integer(unsigned(a)));",
        3,
        lambda a, b: [0, 1, 3, 2, 6, 7, 5, 4][a],
    ),
    (
        "an enumeration",
        'if k = two then y <= "10"; elsif k = one then y <= "01"; else y <= "00"; end if;',
        2,
        lambda a, b: a % 3,
    ),
    ("a record", "p.low := a(0); p.high := b; y <= p.high(1 downto 0) & p.low;", 3, lambda a, b: (b & 3) << 1 | a & 1),
]
DECLARED = """
  type kind is (none, one, two);
  type pair is record low : std_logic; high : std_logic_vector(2 downto 0); end record;
  type words is array (0 to 7) of std_logic_vector(2 downto 0);
  constant TABLE : words := ("000", "001", "011", "010", "110", "111", "101", "100");
  signal k : kind;
  function reversed(x : std_logic_vector(2 downto 0)) return std_logic_vector is
    variable r : std_logic_vector(2 downto 0);
  begin
    for i in 0 to 2 loop r(i) := x(2 - i); end loop;
    return r;
  end;
  procedure twice(x : in std_logic_vector(2 downto 0); z : out std_logic_vector(2 downto 0)) is
  begin
    z := x(1 downto 0) & '0';
  end;
"""


@pytest.mark.parametrize(("name", "body", "width", "wanted"), STATEMENTS, ids=[x[0] for x in STATEMENTS])
def test_a_process(name: str, body: str, width: int, wanted: Callable[[int, int], int]) -> None:
    process = (
        "k <= kind'val(to_integer(unsigned(a)) mod 3);\nprocess (all) variable n : integer range 0 to 15; variable w :"
        f" std_logic_vector(2 downto 0); variable p : pair; begin {body} end process;"
    )
    design = build(designed(process, width, NUMERIC, DECLARED), name="m.vhd")
    assert is_levelled(design)
    for n, outputs in enumerate(agree(design)):
        assert outputs == [format(wanted(n >> W, n & M - 1) & (1 << width) - 1, f"0{width}b")], n


def rolled(a: int, n: int) -> int:
    n %= 3
    return (a << n | a >> 3 - n) & 7


VARYING: list[Row] = [
    ("std_logic_vector(rotate_left(unsigned(a), to_integer(unsigned(b))))", 3, rolled),
    ("std_logic_vector(rotate_right(unsigned(a), to_integer(unsigned(b))))", 3, lambda a, b: rolled(a, -b)),
    ("std_logic_vector(unsigned(a) rol to_integer(signed(b)))", 3, lambda a, b: rolled(a, s(b))),
    ("std_logic_vector(unsigned(a) ror to_integer(signed(b)))", 3, lambda a, b: rolled(a, -s(b))),
    (
        "std_logic_vector(unsigned(a) sll to_integer(signed(b)))",
        3,
        lambda a, b: a << s(b) if s(b) >= 0 else a >> -s(b),
    ),
    (
        "std_logic_vector(unsigned(a) srl to_integer(signed(b)))",
        3,
        lambda a, b: a >> s(b) if s(b) >= 0 else a << -s(b),
    ),
    ("to_stdlogicvector(to_bitvector(a) rol 1)", 3, lambda a, b: rolled(a, 1)),
    ("to_stdlogicvector(to_bitvector(a) ror 2)", 3, lambda a, b: rolled(a, -2)),
    ("to_stdlogicvector(to_bitvector(a) sll to_integer(unsigned(b)))", 3, lambda a, b: a << b),
    (
        "to_stdlogicvector(to_bitvector(a) srl to_integer(signed(b)))",
        3,
        lambda a, b: a >> s(b) if s(b) >= 0 else a << -s(b),
    ),
    ("std_logic_vector(signed(a) mod signed(b))", 3, lambda a, b: s(a) % s(b) if b else None),
    (
        "std_logic_vector(to_unsigned(to_integer(unsigned(a)) / (to_integer(unsigned(b)) + 1), 3))",
        3,
        lambda a, b: a // (b + 1),
    ),
    (
        "std_logic_vector(to_signed(to_integer(signed(a)) / (to_integer(unsigned(b)) + 1), 4))",
        4,
        lambda a, b: toward_zero(s(a), b + 1),
    ),
    (
        "std_logic_vector(to_signed(to_integer(signed(a)) rem (to_integer(unsigned(b)) + 1), 4))",
        4,
        lambda a, b: s(a) - (b + 1) * toward_zero(s(a), b + 1),
    ),
    (
        "std_logic_vector(to_signed(to_integer(signed(a)) mod (2 * to_integer(signed(b)) + 1), 4))",
        4,
        lambda a, b: s(a) % (2 * s(b) + 1),
    ),
    (
        "std_logic_vector(to_signed(to_integer(signed(a)) mod (0 - 1 - to_integer(unsigned(b))), 5))",
        5,
        lambda a, b: s(a) % (-1 - b),
    ),
    ("std_logic_vector(to_unsigned(abs(to_integer(signed(a))), 3))", 3, lambda a, b: abs(s(a))),
    (
        "std_logic_vector(to_unsigned(abs(to_integer(signed(a)) - to_integer(signed(b))), 4))",
        4,
        lambda a, b: abs(s(a) - s(b)),
    ),
    ("std_logic_vector(to_unsigned(2 ** to_integer(unsigned(b)), 8))", 8, lambda a, b: 1 << b),
]


@pytest.mark.parametrize(("expression", "width", "wanted"), VARYING, ids=[e[0] for e in VARYING])
def test_by_what_varies(expression: str, width: int, wanted: Callable[[int, int], int | None]) -> None:
    held(designed(f"y <= {expression};", width), width, wanted)


MORE_CONDITIONS: list[tuple[str, Callable[[int, int], bool]]] = [
    ("std_match(a, b)", lambda a, b: a == b),
    ('std_match("0-1", a)', lambda a, b: a & 0b101 == 0b001),
    ("std_match(a(0), '-')", lambda a, b: True),
    ("a < b(2 downto 1)", lambda a, b: (a >> 1) < (b >> 1)),  # the beginning of the other is the smaller
    ("a(2 downto 1) <= b", lambda a, b: (a >> 1) <= (b >> 1)),
    ("a(2 downto 1) < b", lambda a, b: (a >> 1) <= (b >> 1)),
    ("a > b(2 downto 1)", lambda a, b: (a >> 1) >= (b >> 1)),
    ("a(2 downto 1) >= b", lambda a, b: (a >> 1) > (b >> 1)),
]


@pytest.mark.parametrize(("condition", "wanted"), MORE_CONDITIONS, ids=[c[0] for c in MORE_CONDITIONS])
def test_more_conditions(condition: str, wanted: Callable[[int, int], bool]) -> None:
    held(designed(f'y <= "1" when {condition} else "0";', 1), 1, lambda a, b: int(wanted(a, b)))


LOOPS: list[tuple[str, str, int, Callable[[int, int], int]]] = [
    (
        "for up to what varies",
        "n := 0; for i in 1 to to_integer(unsigned(a)) loop n := n + i; end loop;"
        " y <= std_logic_vector(to_unsigned(n, 5));",
        5,
        lambda a, b: a * (a + 1) // 2,
    ),
    (
        "for between two that vary, downwards, with exit",
        "n := 0; for i in to_integer(unsigned(a)) downto to_integer(unsigned(b)) loop exit when i = 2; n := n + 1;"
        " end loop; y <= std_logic_vector(to_unsigned(n, 5));",
        5,
        lambda a, b: sum(1 for i in range(a, b - 1, -1) if not any(k == 2 for k in range(a, i - 1, -1))),
    ),
    (
        "bounds are taken at the beginning",
        "n := 2; for i in 1 to n loop n := n + 1; end loop; y <= std_logic_vector(to_unsigned(n, 5));",
        5,
        lambda a, b: 4,
    ),
    (
        "while",
        "n := to_integer(unsigned(a)) + to_integer(unsigned(b)); while n >= 3 loop n := n - 3; end loop;"
        " y <= std_logic_vector(to_unsigned(n, 5));",
        5,
        lambda a, b: (a + b) % 3,
    ),
    (
        "for ever, until it is left",
        "n := 0; loop exit when n * n >= to_integer(unsigned(a)); next when n = 1 and b(0) = '1' and grown(n);"
        " n := n + 1; end loop; y <= std_logic_vector(to_unsigned(n, 5));",
        5,
        lambda a, b: next(n for n in range(4) if n * n >= a),
    ),
    (
        "case? of what varies",
        'case? a & b(0) is when "1--0" => y <= "00001"; when "-1-1" => y <= "00010"; when others => y <= "00100";'
        " end case?;",
        5,
        lambda a, b: 1 if a & 4 and not b & 1 else 2 if a & 2 and b & 1 else 4,
    ),
]


@pytest.mark.parametrize(("name", "body", "width", "wanted"), LOOPS, ids=[x[0] for x in LOOPS])
def test_loops_that_depend_on_inputs(name: str, body: str, width: int, wanted: Callable[[int, int], int]) -> None:
    process = f"process (all) variable n : integer range 0 to 40; begin {body} end process;"
    declared = "function grown(n : integer) return boolean is begin return false; end;"
    held(designed(process, width, NUMERIC, declared), width, wanted)


SPEC = """obento = "spec/1"
unit = "m"
[ports]
in = "a[3] b[3]"
out = "y[3]"
[expect]
equations = "y = a"
"""


def test_a_loop_longer_than_is_written_out_is_run_step_by_step() -> None:
    body = "n := 40; while n > to_integer(unsigned(a)) loop n := n - 1; end loop;"
    text = designed(
        f"process (all) variable n : integer range 0 to 40; begin {body} y <= std_logic_vector(to_unsigned(n, 3));"
        " end process;",
        3,
    )
    loaded = open_spec("s.toml", SPEC.encode(), {})
    assert loaded.expectation is not None
    checked = check_handin(loaded.expectation, [HandinFile("m.vhd", text.encode())])
    assert checked.verdict is not None and checked.verdict.cells() == "p" * 64


CLOCKED = """library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;
entity m is port (clk, d : in std_logic; y : out std_logic_vector(1 downto 0)); end;
architecture r of m is signal q : unsigned(1 downto 0) := "00"; begin
  {process}
  y <= std_logic_vector(q);
end;
"""
WAITS = [
    "process begin wait until rising_edge(clk); if d = '1' then q <= q + 1; end if; end process;",
    "process begin wait until clk'event and clk = '1'; if d = '1' then q <= q + 1; end if; end process;",
    "process begin wait until clk = '1'; if d = '1' then q <= q + 1; end if; end process;",
    "process begin if rising_edge(clk) and d = '1' then q <= q + 1; end if; wait on clk; end process;",
]


@pytest.mark.parametrize("process", WAITS)
def test_a_process_that_waits_once_is_a_process_with_a_list(process: str) -> None:
    design = build(CLOCKED.format(process=process), name="m.vhd")
    sequences = []
    for pattern in range(64):
        steps = []
        for i in range(6):
            steps += [{"clk": v.word(c, 1), "d": v.word(pattern >> i & 1, 1)} for c in (0, 1)]
        sequences.append(steps)
    truth = [on_timeline(design, steps) for steps in sequences]
    assert truth == [[format(pattern.bit_count() % 4, "02b")] for pattern in range(64)]
    assert in_lanes(design, sequences) == truth


ERRORS = [
    # what may leave its range is run in order, since a value on the way may do so as well
    ("a range left in some cases", "n := to_integer(unsigned(a)); n := n + to_integer(unsigned(b)); y <= a;", False),
    ("a range that cannot be left", "n := to_integer(unsigned(a)); n := n + 3; y <= a;", True),
    ("a table that is too short", "y <= SHORT(to_integer(unsigned(a)));", False),
    ("a division by what may be 0", "n := 7 / to_integer(unsigned(b)); y <= a;", False),
]


@pytest.mark.parametrize(("name", "body", "levelled"), ERRORS, ids=[e[0] for e in ERRORS])
def test_what_may_end_in_an_error_is_not_levelled(name: str, body: str, levelled: bool) -> None:
    declared = (
        'type words is array (0 to 5) of std_logic_vector(2 downto 0); constant SHORT : words := (others => "000");'
    )
    process = f"process (all) variable n : integer range 0 to 10; begin {body} end process;"
    assert is_levelled(build(designed(process, 3, NUMERIC, declared), name="m.vhd")) is levelled


MEMORY = [
    ("a comparison of unknowns that is kept", "if a = b then y <= a; end if;", False),
    ("one that is made anew", "if a = b then y <= a; else y <= b; end if;", True),
    ("a variable that keeps", "if a = b then w := a; end if; y <= w;", False),
    ("a variable that is written first", "w := b; if a = b then w := a; end if; y <= w;", True),
]


@pytest.mark.parametrize(("name", "body", "levelled"), MEMORY, ids=[m[0] for m in MEMORY])
def test_a_doubt_stays_where_something_is_kept(name: str, body: str, levelled: bool) -> None:
    process = f"process (all) variable w : std_logic_vector(2 downto 0); begin {body} end process;"
    design = build(designed(process, 3), name="m.vhd")
    assert is_levelled(design) is levelled
    assert any("ever" in s.name for s in design.escapes) is not levelled


GRIDS = [
    # name, body, what is right of a and b; the first index of `G` runs down, the second up
    ("a table by two inputs", "if n < 3 then y <= G(k, n + 2); else y <= \"111\"; end if;",
     lambda a, b: ((1, 2, 3), (4, 5, 6))[1 - (b & 1)][a & 3] if a & 3 < 3 else 7),
    ("a known row", "if n < 3 then y <= G(0, n + 2); else y <= \"000\"; end if;",
     lambda a, b: (4, 5, 6)[a & 3] if a & 3 < 3 else 0),
    ("a known column", "y <= G(k, 4);", lambda a, b: 3 if b & 1 else 6),
    ("written at an index", "v(0, 2) := b; v(0, 3) := b; v(0, 4) := b; v(1, 2) := b; v(1, 3) := b; v(1, 4) := b;"
     " v(k, 3) := a; y <= v(1, 3);", lambda a, b: a if b & 1 else b),
    ("written in loops", "for i in v'range(1) loop for j in v'range(2) loop"
     " v(i, j) := std_logic_vector(unsigned(a) + i + j); end loop; end loop; y <= v(1, 4);", lambda a, b: a + 5),
    ("single digits of a row", "v(0, 2) := a; v(0, 2)(1) := b(0); y <= v(0, 2);", lambda a, b: a & 5 | (b & 1) << 1),
    ("copied as a whole", "v := G; u := v; y <= u(k, 2);", lambda a, b: 1 if b & 1 else 4),
    ("sizes of dimensions",
     "y <= std_logic_vector(to_unsigned(G'length(1) + 2 * G'length(2) - G'left(2) - G'right(1), 3));",
     lambda a, b: 2 + 6 - 2),
    ("a field of numbers", "y <= std_logic_vector(to_unsigned(NUM(k, n mod 2), 3));",
     lambda a, b: ((1, 2), (3, 4))[b & 1][a & 1]),
    ("three dimensions", "y <= std_logic_vector(to_unsigned(C(k, n mod 2, 1), 3));",
     lambda a, b: (((0, 1), (2, 3)), ((4, 5), (6, 7)))[b & 1][a & 1][1]),
]  # fmt: skip
GRID_TYPES = """
  type grid is array (1 downto 0, 2 to 4) of std_logic_vector(2 downto 0);
  type numbers is array (0 to 1, 0 to 1) of integer range 0 to 7;
  type cube is array (0 to 1, 0 to 1, 0 to 1) of integer range 0 to 7;
  constant G : grid := (("001", "010", "011"), ("100", "101", "110"));
  constant NUM : numbers := ((1, 2), (3, 4));
  constant C : cube := (((0, 1), (2, 3)), ((4, 5), (6, 7)));
"""


@pytest.mark.parametrize(("name", "body", "wanted"), GRIDS, ids=[g[0] for g in GRIDS])
def test_arrays_of_several_dimensions(name: str, body: str, wanted: Callable[[int, int], int]) -> None:
    process = (
        "process (all) variable k : integer range 0 to 1; variable n : integer range 0 to 3; variable u, v : grid;"
        " begin k := to_integer(unsigned(b(0 downto 0))); n := to_integer(unsigned(a(1 downto 0)));"
        f" {body} end process;"
    )
    design = build(designed(process, 3, NUMERIC, GRID_TYPES), name="m.vhd")
    assert runs_in_lanes(design)
    for n, outputs in enumerate(agree(design)):
        assert outputs == [format(wanted(n >> W, n & M - 1) & 7, "03b")], (n >> W, n & M - 1)


def test_an_index_outside_of_a_dimension_is_told_by_the_timeline() -> None:
    process = "process (all) begin y <= G(to_integer(unsigned(a(0 downto 0))), to_integer(unsigned(b))); end process;"
    design = build(designed(process, 3, NUMERIC, GRID_TYPES), name="m.vhd")
    assert not is_levelled(design)
    spec = 'obento = "spec/1"\nunit = "m"\n[ports]\nin = "a[3] b[3]"\nout = "y[3]"\n[expect]\nequations = "y = {}"\n'
    formula = "b < 2 | b > 4 ? 0 : a[0] ? b - 1 : b + 2"
    expectation = open_spec("s.toml", spec.format(formula).encode(), {}).expectation
    assert expectation is not None
    text = designed(process, 3, NUMERIC, GRID_TYPES)
    verdict = check_handin(expectation, [HandinFile("m.vhd", text.encode())]).verdict
    assert verdict is not None and verdict.stopped == sum(
        1 << 8 * a + b for a in range(8) for b in range(8) if not 2 <= b <= 4
    )
    assert verdict.passed == expectation.cases.full & ~verdict.stopped


Z = "(others => 'Z')"
BUSES = [
    # name, concurrent statements, whether all cases run at once, what is right (None: x somewhere)
    ("one of two drives", f"t <= a when b(0) = '1' else {Z}; t <= not a when b(0) = '0' else {Z}; y <= t;", True,
     lambda a, b: a if b & 1 else a ^ 7),
    ("one of four drives", "".join(f't <= {e} when b(1 downto 0) = "{n:02b}" else {Z};' for n, e in
     enumerate(["a", "not a", "b", 'a xor "101"'])) + "y <= t;", True,
     lambda a, b: [a, a ^ 7, b, a ^ 5][b & 3]),
    ("drivers that agree", "t <= a; t <= a; y <= t;", True, lambda a, b: a),
    ("drivers that differ", "t <= a; t <= b; y <= t when a = b else \"000\";", True, lambda a, b: a if a == b else 0),
    ("digits of their own", "t(0) <= a(0); t(2 downto 1) <= b(2 downto 1); t(1) <= 'Z'; y <= t;", True,
     lambda a, b: a & 1 | b & 6),
    ("in processes", f"process (all) begin t <= {Z}; if b(0) = '1' then t <= a; end if; end process;"
     f" process (all) begin t <= {Z}; if b(0) = '0' then t <= b; end if; end process; y <= t;", True,
     lambda a, b: a if b & 1 else b),
    ("a bus that is an output", f"y <= a when b(0) = '1' else {Z}; y <= b when b(0) = '0' else {Z};", True,
     lambda a, b: a if b & 1 else b),
    ("a bus before a latch", f"t <= a when b(0) = '1' else {Z}; t <= not a when b(0) = '0' else {Z};"
     " process (t, b) begin if b(1) = '1' then y <= t; end if; end process;", False, lambda a, b: None),
]  # fmt: skip


@pytest.mark.parametrize(("name", "body", "at_once", "wanted"), BUSES, ids=[x[0] for x in BUSES])
def test_buses(name: str, body: str, at_once: bool, wanted: Callable[[int, int], int | None]) -> None:
    design = build(designed(body, 3, NUMERIC, "signal t : std_logic_vector(2 downto 0);"), name="m.vhd")
    assert is_levelled(design) is at_once
    for n, outputs in enumerate(agree(design)):
        value = wanted(n >> W, n & M - 1)
        if value is not None:
            assert outputs == [format(value, "03b")], (n >> W, n & M - 1)


@pytest.mark.parametrize("driver", ["'Z'", "a(0)", "'X'", "'U'", "'-'", "not a(0)", "a(1) and b(1)"])
@pytest.mark.parametrize("other", ["'Z'", "b(0)", "'X'", "a(0)", "a(0) xor b(0)"])
def test_what_two_drivers_make_is_what_the_timeline_makes(driver: str, other: str) -> None:
    body = f"t(0) <= {driver}; t(0) <= {other}; t(1) <= t(0); t(2) <= '1' when t(0) = 'Z' else '0'; y <= t;"
    agree(build(designed(body, 3, NUMERIC, "signal t : std_logic_vector(2 downto 0);"), name="m.vhd"))


def test_a_bus_of_a_resolution_of_its_own_goes_step_by_step() -> None:
    declared = """
      type many is array (natural range <>) of std_ulogic;
      function resolved(x : many) return std_ulogic is begin
        for i in x'range loop if x(i) = '1' then return '1'; end if; end loop;
        return '0';
      end;
      signal t : resolved std_ulogic;
    """
    body = 't <= a(0); t <= b(0); y <= "00" & t;'
    design = build(designed(body, 3, NUMERIC, declared), name="m.vhd")
    assert not runs_in_lanes(design)
    for n, outputs in enumerate(agree(design)):
        assert outputs == [format((n >> W | n) & 1, "03b")]


@pytest.mark.parametrize(
    "body",
    [
        "g(1, 3) <= a; g(0, 2) <= b; y <= g(1, 3) xor g(0, 2);",
        "g(k, 3) <= a; g(0, 2) <= b; y <= g(1, 3);",  # one driver for all of it, wherever k points
        "g(0, 2)(1 downto 0) <= a(2 downto 1); g(0, 2)(0) <= b(0); g(0, 2)(2) <= a(0); y <= g(0, 2);",
        "g(1, 2) <= a; g(1, 3)(2 downto 1) <= a(1 downto 0); g(1, 3) <= b; y <= g(1, 3);",
        "m(0, 0) <= a(0); m(0, 1) <= b(0); m(1, 0) <= a(1); m(1, 0) <= b(1); y <= m(0, 0) & m(0, 1) & m(1, 0);",
    ],
)
def test_arrays_of_several_dimensions_with_several_drivers(body: str) -> None:
    declared = """
      type grid is array (1 downto 0, 2 to 4) of std_logic_vector(2 downto 0); signal g : grid;
      type bits is array (0 to 1, 0 to 1) of std_logic; signal m : bits;
      signal k : integer range 0 to 1;
    """
    agree(build(designed(f"k <= to_integer(unsigned(a(0 downto 0))); {body}", 3, NUMERIC, declared), name="m.vhd"))


def counted(body: str, declared: str = "", more: str = "") -> tuple[list[int], str]:
    """The cases in which a unit ends in an error, of all 64, and what is said of it."""
    spec = 'obento = "spec/1"\nunit = "m"\n[ports]\nin = "a[3] b[3]"\nout = "y[3]"\n[expect]\nequations = "y = a"\n'
    expectation = open_spec("s.toml", spec.encode(), {}).expectation
    assert expectation is not None
    process = f"process (all) variable n : integer range 0 to 7; {declared} begin {body} end process; {more}"
    found = check_handin(expectation, [HandinFile("m.vhd", designed(process, 3).encode())])
    assert found.verdict is not None
    return [case for case in range(64) if found.verdict.stopped >> case & 1], " ".join(m.text for m in found.messages)


NA, NB = "to_integer(unsigned(a))", "to_integer(unsigned(b))"


def test_an_error_in_many_cases_is_proven_and_told_by_a_few() -> None:
    cases, text = counted(f"n := {NA} + {NB}; y <= a;")
    assert cases == [c for c in range(64) if (c >> 3) + (c & 7) > 7]
    assert "outside of the range 0 to 7" in text and f"{len(cases)} cases" in text


@pytest.mark.parametrize(
    ("body", "wrong"),
    [
        # what is never evaluated ends nothing: the right operand of a logical one on Booleans (7.2)
        (f"if {NA} + {NB} < 8 and T({NA} + {NB}) = '1' then y <= a; else y <= a; end if;", lambda a, b: False),
        (f"if {NA} + {NB} > 7 or T({NA} + {NB}) = '1' then y <= a; else y <= a; end if;", lambda a, b: False),
        (f"if {NA} + {NB} < 9 and T({NA} + {NB}) = '1' then y <= a; else y <= a; end if;", lambda a, b: a + b == 8),
        (f"if {NA} > {NB} then n := {NA} + {NB}; end if; y <= a;", lambda a, b: a > b and a + b > 7),
        (f"for i in 0 to 7 loop exit when i > {NA}; n := i + {NB}; end loop; y <= a;", lambda a, b: a + b > 7),
        (f"n := {NA} + {NB}; n := 7 / {NB}; y <= a;", lambda a, b: a + b > 7 or b == 0),
    ],
)
def test_what_is_passed_over_is_no_error(body: str, wrong: Callable[[int, int], bool]) -> None:
    cases, _ = counted(body, 'variable T : std_logic_vector(0 to 7) := x"A5";')
    assert cases == [c for c in range(64) if wrong(c >> 3, c & 7)]


def test_errors_in_several_places_are_each_told_with_their_cases() -> None:
    cases, text = counted(f"if b(0) = '1' then n := {NA} + 5; else n := {NA} - 4; end if; y <= a;")
    assert cases == [c for c in range(64) if ((c >> 3) > 2 if c & 1 else (c >> 3) < 4)]
    assert "value 8" in text and "value -4" in text
