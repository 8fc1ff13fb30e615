"""Use a whole Design as a block inside another, whatever languages the two were written in."""

from __future__ import annotations

from obento.core.ir.design import Design, Port


def embed(outer: Design, inner: Design, name: str) -> list[Port]:
    """Move the signals and processes of a freshly made `inner` into `outer`; its ports are then to be connected."""
    for signal in inner.signals:
        signal.id = len(outer.signals)
        signal.offset = outer.bits
        signal.name = f"{name}.{signal.name}"
        outer.bits += signal.width
        outer.signals.append(signal)
    for process in inner.processes:
        process.path = f"{outer.unit}.{name}" + process.path.removeprefix(inner.unit)
    outer.processes += inner.processes
    outer.functions += inner.functions
    outer.switches += inner.switches
    outer.parts += inner.parts
    outer.escapes += inner.escapes
    if inner.parts and outer.language == "wiring":  # a wiring list has no times of its own
        outer.precision = min(outer.precision, inner.precision)
    return inner.ports
