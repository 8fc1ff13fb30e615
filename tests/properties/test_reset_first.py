"""Sequences made from function tables where a reset is declared: they begin with it, and a design that needs it is
right.

Random state machines of two bits become function tables, and designs in the textbook's form: next-state equations as
sums of products, in which an unknown state stays unknown for ever. Without the reset first such a design would be wrong
in every step."""

from __future__ import annotations

import random

import pytest

from obento.core.check.check import LoadedSpec
from obento.core.check.expectation.model import Expectation
from tests.core.clocked import cells, clocked, judge, ready


class Machine:
    """A random machine: from each state (two bits) with each of two inputs. One that `loads` goes to 2 from anywhere
    when both inputs are 1."""

    def __init__(self, seed: int, loads: bool = False) -> None:
        dice = random.Random(seed)
        self.active, self.kind, self.edge = (
            dice.randrange(2),
            dice.choice(["async", "sync"]),
            dice.choice(["rise", "fall"]),
        )
        self.first = dice.randrange(4)
        self.loads = loads
        self.after = {(s, d): 2 if loads and d == 3 else dice.randrange(4) for s in range(4) for d in range(4)}

    def function(self) -> str:
        edge = "r" if self.edge == "rise" else "f"
        reset_at = "-" if self.kind == "async" else edge
        rows = [f"{reset_at} {self.active} - - | {self.first}"]
        rows += [f"{edge} {1 - self.active} 11 - | 2"] if self.loads else []
        rows += [f"{edge} {1 - self.active} {d:02b} {s} | {self.after[s, d]}" for s in range(4) for d in range(4)]
        return "function = '''\nclk rst d q | q\n" + "\n".join(rows) + "\n'''"

    def spec(self, rest: str = "") -> LoadedSpec:
        return clocked(self.function(), "clk rst d[2]", "q[2]:dec", self.edge, self.active, self.kind, rest)

    def equation(self, bit: int) -> str:
        """The next value of a state bit as a sum of products of all literals."""
        terms = []
        for (s, d), after in self.after.items():
            if after >> bit & 1:
                literals = [f"{'' if s >> i & 1 else '~'}q[{i}]" for i in range(2)] + [
                    f"{'' if d >> i & 1 else '~'}d[{i}]" for i in range(2)
                ]
                terms.append(" & ".join(literals))
        return " | ".join(terms) or "1'b0"

    def verilog(self) -> str:
        edge = "posedge" if self.edge == "rise" else "negedge"
        level = "posedge" if self.active else "negedge"
        events = f"{edge} clk" + (f" or {level} rst" if self.kind == "async" else "")
        return (
            f"module m(input clk, rst, input [1:0] d, output reg [1:0] q);\nalways @({events}) if (rst =="
            f" 1'b{self.active}) q <= {self.first}; else q <= {{{self.equation(1)}, {self.equation(0)}}};\nendmodule\n"
        )


def made(expectation: Expectation) -> list[tuple[str, list[int], str]]:
    """Each sequence: its name, the reset in every step, the actions."""
    stimulus = expectation.cases.stimulus
    assert stimulus is not None
    bit = [p.name for p in expectation.spec.inputs].index("rst")
    plane = expectation.cases.one[bit]
    return [
        (
            s.name,
            [plane >> i & 1 for i in range(s.first, s.first + s.length)],
            stimulus.actions[s.first : s.first + s.length],
        )
        for s in stimulus.sequences
    ]


@pytest.mark.parametrize("seed", range(24))
def test_a_right_design_that_needs_its_reset_is_right(seed: int) -> None:
    machine = Machine(seed)
    expectation = ready(machine.spec())
    found = judge(expectation, machine.verilog())
    assert set(cells(found)) == {"p"}, [f.text for f in found.findings]
    for name, resets, actions in made(expectation):
        assert resets[0] == machine.active, name
        assert machine.kind == "async" or actions[0] == "c"


@pytest.mark.parametrize("seed", range(6))
def test_what_happens_without_reset_is_a_sequence_of_its_own(seed: int) -> None:
    """A row that sets the state whatever it was leads on from power-up; where there is none there is nothing to be
    made."""
    machine = Machine(seed, loads=True)
    plain, asked = machine.spec(), machine.spec("[cases]\nwithout_reset = true\n")
    names = [name for name, _, _ in made(ready(asked))]
    bare = [(resets, name) for name, resets, _ in made(ready(asked)) if name.startswith("without reset")]
    assert bare and all(machine.active not in resets for resets, _ in bare)
    assert names[: len(names) - len(bare)] == [name for name, _, _ in made(ready(plain))]


@pytest.mark.parametrize("form", ["j & ~q | ~k & q", "j ? (k ? ~q : 1'b1) : (k ? 1'b0 : q)"])
def test_cells_that_set_and_drop(form: str) -> None:
    table = (
        "function = '''\nclk rst j k q | q\n-   1   - - - | 0\nr   0   0 0 - | =\nr   0   0 1 - | 0\nr   0   1 0 - |"
        " 1\nr   0   1 1 - | !\n'''"
    )
    expectation = ready(clocked(table, "clk rst j k", "q"))
    text = (
        "module m(input clk, rst, j, k, output reg q); always @(posedge clk or posedge rst) if (rst) q <= 0; else q <="
        f" {form}; endmodule"
    )
    assert set(cells(judge(expectation, text))) == {"p"}
    never_drops = text.replace("~k", "1'b1").replace("k ? 1'b0 : q", "q")
    assert "f" in cells(judge(expectation, never_drops))


def test_without_reset_needs_one() -> None:
    loaded = clocked("steps = '''\nclk rst en | q\nc 1 0 | 0\n'''", rest="[cases]\nwithout_reset = true\n")
    assert loaded.expectation is None and "no-reset" in [m.code for m in loaded.messages]


def test_versions_from_before_keep_their_sequences() -> None:
    from obento.core.check.check import open_spec
    from tests.core.clocked import CLOCK, HEAD, RESET

    machine = Machine(3, loads=True)
    text = (
        HEAD.format(i="clk rst d[2]", o="q[2]:dec")
        + CLOCK.format(edge=machine.edge)
        + RESET.format(active=machine.active, kind=machine.kind)
    )
    text += f"[expect]\n{machine.function()}\n"
    before, now = (
        open_spec("s.toml", text.encode(), {}, edition=1).expectation,
        open_spec("s.toml", text.encode(), {}).expectation,
    )
    assert before is not None and now is not None
    assert before.cases != now.cases and any(resets[0] != machine.active for _, resets, _ in made(before))
