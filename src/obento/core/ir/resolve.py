"""Nets with several drivers: each driver gets a wire of its own, and one more process resolves them."""

from __future__ import annotations

from collections.abc import Callable

from obento.core.ir.design import Design, Process, Signal, Watch
from obento.core.ir.drivers import targets, written_bits
from obento.core.ir.nodes import Assign, Binary, Expr, Ref, Target


def resolve_drivers(design: Design, tell: Callable[[Signal, Process, Process], None]) -> None:
    """Rewrite every net of which a bit has more than one driver (1364 clause 7.10, nets of kind `wire`).

    `tell` hears of each such net, with the first two processes that meet on it.
    """
    writer: dict[int, Process] = {}
    shared: dict[int, Signal] = {}
    owner = {signal.offset + i: signal for signal in design.signals for i in range(signal.width)}
    for process in design.processes:
        if process.kind != "continuous":
            continue
        for bit in written_bits(process):
            first = writer.setdefault(bit, process)
            if first is not process and owner[bit].kind == "net" and owner[bit].id not in shared:
                shared[owner[bit].id] = owner[bit]
                tell(owner[bit], first, process)
    for signal in shared.values():
        _split(design, signal)


def _split(design: Design, signal: Signal) -> None:
    copies: list[Signal] = []
    for process in list(design.processes):
        mine = [t for t in targets(process.body) if t.signal is signal]
        if not mine or process.kind != "continuous":
            continue
        copy = design.add_signal(f"{signal.name}#{len(copies) + 1}", signal.width, "net", signal.position)
        copies.append(copy)
        for t in mine:
            t.signal = copy
    value: Expr = Ref(signal.width, copies[0])
    for copy in copies[1:]:
        value = Binary(signal.width, "resolve", value, Ref(signal.width, copy))
    body = Assign(signal.position, [Target(signal, 0, signal.width)], value)
    watches = [Watch(c, "any", 0, c.width) for c in copies]
    design.processes.append(Process("continuous", body, watches, signal.position, "resolution"))
