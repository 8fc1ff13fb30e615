"""Waveforms of clocked hand-ins: a whole sequence traced anew for the review, a few steps from the stored outcome for
letters."""

from __future__ import annotations

from collections.abc import Callable, Iterable

from obento.core import values
from obento.core.check.expectation.model import Expectation, expected_word
from obento.core.check.explaining.divergence import diverge
from obento.core.check.inspecting.trace import BACK, EDGE, STEP, Trace
from obento.core.check.judging.verdict import Verdict, shown_word
from obento.core.planes import set_bits
from obento.core.spec.model import SpecPort
from obento.core.spec.stimulus import CYCLE, QUIET, Sequence
from obento.server.review.models import WaveLine, WaveSequence, WavesView

_BEFORE, _AFTER = 6, 5
_MOST_STEPS = 4_000
"""Steps that are shown at once of stored outcomes."""


def waves_view(expectation: Expectation, verdict: Verdict, number: int, trace: Trace) -> WavesView:
    """One sequence as it was traced, beside what is expected of it."""
    stimulus = expectation.cases.stimulus
    assert stimulus is not None
    sequence = stimulus.sequences[number]
    ports = {p.name: p for p in (*expectation.spec.inputs, *expectation.spec.outputs)}
    lines = []
    for wave in trace.waves:
        port = ports.get(wave.name) if wave.kind != "inner" else None
        line = WaveLine(
            name=wave.name,
            kind=wave.kind,
            width=wave.width,
            radix=port.radix if port else "bin",
            signed=bool(port and port.signed),
            at=wave.at,
            values=wave.values,
        )
        if port is not None and wave.kind == "out":
            _expect(expectation, verdict, sequence, port, line)
        lines.append(line)
    return _view(expectation, verdict, number, sequence, lines, trace.inner, trace.ended, trace.trouble)


def around(expectation: Expectation, verdict: Verdict, step: int, is_hidden: Callable[[int], bool]) -> WavesView | None:
    """The steps around one, as the outcome was stored: inputs and sampled outputs. None where one of them is not to be
    shown."""
    stimulus = expectation.cases.stimulus
    if stimulus is None:
        return None
    whole = stimulus.place(step)[0]
    first = max(whole.first, step - _BEFORE)
    last = min(whole.first + whole.length, step + _AFTER + 1)
    if any(is_hidden(i) for i in range(first, last)):
        return None
    return _stored(expectation, verdict, stimulus.sequences.index(whole), Sequence(whole.name, first, last - first))


def sequences_of(
    expectation: Expectation, verdict: Verdict, steps: Iterable[int], is_told: bool = True
) -> list[WavesView]:
    """The sequences that some steps are in, whole, as the outcome was stored; the first ones where they are long.
    Unless it may be told, nothing is said of what is expected or wrong."""
    stimulus = expectation.cases.stimulus
    if stimulus is None:
        return []
    found: list[WavesView] = []
    room = _MOST_STEPS
    for number in dict.fromkeys(stimulus.sequences.index(stimulus.place(step)[0]) for step in steps):
        whole = stimulus.sequences[number]
        part = Sequence(whole.name, whole.first, min(whole.length, room))
        room -= part.length
        if part.length:
            found.append(_stored(expectation, verdict, number, part, is_told))
    return found


