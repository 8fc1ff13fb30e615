"""What compiles and runs, but is seldom meant: said once the design is there. (What a process forgets is told by
`check.advice`.)"""

from __future__ import annotations

from dataclasses import dataclass, field

from obento.core.diagnostics import Collector
from obento.core.ir.design import Design, Process
from obento.core.ir.drivers import expressions, functions_called, statements, stretch_bits, stretches_read, targets
from obento.core.ir.nodes import Assign, Block, Hold, If, Stmt, Trigger
from obento.core.ir.signal import Signal
from obento.core.suggest import did_you_mean
from obento.core.verilog.model.scope import Scope


def warn_about(design: Design, implied: list[tuple[Signal, Scope]], collector: Collector) -> None:
    """Look through a design; `implied` are its wires that nobody declared."""
    for process in design.processes:
        if process.kind != "continuous" or process.origin.startswith("always"):
            _mixed_assignment(process.body, collector)
    _two_processes(design, collector)
    for process in design.processes:
        _forgotten_by_reset(process, collector)
    _unused(design, implied, collector)


def _name(signal: Signal) -> str:
    return signal.name.rpartition(".")[2]


def _mixed_assignment(body: Stmt, collector: Collector) -> None:
    kinds: dict[int, set[bool]] = {}
    for s in statements(body):
        if not isinstance(s, Assign):
            continue
        for t in s.targets:
            kinds.setdefault(t.signal.id, set()).add(s.blocking)
            if len(kinds[t.signal.id]) == 2:
                collector.warning(
                    "mixed-assignment",
                    f"`{_name(t.signal)}` is assigned with `=` and with `<=` in one process",
                    s.position,
                    None,
                    "use one of the two for it",
                )


def _forgotten_by_reset(process: Process, collector: Collector) -> None:
    """Registers that the reset of a process leaves as they are, though it wakes by itself: it then works as an enable
    for them."""
    body = process.body
    while isinstance(body, Block) and len(body.body) == 1:
        body = body.body[0]
    edges = [w for w in process.watches if w.edge != "any"]
    if (
        process.kind != "always"
        or len(edges) < 2
        or not isinstance(body, If)
        or body.then is None
        or body.other is None
    ):
        return
    reset = {t.signal.id for t in targets(body.then)}
    told: set[int] = set()
    for s in statements(body.other):
        for t in s.targets if isinstance(s, Assign) and not s.blocking else ():
            if t.signal.id not in reset | told and not t.signal.element:
                told.add(t.signal.id)
                collector.warning(
                    "reset-forgets",
                    f"the reset of this process leaves `{_name(t.signal)}` as it is, and so holds it while it lasts",
                    s.position,
                    None,
                    "set it there too, or give it a process without the reset",
                )


def _two_processes(design: Design, collector: Collector) -> None:
    """Variables of which two processes write the same digits."""
    written: dict[int, int] = {}
    own: dict[tuple[int, int], int] = {}
    told: set[int] = set()
    for process in design.processes:
        if not process.origin.startswith("always"):
            continue
        for target in targets(process.body):
            signal = target.signal
            bits = stretch_bits(target)
            digits = ((1 << len(bits)) - 1) << bits.start
            mine = own.get((signal.id, id(process)), 0)
            others = written.get(signal.id, 0) & digits & ~mine
            written[signal.id] = written.get(signal.id, 0) | digits
            own[signal.id, id(process)] = mine | digits
            alone = process.origin in ("always_comb", "always_latch", "always_ff")  # that is an error of its own
            if (
                others
                and not alone
                and signal.id not in told
                and not signal.name.rpartition(".")[2].startswith(("block", "@"))
            ):
                told.add(signal.id)
                collector.warning(
                    "two-processes",
                    f"`{_name(signal)}` is written by two processes: the last one to run wins",
                    process.position,
                    None,
                    "write it in one process only",
                )


