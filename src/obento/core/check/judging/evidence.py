"""A value change dump handed in as evidence: its signals bound like ports, and held against the cases or the steps.

Without a clock each stretch between two changes of the inputs is one case, looked at just before the next change; the
same case shown twice must be right twice. With a clock the steps are looked for in their order: each active edge with
the inputs of a step just before it, outputs looked at before anything else happens. What the dump does not show counts
as not finished."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from obento.core.check.expectation.model import Expectation, Key
from obento.core.check.judging.outcome import Checked, Finding
from obento.core.check.judging.verdict import judge
from obento.core.check.running.binding import Binding, bind_ports
from obento.core.check.running.observation import Observation, Run
from obento.core.diagnostics import Message
from obento.core.handin import HandinFile
from obento.core.ir.design import Design, Port
from obento.core.sim.bench.vcd_read import BadDump, Dumped, DumpFile, read_dump
from obento.core.spec.model import Spec, SpecPort
from obento.core.spec.stimulus import CYCLE, FALL, QUIET, RISE, Stimulus, clock_after
from obento.core.spec.stimulus import Sequence as StepSequence
from obento.core.texts import decode
from obento.core.values import Word

LANGUAGE = "vcd"
MOST_BYTES = 16_000_000


def is_evidence(files: Sequence[HandinFile]) -> bool:
    """Whether a hand-in is a dump and nothing else that could be run."""
    suffixes = {f.path.lower().rpartition(".")[2] for f in files}
    return "vcd" in suffixes and not suffixes & {"v", "sv", "vhd", "vhdl", "wiring"}


def check_evidence(expectation: Expectation, files: Sequence[HandinFile]) -> Checked:
    """The verdict on what a dump shows."""
    file = next(f for f in files if f.path.lower().endswith(".vcd"))
    spec = expectation.spec
    outcome = Checked("unreadable", LANGUAGE, spec.unit)
    if LANGUAGE not in spec.rules.languages:
        text = "a dump was handed in, and this task takes designs"
        outcome.messages = [
            Message(
                "error", "no-evidence", file.path, 1, 1, text, 'rules: languages = ["verilog", "vcd"] would take it'
            )
        ]
        outcome.status = "no_unit"
        return outcome
    if len(file.data) > MOST_BYTES:
        outcome.messages = [
            Message(
                "error",
                "too-large",
                file.path,
                1,
                1,
                f"this dump is larger than {MOST_BYTES // 1_000_000} MB",
                "dump the ports only",
            )
        ]
        return outcome
    try:
        dump = read_dump(decode(file.data) or "")
    except BadDump as bad:
        outcome.messages = [Message("error", "vcd", file.path, bad.line, 1, bad.text)]
        return outcome
    bound = _bind(spec, dump)
    outcome.binding = bound.binding.ports
    if bound.binding.problems:
        outcome.status = "ports"
        outcome.messages = [Message("error", "port", file.path, 1, 1, text) for text in bound.binding.problems]
        return outcome
    run = (
        _cases_shown(expectation, bound, dump)
        if expectation.cases.stimulus is None
        else _steps_shown(expectation, bound, dump)
    )
    outcome.status, outcome.engine = "checked", LANGUAGE
    outcome.verdict = judge(expectation, Observation([run], LANGUAGE))
    missing = outcome.verdict.stopped.bit_count()
    if missing:
        what = "cases" if expectation.cases.stimulus is None else "steps"
        outcome.findings.append(
            Finding("not-shown", f"the dump does not show {missing} of {expectation.cases.count} {what}")
        )
    for name, output in outcome.verdict.outputs.items():
        wrong = (output.failed | output.undefined).bit_count()
        if wrong:
            outcome.findings.append(
                Finding(
                    "wrong", f"{name} is wrong in {wrong} of {expectation.cases.count - missing} that are shown", name
                )
            )
    return outcome


# Whose signal is whose port.


@dataclass(slots=True)
class _Bound:
    """Variables of a dump by our bits."""

    binding: Binding
    variables: dict[str, Dumped]

    def bit(self, port: str, i: int, time: int) -> tuple[int, int]:
        theirs, offset = self.binding.bits[port, i]
        one, zero = self.variables[theirs.name].word(time)
        return one >> offset & 1, zero >> offset & 1

    def word(self, port: SpecPort, time: int) -> Word:
        one = zero = 0
        for i in range(port.width - 1, -1, -1):
            a, b = self.bit(port.name, i, time)
            one, zero = one << 1 | a, zero << 1 | b
        return one, zero


def _bind(spec: Spec, dump: DumpFile) -> _Bound:
    """Bind within the scope in which most ports are found, the outermost of those."""
    scopes = sorted({v.path for v in dump.variables}, key=lambda path: (path.count("."), path))
    tried = [_bind_in(spec, [v for v in dump.variables if v.path == scope]) for scope in scopes] or [_bind_in(spec, [])]
    return min(tried, key=lambda b: len(b.binding.problems))


def _bind_in(spec: Spec, variables: list[Dumped]) -> _Bound:
    """A dump does not say what is an input: ours are bound first to all, then our outputs to the rest."""
    known = {v.name: v for v in variables}
    total = Binding()
    left = dict(known)
    for side in ("in", "out"):
        design = Design(spec.unit, LANGUAGE)
        for v in left.values():
            design.ports.append(Port(v.name, side, design.add_signal(v.name, v.width, "net"), False))
        half = replace(spec, outputs=()) if side == "in" else replace(spec, inputs=())
        found = bind_ports(half, design)
        for bound in found.ports:
            names = bound.theirs.split()
            if bound.how == "only":  # too bold for a dump, which is full of other signals
                found.problems.append(f"`{bound.ours}` is not among its signals")
                continue
            total.ports.append(bound)
            for name in names:
                left.pop(name.partition("[")[0], None)
        total.bits |= found.bits
        total.problems += found.problems
    return _Bound(total, known)


# Without a clock.


def _times(bound: _Bound, ports: Sequence[SpecPort]) -> list[int]:
    """When any of the ports changes."""
    names = {bound.binding.bits[p.name, i][0].name for p in ports for i in range(p.width)}
    return sorted({t for name in names for t in bound.variables[name].at})


def _cases_shown(expectation: Expectation, bound: _Bound, dump: DumpFile) -> Run:
    spec, cases = expectation.spec, expectation.cases
    number = {_point(expectation, case): case for case in range(cases.count)}
    times = _times(bound, spec.inputs)
    run = Run("fresh", dict.fromkeys(expectation.bits, (0, 0)), cases.full)
    for end in [*times[1:], dump.end + 1]:
        look = end - 1
        case = number.get(tuple(bound.word(p, look) for p in spec.inputs))
        if case is None:
            continue
        seen = {key: bound.bit(*key, look) for key in expectation.bits}
        if not run.stopped >> case & 1 and _is_right(expectation, seen, case):
            continue  # it was seen before; whatever was wrong then stays
        _enter(run, seen, case)
    return run


def _point(expectation: Expectation, case: int) -> tuple[Word, ...]:
    words = []
    bit = 0
    for port in expectation.spec.inputs:
        words.append(expectation.cases.word(case, bit, port.width))
        bit += port.width
    return tuple(words)


def _is_right(expectation: Expectation, seen: dict[Key, tuple[int, int]], case: int) -> bool:
    return all(
        not want.care >> case & 1 or seen[key] == (want.one >> case & 1, want.zero >> case & 1)
        for key, want in expectation.bits.items()
    )


def _enter(run: Run, seen: dict[Key, tuple[int, int]], case: int) -> None:
    at = 1 << case
    run.stopped &= ~at
    for key, (one, zero) in seen.items():
        a, b = run.outputs[key]
        run.outputs[key] = a & ~at | one << case, b & ~at | zero << case


# With a clock.


@dataclass(frozen=True, slots=True)
class _Moment:
    """Up to before `until` nothing that is set from outside changes. `edge` is what the clock did at its beginning;
    `inputs` stood before that, `after` since."""

    until: int
    edge: str
    inputs: tuple[Word, ...]
    after: tuple[Word, ...]


def _steps_shown(expectation: Expectation, bound: _Bound, dump: DumpFile) -> Run:
    spec, cases = expectation.spec, expectation.cases
    stimulus = cases.stimulus
    assert stimulus is not None
    data = [p for p in spec.inputs if spec.clock is None or p.name != spec.clock.port]
    moments = _moments(bound, dump, spec, data)
    run = Run("fresh", dict.fromkeys(expectation.bits, (0, 0)), cases.full)
    for sequence in stimulus.sequences:
        wanted = list(
            zip(
                _edges(stimulus, sequence),
                (_data_point(expectation, sequence.first + i) for i in range(sequence.length)),
                strict=True,
            )
        )
        best: list[int] = []
        for start in range(len(moments)):
            found = _follow(moments, start, wanted, stimulus.idle)
            if len(found) > len(best):
                best = found
            if len(best) == len(wanted):
                break
        _enter_steps(run, bound, moments, best, sequence)
    return run


def _edges(stimulus: Stimulus, sequence: StepSequence) -> list[str]:
    """What the clock really does in each step: told to rise while it is up, it does nothing."""
    found = []
    level = stimulus.idle
    for action in stimulus.actions[sequence.first : sequence.first + sequence.length]:
        moves = action == CYCLE or (action != QUIET and int(action == RISE) != level)
        found.append(action if moves else QUIET)
        level = clock_after(action, level, stimulus.idle)
    return found


def _data_point(expectation: Expectation, step: int) -> tuple[tuple[int, int, int], ...]:
    """The inputs of a step but the clock: ones, zeros, and which digits are given."""
    stimulus = expectation.cases.stimulus
    assert stimulus is not None
    out = []
    bit = 0
    for port in expectation.spec.inputs:
        one, zero = expectation.cases.word(step, bit, port.width)
        care = 0
        for i in range(port.width):
            care |= (not stimulus.free[bit + i] >> step & 1) << i
        bit += port.width
        if expectation.spec.clock is None or port.name != expectation.spec.clock.port:
            out.append((one & care, zero & care, care))
    return tuple(out)


def _moments(bound: _Bound, dump: DumpFile, spec: Spec, data: list[SpecPort]) -> list[_Moment]:
    clock = next((p for p in spec.inputs if spec.clock is not None and p.name == spec.clock.port), None)
    times = _times(bound, spec.inputs)
    found: list[_Moment] = []
    level: Word | None = None
    before: tuple[Word, ...] = ()
    for time, until in zip(times, [*times[1:], dump.end + 1], strict=True):
        now = bound.word(clock, time) if clock is not None else (0, 0)
        edge = QUIET if level is None or now == level else RISE if now == (1, 0) else FALL if now == (0, 1) else QUIET
        inputs = tuple(bound.word(p, time) for p in data)
        # At an edge what counts is what stood before it.
        found.append(_Moment(until, edge, before if edge != QUIET and before else inputs, inputs))
        level, before = now, inputs
    return found


def _follow(
    moments: list[_Moment], start: int, wanted: list[tuple[str, tuple[tuple[int, int, int], ...]]], idle: int
) -> list[int]:
    """The moments that show the first steps wanted, one each, as far as it goes. Active edges in between end it."""
    active = FALL if idle else RISE
    found: list[int] = []
    here = start
    for action, inputs in wanted:
        if action == QUIET and found and _agree(moments[found[-1]].after, inputs):
            found.append(found[-1])  # nothing was set: it is still the same moment
            continue
        edges = {active} if action == CYCLE else {action} if action != QUIET else {QUIET, RISE, FALL} - {active}
        while here < len(moments):
            moment = moments[here]
            if moment.edge in edges and _agree(moment.inputs if moment.edge == active else moment.after, inputs):
                break
            if moment.edge == active or not found:
                return found
            here += 1
        if here >= len(moments):
            return found
        found.append(here)
        here += 1
    return found


def _agree(have: tuple[Word, ...], wanted: tuple[tuple[int, int, int], ...]) -> bool:
    return all(one & care == w1 and zero & care == w0 for (one, zero), (w1, w0, care) in zip(have, wanted, strict=True))


def _enter_steps(run: Run, bound: _Bound, moments: list[_Moment], found: list[int], sequence: StepSequence) -> None:
    for i, place in enumerate(found):
        look = moments[place].until - 1
        _enter(run, {key: bound.bit(*key, look) for key in run.outputs}, sequence.first + i)
