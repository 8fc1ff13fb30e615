"""Warnings on how a clocked design is clocked: clocks made of registers, registers that race."""

from __future__ import annotations

from collections.abc import Iterator

from obento.core.check.explaining.advice import Tell
from obento.core.check.running.binding import Binding
from obento.core.ir.design import Design, Process
from obento.core.ir.drivers import expressions, statements, written_bits
from obento.core.ir.nodes import Assign, Ref, walk
from obento.core.ir.signal import Signal


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
    from_body = (e for s in statements(process.body) for e in expressions(s))
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
                    f"`{name}` is made of registers and clocks others: they change later than the rest",
                    process.position,
                    "use the one clock everywhere, and an enable",
                )
    _races(design, tell)


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
    """What one process sets with `=` at an edge, and another reads at the same one: which is first is left open."""
    readers: dict[int, list[Process]] = {}
    clocked = [p for p in design.processes if is_clocked(p)]
    for process in clocked:
        for signal in {s.id: s for s in _read(process)}.values():
            readers.setdefault(signal.id, []).append(process)
    told: set[int] = set()
    for process in clocked:
        for s in statements(process.body):
            if not isinstance(s, Assign) or not s.blocking:
                continue
            for target in s.targets:
                others = [r for r in readers.get(target.signal.id, []) if r is not process and _same_edge(r, process)]
                if others and target.signal.id not in told:
                    told.add(target.signal.id)
                    name = target.signal.name.rpartition(".")[2]
                    text = (
                        f"`{name}` is set with `=` here and read by another process at the same edge: which comes first"
                        " is left open"
                    )
                    tell("race", text, s.position, "write `<=`")


def _same_edge(a: Process, b: Process) -> bool:
    edges = {(w.signal.id, w.edge) for w in a.watches}
    return any((w.signal.id, w.edge) in edges for w in b.watches)
