"""Benches as the source of verdicts: a TA's bench run on each hand-in, and students' benches tried on designs known to be right
or wrong.

The cases are the checks that a bench makes: those that its printed lines name by the TA's patterns, else its assertions, each
by its line. A check passes when the bench came to its end and never reported it as failed.
"""

from __future__ import annotations

import re
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace

from obento.core.check.expectation import Expectation, Planes, Source
from obento.core.check.observe import Observation, Run
from obento.core.check.outcome import Checked, Finding
from obento.core.check.ready import chosen_files, make_ready
from obento.core.check.rules import check_rules
from obento.core.check.verdict import judge
from obento.core.diagnostics import Collector, Message
from obento.core.handin import HandinFile, read_handin
from obento.core.limits import Limits
from obento.core.sim.bench import Listener
from obento.core.simulate import ENDED, BadCall, Options, Outcome, simulate
from obento.core.source import SourceFile, Sources
from obento.core.spec.cases import Cases
from obento.core.spec.model import Bench, Spec, SpecPort
from obento.core.texts import decode
from obento.core.verilog.lexer import lex
from obento.core.vhdl.lexer import tokenize

LIMITS = Limits(loop_rounds=1 << 20, call_depth=200, deltas=20_000, time_steps=200_000, output_bytes=1 << 20)
"""Bounds for one run of a bench: generous for coursework, short enough for a class."""

CHECK = SpecPort("check", "out", 1, 0, 0, False, "bin")
"""The one output of a task that is judged by a bench: 1 where a check passes."""

_FAILING = frozenset(["error", "failure", "fatal"])
_MOST_KEPT = 20_000


@dataclass(frozen=True, slots=True)
class Report:
    """One report of a bench: severity, text, and `file:line` of the statement."""

    severity: str
    text: str
    place: str


class _Witness(Listener):
    """Keeps what the files of a bench say. What a hand-in prints is no evidence, and ending the run is not its business."""

    def __init__(self, sources: Sources, files: Collection[str]) -> None:
        self._sources = sources
        self._files = files
        self.said: list[str] = []
        self.reports: list[Report] = []
        self.reached: set[str] = set()
        self.trouble = ""

    def _place(self, position: int) -> str:
        place = self._sources.place(position)
        return f"{place.file}:{place.line}"

    def _is_own(self, position: int) -> bool:
        return self._sources.place(position).file in self._files

    def printed(self, text: str, position: int) -> None:
        if self._is_own(position):
            self.said.append(text)

    def reported(self, severity: str, text: str, position: int) -> None:
        if self._is_own(position):
            self.reports.append(Report(severity, text, self._place(position)))

    def came_to(self, position: int) -> None:
        self.reached.add(self._place(position))

    def ended(self, position: int) -> None:
        if not self._is_own(position):
            self.trouble = f"the run is ended by {self._place(position)}, not by the bench"

    def left_waiting(self, position: int) -> None:
        if self._is_own(position):
            self.trouble = f"the bench waits for ever, in the process at {self._place(position)}"


@dataclass(slots=True)
class BenchRun:
    """What a bench did on one design: all that was printed, the lines that it printed itself, its reports, and the assertions of
    VHDL benches that it came to. `trouble` says why it did not come to its end by itself."""

    outcome: Outcome
    output: str
    lines: list[str] = field(default_factory=list)
    reports: list[Report] = field(default_factory=list)
    reached: set[str] = field(default_factory=set)
    trouble: str = ""

    @property
    def ended(self) -> bool:
        return self.outcome.status == ENDED and not self.trouble

    @property
    def first_failure(self) -> Report | None:
        return next((r for r in self.reports if r.severity in _FAILING), None)


def run_bench(files: Sequence[HandinFile], top: str | None, own: Collection[str], chosen: Mapping[str, str] | None = None) -> BenchRun:
    """Run a bench with everything it needs; `own` are the names of its own files, `chosen` files for units that stand in several."""
    printed: list[str] = []
    witness: list[_Witness] = []

    def listen(sources: Sources) -> Listener:
        witness.append(_Witness(sources, own))
        return witness[0]

    try:
        outcome = simulate(files, printed.append, Options(top=top, chosen=chosen or {}), LIMITS, listen=listen)
    except BadCall as error:
        outcome = Outcome(2, [Message("error", "no-top", "", 0, 0, str(error))])
    run = BenchRun(outcome, "".join(printed))
    for w in witness:
        run.lines, run.reports, run.reached, run.trouble = "".join(w.said).splitlines(), w.reports, w.reached, w.trouble
    return run


