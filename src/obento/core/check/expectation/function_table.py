"""A function table as something that can be asked: what becomes of a state when inputs are set or the clock moves.

The first row that matches decides. Where none does, everything stays as it is, except at the active edge: there the
table says nothing, and the states are unknown from then on."""

from __future__ import annotations

from dataclasses import dataclass, field

from obento.core import values
from obento.core.diagnostics import Collector
from obento.core.formula.ast import Formula
from obento.core.formula.lower import FormulaLowering, Operand
from obento.core.ir import nodes as ir
from obento.core.ir.design import Design
from obento.core.ir.evaluate import evaluate
from obento.core.spec.model import Cell, FunctionRow, Spec, SpecPort
from obento.core.spec.stimulus import CYCLE, QUIET, RISE
from obento.core.suggest import did_you_mean
from obento.core.syntax.stream import SyntaxProblem
from obento.core.values import Word

State = tuple[Word, ...]
"""The words of all states, in the order of `FunctionTable.states`."""

Inputs = tuple[Word, ...]
"""The words of all inputs in the spec's order; the clock's own is not looked at."""


@dataclass(slots=True)
class Moved:
    """What one step does: the state when outputs are sampled, the state at its end, the rows that decided, in order,
    and whether there was an active edge for which the table has no row."""

    sampled: State
    after: State
    rows: list[tuple[State, int]] = field(default_factory=list)
    uncovered: bool = False


@dataclass(slots=True)
class _Rule:
    """A row with its formulas lowered; matches are (index, given digits, ones, zeros)."""

    clock: str
    inputs: list[tuple[int, int, int, int]]
    present: list[tuple[int, int, int, int]]
    then: dict[int, Cell | ir.Expr]


class FunctionTable:
    """The table of a spec. `states` are its columns right of the bar: outputs and inner states."""

    def __init__(self, spec: Spec, rows: tuple[FunctionRow, ...], collector: Collector) -> None:
        named = {name for row in rows for name, _ in (*row.then, *row.present)}
        self.states: list[SpecPort] = [p for p in (*spec.outputs, *spec.inner) if p.name in named]
        self.index = {p.name: i for i, p in enumerate(self.states)}
        self._clock = spec.clock
        self._active = spec.clock.edge[0] if spec.clock else ""
        self._design = Design(spec.unit, "function")
        self._operands: dict[str, Operand] = {}
        self._place: dict[int, tuple[bool, int]] = {}
        for is_state, ports in ((False, spec.inputs), (True, tuple(self.states))):
            for i, port in enumerate(ports):
                signal = self._design.add_signal(port.name, port.width, "net")
                self._operands[port.name] = Operand(
                    signal, port.signed, port.left < port.right, min(port.left, port.right)
                )
                self._place[signal.id] = is_state, i
        self._rules = [self._rule(spec, row, collector) for row in rows]

    def _rule(self, spec: Spec, row: FunctionRow, collector: Collector) -> _Rule:
        inputs = [(i, c.care, c.word[0] & c.care, c.word[1] & c.care) for i, c in enumerate(row.inputs) if c.care]
        present = [(self.index[n], c.care, c.word[0] & c.care, c.word[1] & c.care) for n, c in row.present if c.care]
        then: dict[int, Cell | ir.Expr] = {}
        lowering = FormulaLowering(self._operands.get, lambda n: did_you_mean(n, self._operands), collector)
        for name, cell in row.then:
            port = self.states[self.index[name]]
            if isinstance(cell, Cell):
                then[self.index[name]] = cell
                continue
            try:
                then[self.index[name]] = lowering.to_width(cell, port.width)
            except SyntaxProblem:
                continue
            if row.clock not in ("r", "f") and self._names(cell) & self.index.keys():
                collector.error(
                    "restless", "without an edge of the clock this would change again and again", cell.start, cell.end,
                    "write `r` or `f` in the clock's column",
                )  # fmt: skip
        return _Rule(row.clock, inputs, present, then)

    @staticmethod
    def _names(formula: Formula) -> set[str]:
        found: set[str] = set()
        stack: list[object] = [formula]
        while stack:
            item = stack.pop()
            if isinstance(item, list):
                stack += item
            elif isinstance(item, Formula):
                name = getattr(item, "name", None)
                if isinstance(name, str):
                    found.add(name)
                stack += [getattr(item, f) for f in type(item).__slots__]
        return found

    def start(self) -> State:
        """Power-up: everything unknown."""
        return tuple((0, 0) for _ in self.states)

    def known(self, state: State) -> bool:
        """Whether every state variable is known."""
        return all(values.is_known(w, p.width) for w, p in zip(state, self.states, strict=True))

    def step(self, state: State, inputs: Inputs, action: str, level: int) -> Moved:
        """One step from a state with the clock at `level`."""
        moved = Moved(state, state)
        self._event(moved, inputs, ".", level)
        if action != QUIET:
            rises = action == RISE or (action == CYCLE and not self._idle())
            if action == CYCLE or rises != bool(level):
                self._event(moved, inputs, "r" if rises else "f", int(rises))
                self._event(moved, inputs, ".", int(rises))
            moved.sampled = moved.after
            if action == CYCLE:
                self._event(moved, inputs, "f" if rises else "r", int(not rises))
                self._event(moved, inputs, ".", int(not rises))
        else:
            moved.sampled = moved.after
        return moved

    def _idle(self) -> int:
        return self._clock.idle if self._clock else 0

    def _event(self, moved: Moved, inputs: Inputs, event: str, level: int) -> None:
        before = moved.after
        clocks = ("-", ".", str(level)) if event == "." else ("-", event)
        for number, rule in enumerate(self._rules):
            matches = self._matches(rule, before, inputs) if rule.clock in clocks else False
            if matches:
                moved.rows.append((before, number))
                moved.after = self._then(rule, before, inputs)
                return
            if matches is None:
                moved.after = self.start()
                return
        if event == self._active:
            moved.uncovered = True
            moved.after = self.start()

    @staticmethod
    def _matches(rule: _Rule, state: State, inputs: Inputs) -> bool | None:
        """None where unknown digits leave it open."""
        is_open = False
        for words, wanted in ((inputs, rule.inputs), (state, rule.present)):
            for i, care, one, zero in wanted:
                have_one, have_zero = words[i]
                if have_one & zero or have_zero & one:
                    return False
                is_open = is_open or (have_one | have_zero) & care != care
        return None if is_open else True

    def _then(self, rule: _Rule, state: State, inputs: Inputs) -> State:
        after = list(state)
        for i, what in rule.then.items():
            width = self.states[i].width
            if not isinstance(what, Cell):
                after[i] = evaluate(what, lambda s: (state if self._place[s.id][0] else inputs)[self._place[s.id][1]])
            elif what.before == "=":
                pass
            elif what.before == "!":
                one, zero = state[i]
                after[i] = zero & ~one, one & ~zero
            else:
                after[i] = what.word[0] & what.care & values.ones(width), what.word[1] & what.care & values.ones(width)
            if after[i][0] & after[i][1]:
                after[i] = values.no_z(after[i])
        return tuple(after)
