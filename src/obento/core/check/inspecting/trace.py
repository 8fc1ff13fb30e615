"""What happens on the wires of a hand-in along one sequence, for waveforms.

Each step takes `STEP` units of time: inputs are set at its beginning, the clock moves at `EDGE`, outputs are sampled
before `BACK`, where after a whole cycle the clock goes back to rest."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field

from obento.core import values
from obento.core.check.expectation.model import Expectation
from obento.core.check.judging.ready import Ready, make_ready
from obento.core.check.running.steps import Wiring, play, settings
from obento.core.handin import HandinFile
from obento.core.ir.design import Design, ScopeOfNames
from obento.core.ir.part import Finished, RunError
from obento.core.limits import LimitReached, Limits
from obento.core.sim.bench.vcd import identifier, value_text
from obento.core.sim.timeline.kernel import DidNotSettle, Timeline
from obento.core.values import Word

STEP, EDGE, BACK = 10, 4, 8
MOST_CHANGES = 500_000

_MOMENTS = {"set": 0, "edge": EDGE, "back": BACK}
Bit = tuple[int, int]
"""A signal's number and the offset of one of its digits."""


@dataclass(slots=True)
class Wave:
    """One signal: from each time in `at` on it has the digits in `values`. `kind` is in, out or inner."""

    name: str
    kind: str
    width: int
    at: list[int] = field(default_factory=list)
    values: list[str] = field(default_factory=list)


@dataclass(slots=True)
class Trace:
    """The ports by our names, inner signals as asked for, and the names of all inner signals there are.

    `ended` is the step in which the run came to an end of its own, -1 if it did not; `trouble` says why.
    """

    waves: list[Wave]
    inner: list[str]
    ended: int = -1
    trouble: str = ""


def trace_handin(
    expectation: Expectation,
    files: Sequence[HandinFile],
    provided: Sequence[HandinFile],
    choices: Mapping[str, str],
    sequence: int,
    wanted: Iterable[str] = (),
    open_as_one: bool = False,
    limits: Limits | None = None,
) -> Trace | None:
    """Run one sequence of a hand-in and keep every change; None where it cannot be run.

    Parameters
    ----------
    provided
        The lab's own files that every hand-in may use.
    choices
        Settled by a person: our port (or the unit's name) -> theirs.
    sequence
        Its number, from 0 on.
    wanted
        Names of inner signals to be kept as well.
    open_as_one
        Take 1 for inputs that a step leaves open, not 0.
    """
    limits = limits or Limits()
    ready = make_ready(expectation.spec, files, provided, limits, choices)
    if not isinstance(ready, Ready):
        return None
    return _trace(expectation, ready, sequence, set(wanted), open_as_one, limits)


def _trace(
    expectation: Expectation, ready: Ready, number: int, wanted: set[str], open_as_one: bool, limits: Limits
) -> Trace:
    cases, spec = expectation.cases, expectation.spec
    stimulus = cases.stimulus
    assert stimulus is not None
    wiring = Wiring.of(ready.binding, spec.inputs)
    recorder = _Recorder()
    for port in (*spec.inputs, *spec.outputs):
        bits = [ready.binding.bits[port.name, i] for i in range(port.width)]
        recorder.watch(Wave(port.name, port.direction, port.width), [(p.signal.id, i) for p, i in bits])
    inner = dict(inner_signals(ready.design))
    for name in inner:
        if name in wanted:
            recorder.watch(Wave(name, "inner", len(inner[name])), inner[name])
    trace = Trace(recorder.waves, list(inner))
    sequence = stimulus.sequences[number]
    place = wiring.inputs[stimulus.clock] if stimulus.clock is not None else None
    step = 0
    try:
        ready.design.is_seen_inside = True
        timeline = Timeline(ready.design, limits)

        def look(moment: str) -> None:
            # The way back to rest comes after the step was counted.
            recorder.look(timeline.words, STEP * (step - (moment == "back")) + _MOMENTS[moment])

        for _ in play(timeline, stimulus, place, settings(wiring, cases, sequence, open_as_one), look):
            step += 1
    except Finished:
        trace.ended, trace.trouble = step, "the design ends the run itself"
    except DidNotSettle as error:
        trace.ended, trace.trouble = step, f"does not settle: {', '.join(error.signals)}"
    except (RunError, LimitReached) as error:
        trace.ended, trace.trouble = step, error.text
    return trace


