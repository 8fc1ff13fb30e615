"""What a design does in every step of every sequence, each sequence from power-up.

Few sequences run one after the other on the timeline, many side by side in lanes: a lane is a sequence. Inputs that a
step leaves open (`-`) are 0 in one run and 1 in another; a step is right when it is right in both."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass

from obento.core.check.running.binding import Binding
from obento.core.check.running.cases import power_up_refused
from obento.core.check.running.observation import Observation, Planes, Run
from obento.core.check.running.power_up import Ended, Start, apply_words, note_end
from obento.core.ir.design import Design
from obento.core.ir.part import Finished, RunError
from obento.core.ir.unread import without_unread
from obento.core.limits import LimitReached, Limits, TimeIsUp
from obento.core.sim.event_driven import EventDriven
from obento.core.sim.lanes.bits import Unfit
from obento.core.sim.timeline.kernel import DidNotSettle, Timeline
from obento.core.spec.cases import Cases
from obento.core.spec.model import SpecPort
from obento.core.spec.stimulus import Sequence, Stimulus, clock_after, clock_during
from obento.core.values import Word, ones

LANES_FROM = 8
"""So many sequences are run side by side; fewer are quicker one after the other."""

MEMORY_A_LANE = 32
"""Of an array a sequence touches a word at a time on the timeline, while lanes go through all of its bits: so many bits
a sequence cost the same on both."""

OPEN_AS_ONE = "with - as 1"
"""The name of the run in which open inputs are 1."""

Key = tuple[str, int]
Setting = dict[int, Word]
"""Signals of the design's input ports and their words."""


@dataclass(slots=True)
class Wiring:
    """Where our bits are in a design: input bits by number, outputs by (port, offset), inputs of theirs that float."""

    inputs: list[tuple[int, int]]
    outputs: dict[Key, tuple[int, int]]
    floating: list[tuple[int, int]]

    @classmethod
    def of(cls, binding: Binding, inputs: tuple[SpecPort, ...]) -> Wiring:
        """How the bits of our ports are those of a design."""
        placed = [binding.bits[p.name, i] for p in inputs for i in range(p.width)]
        outputs = {key: (port.signal.id, i) for key, (port, i) in binding.bits.items() if port.direction == "out"}
        floating = [(p.signal.id, i) for p in binding.floating for i in range(p.signal.width)]
        return cls([(port.signal.id, i) for port, i in placed], outputs, floating)


def observe_steps(
    design: Design,
    binding: Binding,
    inputs: tuple[SpecPort, ...],
    cases: Cases,
    limits: Limits,
    lanes_from: int | None = None,
) -> Observation:
    """Run a design through all sequences, in lanes where they are many enough, it fits and pays.

    Parameters
    ----------
    binding
        Which bit of the design is which of our ports.
    inputs
        Our inputs, in the order in which `cases` has their bits.
    cases
        The steps of all sequences, with their stimulus.
    lanes_from
        From so many sequences on they are run side by side, where that fits; when left out, where it pays.
    """
    stimulus = cases.stimulus
    assert stimulus is not None
    design = without_unread(design)
    wiring = Wiring.of(binding, inputs)
    runs = [Run("fresh"), *([Run(OPEN_AS_ONE)] if any(stimulus.free) else [])]
    sequences = len(stimulus.sequences)
    pays = sequences >= LANES_FROM and _memory(design) <= MEMORY_A_LANE * sequences
    if pays if lanes_from is None else sequences >= lanes_from:
        try:
            return _side_by_side(design, wiring, cases, stimulus, limits, runs)
        except (Unfit, LimitReached) as unfit:
            if not limits.replays:
                return Observation([], "timeline", stepped=cases.full)
            found = _one_by_one(design, wiring, cases, stimulus, limits, runs)
            found.why = unfit.text if isinstance(unfit, LimitReached) else str(unfit)
            return found
    return _one_by_one(design, wiring, cases, stimulus, limits, runs)


