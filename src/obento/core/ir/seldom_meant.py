"""What runs and is seldom meant, seen on the design whatever language it was written in: states that nothing leads to
or out of, clocks that are used as values."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from obento.core.ir.design import Design, Process
from obento.core.ir.drivers import expressions, statements, stretches_read, targets
from obento.core.ir.nodes import Assign
from obento.core.ir.signal import Signal
from obento.core.ir.state_machines import Machine, bare, is_clocked, machines


@dataclass(frozen=True, slots=True)
class Seldom:
    """One such thing, as a warning says it."""

    code: str
    text: str
    position: int
    hint: str


def states_and_clocks(design: Design) -> Iterator[Seldom]:
    """Look through a whole design."""
    if not any(is_clocked(p) for p in design.processes):
        return
    told: set[int] = set()
    for machine in machines(design):
        if machine.position not in told:  # a unit may be placed many times
            told.add(machine.position)
            yield from _states(machine)
    yield from _clocks(design)


def _states(m: Machine) -> Iterator[Seldom]:
    for state in m.states:
        if state.value not in m.reached:
            hint = "an assignment is missing, or the state is left over"
            yield Seldom("unreachable-state", "nothing leads to this state", state.position, hint)
        elif not state.has_exit:
            text = f"nothing leads out of this state{' but the reset' if m.has_reset else ''}"
            yield Seldom("stuck-state", text, state.position, "is it meant to stay there for good?")
    missing = sorted(m.reached - {state.value for state in m.states})
    if missing and not m.has_default:
        shown = ", ".join(f"{value:0{m.signal.width}b}" for value in missing)
        text = f"the state {shown} is reached, and there is no arm and no `default` for it"
        yield Seldom("missing-state", text, m.position, "it stays there: write what happens")


def _clocks(design: Design) -> Iterator[Seldom]:
    inputs = {p.signal.id: p for p in design.ports if p.direction == "in" and p.signal.width == 1}
    befores = {before.id for before, _ in design.kept}
    edges = {s.id for p in design.processes if p.kind != "forever" for s in _clocks_of(p, befores)}
    clocks = edges & inputs.keys()
    told: set[int] = set()
    for process in design.processes:
        if not clocks or process.kind not in ("continuous", "always") or is_clocked(process):
            continue
        if any(t.signal.id in edges for t in targets(process.body)):
            continue  # another clock is made of it
        for s in statements(process.body):
            for e in expressions(s):
                if isinstance(s, Assign) and bare(e) is not None:
                    continue  # handed on as it is, to a port or another name
                for signal in (read for read, _, _ in stretches_read(e) if read.id in clocks - told):
                    told.add(signal.id)
                    text = f"`{inputs[signal.id].name}` is a clock, and is used as a value here"
                    hint = "what follows a clock changes twice in each of its rounds; take an enable instead"
                    yield Seldom("clock-as-value", text, s.position or process.position, hint)


def _clocks_of(process: Process, befores: set[int]) -> list[Signal]:
    """What a process works at the edges of and does not read otherwise: no reset, which it asks for its level.
    `befores` are signals that keep what another one was, which is how edges of VHDL are told in lanes."""
    edges = [w.signal for w in process.watches if w.edge != "any"]
    if edges:
        read = {s.id for x in statements(process.body) for e in expressions(x) for s, _, _ in stretches_read(e)}
        return [s for s in edges if s.id not in read]
    if process.origin != "clocked":
        return []
    keeping = [s for s in statements(process.body) if isinstance(s, Assign) and s.targets[0].signal.id in befores]
    kept = {found.id for s in keeping if (found := bare(s.value)) is not None}
    return [w.signal for w in process.watches if w.signal.id in kept]