def _stored(expectation: Expectation, verdict: Verdict, number: int, part: Sequence, is_told: bool = True) -> WavesView:
    """Steps of a sequence as the outcome was stored: inputs and sampled outputs."""
    stimulus = expectation.cases.stimulus
    assert stimulus is not None
    lines = []
    bit = 0
    for port in expectation.spec.inputs:
        line = WaveLine(
            name=port.name, kind="in", width=port.width, radix=port.radix, signed=port.signed, at=[], values=[]
        )
        for i in range(part.length):
            word = expectation.cases.word(part.first + i, bit, port.width)
            if expectation.spec.clock is not None and port.name == expectation.spec.clock.port:
                _clock(line, stimulus.actions[part.first + i], word, i)
            else:
                _append(line.at, line.values, STEP * i, values.to_digits(word, port.width))
        bit += port.width
        lines.append(line)
    for port in expectation.spec.outputs:
        line = WaveLine(
            name=port.name, kind="out", width=port.width, radix=port.radix, signed=port.signed, at=[], values=[]
        )
        for i in range(part.length):
            word = shown_word(verdict, port, part.first + i)
            _append(
                line.at,
                line.values,
                STEP * i + _acts(stimulus.actions[part.first + i]),
                values.to_digits(word, port.width),
            )
        if is_told:
            _expect(expectation, verdict, part, port, line)
        lines.append(line)
    view = _view(expectation, verdict, number, part, lines, [], -1, "")
    return view if is_told else _untold(view)


def _untold(view: WavesView) -> WavesView:
    """A view that does not say what is right."""
    quiet = [s.model_copy(update={"wrong": 0}) for s in view.sequences]
    return view.model_copy(update={"sequences": quiet, "cells": "p" * len(view.cells)})


def _clock(line: WaveLine, action: str, sampled: values.Word, i: int) -> None:
    digit = str(sampled[0] & 1)
    idle = "0" if digit == "1" else "1"
    if action == CYCLE:
        _append(line.at, line.values, STEP * i, idle)
        _append(line.at, line.values, STEP * i + EDGE, digit)
        _append(line.at, line.values, STEP * i + BACK, idle)
    else:
        if not line.at and action != QUIET:
            _append(line.at, line.values, 0, idle)
        _append(line.at, line.values, STEP * i + _acts(action), digit)


def _acts(action: str) -> int:
    """When in a step the outputs may change."""
    return 0 if action == QUIET else EDGE


def _append(at: list[int], found: list[str], time: int, digits: str) -> None:
    if not found or found[-1] != digits:
        at.append(time)
        found.append(digits)


def _expect(expectation: Expectation, verdict: Verdict, sequence: Sequence, port: SpecPort, line: WaveLine) -> None:
    """Put in what is expected of an output, and where it is not right."""
    stimulus = expectation.cases.stimulus
    assert stimulus is not None
    for i in range(sequence.length):
        word, care = expected_word(expectation, port.name, port.width, sequence.first + i, verdict.expected)
        digits = values.to_digits(word, port.width)
        digits = "".join(d if care >> (port.width - 1 - n) & 1 else "-" for n, d in enumerate(digits))
        _append(line.expected_at, line.expected, STEP * i + _acts(stimulus.actions[sequence.first + i]), digits)
    output = verdict.outputs[port.name]
    bad = (output.failed | output.undefined | output.stopped) >> sequence.first & values.ones(sequence.length)
    for i in set_bits(bad):
        if line.bad and line.bad[-1][1] == i - 1:
            line.bad[-1] = (line.bad[-1][0], i)
        else:
            line.bad.append((i, i))


def _view(
    expectation: Expectation,
    verdict: Verdict,
    number: int,
    part: Sequence,
    lines: list[WaveLine],
    inner: list[str],
    ended: int,
    trouble: str,
) -> WavesView:
    stimulus = expectation.cases.stimulus
    assert stimulus is not None
    follows = diverge(expectation, verdict).follows
    cells = verdict.cells()[part.first : part.first + part.length]
    wrong = expectation.cases.full & ~verdict.right
    return WavesView(
        sequences=[
            WaveSequence(
                name=s.name,
                first=s.first,
                length=s.length,
                wrong=(wrong >> s.first & values.ones(s.length)).bit_count(),
            )
            for s in stimulus.sequences
        ],
        sequence=number,
        offset=part.first - stimulus.sequences[number].first,
        step_time=STEP,
        actions=stimulus.actions[part.first : part.first + part.length],
        cells="".join(x.upper() if follows >> (part.first + i) & 1 else x for i, x in enumerate(cells)),
        clock=expectation.spec.clock.port if expectation.spec.clock else "",
        waves=lines,
        inner=inner,
        ended=ended,
        trouble=trouble,
    )