def _memory(design: Design) -> int:
    """The bits of all arrays of a design."""
    return sum(signal.width for signal in design.signals if signal.element)


# What is set when.


def settings(
    wiring: Wiring, cases: Cases, sequence: Sequence, open_as_one: bool = False
) -> Iterator[tuple[str, Setting]]:
    """For each step the clock's action and the words of all inputs but the clock, which is at its place of the step
    before."""
    stimulus = cases.stimulus
    assert stimulus is not None
    signals = sorted({s for s, _ in (*wiring.inputs, *wiring.floating)})
    floating = dict.fromkeys(signals, 0)
    for signal, i in wiring.floating:
        floating[signal] |= 1 << i
    level = stimulus.idle
    for step in range(sequence.first, sequence.first + sequence.length):
        ones_, zeros = dict(floating), dict(floating)
        for bit, (signal, i) in enumerate(wiring.inputs):
            one, zero = cases.one[bit] >> step & 1, cases.zero[bit] >> step & 1
            if bit == stimulus.clock:
                one, zero = level, 1 - level
            elif open_as_one and stimulus.free[bit] >> step & 1:
                one, zero = 1, 0
            ones_[signal] |= one << i
            zeros[signal] |= zero << i
        yield stimulus.actions[step], {s: (ones_[s], zeros[s]) for s in signals}
        level = clock_after(stimulus.actions[step], level, stimulus.idle)


# One after the other.


def with_clock(setting: Setting, place: tuple[int, int] | None, level: int) -> Setting:
    """A setting with the clock's digit put in."""
    if place is None:
        return setting
    signal, i = place
    one, zero = setting[signal]
    return {**setting, signal: (one & ~(1 << i) | level << i, zero & ~(1 << i) | (1 - level) << i)}


def play(
    timeline: Timeline,
    stimulus: Stimulus,
    place: tuple[int, int] | None,
    steps: Iterable[tuple[str, Setting]],
    look: Callable[[str], None] = lambda moment: None,
    start: Start | None = None,
) -> Iterator[None]:
    """Play one sequence on a timeline, from power-up; stands still whenever outputs are sampled.

    `look` hears of each moment: `set`, `edge`, `back`. `start` powers up: one for all sequences of a design.
    """
    steps = list(steps)
    (start or Start(timeline)).begin(steps[0][1] if steps else {})
    level = stimulus.idle
    if place is not None:  # the clock is at rest before anything else is set
        signal, i = place
        one, zero = timeline.words[signal]
        apply_words(timeline, {signal: (one & ~(1 << i) | level << i, zero & ~(1 << i) | (1 - level) << i)})
    for action, setting in steps:
        apply_words(timeline, setting)
        look("set")
        during = clock_during(action, level, stimulus.idle)
        if during != level:
            apply_words(timeline, with_clock(setting, place, during))
            look("edge")
        yield
        level = clock_after(action, level, stimulus.idle)
        if level != during:
            apply_words(timeline, with_clock(setting, place, level))
            look("back")


def _one_by_one(
    design: Design,
    wiring: Wiring,
    cases: Cases,
    stimulus: Stimulus,
    limits: Limits,
    runs: list[Run],
    only: int | None = None,
) -> Observation:
    """Sequence by sequence; `only` are the sequences wanted, if not all."""
    try:
        timeline = Timeline(design, limits.alone())
    except LimitReached as limit:
        return _nothing(wiring, cases, runs, "timeline", limit)
    place = wiring.inputs[stimulus.clock] if stimulus.clock is not None else None
    collected = [{key: (["0"] * cases.count, ["0"] * cases.count) for key in wiring.outputs} for _ in runs]
    ends: list[Ended] = []
    start = Start(timeline)
    unjudged = 0
    for number, sequence in enumerate(stimulus.sequences):
        if only is not None and not only >> number & 1:
            continue
        for run, columns in zip(runs, collected, strict=True):
            step = sequence.first
            try:
                if limits.expired():
                    raise TimeIsUp("the time for one hand-in is up")
                for _ in play(
                    timeline, stimulus, place, settings(wiring, cases, sequence, run is not runs[0]), start=start
                ):
                    words = timeline.words
                    for key, (signal, i) in wiring.outputs.items():
                        one, zero = words[signal]
                        if one >> i & 1:
                            columns[key][0][step] = "1"
                        if zero >> i & 1:
                            columns[key][1][step] = "1"
                    step += 1
            except DidNotSettle:
                pass
            except TimeIsUp:
                unjudged |= ones(sequence.first + sequence.length - step) << step
            except (RunError, Finished, LimitReached) as error:
                note_end(ends, error, ones(sequence.first + sequence.length - step) << step)
            left = sequence.first + sequence.length - step
            run.stopped |= ones(left) << step
    for run, columns in zip(runs, collected, strict=True):
        run.outputs = {key: (_number(one), _number(zero)) for key, (one, zero) in columns.items()}
    return Observation(runs, "timeline", None, ends, refused=start.refused, unjudged=unjudged)