def inner_signals(design: Design) -> Iterator[tuple[str, list[Bit]]]:
    """Names of all signals inside, with their digits from the right; ports of the unit itself left out."""
    ports = {p.signal.id for p in design.ports}
    if not design.names:
        yield from (
            (s.name, [(s.id, i) for i in range(s.width)])
            for s in design.signals
            if s.id not in ports and not s.element and s.has_digits
        )
        return
    for scope in design.names:
        yield from _of_scope(scope, scope.name, ports)


def _of_scope(scope: ScopeOfNames, root: str, ports: set[int]) -> Iterator[tuple[str, list[Bit]]]:
    for v in scope.variables:
        if (
            v.signal.element
            or not v.signal.has_digits
            or v.signal.automatic
            or (v.signal.id in ports and scope.path == root)
        ):
            continue
        width = abs(v.msb - v.lsb) + 1
        path = f"{scope.path}.{v.name}".removeprefix(f"{root}.")
        yield path, [(v.signal.id, v.low + i) for i in range(min(width, v.signal.width - v.low))]
    for child in scope.children:
        yield from _of_scope(child, root, ports)


class _Recorder:
    """Keeps what changes, moment by moment."""

    def __init__(self) -> None:
        self.waves: list[Wave] = []
        self._bits: list[list[Bit]] = []
        self._whole: list[int | None] = []
        self._last: list[Word | None] = []
        self._changes = 0

    def watch(self, wave: Wave, bits: list[Bit]) -> None:
        self.waves.append(wave)
        self._bits.append(bits)
        signal = bits[0][0] if bits else -1
        self._whole.append(signal if all(b == (signal, i) for i, b in enumerate(bits)) else None)
        self._last.append(None)

    def look(self, words: list[Word], now: int) -> None:
        for n, wave in enumerate(self.waves):
            whole = self._whole[n]
            word = words[whole] if whole is not None else _gather(words, self._bits[n])
            if word == self._last[n]:
                continue
            self._last[n] = word
            wave.at.append(now)
            wave.values.append(values.to_digits(word, wave.width))
            self._changes += 1
            if self._changes > MOST_CHANGES:
                raise LimitReached(f"more than {MOST_CHANGES} changes: choose fewer signals")


def _gather(words: list[Word], bits: list[Bit]) -> Word:
    one = zero = 0
    for i, (signal, offset) in enumerate(bits):
        one |= (words[signal][0] >> offset & 1) << i
        zero |= (words[signal][1] >> offset & 1) << i
    return one, zero


def to_vcd(trace: Trace, unit: str, steps: int) -> str:
    """A trace as a value change dump (IEEE 1364-2005 clause 18); a step takes 10 ns."""
    out = ["$version Obento $end\n", "$timescale 1ns $end\n", f"$scope module {unit} $end\n"]
    events: dict[int, list[str]] = {}
    for n, wave in enumerate(trace.waves):
        code = identifier(n)
        kind = "reg" if wave.kind == "inner" else "wire"
        span = f" [{wave.width - 1}:0]" if wave.width > 1 else ""
        out.append(f"$var {kind} {wave.width} {code} {wave.name.replace(' ', '_')}{span} $end\n")
        for at, digits in zip(wave.at, wave.values, strict=True):
            events.setdefault(at, []).append(value_text(values.from_digits(digits), wave.width, code))
    out.append("$upscope $end\n$enddefinitions $end\n")
    for at in sorted(events):
        out.append(f"#{at}\n")
        out += ["$dumpvars\n", *events[at], "$end\n"] if at == 0 else events[at]
    out.append(f"#{STEP * steps}\n")
    return "".join(out)
