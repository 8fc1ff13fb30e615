"""Benches as the source of verdicts: a TA's bench run on each hand-in, and students' benches tried on designs known to
be right or wrong.

The cases are the checks that a bench makes: those that its printed lines name by the TA's patterns, else its
assertions, each by its line. A check passes when the bench came to its end and never reported it as failed."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence

from obento.core.check.expectation.bench import CHECK
from obento.core.check.expectation.model import Expectation
from obento.core.check.judging.outcome import Checked, Finding
from obento.core.check.judging.ready import make_ready
from obento.core.check.judging.rules import check_rules
from obento.core.check.judging.verdict import judge
from obento.core.check.running.benches import BenchRun, checks_told, run_bench
from obento.core.check.running.binding import chosen_files
from obento.core.check.running.observation import Observation, Run
from obento.core.handin import HandinFile, read_handin
from obento.core.limits import Limits
from obento.core.spec.model import Bench

_MOST_KEPT = 20_000


def check_by_bench(
    expectation: Expectation,
    bench: Bench,
    files: Sequence[HandinFile],
    provided: Sequence[HandinFile],
    limits: Limits,
    choices: Mapping[str, str],
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
        same = (
            bound.theirs.lower() == bound.ours.lower() if ready.unit.language == "vhdl" else bound.theirs == bound.ours
        )
        if not same:
            what = "the unit" if bound.ours == expectation.spec.unit else "the port"
            ready.reading.collector.error(
                "port", f"{what} must be called `{bound.ours}` for the bench, not `{bound.theirs}`", ready.unit.position
            )
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
    outcome.verdict = judge(expectation, _observed(expectation, *checks_told(bench, expectation.cases.labels, run)))
    outcome.findings = _findings(expectation.cases.labels, run, bench)
    return outcome


def _top(bench: Bench, beside: Mapping[str, bytes]) -> str | None:
    """The bench itself: the unit of its files that no other uses. The hand-in may hold benches of its own."""
    reading = read_handin([HandinFile(n, beside[n]) for n in bench.files], Limits())
    used = {n.lower() for u in reading.units.values() for n in u.uses}
    tops = [u.name for u in reading.units.values() if u.name.lower() not in used]
    return tops[-1] if tops else None


def _observed(expectation: Expectation, one: int, zero: int) -> Observation:
    """Checks that passed and that failed, as an observation; the others are cases in which the run stopped."""
    full = expectation.cases.full
    return Observation([Run("fresh", {(CHECK.name, 0): (one, zero)}, full & ~(one | zero))], "timeline")


def _findings(checks: Sequence[str], run: BenchRun, bench: Bench) -> list[Finding]:
    """The first report of each check that failed; what ended the run, if it did not end by itself."""
    found: list[Finding] = []
    seen: set[str] = set()
    for report in run.reports:
        if report.is_failure and report.place in checks and report.place not in seen:
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
    expectation: Expectation,
    bench: Bench,
    files: Sequence[HandinFile],
    provided: Sequence[HandinFile],
    beside: Mapping[str, bytes],
    limits: Limits,
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
    tried = {
        n for name in (*bench.right, *bench.wrong) for n in read_handin([HandinFile(name, beside[name])], limits).units
    }
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
    outcome.verdict = judge(expectation, _observed(expectation, one, zero))
    return outcome
