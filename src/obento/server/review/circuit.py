"""A hand-in as a drawing, driven by hand, and changed in a scratch copy."""

from __future__ import annotations

from dataclasses import asdict, replace

from obento.core import values
from obento.core.check.expectation.model import Expectation
from obento.core.check.inspecting.by_hand import ByHand, Move
from obento.core.check.inspecting.wires import Inside
from obento.core.check.judging.outcome import Checked
from obento.core.check.judging.verdict import Verdict
from obento.core.planes import set_bits
from obento.runner.worker import HandTask, InsideTask, Task
from obento.server.cases.rows import case_rows
from obento.server.errors import Trouble
from obento.server.models import MessageView
from obento.server.review.circuit_models import (
    CircuitPart,
    CircuitPin,
    CircuitView,
    CircuitWire,
    HandMove,
    HandOutput,
    HandView,
    ScratchFile,
    WhatIfView,
    WireLikeness,
)


def circuit_view(inside: Inside | str | None) -> CircuitView:
    """The drawing as the screen gets it."""
    if inside is None or isinstance(inside, str):
        return CircuitView(trouble=inside or "this hand-in cannot be built")
    circuit = inside.circuit
    parts = [
        CircuitPart(
            id=p.id,
            kind=p.kind,
            label=p.label,
            unit=p.unit,
            within=p.within,
            file=place.file,
            line=place.line,
            end_line=last,
            pins=[
                CircuitPin(id=n.id, side=n.side, name=n.name, bits=list(n.bits), inverted=n.inverted, edge=n.edge)
                for n in p.pins
            ],
        )
        for p, (place, last) in zip(circuit.parts, inside.places, strict=True)
    ]
    return CircuitView(
        parts=parts,
        wires=[CircuitWire(start=w.start, end=w.end, label=w.label) for w in circuit.wires],
        names={
            bit: name if i is None else f"{name}[{i}]"
            for bit, (name, i) in circuit.names.items()
            if bit in inside.digits
        },
        cases=inside.cases,
        digits=inside.digits,
        explains=inside.explains,
        likeness=[
            WireLikeness(pin=k.pin, name=k.name, how=k.how, differs=list(k.differs), count=k.count)
            for k in inside.likeness
        ],
    )


def inside_task(task: Task, cases: list[int]) -> InsideTask:
    return InsideTask(task, tuple(cases))


def hand_task(expectation: Expectation, task: Task, moves: list[HandMove]) -> HandTask:
    """Moves as the core takes them.

    Raises
    ------
    Trouble
        If they do not fit the inputs.
    """
    inputs = expectation.spec.inputs
    made = []
    for move in moves:
        if [len(digits) for digits in move.inputs] != [p.width for p in inputs]:
            raise Trouble(422, f"a move sets {', '.join(p.name for p in inputs)}, each with all its digits")
        if move.action != "." and expectation.spec.clock is None:
            raise Trouble(422, "there is no clock to move")
        made.append(Move(tuple(values.from_digits(d) for d in move.inputs), move.action))
    return HandTask(task, tuple(made))


def hand_view(expectation: Expectation, found: ByHand) -> HandView:
    outputs = []
    for port, (got, expected, care) in zip(expectation.spec.outputs, found.outputs, strict=True):
        wrong = ((got[0] ^ expected[0]) | (got[1] ^ expected[1])) & care
        outputs.append(
            HandOutput(name=port.name, got=port.show(got), expected=port.show(expected, care), wrong=bool(wrong))
        )
    return HandView(outputs=outputs, digits=found.digits, trouble=found.trouble)


def scratch_task(task: Task, files: list[ScratchFile]) -> Task:
    """The same hand-in with some of its texts changed.

    Raises
    ------
    Trouble
        If a file is none of the hand-in's.
    """
    changed = {f.path: f.text.encode() for f in files}
    unknown = changed.keys() - {f.path for f in task.files}
    if unknown:
        raise Trouble(422, f"{min(unknown)} is no file of this hand-in")
    return replace(task, files=tuple(replace(f, data=changed.get(f.path, f.data)) for f in task.files))


def what_if_view(expectation: Expectation, before: Verdict, checked: Checked, order: list[int]) -> WhatIfView:
    """A scratch copy's outcome beside that of the hand-in."""
    verdict = checked.verdict
    total = expectation.cases.count
    rows = case_rows(expectation, verdict, order) if verdict is not None else []
    after = verdict.right if verdict is not None else 0
    return WhatIfView(
        status=checked.status,
        passed=after.bit_count(),
        total=total,
        turned_right=set_bits(after & ~before.right),
        turned_wrong=set_bits(before.right & ~after),
        rows=rows,
        messages=[MessageView(**asdict(m)) for m in checked.messages],
        findings=[f.text for f in checked.findings],
    )