def _number(digits: list[str]) -> int:
    return int("".join(reversed(digits)) or "0", 2)


def _nothing(wiring: Wiring, cases: Cases, runs: list[Run], engine: str, limit: LimitReached) -> Observation:
    for run in runs:
        run.outputs = dict.fromkeys(wiring.outputs, (0, 0))
        run.stopped = cases.full
    return Observation(runs, engine, limit)


# Side by side.


@dataclass(slots=True)
class Abreast:
    """One step of all sequences that are as long: planes over sequences.

    `running` are the sequences that have this step, `edge` and `back` those in which the clock moves to and from its
    place."""

    running: int
    inputs: list[Planes]
    during: int
    after: int


def abreast(cases: Cases, stimulus: Stimulus, open_as_one: bool) -> list[Abreast]:
    """All sequences turned round: step by step, each a plane over the sequences. Ended ones keep their last inputs."""
    count = len(stimulus.sequences)
    longest = max(s.length for s in stimulus.sequences)
    width = len(cases.one)
    planes: list[list[list[str]]] = [[[], []] for _ in range(width)]
    for bit in range(width):
        for rail, source in enumerate((cases.one[bit], cases.zero[bit])):
            if open_as_one:
                source = source | stimulus.free[bit] if rail == 0 else source & ~stimulus.free[bit]
            digits = format(source, f"0{cases.count}b")[::-1]
            rows = [
                digits[s.first : s.first + s.length].ljust(longest, digits[s.first + s.length - 1])
                for s in stimulus.sequences
            ]
            planes[bit][rail] = ["".join(column) for column in zip(*reversed(rows), strict=True)]
    levels = [stimulus.idle] * count
    out: list[Abreast] = []
    for t in range(longest):
        running = during = after = 0
        for k, sequence in enumerate(stimulus.sequences):
            if t < sequence.length:
                running |= 1 << k
                action = stimulus.actions[sequence.first + t]
                during |= clock_during(action, levels[k], stimulus.idle) << k
                levels[k] = clock_after(action, levels[k], stimulus.idle)
            else:
                during |= levels[k] << k
            after |= levels[k] << k
        out.append(
            Abreast(running, [(int(planes[b][0][t], 2), int(planes[b][1][t], 2)) for b in range(width)], during, after)
        )
    return out


