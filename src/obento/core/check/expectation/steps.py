"""What is expected in clocked labs: sequences as written and as made, and what each source says of every step."""

from __future__ import annotations

import random
from collections.abc import Mapping

from obento.core import values
from obento.core.check.expectation.explore import explore
from obento.core.check.expectation.function_table import FunctionTable, Inputs, State
from obento.core.check.expectation.model import Coverage, Key, Planes, Source
from obento.core.diagnostics import Collector
from obento.core.spec.cases import Cases
from obento.core.spec.model import Cell, Spec
from obento.core.spec.stimulus import CYCLE, FALL, QUIET, RISE, Planned, Stimulus, cell_of, clock_after, pack_steps

_RANDOM_LENGTH = 64
_RANDOM_STEPS = 512
_MOST_TOLD = 5


def plan(
    spec: Spec, table: FunctionTable | None, collector: Collector, most: int
) -> tuple[Cases | None, Coverage | None]:
    """All sequences: the written ones, those that a function table asks for, random ones where wanted or nothing else
    is there."""
    sequences: list[tuple[str, list[Planned]]] = [
        (s.name, [Planned(r.action, r.inputs) for r in s.rows]) for s in spec.steps
    ]
    coverage = None
    if table is not None and spec.function is not None:
        found = explore(spec, table, spec.function)
        coverage = found.coverage
        _tell_coverage(spec, coverage, collector)
        _tell_uncovered(spec, table, found.uncovered, collector)
        sequences += found.walks
        if not found.walks:
            collector.error(
                "no-way",
                "from power-up no row of the function table leads to a known state",
                spec.function[0].position,
                None,
                "it needs a row that sets its states whatever they were: a reset",
            )
            return None, coverage
    if spec.random is not None or not sequences:
        count, seed = (spec.random.count, spec.random.seed) if spec.random else (_RANDOM_STEPS, 1)
        sequences += _random(spec, count, seed)
    if sum(len(steps) for _, steps in sequences) > most:
        collector.error("too-many-cases", f"these sequences have more steps than can be run (at most {most})")
        return None, coverage
    count, one, zero, stimulus = pack_steps(spec.inputs, spec.clock, sequences)
    return Cases(count, one, zero, stimulus), coverage


def _random(spec: Spec, count: int, seed: int) -> list[tuple[str, list[Planned]]]:
    """Random inputs, mostly with a whole cycle, after a reset where there is one; now and then a reset or no edge."""
    source = random.Random(seed)
    up, down = (RISE, FALL) if spec.clock is None or spec.clock.edge == "rise" else (FALL, RISE)
    made: list[tuple[str, list[Planned]]] = []
    while count > 0:
        length = min(count, _RANDOM_LENGTH)
        count -= length
        steps: list[Planned] = []
        is_up = False
        while len(steps) < length:
            resets = not steps or source.random() < 1 / 24
            cells = []
            for port in spec.inputs:
                word = values.word(source.getrandbits(port.width), port.width)
                if spec.reset is not None and port.name == spec.reset.port:
                    word = values.word(spec.reset.active if resets else 1 - spec.reset.active, 1)
                cells.append(cell_of(word, port.width))
            action = QUIET
            if spec.clock is not None:
                draw = source.random()
                if is_up:
                    action = down if draw < 0.6 else QUIET
                else:
                    action = CYCLE if draw < 0.8 or not steps else up if draw < 0.86 else QUIET
                is_up = action == up or (is_up and action != down)
            steps.append(Planned(action, tuple(cells)))
        made.append((f"random {len(made) + 1}", steps))
    return made


def _tell_coverage(spec: Spec, c: Coverage, collector: Collector) -> None:
    assert spec.function is not None
    at = spec.function[0].position
    collector.note(
        "coverage",
        f"{c.taken} of {c.possible} pairs of state and row are taken: {c.states} of {c.possible_states} states are"
        f" reached, {c.rows} rows"
        + ("" if c.is_whole else "; not every choice of inputs in every state, that would be too many steps"),
        at,
    )
    if c.unreached:
        left = c.possible_states - c.states
        more = f" and {left - len(c.unreached)} more" if left > len(c.unreached) else ""
        collector.note("unreached", f"no sequence of inputs leads to {'; '.join(c.unreached)}{more}", at)
    lines = {row.line: row for row in spec.function}
    for line in c.idle_rows:
        collector.warning(
            "idle-row",
            "no reachable state ever takes this row",
            lines[line].position,
            None,
            "does an earlier row catch it?",
        )


def _tell_uncovered(spec: Spec, table: FunctionTable, found: list[tuple[State, Inputs]], collector: Collector) -> None:
    """Active edges for which there is no row."""
    assert spec.function is not None
    if not found:
        return
    shown = []
    for state, inputs in found[:_MOST_TOLD]:
        words = [
            (p, w) for p, w in zip(spec.inputs, inputs, strict=True) if spec.clock is None or p.name != spec.clock.port
        ]
        words += list(zip(table.states, state, strict=True))
        shown.append(", ".join(f"{p.name} = {p.show(w)}" for p, w in words))
    more = f" and {len(found) - len(shown)} more" if len(found) > len(shown) else ""
    collector.warning(
        "incomplete",
        f"no row says what happens at the active edge with {'; '.join(shown)}{more}: not compared from there on",
        spec.function[-1].position,
    )


