"""Random processes and functions that leave loops, blocks and themselves before their end: the engines agree, and they
do what the same text does that keeps a flag instead."""

from __future__ import annotations

from dataclasses import dataclass

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.core.designs import agree, build


@dataclass(frozen=True)
class Pair:
    """A statement that leaves, and the same with flags: `go` while nothing was left, `on` within a round."""

    new: str
    old: str


WORDS = ["a", "b", "n", "4'(i)", "y", "f", "4'd3"]
CONDITIONS = ["a[i & 3]", "b == i", "n > 5", "a > b", "y[0]", "n[1:0] == b[1:0]", "i == 2"]


@st.composite
def statements(draw: st.DrawFn, depth: int = 2) -> Pair:
    """One statement of the body of a loop."""
    kinds = ["set", "set", "count"] if not depth else ["set", "set", "count", "if", "if", "if", "two"]
    kind = draw(st.sampled_from(kinds))
    if kind == "set":
        target, word = draw(st.sampled_from(["n", "y"])), draw(st.sampled_from(WORDS[:5] + WORDS[6:]))
        op = draw(st.sampled_from(["+", "^", "-"]))
        text = f"{target} = {target} {op} {word};"
        return Pair(text, f"if (go && on) {text}")
    if kind == "count":
        return Pair("n = n + 1;", "if (go && on) n = n + 1;")
    if kind == "two":
        one, two = draw(statements(depth - 1)), draw(statements(depth - 1))
        return Pair(f"begin {one.new} {two.new} end", f"begin {one.old} {two.old} end")
    cond = draw(st.sampled_from(CONDITIONS))
    leave = draw(st.sampled_from(["break", "continue", "return", "inner", "inner"]))
    if leave == "inner":
        one, two = draw(statements(depth - 1)), draw(statements(depth - 1))
        return Pair(
            f"if ({cond}) begin {one.new} end else begin {two.new} end",
            f"c{depth} = {cond}; if (c{depth}) begin {one.old} end if (!c{depth}) begin {two.old} end",
        )
    if leave == "return":
        word = draw(st.sampled_from(WORDS[:4] + WORDS[6:]))
        return Pair(
            f"if ({cond}) return {word} + y;", f"if (go && on && ({cond})) begin f = {word} + y; go = 0; left = 1; end"
        )
    flag = "go" if leave == "break" else "on"
    return Pair(f"if ({cond}) {leave};", f"if (go && on && ({cond})) {flag} = 0;")


NEW = """
module m (input [3:0] a, b, output logic [3:0] z, w);
  function automatic logic [3:0] f(input logic [3:0] a, b);
    logic [3:0] n, y;
    n = 0; y = b;
    for (int i = 0; i < ROUNDS; i++) begin
      {}
      {}
      {}
    end
    y = y + n;
    if (y == 3) return a;
    f = y ^ a;
  endfunction
  always_comb begin
    z = f(a, b);
    w = 0;
    begin : all
      for (int k = 0; k < 3; k++) begin
        if (z[k]) disable all;
        w = w + f(a ^ k, b);
      end
      w = ~w;
    end
  end
endmodule
"""
OLD = """
module m (input [3:0] a, b, output logic [3:0] z, w);
  function automatic logic [3:0] f(input logic [3:0] a, b);
    logic [3:0] n, y;
    logic go, on, left, c1, c2;
    n = 0; y = b; go = 1; left = 0;
    for (int i = 0; i < ROUNDS; i++) begin
      on = 1;
      {}
      {}
      {}
    end
    if (!left) begin
      y = y + n;
      if (y == 3) f = a;
      else f = y ^ a;
    end
  endfunction
  logic on;
  always_comb begin
    z = f(a, b);
    w = 0;
    on = 1;
    for (int k = 0; k < 3; k++) begin
      if (on && z[k]) on = 0;
      if (on) w = w + f(a ^ k, b);
    end
    if (on) w = ~w;
  end
endmodule
"""


def filled(frame: str, parts: list[str], rounds: int) -> str:
    """A frame with its statements."""
    frame = frame.replace("ROUNDS", str(rounds))
    for part in parts:
        frame = frame.replace("{}", part, 1)
    return frame


@settings(max_examples=40, deadline=None, suppress_health_check=list(HealthCheck))
@given(st.lists(statements(), min_size=3, max_size=3), st.integers(1, 5))
def test_leaving_is_as_a_flag_would_do_it(parts: list[Pair], rounds: int) -> None:
    new = filled(NEW, [p.new for p in parts], rounds)
    old = filled(OLD, [p.old for p in parts], rounds)
    assert agree(build(new, name="a.sv")) == agree(build(old, name="a.sv")), new