# What is expected.


def expect_bench(
    spec: Spec, bench: Bench, others: Mapping[str, bytes], collector: Collector, limits: Limits, position: int
) -> tuple[Expectation | None, bool]:
    """The checks of a bench as cases; what the reference does not pass is an error of the spec."""
    del limits
    if bench.right or bench.wrong:
        designs = (*(f"accepts {n}" for n in bench.right), *(f"rejects {n}" for n in bench.wrong))
        return _expectation(spec, designs, others), True
    files = [HandinFile(n, others[n]) for n in bench.files]
    if not _unit_is_used(files, spec, collector, position):
        return None, False
    reference = None
    if spec.models:
        reference = run_bench([*files, *(HandinFile(n, others[n]) for n in spec.models)], bench.top, bench.files)
    if reference is not None and reference.outcome.status == 2:
        first = next((str(m) for m in reference.outcome.messages if m.severity == "error"), "")
        collector.error("bad-bench", f"the bench cannot be run on the reference: {first}", position)
        return None, False
    checks = bench.checks or _checks_of(bench, files, reference)
    if not checks:
        text = "this bench checks nothing that can be told apart" + ("" if reference or not bench.passing else " without a reference `model`")
        collector.error("no-checks", text, position, None, "give it assertions, or patterns in [bench] and a `model` that passes them, or `checks`")
        return None, False
    expectation = _expectation(spec, checks, others)
    if reference is not None:
        verdict = judge(expectation, _observe(bench, checks, reference))
        for index, name in enumerate(checks):
            if not verdict.right >> index & 1:
                collector.error("bad-model", f"the reference does not pass the check `{name}`", position, None, "no student can be judged by it")
                return expectation, False
    return expectation, True


def _expectation(spec: Spec, checks: Sequence[str], others: Mapping[str, bytes]) -> Expectation:
    count = len(checks)
    full = (1 << count) - 1
    source = Source("bench", {(CHECK.name, 0): Planes(full, 0, full)})
    bare = replace(spec, inputs=(), outputs=(CHECK,), groups={})
    return Expectation(bare, Cases(count, (), (), labels=tuple(checks)), dict(source.bits), [source], {}, handed_in=spec, beside=dict(others))


def _unit_is_used(files: list[HandinFile], spec: Spec, collector: Collector, position: int) -> bool:
    """Whether the bench can be read and uses the unit that is handed in."""
    reading = read_handin(files, Limits())
    if reading.collector.errors:
        first = next((str(m) for m in reading.messages() if m.severity == "error"), "")
        collector.error("bad-bench", f"the bench cannot be read: {first}", position)
        return False
    used = {n.lower() for u in reading.units.values() for n in u.uses}
    if spec.unit.lower() not in used:
        collector.error("bad-bench", f"the bench does not use `{spec.unit}`", position, None, "it must place the unit that is handed in, by name")
        return False
    return True


def _checks_of(bench: Bench, files: list[HandinFile], reference: BenchRun | None) -> tuple[str, ...]:
    if bench.passing:
        if reference is None:
            return ()
        lines = reference.lines
        failed = _named(bench.failing, lines) if bench.failing else ()
        return tuple(dict.fromkeys([*_named(bench.passing, lines), *failed]))
    if bench.failing and reference is None:
        return ()
    places = [place for file in files for place in assertions_of(file)]
    return tuple(places)


def _named(pattern: str, lines: Iterable[str]) -> Iterable[str]:
    """The names of checks in printed lines."""
    compiled = re.compile(pattern)
    for line in lines:
        found = compiled.search(line)
        if found is not None:
            named = found.groupdict().get("check")
            yield (named if named is not None else found.group()).strip()


