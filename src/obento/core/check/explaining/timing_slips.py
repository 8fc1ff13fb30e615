"""The classic slips of clocked hand-ins, each proven before it is said.

Most are proven by driving the hand-in a second time as if the slip were right: with the clock turned, the reset turned,
a clock pulse given while it resets. Where every step then comes out right, that is the slip. Others are read off the
steps: late or early by a cycle, counting on too far, stuck; or off the design: written with `=` where `<=` makes every
step right."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import replace
from functools import cached_property, partial
from itertools import pairwise

from obento.core import values
from obento.core.check.expectation.model import Expectation
from obento.core.check.explaining.clocking import clocked_assignments, read_elsewhere
from obento.core.check.explaining.divergence import Divergence
from obento.core.check.explaining.reset_values import wrong_reset_values
from obento.core.check.explaining.slips import Slip, find_slips
from obento.core.check.judging.verdict import Verdict, judge, shown_word
from obento.core.check.running.binding import Binding
from obento.core.check.running.observation import Observation
from obento.core.check.running.steps import observe_steps
from obento.core.ir.design import Design
from obento.core.limits import Limits
from obento.core.planes import set_bits
from obento.core.sentences.said import say
from obento.core.spec.cases import Cases
from obento.core.spec.model import Cell, SpecPort
from obento.core.spec.stimulus import CYCLE, FALL, QUIET, RISE, Planned, Sequence, Stimulus, clock_after, pack_steps

TIMING_SLIPS = frozenset(
    [
        "wrong-edge",
        "reset-level",
        "reset-async",
        "reset-sync",
        "reset-value",
        "ignores",
        "late",
        "early",
        "counts-too-far",
        "wraps-too-early",
        "stuck",
        "blocking",
    ]
)
"""All kinds of slips here."""

_MOST_STEPS = 20_000
_TURNED = {QUIET: QUIET, CYCLE: CYCLE, RISE: FALL, FALL: RISE}
_FEWEST_EDGES = 3
_FEW = 4
"""So many sequences that are wrong are tried first: nearly every slip that it is not is refuted by them."""

Observe = Callable[[Cases], Observation]
Step = tuple[str, tuple[Cell, ...], int | None]
"""A step of a second stimulus: action, inputs, and the step of the first one that it stands for."""


def find_timing_slips(
    expectation: Expectation, verdict: Verdict, found: Divergence, design: Design, binding: Binding, limits: Limits
) -> list[Slip]:
    """The slips of one hand-in, the one that explains everything first.

    Parameters
    ----------
    verdict
        Of the hand-in, with steps as cases.
    found
        Where it goes astray.
    design
        The hand-in, driven anew as if a slip were right.
    binding
        Which bit of it is which of our ports.
    """
    spec = expectation.spec

    def again(cases: Cases) -> Observation:
        return observe_steps(design, binding, spec.inputs, cases, limits)

    if verdict.stopped or expectation.cases.count > _MOST_STEPS or not found.first:
        return []
    search = _Search(expectation, verdict, found, again)
    whole = next(search.by_driving(), None)
    if whole is None and design.language == "verilog":
        whole = _written_blocking(search, expectation, design, binding, limits)
    if whole is None:
        whole = search.shifted()
    if whole is not None:
        return [whole]
    constant = [s for s in find_slips(expectation, verdict) if s.kind == "constant"]
    if {s.output for s in constant} == {n for n, o in verdict.outputs.items() if o.failed | o.undefined}:
        return constant  # what never changes reacts to nothing
    found_here = [*wrong_reset_values(expectation, verdict), *search.ignored(), *search.counting(), *constant]
    return found_here or search.stuck()


class _Search:
    def __init__(self, expectation: Expectation, verdict: Verdict, found: Divergence, again: Observe) -> None:
        self._e = expectation
        self._verdict = verdict
        self._found = found
        self._again = again
        self._cases = expectation.cases
        assert expectation.cases.stimulus is not None
        self._drive: Stimulus = expectation.cases.stimulus
        self._wrong = [n for n, o in verdict.outputs.items() if o.failed | o.undefined]
        wrong = expectation.cases.full & ~verdict.right
        self._suspects = [s for s in self._drive.sequences if wrong >> s.first & values.ones(s.length)]

    # By driving it otherwise.

    def by_driving(self) -> Iterator[Slip]:
        """Slips under which, taken for right, every step is right."""
        spec = self._e.spec
        output = self._wrong[0]
        edge, other = ("falling", "rising") if spec.clock and spec.clock.edge == "rise" else ("rising", "falling")
        if spec.clock is not None and self._is_right(turned_clock(self._cases)):
            yield Slip("wrong-edge", say(f"acts-on-{edge}", clock=spec.clock.port), output)
        if spec.reset is None:
            return
        name, active = spec.reset.port, spec.reset.active
        bit = sum(p.width for p in spec.inputs[: [p.name for p in spec.inputs].index(name)])
        turned = turned_input(self._cases, bit, 1)
        if self._is_right(turned):
            yield Slip("reset-level", say("reset-level", reset=name, level=1 - active, wanted=active), output)
        if spec.clock is not None and self._is_right(turned_clock(turned)):
            yield Slip("wrong-edge", say(f"{edge}-and-level", reset=name, level=1 - active), output)
        if spec.clock is None:
            return
        if spec.reset.kind == "async" and self._right_with(partial(self._pulsed, bit)):
            yield Slip("reset-sync", say("reset-sync", reset=name), output)
        if spec.reset.kind == "sync" and self._right_with(partial(self._held_back, bit)):
            yield Slip("reset-async", say(f"reset-async-{other}", reset=name), output)

    def _is_right(self, cases: Cases) -> bool:
        """Whether every step is right when the hand-in is driven by other inputs of as many steps; suspects first."""
        if not self.may_be_right(cases):
            return False
        return judge(replace(self._e, cases=cases), self._again(cases)).right == self._cases.full

    def may_be_right(self, cases: Cases) -> bool:
        """Whether the first sequences that are wrong as handed in come out right by these inputs."""
        few, places = _only(cases, self._suspects[:_FEW])
        return self._all_right(self._again(few), places)

    def _all_right(self, seen: Observation, places: list[int | None]) -> bool:
        """Whether what was seen at `places` (the steps they stand for) is what is expected there."""
        if any(run.stopped for run in seen.runs):
            return False
        for key, want in self._e.bits.items():
            for run in seen.runs:
                one, zero = run.outputs[key]
                for at, step in enumerate(places):
                    if (
                        step is not None
                        and want.care >> step & 1
                        and (one >> at & 1, zero >> at & 1) != (want.one >> step & 1, want.zero >> step & 1)
                    ):
                        return False
        return True

    def _right_with(self, driven: Callable[[Iterable[Sequence]], list[tuple[str, list[Step]]]]) -> bool:
        """Whether every step is right when sequences are driven so; suspects first."""
        for some in (self._suspects[:_FEW], self._drive.sequences):
            sequences = driven(some)
            if not sequences:
                return False
            planned = [(name, [Planned(action, cells) for action, cells, _ in steps]) for name, steps in sequences]
            count, one, zero, stimulus = pack_steps(self._e.spec.inputs, self._e.spec.clock, planned)
            places = [place for _, steps in sequences for _, _, place in steps]
            if not self._all_right(self._again(Cases(count, one, zero, stimulus)), places):
                return False
        return True

    def _steps(self, sequence: Sequence) -> Iterator[tuple[int, str, tuple[Cell, ...]]]:
        for step in range(sequence.first, sequence.first + sequence.length):
            cells = []
            bit = 0
            for port in self._e.spec.inputs:
                cells.append(Cell(self._cases.word(step, bit, port.width), values.ones(port.width)))
                bit += port.width
            yield step, self._drive.actions[step], tuple(cells)

    def _resets(self, step: int, bit: int) -> bool:
        assert self._e.spec.reset is not None
        plane = self._cases.one[bit] if self._e.spec.reset.active else self._cases.zero[bit]
        return bool(plane >> step & 1)

    def _pulsed(self, bit: int, sequences: Iterable[Sequence]) -> list[tuple[str, list[Step]]]:
        """The same sequences with a pulse of the clock in each step that resets, before it is looked at."""
        out: list[tuple[str, list[Step]]] = []
        for sequence in sequences:
            level = self._drive.idle
            steps: list[Step] = []
            for step, action, cells in self._steps(sequence):
                if self._resets(step, bit):
                    if level == self._drive.idle:
                        steps.append((CYCLE, cells, None))
                    else:
                        back, forth = (FALL, RISE) if level else (RISE, FALL)
                        steps += [(back, cells, None), (forth, cells, None)]
                steps.append((action, cells, step))
                level = clock_after(action, level, self._drive.idle)
            out.append((sequence.name, steps))
        return out

    def _held_back(self, bit: int, sequences: Iterable[Sequence]) -> list[tuple[str, list[Step]]]:
        """The same sequences with the reset at rest in steps without an active edge."""
        assert self._e.spec.reset is not None
        rest = values.word(1 - self._e.spec.reset.active, 1)
        index = [p.name for p in self._e.spec.inputs].index(self._e.spec.reset.port)
        out: list[tuple[str, list[Step]]] = []
        for sequence in sequences:
            steps: list[Step] = []
            for step, action, cells in self._steps(sequence):
                if not self._drive.active(step):
                    cells = (*cells[:index], Cell(rest, 1), *cells[index + 1 :])
                steps.append((action, cells, step))
            out.append((sequence.name, steps))
        return out

    # Inputs that do nothing.

    def ignored(self) -> list[Slip]:
        """Inputs whose turning changes no output in any step, although what is expected depends on them."""
        spec = self._e.spec
        few = _only(self._cases, self._suspects[:_FEW])[0]
        before = self._again(few).runs[0].outputs
        found: list[Slip] = []
        bit = 0
        for port in spec.inputs:
            at, bit = bit, bit + port.width
            if spec.clock is not None and port.name == spec.clock.port:
                continue
            if not self._matters(at, port.width):
                continue
            if self._again(turned_input(few, at, port.width)).runs[0].outputs == before:
                full = self._again(turned_input(self._cases, at, port.width)).runs[0].outputs
                if all(full[key] == self._verdict.shown[key] for key in self._e.bits):
                    found.append(Slip("ignores", say("does-not-react", name=port.name), self._wrong[0]))
        return found

    def _matters(self, bit: int, width: int) -> bool:
        """Whether two steps are alike in what they do, in all other inputs and in what was expected before, and
        different things are expected in them: by this input. Not where two steps that are alike in it, too, differ:
        then something else is remembered."""
        own = values.ones(width) << bit
        seen: dict[tuple[object, ...], dict[int, set[tuple[int, ...]]]] = {}
        for before, action, given, wanted in self._moves:
            alike = before, action, given & ~own
            seen.setdefault(alike, {}).setdefault(given & own, set()).add(wanted)
        for by_value in seen.values():
            if all(len(outcomes) == 1 for outcomes in by_value.values()) and len(set.union(*by_value.values())) > 1:
                return True
        return False

    @cached_property
    def _moves(self) -> list[tuple[tuple[int, ...], str, int, tuple[int, ...]]]:
        """Of each step but the first of a sequence, where all is compared: what was expected before, what the clock
        does, all inputs as one number, what is expected."""
        found = []
        for sequence in self._drive.sequences:
            for step in range(sequence.first + 1, sequence.first + sequence.length):
                before, wanted = self._all_expected(step - 1), self._all_expected(step)
                if before is not None and wanted is not None:
                    given = sum((plane >> step & 1) << i for i, plane in enumerate(self._cases.one))
                    found.append((before, self._drive.actions[step], given, wanted))
        return found

    def _all_expected(self, step: int) -> tuple[int, ...] | None:
        """What all outputs should be; None where some of it is not compared."""
        found = [self._expected(port, step) for port in self._e.spec.outputs]
        return tuple(number for number, _ in found) if all(is_word for _, is_word in found) else None

    # Read off the steps.

    def shifted(self) -> Slip | None:
        """Every output right, but a cycle late, or early."""
        for kind, by in (("late", -1), ("early", 1)):
            if self._is_shifted(by):
                return Slip(kind, say(kind, names=self._wrong, count=len(self._wrong)), self._wrong[0])
        return None

    def _is_shifted(self, by: int) -> bool:
        """Whether each wrong output shows at every edge what is expected at the one before (by -1) or after (by 1)."""
        compared = 0
        for sequence in self._drive.sequences:
            edges = [s for s in range(sequence.first, sequence.first + sequence.length) if self._drive.active(s)]
            for earlier, later in pairwise(edges):
                here, there = (later, earlier) if by < 0 else (earlier, later)
                for key, want in self._e.bits.items():
                    if key[0] not in self._wrong or not want.care >> there & 1:
                        continue
                    # Between the two edges nothing else may have been set at once.
                    if any(self._async(s) for s in range(min(here, there), max(here, there) + 1)):
                        continue
                    one, zero = self._verdict.shown[key]
                    if (one >> here & 1, zero >> here & 1) != (want.one >> there & 1, want.zero >> there & 1):
                        return False
                    compared += 1
        return compared >= 2 * _FEWEST_EDGES

    def _async(self, step: int) -> bool:
        spec = self._e.spec
        if spec.reset is None:
            return False
        bit = sum(p.width for p in spec.inputs[: [p.name for p in spec.inputs].index(spec.reset.port)])
        return self._resets(step, bit)

    def counting(self) -> list[Slip]:
        """An output that goes on counting where it should go back, or goes back too early, in every first wrong
        step."""
        return [slip for port in self._e.spec.outputs if port.width > 1 and (slip := self._counts(port)) is not None]

    def _counts(self, port: SpecPort) -> Slip | None:
        kinds: set[tuple[str, int, int]] = set()
        output = self._verdict.outputs[port.name]
        for step in set_bits(self._found.first & (output.failed | output.undefined)):
            if not self._drive.active(step) or self._drive.place(step)[1] == 1:
                return None
            before, is_word = self._expected(port, step - 1)
            wanted, is_wanted = self._expected(port, step)
            one, zero = shown_word(self._verdict, port, step)
            if not is_word or not is_wanted or not values.is_known((one, zero), port.width):
                return None
            if one == before + 1 and wanted < before:
                kinds.add(("counts-too-far", one, wanted))
            elif wanted == before + 1 and one < before:
                kinds.add(("wraps-too-early", before, one))
            else:
                return None
        if len(kinds) != 1:
            return None
        kind, a, b = kinds.pop()
        x, y = port.show(values.word(a, port.width)), port.show(values.word(b, port.width))
        if kind == "counts-too-far":
            return Slip(kind, say(kind, output=port.name, value=x, wanted=y), port.name)
        return Slip(kind, say(kind, output=port.name, value=y, before=x), port.name)

    def _expected(self, port: SpecPort, step: int) -> tuple[int, bool]:
        number, care = 0, True
        for i in range(port.width - 1, -1, -1):
            bits = self._verdict.expected[port.name, i]
            number = number << 1 | (bits.one >> step & 1)
            care = care and bool(bits.care >> step & 1)
        return number, care

    def stuck(self) -> list[Slip]:
        """An output that never leaves one value once it has come to it, in every sequence that goes astray."""
        found = []
        for port in self._e.spec.outputs:
            held = {v for v in (self._held_value(port, s) for s in self._suspects) if v is not None}
            if len(held) == 1 and self._leaves(port, next(iter(held))):
                value = port.show(values.word(next(iter(held)), port.width))
                found.append(Slip("stuck", say("stuck", output=port.name, value=value), port.name))
        return found

    def _held_value(self, port: SpecPort, sequence: Sequence) -> int | None:
        """The value at which an output stays for the rest of its way astray."""
        for stretch in self._found.stretches:
            if stretch.sequence is not sequence and stretch.sequence != sequence:
                continue
            edges = [s for s in range(stretch.start, stretch.end) if self._drive.active(s)]
            words = {shown_word(self._verdict, port, s) for s in range(stretch.start, stretch.end)}
            if len(words) == 1 and len(edges) >= _FEWEST_EDGES:
                one, zero = words.pop()
                if values.is_known((one, zero), port.width):
                    return one
        return None

    def _leaves(self, port: SpecPort, value: int) -> bool:
        """Whether the value is expected to be left at some edge, and never is but by a reset."""
        expected = False
        for sequence in self._drive.sequences:
            for step in range(sequence.first + 1, sequence.first + sequence.length):
                if shown_word(self._verdict, port, step - 1) != values.word(value, port.width) or self._async(step):
                    continue
                if shown_word(self._verdict, port, step) != values.word(value, port.width):
                    return False
                wanted, is_wanted = self._expected(port, step)
                expected = expected or (is_wanted and wanted != value)
        return expected


# Other drives.


def turned_clock(cases: Cases) -> Cases:
    """The same steps with the clock upside down."""
    stimulus = cases.stimulus
    assert stimulus is not None
    actions = "".join(_TURNED[a] for a in stimulus.actions)
    return replace(cases, stimulus=replace(stimulus, actions=actions, idle=1 - stimulus.idle))


def turned_input(cases: Cases, bit: int, width: int) -> Cases:
    """The same steps with some input bits inverted."""
    one, zero = list(cases.one), list(cases.zero)
    for i in range(bit, bit + width):
        one[i], zero[i] = zero[i], one[i]
    return replace(cases, one=tuple(one), zero=tuple(zero))


def _only(cases: Cases, sequences: list[Sequence]) -> tuple[Cases, list[int | None]]:
    """A few of the sequences, and the steps that they stand for."""
    stimulus = cases.stimulus
    assert stimulus is not None
    places = [step for s in sequences for step in range(s.first, s.first + s.length)]

    def cut(plane: int) -> int:
        out = at = 0
        for s in sequences:
            out |= (plane >> s.first & values.ones(s.length)) << at
            at += s.length
        return out

    placed, at = [], 0
    for s in sequences:
        placed.append(Sequence(s.name, at, s.length))
        at += s.length
    actions = "".join(stimulus.actions[s.first : s.first + s.length] for s in sequences)
    fewer = replace(stimulus, sequences=tuple(placed), actions=actions, free=tuple(cut(p) for p in stimulus.free))
    return Cases(at, tuple(cut(p) for p in cases.one), tuple(cut(p) for p in cases.zero), fewer), list(places)


# Other designs.


def _written_blocking(
    search: _Search, expectation: Expectation, design: Design, binding: Binding, limits: Limits
) -> Slip | None:
    """Registers set with `=` that make every step right when set with `<=`."""
    candidates = [s for s in clocked_assignments(design) if s.blocking and s.timing is None]
    seen = read_elsewhere(design)
    shared = [s for s in candidates if any(t.signal.id in seen for t in s.targets)]
    for chosen in (shared, candidates):
        if not chosen:
            continue
        for s in chosen:
            s.blocking = False
        try:
            if not search.may_be_right(expectation.cases):
                continue
            verdict = judge(
                expectation, observe_steps(design, binding, expectation.spec.inputs, expectation.cases, limits)
            )
        finally:
            for s in chosen:
                s.blocking = True
        if verdict.right == expectation.cases.full:
            names = sorted({t.signal.name.rpartition(".")[2] for s in chosen for t in s.targets})
            return Slip("blocking", say("blocking", names=names), expectation.spec.outputs[0].name)
    return None
