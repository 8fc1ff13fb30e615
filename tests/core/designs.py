"""Run small texts through the engines."""

from __future__ import annotations

from obento.core import values as v
from obento.core.handin import HandinFile, read_handin
from obento.core.ir.design import Design
from obento.core.limits import Limits
from obento.core.sim.event_driven import EventDriven
from obento.core.sim.lanes.bits import Unfit
from obento.core.sim.levelized import HasMemory, Inputs, Levelized
from obento.core.sim.timeline.kernel import DidNotSettle, Timeline

LIMITS = Limits(deltas=200)


def build(text: str, unit: str = "m", name: str = "a.v") -> Design:
    """The design of a unit; fails with the messages when it cannot be built."""
    reading = read_handin([HandinFile(name, text.encode())], LIMITS)
    design = reading.elaborate(unit) if unit in reading.units and not reading.collector.errors else None
    assert design is not None, [str(m) for m in reading.messages()]
    return design


def messages(text: str, unit: str = "m", name: str = "a.v", texts: bool = False) -> list[str]:
    """All messages of reading and building, as `line:column severity code`, with their words where these are wanted."""
    reading = read_handin([HandinFile(name, text.encode())], LIMITS)
    if unit in reading.units and not reading.collector.errors:
        reading.elaborate(unit)
    said = [f"{m.line}:{m.column} {m.severity} {m.code}" for m in reading.messages()]
    return [f"{one} {m.text}" for one, m in zip(said, reading.messages(), strict=True)] if texts else said


Case = dict[str, v.Word]


def on_timeline(design: Design, sequence: list[Case]) -> list[str] | None:
    """Outputs after a sequence of inputs; None when it does not settle."""
    timeline = Timeline(design, LIMITS)
    try:
        timeline.power_up()
        for case in sequence:
            timeline.apply(case)
    except DidNotSettle:
        return None
    return [v.to_digits(timeline.value(p.name), p.signal.width) for p in design.ports if p.direction != "in"]


def in_lanes(design: Design, sequences: list[list[Case]]) -> list[list[str] | None]:
    """The same for many sequences of one length, side by side."""
    lanes = EventDriven(design, LIMITS, inputs_may_float=True)
    count = len(sequences)
    stopped = lanes.power_up(v.ones(count))
    for step in range(len(sequences[0])):
        planes = {}
        for port in design.ports:
            if port.direction != "in" or port.name not in sequences[0][step]:
                continue
            for i in range(port.signal.width):
                one = sum((s[step][port.name][0] >> i & 1) << lane for lane, s in enumerate(sequences))
                zero = sum((s[step][port.name][1] >> i & 1) << lane for lane, s in enumerate(sequences))
                planes[port.signal.offset + i] = (one, zero)
        stopped |= lanes.apply(planes)
    out: list[list[str] | None] = []
    for lane in range(count):
        if stopped >> lane & 1:
            out.append(None)
            continue
        words = []
        for port in design.ports:
            if port.direction != "in":
                bits = [lanes.planes(port.signal.offset + i) for i in range(port.signal.width)]
                words.append("".join("x10z"[(a >> lane & 1) | (b >> lane & 1) << 1] for a, b in reversed(bits)))
        out.append(words)
    return out


def levelized(design: Design, cases: list[Case], inputs: Inputs = "known") -> list[list[str]] | None:
    """Outputs by the levelized tape, of known inputs or of any; None when the design may remember."""
    try:
        tape = Levelized(design, LIMITS, inputs=inputs)
    except (HasMemory, Unfit):
        return None
    where = {p.signal.offset + i: (p.name, i) for p in design.ports for i in range(p.signal.width)}
    planes = []
    for bit in tape.input_bits:
        name, i = where[bit]
        for rail in (0,) if inputs == "known" else (0, 1):
            planes.append(sum((case[name][rail] >> i & 1) << lane for lane, case in enumerate(cases)))
    found = tape.run(planes, v.ones(len(cases)))
    out = []
    for lane in range(len(cases)):
        words = []
        for port in design.ports:
            if port.direction != "in":
                bits = [found[port.signal.offset + i] for i in range(port.signal.width)]
                words.append("".join("x10z"[(a >> lane & 1) | (b >> lane & 1) << 1] for a, b in reversed(bits)))
        out.append(words)
    return out


def known_cases(design: Design) -> list[Case]:
    """Every combination of known inputs."""
    inputs = [p for p in design.ports if p.direction == "in"]
    total = sum(p.signal.width for p in inputs)
    cases = []
    for n in range(1 << total):
        case, low = {}, total
        for p in inputs:
            low -= p.signal.width
            case[p.name] = v.word(n >> low, p.signal.width)
        cases.append(case)
    return cases


def agree(design: Design) -> list[list[str] | None]:
    """All engines on every case, fresh; fails where they differ."""
    cases = known_cases(design)
    truth = [on_timeline(design, [case]) for case in cases]
    try:
        lanes = in_lanes(design, [[case] for case in cases])
    except Unfit:
        lanes = truth  # it needs a single line of time
    assert lanes == truth
    tape = levelized(design, cases)
    if tape is not None:
        assert tape == truth
    return truth


def outputs(text: str, unit: str = "m", name: str = "a.v") -> list[str]:
    """Outputs for every case as one text each, all engines agreeing."""
    return ["*" if r is None else " ".join(r) for r in agree(build(text, unit, name))]
