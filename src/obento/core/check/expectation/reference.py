"""The inner wires of the reference: what the spec's equations and models have beside their outputs."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from obento.core.check.expectation.cases import equation_design, read_model
from obento.core.check.running.binding import Binding, bind_ports
from obento.core.check.running.cases import observe
from obento.core.check.running.observation import Planes
from obento.core.check.running.steps import observe_steps
from obento.core.diagnostics import Collector
from obento.core.ir.design import Design, Port
from obento.core.limits import Limits
from obento.core.spec.cases import Cases
from obento.core.spec.model import Spec

_MOST_WIRES = 400


@dataclass(frozen=True, slots=True)
class Known:
    """A wire of the reference: the planes of its digits from the right, unknown ones with a 0 on both rails."""

    name: str
    planes: tuple[Planes, ...]


def known_wires(spec: Spec, others: Mapping[str, bytes], cases: Cases, limits: Limits) -> list[Known]:
    """All named wires that a reference has in these cases: of the equations first, then of the models."""
    found: list[Known] = []
    if spec.equations is not None and cases.stimulus is None:
        made = equation_design(spec, Collector(), True)
        if made is not None:
            found += _wires(spec, made[0], cases, limits)
    for model in spec.models:
        _, design = read_model(spec, model, others, limits)
        if design is not None and not any(p.unfit for p in design.parts):
            found += _wires(spec, design, cases, limits)
    return found


def _wires(spec: Spec, design: Design, cases: Cases, limits: Limits) -> Iterator[Known]:
    binding = bind_ports(spec, design)
    inputs = {p.signal.id for p in design.ports if p.direction == "in"}
    signals = [
        s for s in design.signals if s.id not in inputs and not s.element and s.has_digits and " " not in s.name
    ][:_MOST_WIRES]
    bits = dict(binding.bits)
    for s in signals:
        port = Port(f"wire {s.id}", "out", s, False)
        design.ports.append(port)
        bits |= {(port.name, i): (port, i) for i in range(s.width)}
    run = observe if cases.stimulus is None else observe_steps
    observation = run(design, Binding(binding.ports, bits, [], binding.floating), spec.inputs, cases, limits)
    if observation.limit is not None:
        return
    outputs = observation.runs[0].outputs
    for s in signals:
        planes = [outputs[f"wire {s.id}", i] for i in range(s.width)]
        yield Known(s.name.rpartition(".")[2], tuple((one & ~zero, zero & ~one) for one, zero in planes))
