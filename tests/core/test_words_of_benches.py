"""Small faults of benches' own constructs, each with the text that showed it."""

from __future__ import annotations

import pytest

from obento.core.handin import HandinFile
from obento.core.limits import Limits, for_simulation
from obento.core.simulate import Options, simulate


def said(text: str) -> list[str]:
    """The codes of what is said of a bench."""
    outcome = simulate([HandinFile("a.sv", text.encode())], lambda _: None, Options(), for_simulation(1_000))
    return [m.code for m in outcome.messages]


@pytest.mark.parametrize(
    "statement",
    ["# q.push_back(3);", "n = q.push_front(3);", "if (q.delete()) n = 1;", "n = 1 + q.reverse();", "@(q.sort());"],
)
def test_a_method_without_a_value_is_no_value(statement: str) -> None:
    assert "void-value" in said(f"module t; int q[$], n; initial begin {statement} end endmodule")


def test_a_file_may_end_behind_a_dot() -> None:
    assert said("module t; int d[]; initial d.") == ["expected-name", "missing-endmodule"]


def test_what_a_macro_joins_to_no_number_is_told() -> None:
    assert said("`define ADD(n) 1``n\nmodule t; initial $display(`ADD(b)); endmodule") == ["bad-number"]


def test_a_constant_that_is_never_found_is_told() -> None:
    text = """
module t;
  function bits(input integer n);
    begin
      bits = 0;
      while (2 ** bits < n) bits = bits + 1;
    end
  endfunction
  wire [bits(20)-1:0] v;
endmodule
"""
    limits = Limits(constant_steps=2_000)
    outcome = simulate([HandinFile("a.v", text.encode())], lambda _: None, Options(), limits)
    assert "takes too many steps" in str(outcome.messages[0])
