"""Use a whole Design as a block inside another, whatever languages the two were written in."""

from __future__ import annotations

from obento.core.ir.design import Design, Instance, Port


def embed(outer: Design, inner: Design, name: str) -> list[Port]:
    """Move the signals and processes of a freshly made `inner` into `outer`; its ports are then to be connected.

    `name` is its place in the hierarchy, with or without the outer unit at its head, as that names its signals.
    """
    path = name if name.startswith(f"{outer.unit}.") else f"{outer.unit}.{name}"
    for signal in inner.signals:
        signal.id = len(outer.signals)
        signal.offset = outer.bits
        signal.name = f"{name}.{signal.name}"
        outer.bits += signal.width
        outer.signals.append(signal)
    for process in inner.processes:
        process.path = path + process.path.removeprefix(inner.unit)
    for part in inner.library:
        part.path = path + part.path.removeprefix(inner.unit)
    outer.library += inner.library
    outer.processes += inner.processes
    outer.functions += inner.functions
    outer.switches += inner.switches
    outer.parts += inner.parts
    outer.escapes += inner.escapes
    outer.errors += inner.errors
    outer.kept += inner.kept
    if inner.parts and outer.language == "wiring":  # a wiring list has no times of its own
        outer.precision = min(outer.precision, inner.precision)
    return inner.ports


def instance_of(inner: Design, name: str, unit: str, position: int) -> Instance:
    """A design as an instance of another, for people."""
    return Instance(name, unit, position, inner.root.children if inner.root is not None else [])
