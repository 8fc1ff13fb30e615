"""What the smallest change finds in wiring lists made of parts."""

from __future__ import annotations

import pytest

from obento.core.check.check import check_handin, open_spec
from obento.core.check.mutation.smallest_change import find_repair
from obento.core.handin import HandinFile

SPEC = """obento = "spec/1"
unit = "m"
[ports]
in = "a[3]:dec b[3]:dec open"
out = "y[3]:dec same level"
[expect]
equations = '''
y = open ? a - b : 0
same = a == b
level = !open & (a > b)
'''
"""
RIGHT = """wiring m
  takes a[3], b[3], open
  gives y[3], same, level
  d <- subtract(a, b)
  y <- select(open, 3d0, d)
  _, same, g <- compare(a, b)
  level <- and(!open, g)
end
"""
SLIPS = [
    ("subtract(a, b)", "add(a, b)", 4, "`subtract` for `add`"),
    ("subtract(a, b)", "subtract(b, a)", 4, "`b` and `a` exchanged"),
    ("compare(a, b)", "compare_signed(a, b)", 6, "`compare` for `compare_signed`"),
    ("_, same, g <-", "_, g, same <-", 6, "`g` and `same` exchanged"),
    ("and(!open", "and(open", 7, "`!` before `open`"),
    ("select(open", "select(!open", 5, "no `!` before `open`"),
]


@pytest.mark.parametrize(("right", "wrong", "line", "said"), SLIPS)
def test_a_slip_with_a_part_is_found(right: str, wrong: str, line: int, said: str) -> None:
    expectation = open_spec("s.toml", SPEC.encode(), {}).expectation
    assert expectation is not None
    assert check_handin(expectation, [HandinFile("a.wiring", RIGHT.encode())]).findings == []
    found = find_repair(expectation, [HandinFile("a.wiring", RIGHT.replace(right, wrong, 1).encode())], (), {})
    assert found is not None and (line, said) in [(c.line, c.text) for c in found.changes], found