def assertions_of(file: HandinFile) -> list[str]:
    """`file:line` of everything in a bench that can report a failure: assertions and reports in VHDL, `$error` and `$fatal`."""
    text = decode(file.data) or ""
    source: SourceFile = Sources().add(file.path, text.replace("\r\n", "\n"))
    is_vhdl = file.path.lower().endswith((".vhd", ".vhdl"))
    tokens = tokenize(source, Collector(), Limits()) if is_vhdl else lex(source, Collector(), Limits(), True)
    lines: dict[int, None] = {}
    inside = False
    for kind, word, start in zip(tokens.kinds, tokens.texts, tokens.starts, strict=True):
        if is_vhdl:
            if word == ";":
                inside = False
            elif kind == "k" and word in ("assert", "report") and not inside:
                inside = True
                lines[_line(source, start)] = None
        elif word in ("$error", "$fatal"):
            lines[_line(source, start)] = None
    return [f"{file.path}:{line}" for line in lines]


def _line(source: SourceFile, position: int) -> int:
    return source.text.count("\n", 0, position - source.base) + 1


# Hand-ins.


def check_by_bench(
    expectation: Expectation, bench: Bench, files: Sequence[HandinFile], provided: Sequence[HandinFile], limits: Limits, choices: Mapping[str, str]
) -> Checked:
    """One hand-in by the bench, or one bench that was handed in."""
    beside = expectation.beside
    assert expectation.handed_in is not None
    if bench.right or bench.wrong:
        return _check_students_bench(expectation, bench, files, provided, beside, limits)
    ready = make_ready(expectation.handed_in, files, provided, limits, choices)
    if isinstance(ready, Checked):
        return ready
    outcome = ready.outcome
    for bound in outcome.binding:
        same = bound.theirs.lower() == bound.ours.lower() if ready.unit.language == "vhdl" else bound.theirs == bound.ours
        if not same:
            what = "the unit" if bound.ours == expectation.spec.unit else "the port"
            ready.reading.collector.error("port", f"{what} must be called `{bound.ours}` for the bench, not `{bound.theirs}`", ready.unit.position)
            outcome.status = "ports"
            outcome.messages = ready.reading.messages()
            return outcome
    own = [f for f in files if f.path.rpartition("/")[2] not in {*bench.files, *(p.path for p in provided)}]
    everything = [*(HandinFile(n, beside[n]) for n in bench.files), *provided, *own]
    run = run_bench(everything, bench.top or _top(bench, beside), bench.files, chosen_files(choices))
    outcome.output = run.output[:_MOST_KEPT]
    outcome.engine = "timeline"
    outcome.messages = [*ready.reading.messages(), *(m for m in run.outcome.messages if m.severity == "error")]
    if run.outcome.status == 2:
        outcome.status = "unreadable"
        return outcome
    outcome.status = "checked"
    outcome.rules = check_rules(expectation.spec.rules, ready.design)
    outcome.verdict = judge(expectation, _observe(bench, expectation.cases.labels, run))
    outcome.findings = _findings(expectation.cases.labels, run, bench)
    return outcome


def _top(bench: Bench, beside: Mapping[str, bytes]) -> str | None:
    """The bench itself: the unit of its files that no other uses. The hand-in may hold benches of its own."""
    reading = read_handin([HandinFile(n, beside[n]) for n in bench.files], Limits())
    used = {n.lower() for u in reading.units.values() for n in u.uses}
    tops = [u.name for u in reading.units.values() if u.name.lower() not in used]
    return tops[-1] if tops else None


def _observe(bench: Bench, checks: Sequence[str], run: BenchRun) -> Observation:
    """What a run says of each check: 1 passed, 0 failed; neither where it did not come that far."""
    lines = run.lines
    one = zero = 0
    passed = set(_named(bench.passing, lines)) if bench.passing else set()
    failed = set(_named(bench.failing, lines)) if bench.failing else set()
    places = {r.place for r in run.reports if r.severity in _FAILING}
    for index, check in enumerate(checks):
        if check in failed or check in places:
            zero |= 1 << index
        elif check in passed if bench.passing else run.ended and _was_reached(check, run):
            one |= 1 << index
    full = (1 << len(checks)) - 1
    return Observation([Run("fresh", {(CHECK.name, 0): (one, zero)}, full & ~(one | zero))], "timeline")