def _side_by_side(
    design: Design, wiring: Wiring, cases: Cases, stimulus: Stimulus, limits: Limits, runs: list[Run]
) -> Observation:
    unknown_inputs = not cases.all_known
    lanes = EventDriven(design, limits, inputs_may_float=bool(wiring.floating) or unknown_inputs)
    offset = {signal.id: signal.offset for signal in design.signals}
    places = [offset[s] + i for s, i in wiring.inputs]
    floats = [offset[s] + i for s, i in wiring.floating]
    watched = {key: offset[s] + i for key, (s, i) in wiring.outputs.items()}
    full = ones(len(stimulus.sequences))
    escaped = 0
    refused = power_up_refused(lanes, design, limits)
    for run in runs:
        level = full if stimulus.idle else 0
        if refused is None:
            stopped = lanes.power_up(full)
        else:
            first = _turned(cases, stimulus, run is not runs[0])[0].inputs
            given = dict(zip(places, first, strict=True)) | dict.fromkeys(floats, (full, full))
            stopped = lanes.begin(
                full, given | ({places[stimulus.clock]: (level, full ^ level)} if stimulus.clock is not None else {})
            )
        if stimulus.clock is not None:
            stopped |= lanes.apply({places[stimulus.clock]: (level, full ^ level)})
        seen: dict[Key, tuple[list[int], list[int]]] = {key: ([], []) for key in watched}
        stops: list[int] = []
        for t, step in enumerate(_turned(cases, stimulus, run is not runs[0])):
            given = {
                place: planes
                for bit, (place, planes) in enumerate(zip(places, step.inputs, strict=True))
                if bit != stimulus.clock
            }
            if t == 0:
                given |= dict.fromkeys(floats, (full, full))
            stopped |= lanes.apply(given)
            if stimulus.clock is not None:
                stopped |= lanes.apply({places[stimulus.clock]: (step.during, full ^ step.during)})
            for key, bit in watched.items():
                one, zero = lanes.planes(bit)
                seen[key][0].append(one)
                seen[key][1].append(zero)
            stops.append(stopped)
            for signal in design.escapes:
                escaped |= lanes.planes(signal.offset)[0] & step.running
            if stimulus.clock is not None:
                stopped |= lanes.apply({places[stimulus.clock]: (step.after, full ^ step.after)})
        run.outputs = {key: (_in_a_row(one, stimulus), _in_a_row(zero, stimulus)) for key, (one, zero) in seen.items()}
        run.stopped = _in_a_row(stops, stimulus)
    found = Observation(runs, "event-driven", refused=refused)
    return _escaped_again(design, wiring, cases, stimulus, limits, found, escaped) if escaped else found


def _turned(cases: Cases, stimulus: Stimulus, open_as_one: bool) -> list[Abreast]:
    """`abreast`, made once for a set of cases: a class runs it for every hand-in."""
    key = id(cases), open_as_one
    known = _TURNED.get(key)
    if known is None or known[0] is not cases:
        if len(_TURNED) > 8:
            _TURNED.clear()
        known = _TURNED[key] = cases, abreast(cases, stimulus, open_as_one)
    return known[1]


_TURNED: dict[tuple[int, bool], tuple[Cases, list[Abreast]]] = {}


def _in_a_row(planes: list[int], stimulus: Stimulus) -> int:
    """Planes over sequences, one a step, as one plane over all steps."""
    count = len(stimulus.sequences)
    columns = list(zip(*(format(p, f"0{count}b") for p in planes), strict=True))
    digits = "".join("".join(columns[count - 1 - k][: s.length]) for k, s in enumerate(stimulus.sequences))
    return int(digits[::-1] or "0", 2)


def _escaped_again(
    design: Design, wiring: Wiring, cases: Cases, stimulus: Stimulus, limits: Limits, found: Observation, escaped: int
) -> Observation:
    """Sequences in which lanes could not tell what happens are taken from the timeline."""
    if not limits.replays:
        found.stepped = cases.full
        return found
    exact = _one_by_one(design, wiring, cases, stimulus, limits, [Run(r.name) for r in found.runs], escaped)
    if exact.limit is not None:
        return exact
    steps = 0
    for k, sequence in enumerate(stimulus.sequences):
        if escaped >> k & 1:
            steps |= ones(sequence.length) << sequence.first
    for run, again in zip(found.runs, exact.runs, strict=True):
        run.stopped = run.stopped & ~steps | again.stopped & steps
        for key, (one, zero) in run.outputs.items():
            a, b = again.outputs[key]
            run.outputs[key] = one & ~steps | a & steps, zero & ~steps | b & steps
    refused = found.refused or exact.refused
    return Observation(found.runs, found.engine, None, exact.ends, steps, refused, unjudged=exact.unjudged)
