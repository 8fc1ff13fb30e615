"""What is on the wires of a hand-in in every case, and which wire could be the reason that it is wrong.

A wire *explains* the wrong cases when in each of them some other value on it, and on it alone, would make all outputs
right. That is tried, not reasoned: every wire is turned in every wrong case, all of these side by side in lanes."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from obento.core.check.expectation.model import Expectation, with_cases
from obento.core.check.expectation.reference import Known, known_wires
from obento.core.check.judging.ready import Ready, make_ready
from obento.core.check.judging.verdict import judge
from obento.core.check.running.binding import Binding
from obento.core.check.running.cases import observe
from obento.core.check.running.observation import Observation, Planes
from obento.core.check.running.steps import observe_steps
from obento.core.circuit.draw import Drawing, TooLarge, draw
from obento.core.circuit.flips import Flips
from obento.core.circuit.model import Bits, Circuit
from obento.core.handin import HandinFile
from obento.core.ir.design import Design, Port
from obento.core.limits import LimitReached, Limits
from obento.core.planes import set_bits
from obento.core.source import Place
from obento.core.spec.cases import Cases
from obento.core.spec.model import SpecPort

MOST_LANES = 65_536
_SAMPLE = 24
_DIGITS = {(1, 0): "1", (0, 1): "0", (0, 0): "x", (1, 1): "z"}
_WATCH = "wire"


@dataclass(frozen=True, slots=True)
class Likeness:
    """What a wire is beside the reference: `name` of its wire. By name it may differ, in `count` cases, of which
    `differs` are among those looked at; otherwise it is the same in every case, or (`inverse`) the opposite in every
    case."""

    pin: int
    name: str
    how: str
    differs: tuple[int, ...] = ()
    count: int = 0


@dataclass(slots=True)
class Inside:
    """A circuit with the values of its wires.

    `digits` gives for each bit one digit a case, in the order of `cases`. `explains` are the pins whose wires are the
    earliest that can explain all wrong cases. `places` gives for each part its file, first and last line."""

    circuit: Circuit
    places: list[tuple[Place, int]]
    cases: list[int]
    digits: dict[int, str]
    explains: list[int] = field(default_factory=list)
    likeness: list[Likeness] = field(default_factory=list)
    is_levelled: bool = False


def look_inside(
    expectation: Expectation,
    files: Sequence[HandinFile],
    provided: Sequence[HandinFile],
    choices: Mapping[str, str],
    wanted: Sequence[int],
    others: Mapping[str, bytes],
    limits: Limits | None = None,
) -> Inside | str | None:
    """The drawing of a hand-in and what its wires are in the cases `wanted`.

    A sentence where it cannot be drawn; None where it cannot be run at all.

    Parameters
    ----------
    provided
        The lab's own files that every hand-in may use.
    choices
        Settled by a person: our port (or the unit's name) -> theirs.
    wanted
        Numbers of the cases whose values are wanted.
    others
        Files beside the spec, by name. A reference model may be among them.
    """
    limits = limits or Limits()
    made = open_circuit(expectation, files, provided, choices, limits)
    if not isinstance(made, Opened):
        return made
    result = values_inside(expectation, made, wanted, others, limits)
    if isinstance(result, str):
        return result
    if expectation.cases.stimulus is None and result.is_levelled:
        result.explains = _explaining(expectation, files, provided, choices, limits)
    return result


def values_inside(
    expectation: Expectation, made: Opened, wanted: Sequence[int], others: Mapping[str, bytes], limits: Limits
) -> Inside | str:
    """What the wires of something that was drawn are in the cases `wanted`; a sentence where that took too long."""
    ready, drawing = made.ready, made.drawing
    binding = _watched(ready.design, ready.binding, drawing.circuit)
    run = observe if expectation.cases.stimulus is None else observe_steps
    observation = run(ready.design, binding, expectation.spec.inputs, expectation.cases, limits)
    if observation.limit is not None:
        return observation.limit.text
    shown = judge(expectation, observation).shown
    planes = {bit: shown[key] for bit, key in _watch_keys(ready.design, drawing.circuit).items()}
    result = Inside(
        drawing.circuit,
        made.places,
        list(wanted),
        {bit: _column(p, expectation.cases.count, wanted) for bit, p in planes.items()},
        is_levelled=observation.engine == "levelized",
    )
    known = known_wires(expectation.spec, others, expectation.cases, limits)
    inputs = {b for p in ready.design.ports if p.direction == "in" for b in _bits_of(p)}
    result.likeness = _likeness(result, planes, known, expectation.cases.full, inputs)
    return result


@dataclass(slots=True)
class Opened:
    """A hand-in ready to be run, its drawing, and for each part its place and last line."""

    ready: Ready
    drawing: Drawing
    places: list[tuple[Place, int]]


def open_circuit(
    expectation: Expectation,
    files: Sequence[HandinFile],
    provided: Sequence[HandinFile],
    choices: Mapping[str, str],
    limits: Limits,
) -> Opened | str | None:
    """Build and draw a hand-in; a sentence where it cannot be drawn, None where it cannot be run."""
    ready = make_ready(expectation.spec, files, provided, limits, choices)
    return drawn(ready) if isinstance(ready, Ready) else None


def drawn(ready: Ready) -> Opened | str:
    """What is ready to be run, drawn; a sentence where it cannot be."""
    unfit = next((p.unfit for p in ready.design.parts if p.unfit), "")
    if unfit:
        return f"there is no drawing: {unfit}"
    sources = ready.reading.sources

    def text_at(position: int) -> str:
        file = sources.file_at(position)
        return file.text[position - file.base :].partition("\n")[0].strip() if file else ""

    try:
        drawing = draw(ready.design, text_at)
    except TooLarge as error:
        return f"there is no drawing: {error}"
    ready.design.is_seen_inside = True
    places = [(sources.place(p.start), sources.place(p.end).line) for p in drawing.circuit.parts]
    return Opened(ready, drawing, places)


# Values.


def _bits_of(port: Port) -> range:
    return range(port.signal.offset, port.signal.offset + port.signal.width)


def _watch_keys(design: Design, circuit: Circuit) -> dict[int, tuple[str, int]]:
    """A key for each bit that some pin carries."""
    wanted = {b for pin in circuit.pins() for b in pin.bits if b >= 0}
    return {
        s.offset + i: (f"{_WATCH} {s.id}", i) for s in design.signals for i in range(s.width) if s.offset + i in wanted
    }


def _watched(design: Design, binding: Binding, circuit: Circuit) -> Binding:
    """A binding by which the wires are outputs like others; they become ports of the design."""
    bits = dict(binding.bits)
    ports: dict[int, Port] = {}
    by_offset = {s.offset + i: s for s in design.signals for i in range(s.width)}
    for bit, key in _watch_keys(design, circuit).items():
        signal = by_offset[bit]
        if signal.id not in ports:
            ports[signal.id] = Port(key[0], "out", signal, False)
        bits[key] = ports[signal.id], key[1]
    inputs = {p.signal.id for p in design.ports if p.direction == "in"}
    design.ports += [p for p in ports.values() if p.signal.id not in inputs]
    for number, port in ports.items():
        if number in inputs:  # an input cannot be an output too: it is looked at through a copy
            bits |= {(port.name, i): (_copy(design, port), i) for i in range(port.signal.width)}
    return Binding(binding.ports, bits, binding.problems, binding.floating)


def _copy(design: Design, port: Port) -> Port:
    known = next((p for p in design.ports if p.name == port.name), None)
    if known is None:
        known = Port(port.name, "out", Flips.copy_of(design, port.signal), False)
        design.ports.append(known)
    return known


def _column(planes: tuple[int, int], count: int, columns: Sequence[int]) -> str:
    size = count // 8 + 1
    one, zero = planes[0].to_bytes(size, "little"), planes[1].to_bytes(size, "little")
    return "".join([_DIGITS[one[i >> 3] >> (i & 7) & 1, zero[i >> 3] >> (i & 7) & 1] for i in columns])


# Wires that explain.


def _explaining(
    expectation: Expectation,
    files: Sequence[HandinFile],
    provided: Sequence[HandinFile],
    choices: Mapping[str, str],
    limits: Limits,
) -> list[int]:
    """The pins of the earliest wires that explain all wrong cases."""
    made = open_circuit(expectation, files, provided, choices, limits)
    if not isinstance(made, Opened):
        return []
    ready, circuit = made.ready, made.drawing.circuit
    plain = observe(ready.design, ready.binding, expectation.spec.inputs, expectation.cases, limits)
    wrong = set_bits(expectation.cases.full & ~judge(expectation, plain).right)
    if not wrong:
        return []
    flips = Flips(made.drawing, ready.design)
    try_on = _Trial(expectation, ready, flips, limits)
    few = wrong[:: -(-len(wrong) // _SAMPLE)]
    able = try_on.explaining(range(len(flips.candidates)), few)
    if len(wrong) > len(few):
        able = try_on.explaining(able, wrong)
    return _earliest([flips.candidates[k].pin for k in able], circuit)


@dataclass(slots=True)
class _Trial:
    """Runs a design whose wires can be turned."""

    expectation: Expectation
    ready: Ready
    flips: Flips
    limits: Limits

    def explaining(self, candidates: Sequence[int], cases: list[int]) -> list[int]:
        """Those of the candidates that can put right each of the cases."""
        able: list[int] = []
        batch: list[int] = []
        lanes = 0
        for k in [*candidates, -1]:
            size = len(self.flips.candidates[k].masks) * len(cases) if k >= 0 else MOST_LANES + 1
            if size > MOST_LANES and k >= 0:
                continue
            if batch and lanes + size > MOST_LANES:
                able += self._batch(batch, cases)
                batch, lanes = [], 0
            batch.append(k)
            lanes += size
        return able

    def _batch(self, candidates: list[int], cases: list[int]) -> list[int]:
        lanes = [(k, mask, case) for k in candidates for mask in self.flips.candidates[k].masks for case in cases]
        looked = with_cases(self.expectation, [case for _, _, case in lanes])
        planes = self.flips.planes([(k, mask) for k, mask, _ in lanes])
        full = looked.cases.full
        all_cases = Cases(
            looked.cases.count, looked.cases.one + planes, looked.cases.zero + tuple(full ^ p for p in planes)
        )
        width = len(planes)
        turned = SpecPort(self.flips.port.name, "in", width, width - 1, 0, False, "bin")
        bits = self.ready.binding.bits | {(turned.name, i): (self.flips.port, i) for i in range(width)}
        binding = replace(self.ready.binding, bits=bits)
        try:
            observation: Observation = observe(
                self.ready.design, binding, (*self.expectation.spec.inputs, turned), all_cases, self.limits
            )
        except LimitReached:
            return []
        if observation.engine != "levelized":
            return []
        right = judge(replace(looked, cases=all_cases), observation).right
        put_right: dict[int, set[int]] = {k: set() for k in candidates}
        for lane in set_bits(right):
            k, _, case = lanes[lane]
            put_right[k].add(case)
        return [k for k in candidates if len(put_right[k]) == len(cases)]


def _earliest(pins: list[int], circuit: Circuit) -> list[int]:
    """Those of the pins that depend on no other of them."""
    part_of = {pin.id: part for part in circuit.parts for pin in part.pins}
    before: dict[int, list[int]] = {}
    for wire in circuit.wires:
        before.setdefault(wire.end, []).append(wire.start)
    for part in circuit.parts:
        if part.kind != "unit":
            inputs = [p.id for p in part.pins if p.side == "in"]
            for made in part.pins:
                if made.side == "out":
                    before.setdefault(made.id, []).extend(inputs)
    found = []
    for pin in pins:
        seen: set[int] = set()
        queue = list(before.get(pin, []))
        while queue:
            at = queue.pop()
            if at not in seen:
                seen.add(at)
                queue += before.get(at, [])
        if not seen & set(pins) - {pin} and part_of[pin].kind not in ("input", "unit"):
            found.append(pin)
    return found


# Beside the reference.


def _likeness(
    inside: Inside, planes: dict[int, Planes], known: list[Known], full: int, inputs: set[int]
) -> list[Likeness]:
    """For each wire the reference's wire of the same name, else one that does the same or the opposite in every
    case."""
    found: list[Likeness] = []
    by_name = {k.name.lower(): k for k in known}
    by_value: dict[tuple[Planes, ...], Known] = {}
    for k in known:
        by_value.setdefault(k.planes, k)
    names = inside.circuit.names
    for part in inside.circuit.parts:
        for pin in part.pins:
            if (
                pin.side != "out"
                or part.kind in ("input", "unit")
                or set(pin.bits) & inputs
                or not all(b >= 0 for b in pin.bits)
            ):
                continue
            own = tuple(planes[b] for b in pin.bits)
            same = by_name.get(_whole_name(pin.bits, names))
            if same is not None and len(same.planes) == len(own):
                differs = 0
                for (one, zero), (want_one, want_zero) in zip(own, same.planes, strict=True):
                    differs |= ((one ^ want_one) | (zero ^ want_zero)) & (want_one ^ want_zero)
                shown = tuple(case for case in inside.cases if differs >> case & 1)
                found.append(Likeness(pin.id, same.name, "name", shown, differs.bit_count()))
            elif not all(one in (0, full) for one, _ in own):
                turned = tuple((zero, one) for one, zero in own)
                if own in by_value:
                    found.append(Likeness(pin.id, by_value[own].name, "same"))
                elif turned in by_value:
                    found.append(Likeness(pin.id, by_value[turned].name, "inverse"))
    return found


def _whole_name(bits: Bits, names: Mapping[int, tuple[str, int | None]]) -> str:
    """The name of the one signal that these are all digits of, in small letters; empty where there is none."""
    given = {names[b][0] for b in bits if b in names}
    if len(given) != 1 or not all(b in names for b in bits):
        return ""
    name = given.pop()
    total = sum(1 for n, _ in names.values() if n == name)
    return name.rpartition(".")[2].lower() if total == len(bits) else ""
