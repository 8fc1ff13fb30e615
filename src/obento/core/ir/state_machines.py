"""State machines as a design has them: registers that only take constants, and what is done in each of their states."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field

from obento.core.ir.design import Design, Process
from obento.core.ir.drivers import statements, targets
from obento.core.ir.evaluate import NotConstant, evaluate
from obento.core.ir.nodes import Assign, Block, Case, Const, Expr, Extend, If, Mux, Ref, Slice, Stmt, Unary
from obento.core.ir.signal import Signal
from obento.core.values import is_known, ones

_FEWEST_STATES = 3
_WIDEST = 16


@dataclass(slots=True)
class State:
    """One state: its value, where it is looked at, whether something leads out of it."""

    value: int
    position: int
    has_exit: bool


@dataclass(slots=True)
class Machine:
    """A register with the states that a `case` tells apart. `reached` are the values that it may have."""

    signal: Signal
    position: int
    reached: set[int]
    states: list[State] = field(default_factory=list)
    has_default: bool = False
    has_reset: bool = False


class _Values:
    """What a signal may be given: whole constants, itself, or something that nobody knows."""

    def __init__(self, design: Design) -> None:
        self._given: dict[int, list[Assign]] = {}
        self._parts: set[int] = set()
        self.writers: dict[int, set[int]] = {}
        for number, process in enumerate(design.processes):
            whole = [s for s in statements(process.body) if isinstance(s, Assign) and _is_whole(s)]
            for s in whole:
                self._given.setdefault(s.targets[0].signal.id, []).append(s)
            wholes = {id(s.targets[0]) for s in whole}
            for t in targets(process.body):
                if process.kind != "initial":
                    self.writers.setdefault(t.signal.id, set()).add(number)
                if id(t) not in wholes:
                    self._parts.add(t.signal.id)

    def of(self, signal: Signal, asked: frozenset[int] = frozenset()) -> set[int] | None:
        """All constants that a signal is given; None where it is given anything else."""
        if signal.id in self._parts or signal.id in asked:
            return set() if signal.id in asked else None
        found: set[int] = set()
        for s in self._given.get(signal.id, []):
            values = self.given_by(s.value, asked | {signal.id})
            if values is None:
                return None
            found |= values
        return found

    def given_by(self, e: Expr, keeps: frozenset[int]) -> set[int] | None:
        """The constants that an expression may be; `keeps` are signals that stay what they are."""
        try:
            word = evaluate(e)
            return {word[0]} if is_known(word, e.width) else None
        except NotConstant:
            pass
        if isinstance(e, Mux):
            a, b = self.given_by(e.a, keeps), self.given_by(e.b, keeps)
            return None if a is None or b is None else a | b
        if isinstance(e, Extend) or (isinstance(e, Slice) and e.low == 0) or (isinstance(e, Unary) and e.op == "two"):
            inner = self.given_by(e.a, keeps)
            return None if inner is None else {value & ones(e.width) for value in inner}
        signal = bare(e)
        if signal is None or (signal.kind == "net" and signal.id not in self._given):
            return None
        return self.of(signal, keeps)


def bare(e: Expr) -> Signal | None:
    """The signal that an expression is, widened or not; None where it is anything else."""
    while isinstance(e, Extend | Unary) or (isinstance(e, Slice) and e.low == 0):
        if isinstance(e, Unary) and e.op != "two":
            return None
        e = e.a
    return e.signal if isinstance(e, Ref) else None


def _is_whole(s: Assign) -> bool:
    t = s.targets[0]
    return len(s.targets) == 1 and not t.offsets and t.low == 0 and t.width == t.signal.width


def is_clocked(process: Process) -> bool:
    """Whether a process works at edges alone."""
    return process.origin == "clocked" or any(w.edge != "any" for w in process.watches)


def machines(design: Design) -> list[Machine]:
    """The state machines of a design."""
    values = _Values(design)
    inputs = {p.signal.id for p in design.ports if p.direction != "out"}
    found: list[Machine] = []
    for number, process in enumerate(design.processes):
        if process.kind not in ("continuous", "always"):
            continue
        for case in (s for s in statements(process.body) if isinstance(s, Case)):
            signal = bare(case.subject)
            if signal is None or signal.id in inputs or not 2 <= signal.width <= _WIDEST:
                continue
            writers = values.writers.get(signal.id, set())
            if len(writers) != 1 or not is_clocked(design.processes[next(iter(writers))]):
                continue
            made = _machine(values, signal, case, process, number in writers)
            if made is not None:
                found.append(made)
    return found


def _machine(values: _Values, signal: Signal, case: Case, process: Process, is_own: bool) -> Machine | None:
    reached = values.of(signal)
    labels = [(label.one, arm) for arm in case.arms for label in arm.labels if isinstance(label, Const)]
    if reached is None or len(labels) < _FEWEST_STATES or len(labels) < sum(len(arm.labels) for arm in case.arms):
        return None
    if signal.initial is not None and is_known(signal.initial, signal.width):
        reached.add(signal.initial[0])
    resets = _resets(process.body, case)
    inside = {id(s) for arm in case.arms for s in statements(arm.body)}
    inside |= {id(s) for s in statements(case.default)} | {id(s) for r in resets for s in statements(r)}

    def exits(body: Stmt | None, value: int, counts: Callable[[Stmt], bool]) -> bool:
        for s in statements(body):
            if not isinstance(s, Assign) or not counts(s):
                continue
            if is_own != any(t.signal is signal for t in s.targets):
                continue
            given = values.given_by(s.value, frozenset([signal.id]))
            if given is None or given - {value}:
                return True
        return False

    made = Machine(signal, case.position, reached, has_default=case.default is not None, has_reset=bool(resets))
    for value, arm in labels:
        leads_out = exits(arm.body, value, lambda s: True) or exits(process.body, value, lambda s: id(s) not in inside)
        made.states.append(State(value, arm.position, leads_out))
    return made


def _resets(body: Stmt | None, case: Case) -> list[Stmt]:
    """What is done before a state is looked at at all: the branches above its `case`."""
    found: list[Stmt] = []
    for s in _path(body, case):
        if isinstance(s, If) and s.then is not None and not any(x is case for x in statements(s.then)):
            found.append(s.then)
    return found


def _path(body: Stmt | None, case: Case) -> Iterator[Stmt]:
    """The statements that a `case` stands in, outermost first."""
    while body is not None and body is not case:
        yield body
        inner: list[Stmt | None] = []
        if isinstance(body, Block):
            inner = list(body.body)
        elif isinstance(body, If):
            inner = [body.then, body.other]
        body = next((s for s in inner if s is not None and any(x is case for x in statements(s))), None)