def _was_reached(check: str, run: BenchRun) -> bool:
    """Whether a bench came to an assertion; of Verilog's, whose condition stands elsewhere, it cannot be told."""
    return check in run.reached or not check.rpartition(":")[0].lower().endswith((".vhd", ".vhdl"))


def _findings(checks: Sequence[str], run: BenchRun, bench: Bench) -> list[Finding]:
    """The first report of each check that failed; what ended the run, if it did not end by itself."""
    found: list[Finding] = []
    seen: set[str] = set()
    for report in run.reports:
        if report.severity in _FAILING and report.place in checks and report.place not in seen:
            seen.add(report.place)
            found.append(Finding("bench", f"{report.place}: {report.text}", CHECK.name))
    if bench.failing:
        compiled = re.compile(bench.failing)
        found += [Finding("bench", line.strip(), CHECK.name) for line in run.lines if compiled.search(line)]
    if run.trouble:
        found.insert(0, Finding("stopped", run.trouble))
    if run.outcome.status == 3:
        text = next((m.text for m in run.outcome.messages if m.code == "limit"), "a limit")
        found.insert(0, Finding("stopped", f"the bench does not come to its end: {text}"))
    return found


def _check_students_bench(
    expectation: Expectation, bench: Bench, files: Sequence[HandinFile], provided: Sequence[HandinFile], beside: Mapping[str, bytes], limits: Limits
) -> Checked:
    """A bench that was handed in, tried on every design: does it accept the right ones and reject the wrong ones?"""
    reading = read_handin(files, limits, provided)
    if reading.empty:
        return Checked("empty", messages=reading.messages())
    if reading.collector.errors:
        return Checked("unreadable", messages=reading.messages())
    used = {n.lower() for u in reading.units.values() for n in u.uses}
    tops = [u for u in reading.units.values() if u.name.lower() not in used and not u.has_ports]
    unit = reading.units.get(expectation.spec.unit) or (tops[-1] if len(tops) == 1 else None)
    if unit is None:
        reading.collector.error("no-unit", f"there is no bench `{expectation.spec.unit}`", hint="a bench has no ports")
        return Checked("no_unit", messages=reading.messages())
    tried = {n for name in (*bench.right, *bench.wrong) for n in read_handin([HandinFile(name, beside[name])], limits).units}
    # A copy of the design that was handed in with the bench gives way to the one it is tried on.
    kept = [f for f in files if not (names := set(read_handin([f], limits).units)) or not names <= tried]
    outcome = Checked("checked", unit.language, unit.name, messages=reading.messages(), engine="timeline")
    one = zero = 0
    texts: list[str] = []
    for index, name in enumerate((*bench.right, *bench.wrong)):
        run = run_bench([*kept, *provided, HandinFile(name, beside[name])], unit.name, {f.path for f in kept})
        texts.append(f"--- {name}\n{run.output}")
        complains = run.first_failure is not None or run.outcome.status == 1
        if bench.failing and not complains:
            complains = any(re.search(bench.failing, line) for line in run.lines)
        if run.outcome.status == 2:
            outcome.messages += [m for m in run.outcome.messages if m.severity == "error"][:3]
            continue
        if not run.ended and not complains:
            outcome.findings.append(Finding("stopped", f"with {name} the bench does not come to its end", CHECK.name))
            continue
        is_right = index < len(bench.right)
        if complains != is_right:
            one |= 1 << index
        else:
            zero |= 1 << index
            why = f": {run.first_failure.text}" if run.first_failure is not None else ""
            text = f"it rejects the right design {name}{why}" if is_right else f"it accepts the wrong design {name}"
            outcome.findings.append(Finding("bench", text, CHECK.name))
    outcome.output = "".join(texts)[:_MOST_KEPT]
    full = expectation.cases.full
    outcome.verdict = judge(expectation, Observation([Run("fresh", {(CHECK.name, 0): (one, zero)}, full & ~(one | zero))], "timeline"))
    return outcome
