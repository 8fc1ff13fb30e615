"""Cases and steps of a spec as they are written on screens."""

from __future__ import annotations

from obento.core.check.expectation.model import Expectation, expected_word
from obento.core.spec.model import Spec
from obento.server.specs.models import PortView, StepPlace


def port_views(spec: Spec) -> list[PortView]:
    return [
        PortView(name=p.name, direction=p.direction, width=p.width, signed=p.signed, radix=p.radix)
        for p in (*spec.inputs, *spec.outputs)
    ]


def input_values(expectation: Expectation, case: int) -> list[str]:
    """The inputs of a case as they are written; of a step what the clock does."""
    spec, cases = expectation.spec, expectation.cases
    values = []
    bit = 0
    for port in spec.inputs:
        is_clock = cases.stimulus is not None and spec.clock is not None and port.name == spec.clock.port
        values.append(
            cases.stimulus.actions[case]
            if is_clock and cases.stimulus
            else port.show(cases.word(case, bit, port.width))
        )
        bit += port.width
    return values


def case_label(expectation: Expectation, case: int) -> str:
    """A case in a narrow list: its inputs; of a step its place before."""
    stimulus = expectation.cases.stimulus
    if expectation.cases.labels:
        return expectation.cases.labels[case]
    inputs = " ".join(input_values(expectation, case))
    if stimulus is None:
        return inputs
    sequence, number = stimulus.place(case)
    return f"{sequence.name} {number}: {inputs}"


def case_name(expectation: Expectation, case: int) -> str:
    """The name of a case that has no inputs: a check of a bench."""
    return expectation.cases.labels[case] if expectation.cases.labels else ""


def step_place(expectation: Expectation, case: int, follows: int = 0) -> StepPlace | None:
    """Where a step is; None without a clock."""
    stimulus = expectation.cases.stimulus
    if stimulus is None:
        return None
    sequence, number = stimulus.place(case)
    return StepPlace(
        sequence=sequence.name, number=number, clock=stimulus.actions[case], follows=bool(follows >> case & 1)
    )


def expected_values(expectation: Expectation, case: int) -> list[str]:
    return [p.show(*expected_word(expectation, p.name, p.width, case)) for p in expectation.spec.outputs]
