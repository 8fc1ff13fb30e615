"""What the smallest change finds where two neighbours are exchanged: values of a pattern, labels of a case."""

from __future__ import annotations

import pytest

from obento.core.check.check import check_handin, open_spec
from obento.core.check.mutation.smallest_change import find_repair
from obento.core.handin import HandinFile

SPEC = """obento = "spec/1"
unit = "m"
[ports]
in = "s[2] a[4] b[4]"
out = "y[4] z[8]"
[expect]
equations = '''
y = s == 0 ? a : s == 1 ? b : s == 2 ? a & b : a ^ b
z = {a, b}
'''
"""
RIGHT = """module m(input logic [1:0] s, input logic [3:0] a, b, output logic [3:0] y, output logic [7:0] z);
  typedef struct packed { logic [3:0] hi, lo; } pair_t;
  pair_t p;
  assign p = '{a, b};
  assign z = p;
  always_comb
    case (s)
      2'd0: y = a;
      2'd1: y = b;
      2'd2: y = a & b;
      default: y = a ^ b;
    endcase
endmodule
"""
SLIPS = [
    ("'{a, b}", "'{b, a}", 4, "`b` and `a` exchanged"),
    ("2'd1: y = b;\n      2'd2:", "2'd2: y = b;\n      2'd1:", 9, "`2'd2` and `2'd1` exchanged"),
]


@pytest.mark.parametrize(("right", "wrong", "line", "said"), SLIPS)
def test_two_neighbours_that_are_exchanged_are_found(right: str, wrong: str, line: int, said: str) -> None:
    expectation = open_spec("s.toml", SPEC.encode(), {}).expectation
    assert expectation is not None
    assert check_handin(expectation, [HandinFile("m.sv", RIGHT.encode())]).findings == []
    found = find_repair(expectation, [HandinFile("m.sv", RIGHT.replace(right, wrong, 1).encode())], (), {})
    assert found is not None and (line, said) in [(c.line, c.text) for c in found.changes], found
