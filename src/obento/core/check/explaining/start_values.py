"""Steps that are right only thanks to start values of registers: found by taking those away and running once more."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, replace

from obento.core.check.expectation.model import Expectation
from obento.core.check.explaining.clocking import clocked_assignments
from obento.core.check.judging.ready import Ready
from obento.core.check.judging.verdict import judge
from obento.core.check.running.binding import Binding
from obento.core.check.running.steps import observe_steps
from obento.core.diagnostics import Collector
from obento.core.ir.design import Design
from obento.core.ir.drivers import written_bits
from obento.core.limits import LimitReached, Limits
from obento.core.vhdl.syntax import ast as vhdl


@dataclass(frozen=True, slots=True)
class Relied:
    """How many steps, and where the first of the values stands."""

    steps: int
    position: int


def relies_on_start(expectation: Expectation, ready: Ready, right: int, limits: Limits) -> Relied | None:
    """The steps of `right` (a plane) that would not be right without start values; None where there are none."""
    with _bare_vhdl(ready) if ready.design.parts else _bare_verilog(ready) as bare:
        if bare is None:
            return None
        verdict = judge(
            expectation, observe_steps(bare.design, bare.binding, expectation.spec.inputs, expectation.cases, limits)
        )
    steps = (right & ~verdict.right).bit_count()
    return Relied(steps, bare.position) if steps else None


@dataclass(frozen=True, slots=True)
class _Bare:
    """A design without start values, and where the first of them stood."""

    design: Design
    binding: Binding
    position: int


@contextmanager
def _bare_verilog(ready: Ready) -> Iterator[_Bare | None]:
    """The design, for a while, without what gives its registers values before the first edge."""
    design = ready.design
    registers = {t.signal.id for s in clocked_assignments(design) for t in s.targets}
    bits = {s.offset + i for s in design.signals if s.id in registers for i in range(s.width)}
    starts = [p for p in design.processes if p.kind == "initial" and written_bits(p) & bits]
    given = [(s, s.initial) for s in design.signals if s.id in registers and s.initial is not None]
    places = [*(p.position for p in starts), *(s.position for s, _ in given)]
    if not places:
        yield None
        return
    for s, _ in given:
        s.initial = None
    try:
        yield _Bare(
            replace(design, processes=[p for p in design.processes if all(p is not x for x in starts)]),
            ready.binding,
            min(places),
        )
    finally:
        for s, initial in given:
            s.initial = initial


@contextmanager
def _bare_vhdl(ready: Ready) -> Iterator[_Bare | None]:
    """The entity built once more without the values in its declarations."""
    declared = [d for d in _objects(ready) if d.default is not None]
    with _without_values(ready, declared):
        try:
            design = ready.reading.elaborate(ready.unit.name) if declared else None
        except LimitReached:
            design = None
    if design is None:
        yield None
        return
    bits = {key: (design.port(port.name), i) for key, (port, i) in ready.binding.bits.items()}
    floating = [design.port(p.name) for p in ready.binding.floating]
    yield _Bare(design, replace(ready.binding, bits=bits, floating=floating), declared[0].pos)


def _objects(ready: Ready) -> Iterator[vhdl.ObjectDecl]:
    """Signals of architectures and variables of their processes."""
    for architectures in ready.reading.design_units.architectures.values():
        for architecture in architectures:
            yield from (d for d in architecture.decls if isinstance(d, vhdl.ObjectDecl) and d.kind == "signal")
            for item in architecture.body:
                if isinstance(item, vhdl.Process):
                    yield from (d for d in item.decls if isinstance(d, vhdl.ObjectDecl) and d.kind == "variable")


@contextmanager
def _without_values(ready: Ready, declared: list[vhdl.ObjectDecl]) -> Iterator[None]:
    """Take values out of declarations for a while; what is said meanwhile is not for the hand-in's reader."""
    values = [d.default for d in declared]
    collector, ready.reading.collector = ready.reading.collector, Collector()
    for d in declared:
        d.default = None
    try:
        yield
    finally:
        ready.reading.collector = collector
        for d, value in zip(declared, values, strict=True):
            d.default = value
