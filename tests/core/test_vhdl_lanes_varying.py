"""VHDL on digits where a size, a place or a depth is settled by the inputs: slices, aggregates, indices out of range,
recursion, first values. All engines agree, and say what Python says."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from obento.core.check.check import check_handin, open_spec
from obento.core.handin import HandinFile
from obento.core.ir.design import Design
from obento.core.ir.part import RunError
from obento.core.sim.event_driven import EventDriven
from tests.core.designs import LIMITS, Case, agree, build, known_cases, on_timeline
from tests.core.test_vhdl_lanes import M, W, designed, held, is_levelled, runs_in_lanes, s

K = "k := to_integer(unsigned(b));"
PROCESS = "process (all) variable k, n : integer; variable w, v : std_logic_vector(2 downto 0); begin {} end process;"


def mask(n: int) -> int:
    return (1 << n) - 1


BODIES: list[tuple[str, str, Callable[[int, int], int | None]]] = [
    (
        "a slice that ends at a number",
        'k := to_integer(unsigned(b)) mod 3; w := "000"; w(k downto 0) := a(k downto 0); y <= w;',
        lambda a, b: a & mask(b % 3 + 1),
    ),
    (
        "slices of two numbers, none of them too long",
        'k := to_integer(unsigned(b)) mod 3; n := to_integer(unsigned(a)) mod 2; w := "000";'
        " w(k downto n) := (others => '1'); y <= w;",
        lambda a, b: mask(b % 3 + 1) & ~mask(a % 2),
    ),
    (
        "a slice without elements",
        "k := to_integer(unsigned(b)) mod 3; w := \"111\"; w(k - 1 downto 0) := (others => '0'); y <= w;",
        lambda a, b: 7 & ~mask(b % 3),
    ),
    (
        "a slice that leaves its array ends the run",
        f"{K} w := \"000\"; w(k downto 0) := (others => '1'); y <= w;",
        lambda a, b: mask(b + 1) if b < 3 else None,
    ),
    (
        "slices of different lengths end the run",
        f"{K} k := k mod 3; w := a; w(k downto 0) := a(0 downto 0); y <= w;",
        lambda a, b: a if b % 3 == 0 else None,
    ),
    (
        "a slice in a condition",
        'k := to_integer(unsigned(b)) mod 3; if unsigned(a(k downto 0)) = 1 then y <= "001"; else y <= "010"; end if;',
        lambda a, b: 1 if a & mask(b % 3 + 1) == 1 else 2,
    ),
    (
        "a slice of a call",
        "w := a; w(to_integer(unsigned(b)) mod 3 downto 0) := (others => '0'); y <= w;",
        lambda a, b: a & ~mask(b % 3 + 1),
    ),
    (
        "a loop as far as a number, which may be too far",
        f'{K} w := "000"; for i in 0 to k loop w(i) := a(i); end loop; y <= w;',
        lambda a, b: a & mask(b + 1) if b < 3 else None,
    ),
    (
        "an aggregate by a number",
        "k := to_integer(unsigned(b)) mod 3; y <= (k => '1', others => a(0));",
        lambda a, b: (7 * (a & 1)) | 1 << b % 3,
    ),
    (
        "an aggregate by a number that may be too great",
        f"{K} y <= (k => '1', others => '0');",
        lambda a, b: 1 << b if b < 3 else None,
    ),
    (
        "arithmetic shifts by what varies",
        "w := to_stdlogicvector(to_bitvector(a) sra to_integer(unsigned(b)));"
        " v := to_stdlogicvector(to_bitvector(a) sla to_integer(unsigned(b))); y <= w xor v;",
        lambda a, b: (s(a) >> b ^ (a << b | (a & 1) * mask(b))) & 7,
    ),
    (
        "matching equality",
        "w := a; w(0) := a ?= b; w(1) := a ?/= b; y <= w;",
        lambda a, b: a & 4 | (1 if a == b else 2),
    ),
    ("matching order", "w := a; w(0) := unsigned(a) ?< unsigned(b); y <= w;", lambda a, b: a & 6 | (a < b)),
    ("matching equality with `-`", 'w := a; w(0) := b ?= "1--"; y <= w;', lambda a, b: a & 6 | b >> 2),
    (
        "a return behind which nothing is",
        "y <= folded(a) & folded(b) & '0';",
        lambda a, b: parity(a) << 2 | parity(b) << 1,
    ),
    (
        "recursion whose branches all give back",
        "y <= std_logic_vector(to_unsigned(ones(a) + ones(b), 3));",
        lambda a, b: a.bit_count() + b.bit_count(),
    ),
    (
        "a result as long as the first that is given back",
        "y <= std_logic_vector(cut(to_integer(signed(a)) + to_integer(signed(b)), 3));",
        lambda a, b: max(-4, min(3, s(a) + s(b))),
    ),
    (
        "a local array of two dimensions",
        "k := to_integer(unsigned(a)); n := to_integer(unsigned(b));"
        " y <= std_logic_vector(to_unsigned(turned(((1, k), (n, 2)))(0, 1), 3));",
        lambda a, b: b,
    ),
    ("recursion that joins what it gives back", "y <= mirrored(a);", lambda a, b: mirror(a)),
    ("recursion into a local variable", "y <= turned_over(a) xor turned_over(b);", lambda a, b: mirror(a) ^ mirror(b)),
    ("recursion through a slice by what varies", "y <= filled(a, 2);", lambda a, b: fill(a, 2)),
    (
        "a case in which all arms give back",
        "y <= chosen(a, b);",
        lambda a, b: (a, b, ~a, ~b)[a & 3],
    ),
    (
        "a shared variable of one process",
        "total := to_integer(unsigned(a)) + 1; y <= a; kept := total; y <= b;",
        lambda a, b: b,
    ),
    (
        "a shared variable that is written first",
        "total := to_integer(unsigned(a)) + 1; y <= std_logic_vector(to_unsigned(total mod 8, 3));",
        lambda a, b: a + 1,
    ),
]
DECLARED = """
  function folded(p : std_logic_vector) return std_logic is
    constant n : natural := p'length;
    alias q : std_logic_vector(n - 1 downto 0) is p;
  begin
    if n = 1 then return q(0); end if;
    return folded(q(n - 1 downto n / 2)) xor folded(q(n / 2 - 1 downto 0));
  end;
  function ones(p : std_logic_vector) return natural is
    alias q : std_logic_vector(p'length - 1 downto 0) is p;
  begin
    if p'length = 1 then
      if q(0) = '1' then return 1; else return 0; end if;
    end if;
    return ones(q(p'length - 1 downto p'length / 2)) + ones(q(p'length / 2 - 1 downto 0));
  end;
  function mirrored(x : std_logic_vector) return std_logic_vector is
    constant n : natural := x'length;
    alias q : std_logic_vector(n - 1 downto 0) is x;
  begin
    if n = 1 then return q; end if;
    return mirrored(q(n / 2 - 1 downto 0)) & mirrored(q(n - 1 downto n / 2));
  end;
  function filled(x : std_logic_vector(2 downto 0); n : natural) return std_logic_vector is
    variable r : std_logic_vector(2 downto 0) := "000";
  begin
    if n = 0 then return x; end if;
    r(to_integer(unsigned(x(1 downto 1))) + 1 downto 0) :=
      filled(x(0) & x(2 downto 1), n - 1)(to_integer(unsigned(x(1 downto 1))) + 1 downto 0);
    return r;
  end;
  function turned_over(x : std_logic_vector) return std_logic_vector is
    variable r : std_logic_vector(x'length - 1 downto 0);
    alias q : std_logic_vector(x'length - 1 downto 0) is x;
  begin
    if x'length = 1 then r := q; return r; end if;
    r(r'high downto 1) := turned_over(q(q'high - 1 downto 0));
    r(0) := q(q'high);
    return r;
  end;
  function cut(v : integer; n : positive) return signed is
  begin
    if v > 2 ** (n - 1) - 1 then return to_signed(2 ** (n - 1) - 1, n);
    elsif v < -2 ** (n - 1) then return to_signed(-2 ** (n - 1), n);
    else return to_signed(v, n); end if;
  end;
  type square is array (0 to 1, 0 to 1) of integer range 0 to 7;
  function turned(p : square) return square is
    variable r : square;
  begin
    for i in 0 to 1 loop for j in 0 to 1 loop r(i, j) := p(j, i); end loop; end loop;
    return r;
  end;
  function chosen(p, q : std_logic_vector(2 downto 0)) return std_logic_vector is
  begin
    case p(1 downto 0) is
      when "00" => return p;
      when "01" => return q;
      when "10" => return not p;
      when others => return not q;
    end case;
  end;
  shared variable total, kept : integer range 0 to 15 := 3;
"""


def fill(x: int, n: int) -> int:
    return x if not n else fill((x & 1) << 2 | x >> 1, n - 1) & mask((x >> 1 & 1) + 2)


def mirror(a: int) -> int:
    return int(f"{a:03b}"[::-1], 2)


def parity(a: int) -> int:
    return a.bit_count() & 1


NUMBERS: list[tuple[str, Callable[[int, int], int]]] = [
    # numbers that are known beside numbers that change: each takes as many digits as its type
    ("three := (k, 1, 2); y <= shown(three(0));", lambda a, b: a),
    ("three := (1, k, 2); y <= shown(three(0) + three(2));", lambda a, b: 3),
    ("three := (1 => k, others => 1); y <= shown(three(0) + three(2));", lambda a, b: 2),
    ("three := three_of(1)(0 to 1) & k; y <= shown(three(1) + three(2));", lambda a, b: 1 + a),
    ("three := k & three_of(1)(1 to 2); y <= shown(three(0) + three(2));", lambda a, b: a + 1),
    ("pair := (word => a, count => 2); y <= pair.word;", lambda a, b: a),
    ("pair := (word => a, count => 2); y <= shown(pair.count);", lambda a, b: 2),
    ("pairs := ((a, 1), (b, 0)); y <= pairs(0).word xor shown(pairs(1).count + pairs(0).count);", lambda a, b: a ^ 1),
    ("pairs := (others => (b, 3)); y <= shown(pairs(1).count);", lambda a, b: 3),
    ("grid := ((1, k), (2, 0)); y <= shown(grid(1, 0) + grid(0, 1));", lambda a, b: 2 + a),
]
NUMBER_TYPES = """
  type triple is array (natural range <>) of integer range 0 to 7;
  type one is record word : std_logic_vector(2 downto 0); count : integer range 0 to 7; end record;
  type two is array (0 to 1) of one;
  type square is array (0 to 1, 0 to 1) of integer range 0 to 7;
  function shown(n : natural) return std_logic_vector is
  begin
    return std_logic_vector(to_unsigned(n mod 8, 3));
  end;
  function three_of(n : natural) return triple is
  begin
    return (n, n, n);
  end;
"""


@pytest.mark.parametrize(("body", "wanted"), NUMBERS, ids=[n[0] for n in NUMBERS])
def test_numbers_side_by_side(body: str, wanted: Callable[[int, int], int]) -> None:
    process = (
        "process (all) variable three : triple(0 to 2); variable pair : one; variable pairs : two; variable grid :"
        f" square; variable k : integer range 0 to 7; begin k := to_integer(unsigned(a)); {body} end process;"
    )
    held(designed(process, 3, declared=NUMBER_TYPES), 3, wanted)


@pytest.mark.parametrize(("name", "body", "wanted"), BODIES, ids=[x[0] for x in BODIES])
def test_what_varies(name: str, body: str, wanted: Callable[[int, int], int | None]) -> None:
    text = designed(PROCESS.format(body), 3, declared=DECLARED)
    design = build(text, name="m.vhd")
    truth = [ending(design, case) for case in known_cases(design)]
    assert truth == [None if (value := wanted(n >> W, n & M - 1)) is None else value & 7 for n in range(M * M)]
    if None in truth:
        assert cells(text, [value or 0 for value in truth]) == "".join("." if v is None else "p" for v in truth)
    else:
        held(text, 3, wanted)
    EventDriven(design, LIMITS)  # else it says why not


SPEC = '''obento = "spec/1"
unit = "m"
[ports]
in = "a[3] b[3]"
out = "y[3]"
[expect]
table = """
{}
"""
'''


def ending(design: Design, case: Case) -> int | None:
    """The output of a case by itself; None where the run ends in an error."""
    try:
        found = on_timeline(design, [case])
    except RunError:
        return None
    assert found is not None
    return int(found[0], 2)


def cells(text: str, wanted: list[int]) -> str:
    """What a check says of each case, a dot for what is neither right nor wrong."""
    rows = "\n".join(f"{n >> W:03b} {n & M - 1:03b} | {value:03b}" for n, value in enumerate(wanted))
    spec = SPEC.format(f"a b | y\n{rows}")
    loaded = open_spec("s.toml", spec.encode(), {})
    assert loaded.expectation is not None, [str(m) for m in loaded.messages]
    checked = check_handin(loaded.expectation, [HandinFile("m.vhd", text.encode())])
    assert checked.verdict is not None
    return "".join(c if c in "pf" else "." for c in checked.verdict.cells())


def test_what_varies_is_levelled() -> None:
    design = build(designed(PROCESS.format(BODIES[0][1]), 3), name="m.vhd")
    assert is_levelled(design)


def test_more_values_than_can_be_written_out_are_left_to_the_timeline() -> None:
    body = (
        "k := to_integer(unsigned(a & b & a & b)) mod 3; n := to_integer(unsigned(b & a & b & a)) mod 3; w := a;"
        " w(k * 1 downto (n * 0) + (k mod 1)) := (others => '0'); y <= w;"
    )
    design = build(designed(PROCESS.format(body), 3), name="m.vhd")
    assert [words(o) for o in agree(design)] == [format((n >> W) & ~mask(wide(n) % 3 + 1), "03b") for n in range(M * M)]


def words(outputs: list[str] | None) -> str:
    return "*" if outputs is None else outputs[0]


def wide(n: int) -> int:
    a, b = n >> W, n & M - 1
    return ((a << 3 | b) << 6) | a << 3 | b


def test_a_loop_while_a_slice_holds_whose_number_it_changes() -> None:
    body = (
        "k := to_integer(unsigned(b)) mod 3; w := std_logic_vector(to_unsigned(k, 3)); n := 0;"
        " while unsigned(a(to_integer(unsigned(w)) downto 0)) /= 0 loop n := n + 1;"
        ' exit when w = "000"; w := std_logic_vector(unsigned(w) - 1); end loop;'
        " y <= std_logic_vector(to_unsigned(n, 3));"
    )

    def rounds(a: int, k: int) -> int:
        return 0 if not a & mask(k + 1) else 1 + (rounds(a, k - 1) if k else 0)

    held(designed(PROCESS.format(body), 3), 3, lambda a, b: rounds(a, b % 3), lanes=False)


def test_a_variable_may_begin_with_what_a_signal_begins_with() -> None:
    body = (
        "process (a) variable w : std_logic_vector(2 downto 0) := first; begin y <= a xor first; w := a; end process;"
    )
    declared = 'signal first : std_logic_vector(2 downto 0) := "101";'
    design = build(designed(body, 3, declared=declared), name="m.vhd")
    assert [words(o) for o in agree(design)] == [format(n >> W ^ 5, "03b") for n in range(M * M)]
    assert runs_in_lanes(design)


def test_a_variable_keeps_what_it_began_with_until_it_is_written() -> None:
    body = (
        'process (a) variable w : std_logic_vector(2 downto 0) := first; begin if a = "111" then w := "000"; end if;'
        " y <= w; end process;"
    )
    declared = 'signal first : std_logic_vector(2 downto 0) := "101";'
    design = build(designed(body, 3, declared=declared), name="m.vhd")
    got = [words(o) for o in agree(design)]
    assert got[0] == "101"
    assert got[-1] == "000"
    assert runs_in_lanes(design)


def test_rows_of_a_table_may_be_strings() -> None:
    declared = (
        "type t_t is array (1 to 2, 2 downto 0) of std_logic;"
        ' constant t : t_t := ("011", "110"); signal r : std_logic_vector(2 downto 0);'
    )
    body = (
        "process (all) begin for j in 0 to 2 loop if a(0) = '1' then y(j) <= t(1, j); else y(j) <= t(2, j); end if;"
        " end loop; end process;"
    )
    held(designed(body, 3, declared=declared), 3, lambda a, b: 3 if a & 1 else 6)
