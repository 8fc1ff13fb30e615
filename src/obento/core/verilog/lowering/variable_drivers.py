"""Who may write a variable of a .sv file (IEEE 1800-2017 clauses 6.5 and 9.2.2).

A variable takes one continuous assignment, and no procedural one beside it; what `always_comb`, `always_latch` or
`always_ff` writes is written by no other process. The rules hold digit by digit: parts of one vector may have writers
of their own. Two plain `always` on one variable are legal."""

from __future__ import annotations

from obento.core.diagnostics import Collector, Severity
from obento.core.ir.design import Design, Process
from obento.core.ir.drivers import all_targets, statements, stretch_bits
from obento.core.ir.nodes import Assign, TaskCall
from obento.core.ir.signal import Signal

_ALONE = frozenset(["always_comb", "always_latch", "always_ff"])
_CONTINUOUS = frozenset(["assign", "port"])


def check_variable_drivers(design: Design, variables: set[int], collector: Collector) -> None:
    """Report each of the `variables` (numbers of signals) once whose writers exclude each other."""
    writers: dict[int, list[tuple[range, Process]]] = {}
    told: set[int] = set()
    for process in design.processes:
        if process.origin not in _CONTINUOUS | _ALONE | {"always", "initial"}:
            continue
        for signal, bits in _written(process):
            if signal.id not in variables or signal.id in told or signal.automatic:
                continue
            known = writers.setdefault(signal.id, [])
            meets = [
                other
                for own, other in known
                if other is not process and own.start < bits.stop and bits.start < own.stop
            ]
            problem = next(filter(None, (_problem(process, other) for other in meets)), None)
            if problem is not None:
                told.add(signal.id)
                severity, text, hint = problem
                name = signal.name.rpartition(".")[2]
                collector.add(severity, "variable-drivers", f"`{name}` {text}", process.position, None, hint)
            known.append((bits, process))


def _written(process: Process) -> list[tuple[Signal, range]]:
    """The variables that a process assigns, with the digits; what it only forces is no assignment of its own."""
    assigned = {t.signal.id for s in statements(process.body) if isinstance(s, Assign) for t in s.targets}
    called = any(isinstance(s, TaskCall) for s in statements(process.body))
    found = {
        (t.signal.id, stretch_bits(t)): t.signal for t in all_targets(process.body) if called or t.signal.id in assigned
    }
    return [(signal, bits) for (_, bits), signal in found.items()]


def _problem(a: Process, b: Process) -> tuple[Severity, str, str] | None:
    """What is wrong with two writers of the same digits: how severe, what, and what to do."""
    kinds = {a.origin, b.origin}
    if kinds <= _CONTINUOUS:
        return (
            "error",
            "has two continuous assignments: a variable takes one (1800 clause 6.5)",
            "assign it in one place, or declare it as `wire`",
        )
    if kinds & _CONTINUOUS:
        text = "is assigned continuously and in a process: a variable takes one or the other (1800 clause 6.5)"
        return "error", text, "assign it in one place only"
    alone = next((o for o in (a.origin, b.origin) if o in _ALONE), None)
    if alone is None:
        return None
    text = f"is written by `{alone}` and by another process (1800 clause 9.2.2)"
    if "initial" in kinds:
        return "warning", text, "give the start value in its declaration"
    return "error", text, "write it in one process only"
