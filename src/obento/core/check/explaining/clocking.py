"""Warnings on how a clocked design is clocked: clocks made of registers, both edges of one clock, resets that wake at
one level and ask for the other, registers that race."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from obento.core.check.explaining.advice import Tell
from obento.core.check.running.binding import Binding
from obento.core.ir.design import Design, Process
from obento.core.ir.drivers import expressions, statements, written_bits
from obento.core.ir.nodes import Assign, Binary, Block, Const, Expr, If, Ref, Stmt, Unary
from obento.core.ir.signal import Signal
from obento.core.ir.walks import walk
from obento.core.sentences.said import say


def is_clocked(process: Process) -> bool:
    """Whether it runs at edges only."""
    return process.kind == "always" and bool(process.watches) and all(w.edge != "any" for w in process.watches)


def clocked_assignments(design: Design) -> Iterator[Assign]:
    """Assignments in processes that run at edges."""
    for process in design.processes:
        if is_clocked(process):
            yield from (s for s in statements(process.body) if isinstance(s, Assign))


def read_elsewhere(design: Design) -> set[int]:
    """Signals that a port shows, or that a process reads which does not write them."""
    seen = {p.signal.id for p in design.ports if p.direction != "in"}
    for process in design.processes:
        own = _written(process)
        seen |= {s.id for s in _read(process) if s.id not in own}
    return seen


def _written(process: Process) -> set[int]:
    return {t.signal.id for s in statements(process.body) if isinstance(s, Assign) for t in s.targets}


def _read(process: Process) -> Iterator[Signal]:
    return _read_in(statements(process.body))


def _read_in(body: Iterable[Stmt]) -> Iterator[Signal]:
    from_body = (e for s in body for e in expressions(s))
    yield from (node.signal for e in from_body for node in walk(e) if isinstance(node, Ref))


def advise_clocking(design: Design, binding: Binding, tell: Tell) -> None:
    """Say what is clocked by something else than the clock, and what races at the edge."""
    registers: set[int] = set()
    for process in design.processes:
        if is_clocked(process):
            registers |= written_bits(process)
    inputs = {port.signal.offset + i for port, i in binding.bits.values() if port.direction == "in"}
    made = _made_of(design, registers, inputs)
    told: set[int] = set()
    for process in design.processes:
        if not is_clocked(process):
            continue
        for watch in process.watches:
            bits = {watch.signal.offset + watch.low + i for i in range(watch.width)}
            if bits & made and watch.signal.id not in told:
                told.add(watch.signal.id)
                name = watch.signal.name.rpartition(".")[2]
                tell(
                    "ripple-clock",
                    say("ripple-clock", name=name),
                    process.position,
                    "use the one clock everywhere, and an enable",
                )
    _both_edges(design, tell)
    for process in design.processes:
        if is_clocked(process) and len(process.watches) > 1:
            _level_of_reset(process, tell)
    _races(design, tell)


def _both_edges(design: Design, tell: Tell) -> None:
    """Registers that one signal clocks at its rising edge, beside others that it clocks at its falling one: of the
    fewer of them is spoken."""
    by_edge: dict[int, dict[str, list[Process]]] = {}
    names: dict[int, str] = {}
    for process in design.processes:
        if is_clocked(process) and len(process.watches) == 1:
            (watch,) = process.watches
            by_edge.setdefault(watch.signal.id, {}).setdefault(watch.edge, []).append(process)
            names[watch.signal.id] = watch.signal.name.rpartition(".")[2]
    for clock, edges in by_edge.items():
        if len(edges) < 2:
            continue
        (few, some), (_, others) = sorted(edges.items(), key=lambda item: len(item[1]))
        if len(some) == len(others):
            continue
        text = say("other-edge-rising" if few == "pos" else "other-edge-falling", clock=names[clock])
        for process in some:
            tell("other-edge", text, process.position, "use one edge for all registers")


def _level_of_reset(process: Process, tell: Tell) -> None:
    """A process that a reset wakes at one level, and that asks first for the other."""
    first = process.body
    while isinstance(first, Block) and first.body:
        first = first.body[0]
    if not isinstance(first, If):
        return
    for watch in process.watches:
        level = int(watch.edge == "pos")
        truths = [_truth(first.cond, watch.signal, at) for at in (level, 1 - level)]
        if truths == [False, True]:
            name = watch.signal.name.rpartition(".")[2]
            text = say("reset-edge", name=name, level=level, other=1 - level)
            hint = f"write `{'negedge' if level else 'posedge'} {name}`, or ask for {level}"
            tell("reset-edge", text, process.position, hint)


def _made_of(design: Design, registers: set[int], inputs: set[int]) -> set[int]:
    """Registers and whatever continuous assignments make of them."""
    made = set(registers) - inputs
    while True:
        grown = set(made)
        for process in design.processes:
            if process.kind == "continuous" and any(
                s.offset + i in made for s in _read(process) for i in range(s.width)
            ):
                grown |= written_bits(process)
        if grown == made:
            return made
        made = grown


def _races(design: Design, tell: Tell) -> None:
    """What one process sets with `=` at an edge, and another reads at the same one: which is first is left open. At the
    edge of a reset only what its level lets through is done and read."""
    clocked = [p for p in design.processes if is_clocked(p)]
    told: set[int] = set()
    for process in clocked:
        for signal, edge in sorted({(w.signal, w.edge) for w in process.watches}, key=lambda e: (e[0].id, e[1])):
            others = [p for p in clocked if p is not process and _wakes_at(p, signal, edge)]
            level = int(edge == "pos")
            read = {s.id for other in others for s in _read_in(_reached(other.body, signal, level))}
            for s in _reached(process.body, signal, level) if others else ():
                if not isinstance(s, Assign) or not s.blocking:
                    continue
                for target in s.targets:
                    if target.signal.id in read and target.signal.id not in told:
                        told.add(target.signal.id)
                        name = target.signal.name.rpartition(".")[2]
                        tell("race", say("race", name=name), s.position, "write `<=`")


def _wakes_at(process: Process, signal: Signal, edge: str) -> bool:
    return any(w.signal is signal and w.edge == edge for w in process.watches)


def _reached(body: Stmt | None, signal: Signal, level: int) -> Iterator[Stmt]:
    """Statements that may be run while a signal of one bit has a level."""
    match body:
        case None:
            return
        case Block():
            for s in body.body:
                yield from _reached(s, signal, level)
        case If():
            yield body
            truth = _truth(body.cond, signal, level)
            if truth is not False:
                yield from _reached(body.then, signal, level)
            if truth is not True:
                yield from _reached(body.other, signal, level)
        case _:
            yield from statements(body)


def _truth(condition: Expr, signal: Signal, level: int) -> bool | None:
    """What a condition is while a signal has a level; None where that does not decide it."""
    match condition:
        case Ref():
            return bool(level) if condition.signal is signal and condition.width == 1 else None
        case Unary(op="not" | "lnot"):
            inner = _truth(condition.a, signal, level)
            return None if inner is None else not inner
        case Binary(op="eq" | "ceq" | "ne" | "cne", b=Const() as wanted) if wanted.one ^ wanted.zero == 1:
            inner = _truth(condition.a, signal, level)
            return None if inner is None else (inner == bool(wanted.one)) == condition.op.endswith("eq")
        case _:
            return None
