"""The smallest change in what SystemVerilog brings: it is found, said at its line, and in the words of the text."""

from __future__ import annotations

import pytest

from obento.core.check.check import open_spec
from obento.core.check.expectation.model import Expectation
from obento.core.check.mutation.smallest_change import find_repair
from obento.core.handin import HandinFile
from tests.core.clocked import ready

SPEC = """obento = 'spec/1'
unit = 'm'
[ports]
in = 'way[2] a[4] b[4]'
out = 'y[4] z flag'
[expect]
equations = '''
y = way == 0 ? a : way == 1 ? b : way == 2 ? a + b : 15
z = a > 3 & a < 9
flag = a == b
'''
"""
RIGHT = """package ways;
  typedef enum logic [1:0] {FIRST, SECOND, SUM, NONE} way_t;
  typedef struct packed { logic [3:0] low, high; } span_t;
  localparam span_t MIDDLE = '{low: 4, high: 8};
endpackage
module m import ways::*; (input way_t way, input logic [3:0] a, b, output logic [3:0] y, output logic z, flag);
  let same(p, q) = p == q;
  logic [3:0] parts [2];
  logic [3:0] kept;
  function automatic logic [3:0] sum(input logic [3:0] p, q, output logic [3:0] first);
    first = p;
    return p + q;
  endfunction
  assign parts = '{a, b};
  always_comb begin
    y = sum(parts[0], parts[1], kept) + 0;
    unique case (way)
      FIRST: y = kept;
      SECOND: y = parts[1];
      SUM: ;
      NONE: y = '1;
    endcase
  end
  assign z = a inside {[MIDDLE.low:MIDDLE.high]};
  assign flag = same(a, b);
endmodule
"""
SEEDED = [
    ("FIRST: y = kept", "FIRST: y = b", 18),
    ("SECOND: y = parts[1]", "SECOND: y = parts[0]", 19),
    ("return p + q", "return p - q", 12),
    ("first = p;", "first = q;", 11),
    ("'{low: 4, high: 8}", "'{low: 4, high: 9}", 4),
    ("'{low: 4, high: 8}", "'{low: 5, high: 8}", 4),
    ("p == q", "p != q", 25),
    ("inside {[MIDDLE.low:", "inside {[3:", 24),
    ("same(a, b)", "same(a, y)", 25),
    ("parts[1], kept) + 0", "parts[1], kept) + 1", 16),
    ("y = '1", "y = '0", 21),
]


@pytest.fixture(scope="module")
def expectation() -> Expectation:
    return ready(open_spec("s.toml", SPEC.encode(), {}))


@pytest.mark.parametrize(("right", "wrong", "line"), SEEDED, ids=[wrong for _, wrong, _ in SEEDED])
def test_a_seeded_mistake_is_mended_where_it_is(expectation: Expectation, right: str, wrong: str, line: int) -> None:
    assert RIGHT.count(right) == 1
    found = find_repair(expectation, [HandinFile("a.sv", RIGHT.replace(right, wrong).encode())], (), {})
    assert found is not None
    assert line in [c.line for c in found.changes], found


def test_a_fill_is_turned_round_as_it_is_written(expectation: Expectation) -> None:
    found = find_repair(expectation, [HandinFile("a.sv", RIGHT.replace("y = '1", "y = '0").encode())], (), {})
    assert found is not None
    assert [c.text for c in found.changes] == ["`'1` for `'0`"]


STATES_SPEC = """obento = 'spec/1'
unit = 'm'
[ports]
in = 'now[2] a[2]'
out = 'n[2]'
[expect]
equations = '''
n = now == 0 ? 1 : now == 1 ? (a == 3 ? 2 : 1) : now == 2 ? 3 : 0
'''
"""
STATES = """typedef enum logic [1:0] {IDLE, RUN, DONE, LAST} state_t;
module m (input state_t now, input logic [1:0] a, output state_t n);
  always_comb begin
    n = now;
    case (now)
      IDLE: n = RUN;
      RUN: if (a == 3) n = DONE;
      DONE: n = LAST;
      LAST: n = IDLE;
    endcase
  end
endmodule
"""


@pytest.mark.parametrize(
    ("right", "wrong", "told"),
    [("n = RUN", "n = DONE", (6, "`RUN` for `DONE`")), ("n = LAST", "n = IDLE", (8, "`LAST` for `IDLE`"))],
)
def test_the_state_that_was_meant_is_named(right: str, wrong: str, told: tuple[int, str]) -> None:
    states = ready(open_spec("s.toml", STATES_SPEC.encode(), {}))
    found = find_repair(states, [HandinFile("a.sv", STATES.replace(right, wrong).encode())], (), {})
    assert found is not None
    assert [(c.line, c.text) for c in found.changes] == [told]
