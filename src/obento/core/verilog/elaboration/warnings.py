"""What compiles and runs, but is seldom meant: said once the design is there. (What a process forgets is told by
`check.advice`.)"""

from __future__ import annotations

from obento.core.diagnostics import Collector
from obento.core.ir.design import Design
from obento.core.ir.drivers import expressions, functions_called, statements, stretch_bits, stretches_read, targets
from obento.core.ir.nodes import Assign, Hold, Stmt
from obento.core.ir.signal import Signal
from obento.core.suggest import did_you_mean
from obento.core.verilog.model.scope import Scope


def warn_about(design: Design, implied: list[tuple[Signal, Scope]], collector: Collector) -> None:
    """Look through a design; `implied` are its wires that nobody declared."""
    for process in design.processes:
        if process.kind != "continuous" or process.origin.startswith("always"):
            _mixed_assignment(process.body, collector)
    _two_processes(design, collector)
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


def _two_processes(design: Design, collector: Collector) -> None:
    """Variables of which two processes write the same digits."""
    writers: dict[int, dict[tuple[range, int], None]] = {}
    told: set[int] = set()
    for process in design.processes:
        if not process.origin.startswith("always"):
            continue
        for target in targets(process.body):
            signal = target.signal
            bits = stretch_bits(target)
            known = writers.setdefault(signal.id, {})
            if (bits, id(process)) in known:
                continue
            others = any(p != id(process) and r.start < bits.stop and bits.start < r.stop for r, p in known)
            known[bits, id(process)] = None
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
    read: set[int] = set()
    written: set[int] = set()
    bodies: list[Stmt | None] = [p.body for p in (*design.processes, *design.finals)]
    for process in design.processes:
        read.update(w.signal.id for w in process.watches)
    for function in {id(f): f for body in bodies for f in functions_called(body)}.values():
        written.update(s.id for s in function.storage())
        bodies.append(function.body)
    for body in bodies:
        for s in statements(body):
            read.update(signal.id for e in expressions(s) for signal, _, _ in stretches_read(e))
            if isinstance(s, Hold):
                written.update(t.signal.id for t in s.targets)
        written.update(t.signal.id for t in targets(body))
    for switch in design.switches:
        for signal, _ in (switch.a, switch.b):
            read.add(signal.id)
            written.add(signal.id)
    for port in design.ports:
        (written if port.direction == "in" else read).add(port.signal.id)
        if port.direction == "inout":
            written.add(port.signal.id)
        if port.direction == "in" and port.signal.id not in read:
            collector.warning("unused-input", f"input `{port.name}` is never used", port.position)
        if port.direction == "out" and port.signal.id not in written and port.signal.initial is None:
            collector.warning(
                "undriven",
                f"output `{port.name}` never gets a value",
                port.position,
                None,
                "drive it with `assign` or in a process",
            )
    for signal in design.signals:
        if (
            signal.id in read
            and signal.id not in written
            and signal.initial is None
            and not signal.real
            and signal.kind == "net"
        ):
            if signal.net not in ("tri0", "tri1") and not any(p.signal is signal for p in design.ports):
                collector.warning(
                    "undriven", f"`{_name(signal)}` is read but nothing drives it: it floats", signal.position
                )
    themselves = {_name(signal) for signal, _ in implied}  # no suggestions for each other
    for signal, scope in implied:
        if (signal.id in read and signal.id in written) or not collector.shows("warning"):
            continue
        name = _name(signal)
        near = did_you_mean(name, (n for n in scope.all_names() if n not in themselves))
        if near:
            collector.warning(
                "implicit-wire",
                f"`{name}` is not declared and becomes a one-bit wire of its own",
                signal.position,
                None,
                near,
            )
