"""Nets whose value takes more than one assignment: several drivers, wired logic, pulls, strengths, delays.

Each driver gets a wire of its own, and one more process makes the net's value out of them.
"""

from __future__ import annotations

from collections.abc import Callable

from obento.core.ir.design import Design, Process
from obento.core.ir.drivers import stretches_read, targets, watches_of, written_bits
from obento.core.ir.nodes import (
    Assign,
    Await,
    Binary,
    Block,
    Const,
    Delay,
    DisableFork,
    Expr,
    Fork,
    Ref,
    Resolve,
    Slice,
    Stmt,
    Target,
    Tristate,
    Unary,
    WaitUntil,
)
from obento.core.ir.signal import STRONG, Signal
from obento.core.ir.switches import Drivers, join_switches
from obento.core.ir.walks import walk
from obento.core.values import ones

_ALWAYS_RESOLVED = frozenset(["tri0", "tri1", "trireg"])


def resolve_drivers(design: Design, tell: Callable[[Signal, Process, Process], None]) -> None:
    """Rewrite every net of which a bit has more than one driver (1364 clause 7.10), or that needs it by its kind.

    `tell` hears of each net of kind `wire` with several strong drivers that never let go of it, and of each `uwire`
    with several drivers of any kind, with the first two processes that meet on it."""
    writer: dict[int, Process] = {}
    special: dict[int, Signal] = {}
    owner: dict[int, Signal] = {}
    for signal in design.signals:
        if signal.kind == "net":
            if signal.net in _ALWAYS_RESOLVED or signal.delay is not None:
                special[signal.id] = signal
            for i in range(signal.width):
                owner[signal.offset + i] = signal
    for process in design.processes:
        if process.kind != "continuous":
            continue
        for bit in written_bits(process):
            first = writer.setdefault(bit, process)
            if first is process or bit not in owner or owner[bit].id in special:
                continue
            special[owner[bit].id] = owner[bit]
            if owner[bit].net == "uwire" or (
                owner[bit].net == "wire"
                and first.strengths == STRONG == process.strengths
                and not (_floats(first) or _floats(process))
            ):
                tell(owner[bit], first, process)
    switched = join_switches(design, lambda signal: _copies(design, signal))
    for signal in special.values():
        if signal.id not in switched:
            _split(design, signal)


def _floats(process: Process) -> bool:
    """Whether a driver lets go of its net at times: several of those on one net are meant."""
    if not isinstance(process.body, Assign):
        return False
    return any(isinstance(e, Tristate) or (isinstance(e, Const) and e.one & e.zero) for e in walk(process.body.value))


def _copies(design: Design, signal: Signal) -> Drivers:
    """Give each driver of a net a wire of its own."""
    found = Drivers([], [], [])
    for process in list(design.processes):
        if process.kind != "continuous" or not any(t.signal is signal for t in targets(process.body)):
            continue
        found.might.append(_might(design, signal, process))
        copy = design.add_signal(f"{signal.name}#{len(found.wires) + 1}", signal.width, "net", signal.position)
        found.wires.append(copy)
        found.strengths.append(process.strengths)
        for t in targets(process.body):
            if t.signal is signal:
                t.signal = copy
    return found


def _split(design: Design, signal: Signal) -> None:
    drivers = _copies(design, signal)
    inputs: list[Expr] = [Ref(signal.width, copy) for copy in drivers.wires]
    if not inputs and signal.net in ("tri0", "tri1"):
        full = ones(signal.width)
        signal.initial = (
            (full, 0) if signal.net == "tri1" else (0, full)
        )  # what pulls it is there from the beginning (4.6.4)
    if signal.net == "trireg":
        inputs.append(Ref(signal.width, signal))
        drivers.might.append(None)
        drivers.strengths.append((signal.charge, signal.charge))  # kept while nothing drives (7.14.2)
        if signal.delay is not None:
            decay(design, signal, drivers.wires)
    body = Assign(
        signal.position, [Target(signal, 0, signal.width)], _value(signal, inputs, drivers.strengths, drivers.might)
    )
    watches = watches_of(stretches_read(body.value))
    if signal.net == "trireg":
        watches = [w for w in watches if w.signal is not signal]
    design.processes.append(Process("continuous", body, watches, signal.position, "resolution", delay=signal.delay))


def decay(design: Design, signal: Signal, drivers: list[Signal]) -> None:
    """A charge that nobody has driven for the third delay of its net is lost (1364 clause 7.14.2)."""
    assert signal.delay is not None
    ticks = signal.delay[2]
    for digit in range(signal.width):
        here: list[Expr] = [Slice(1, Ref(d.width, d), digit) for d in drivers]
        watches = watches_of([(d, digit, 1) for d in drivers])
        is_free: Expr = Const(1, 1, 0)
        for value in here:
            is_free = Binary(1, "and", is_free, Binary(1, "ceq", value, Const(1, 1, 1)))
        at = signal.position
        lost = Assign(at, [Target(signal, digit, 1)], Const(1, 0, 0))
        waited = Delay(at, Const(64, ticks, ones(64) ^ ticks), 1, 1)
        branches: list[Stmt] = [Block(at, [waited, lost, Await(at, watches)]), Await(at, watches)]
        body = Block(at, [WaitUntil(at, is_free, watches), Fork(at, branches, "any"), DisableFork(at)])
        design.processes.append(Process("forever", body, [], at, "decay"))


def _might(design: Design, signal: Signal, process: Process) -> Expr | None:
    """What a three-state driver gives or not while its control is unknown, on a wire of its own; z otherwise."""
    body = process.body
    if not isinstance(body, Assign) or not isinstance(body.value, Tristate) or process.delay is not None:
        return None
    wire = design.add_signal(f"{signal.name}?{process.position}", signal.width, "net", signal.position)
    enable = body.value.enable
    unknown = Binary(1, "ceq", Unary(1, "rxor", enable), Const(1, 0, 0))
    here = [Target(wire, t.low, t.width, t.offsets) for t in body.targets if t.signal is signal]
    if len(here) != len(body.targets):
        return None
    value = Tristate(body.value.width, unknown, body.value.a)
    design.processes.append(
        Process(
            "continuous",
            Assign(process.position, here, value),
            watches_of(stretches_read(value)),
            process.position,
            "resolution",
        )
    )
    return Ref(signal.width, wire)


def _value(signal: Signal, inputs: list[Expr], strengths: list[tuple[int, int]], might: list[Expr | None]) -> Expr:
    special = any(s != STRONG for s in strengths) or any(m is not None for m in might)
    if signal.net not in ("wire", "tri", "uwire") or special or not inputs:
        return Resolve(signal.width, signal.net, inputs, strengths, might)
    value = inputs[0]
    for other in inputs[1:]:
        value = Binary(signal.width, "resolve", value, other)
    return value
