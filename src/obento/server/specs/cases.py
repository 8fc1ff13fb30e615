"""Cases and steps of a spec as they are written on screens."""

from __future__ import annotations

from collections.abc import Sequence

from obento.core.check.expectation.model import Expectation, expected_word
from obento.core.spec.cases import shown_inputs
from obento.core.spec.model import Spec, SpecPort
from obento.server.specs.models import PortView, StepPlace

_MOST_DIGITS = 8


def port_views(spec: Spec) -> list[PortView]:
    return [
        PortView(name=p.name, direction=p.direction, width=p.width, signed=p.signed, radix=p.radix)
        for p in (*spec.inputs, *spec.outputs)
    ]


def brief(port: SpecPort, shown: str) -> str:
    """A value where there is little room: more than eight known digits in hexadecimal."""
    is_long = port.radix == "bin" and port.width > _MOST_DIGITS and len(shown) == port.width
    return f"0x{int(shown, 2):0{(port.width + 3) // 4}x}" if is_long and set(shown) <= {"0", "1"} else shown


def input_values(expectation: Expectation, case: int) -> list[str]:
    """The inputs of a case as they are written; of a step what the clock does."""
    return [values[0] for values in shown_inputs(expectation.spec, expectation.cases, [case])]


def case_labels(expectation: Expectation, chosen: Sequence[int]) -> list[str]:
    """Cases in a narrow list: their inputs; of steps their places before."""
    cases = expectation.cases
    if cases.labels:
        return [cases.labels[case] for case in chosen]
    columns = shown_inputs(expectation.spec, cases, chosen)
    columns = [[brief(p, v) for v in values] for p, values in zip(expectation.spec.inputs, columns, strict=True)]
    inputs = [_side_by_side(values) for values in zip(*columns, strict=True)] if columns else [""] * len(chosen)
    stimulus = cases.stimulus
    if stimulus is None:
        return inputs
    places = (stimulus.place(case) for case in chosen)
    return [f"{sequence.name} {number}: {text}" for (sequence, number), text in zip(places, inputs, strict=True)]


def _side_by_side(values: Sequence[str]) -> str:
    """The inputs of a case; many of one digit in fours."""
    if len(values) <= _MOST_DIGITS or any(len(v) > 1 for v in values):
        return " ".join(values)
    return " ".join("".join(values[i : i + 4]) for i in range(0, len(values), 4))


def case_label(expectation: Expectation, case: int) -> str:
    """One case as in a narrow list."""
    return case_labels(expectation, [case])[0]


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