def _unused(design: Design, implied: list[tuple[Signal, Scope]], collector: Collector) -> None:
    """Names that nobody reads, or reads in vain since nobody drives them. One of those that was not declared is likely
    a slip."""
    use = _use_of(design)
    for port in design.ports:
        if port.direction == "in" and port.signal.id not in use.read:
            collector.warning("unused-input", f"input `{port.name}` is never used", port.position)
        if port.direction == "out" and port.signal.id not in use.written and port.signal.initial is None:
            text = f"output `{port.name}` never gets a value"
            collector.warning("undriven", text, port.position, None, "drive it with `assign` or in a process")
    at_ports = {p.signal.id for p in design.ports}
    for signal in design.signals:
        if _floats(signal, use) and signal.id not in at_ports:
            text = f"`{_name(signal)}` is read but nothing drives it: it floats"
            collector.warning("undriven", text, signal.position)
        elif _never_assigned(signal, use) and signal.id not in at_ports:
            text = f"`{_name(signal)}` is read but never given a value"
            collector.warning("never-assigned", text, signal.position, None, "assign it, or give it a start value")
    if collector.shows("warning"):
        _likely_slips([(s, scope) for s, scope in implied if not use.both(s)], implied, collector)


@dataclass(slots=True)
class _Use:
    """Numbers of the signals that something reads, and of those that something writes."""

    read: set[int] = field(default_factory=set)
    written: set[int] = field(default_factory=set)

    def both(self, signal: Signal) -> bool:
        """Whether a signal is read and written."""
        return signal.id in self.read and signal.id in self.written


def _use_of(design: Design) -> _Use:
    """Who reads and writes what: processes, functions, switches, and the world outside through ports."""
    use = _Use()
    bodies: list[Stmt | None] = [p.body for p in (*design.processes, *design.finals)]
    for process in design.processes:
        use.read.update(w.signal.id for w in process.watches)
    for function in {id(f): f for body in bodies for f in functions_called(body)}.values():
        use.written.update(s.id for s in function.storage())
        bodies.append(function.body)
    for body in bodies:
        _add_body(use, body)
    for switch in design.switches:
        ends = {signal.id for signal, _ in (switch.a, switch.b)}
        use.read |= ends
        use.written |= ends
    for port in design.ports:
        if port.direction in ("in", "inout"):
            use.written.add(port.signal.id)
        if port.direction in ("out", "inout"):
            use.read.add(port.signal.id)
    return use


def _add_body(use: _Use, body: Stmt | None) -> None:
    for s in statements(body):
        use.read.update(signal.id for e in expressions(s) for signal, _, _ in stretches_read(e))
        if isinstance(s, Trigger):
            use.written.add(s.signal.id)
        if isinstance(s, Hold):
            use.written.update(t.signal.id for t in s.targets)
    use.written.update(t.signal.id for t in targets(body))


def _floats(signal: Signal, use: _Use) -> bool:
    """Whether a net is read and nothing gives it a value."""
    if signal.kind != "net" or not signal.has_digits or signal.initial is not None or signal.net in ("tri0", "tri1"):
        return False
    return signal.id in use.read and signal.id not in use.written


def _never_assigned(signal: Signal, use: _Use) -> bool:
    """Whether a variable is read and nothing ever gives it a value."""
    if signal.kind == "net" or signal.initial is not None or signal.text or signal.collection is not None:
        return False
    if signal.real and signal.number:
        return False
    return signal.id in use.read and signal.id not in use.written


def _likely_slips(loose: list[tuple[Signal, Scope]], implied: list[tuple[Signal, Scope]], collector: Collector) -> None:
    """Names that nobody declared, with the near one that may have been meant."""
    themselves = {_name(signal) for signal, _ in implied}  # no suggestions for each other
    for signal, scope in loose:
        name = _name(signal)
        near = did_you_mean(name, (n for n in scope.all_names() if n not in themselves))
        if near:
            text = f"`{name}` is not declared and becomes a one-bit wire of its own"
            collector.warning("implicit-wire", text, signal.position, None, near)