# What each source says.


def from_steps(spec: Spec, cases: Cases) -> Source:
    """The written steps."""
    source = Source("steps", {key: Planes() for key in _keys(spec)}, dict.fromkeys(_keys(spec), 0))
    step = 0
    for item in spec.steps:
        for row in item.rows:
            if row.outputs is not None:
                for port, cell in zip(spec.outputs, row.outputs, strict=True):
                    for i in range(port.width):
                        _enter(source, (port.name, i), step, cell, i)
            source.rows.append((row, 1 << step))
            step += 1
    return source


def _enter(source: Source, key: Key, step: int, cell: Cell, i: int) -> None:
    bits = source.bits[key]
    at = 1 << step
    if cell.before:
        turned = cell.before == "!"
        if bits.care >> (step - 1) & 1:
            one, zero = bits.one >> (step - 1) & 1, bits.zero >> (step - 1) & 1
            _set(bits, at, *((zero, one) if turned else (one, zero)))
        elif step - 1 in bits.follow:
            anchor, was_turned = bits.follow[step - 1]
            bits.follow[step] = anchor, was_turned != turned
        else:
            bits.follow[step] = step - 1, turned
    elif cell.care >> i & 1:
        _set(bits, at, cell.word[0] >> i & 1, cell.word[1] >> i & 1)


def _set(bits: Planes, at: int, one: int, zero: int) -> None:
    bits.care |= at
    bits.one |= at if one else 0
    bits.zero |= at if zero else 0


def _keys(spec: Spec) -> list[Key]:
    return [(p.name, i) for p in spec.outputs for i in range(p.width)]


def inputs_of(spec: Spec, cases: Cases, step: int) -> tuple[values.Word, ...]:
    """The words of all inputs in a step, the clock's as it is when outputs are sampled."""
    words = []
    bit = 0
    for port in spec.inputs:
        words.append(cases.word(step, bit, port.width))
        bit += port.width
    return tuple(words)


def from_function(spec: Spec, table: FunctionTable, cases: Cases, stimulus: Stimulus) -> Source:
    """The function table along all sequences. Where inputs are left open both readings must say the same."""
    columns: dict[Key, tuple[list[str], list[str]]] = {
        key: (["0"] * cases.count, ["0"] * cases.count) for key in _keys(spec)
    }
    for sequence in stimulus.sequences:
        state = table.start()
        level = stimulus.idle
        for step in range(sequence.first, sequence.first + sequence.length):
            inputs = inputs_of(spec, cases, step)
            if any(plane >> step & 1 for plane in stimulus.free):
                inputs = _opened(spec, inputs, stimulus, step)
            moved = table.step(state, inputs, stimulus.actions[step], level)
            level = clock_after(stimulus.actions[step], level, stimulus.idle)
            for name, place in table.index.items():
                one, zero = moved.sampled[place]
                for i in range(table.states[place].width):
                    if (name, i) in columns:
                        if one >> i & 1:
                            columns[name, i][0][step] = "1"
                        if zero >> i & 1:
                            columns[name, i][1][step] = "1"
            state = moved.after
    bits = {}
    for key, (one_column, zero_column) in columns.items():
        one, zero = int("".join(reversed(one_column)), 2), int("".join(reversed(zero_column)), 2)
        bits[key] = Planes(one, zero, one | zero)
    return Source("function", bits)


def _opened(spec: Spec, inputs: tuple[values.Word, ...], stimulus: Stimulus, step: int) -> tuple[values.Word, ...]:
    """Open inputs as unknown, so that only what holds for both their values is expected."""
    words = []
    bit = 0
    for port, (one, zero) in zip(spec.inputs, inputs, strict=True):
        for i in range(port.width):
            if stimulus.free[bit + i] >> step & 1:
                one, zero = one & ~(1 << i), zero & ~(1 << i)
        bit += port.width
        words.append((one, zero))
    return tuple(words)


def combined_words(result: Mapping[Key, Planes], spec: Spec, cases: Cases) -> list[dict[str, values.Word]]:
    """What is expected of all outputs in each step so far, unknown where nothing is."""
    found: list[dict[str, values.Word]] = []
    for step in range(cases.count):
        words: dict[str, values.Word] = {}
        for port in spec.outputs:
            one = zero = 0
            for i in range(port.width - 1, -1, -1):
                bits = result[port.name, i]
                care = bits.care >> step & 1
                one, zero = one << 1 | (bits.one >> step & care), zero << 1 | (bits.zero >> step & care)
            words[port.name] = one, zero
        found.append(words)
    return found
