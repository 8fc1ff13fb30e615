"""The sentences on what is wrong with one hand-in: slips, conditions, where it goes astray."""

from __future__ import annotations

from dataclasses import replace

from obento.core.check.expectation.model import Expectation
from obento.core.check.explaining.clocking import advise_clocking
from obento.core.check.explaining.condition import ALWAYS, failing_condition, necessary_condition
from obento.core.check.explaining.divergence import describe, diverge, when_it_diverges
from obento.core.check.explaining.slips import Slip, find_slips
from obento.core.check.explaining.start_values import relies_on_start
from obento.core.check.explaining.timing_slips import find_timing_slips
from obento.core.check.judging.outcome import Finding
from obento.core.check.judging.ready import Ready
from obento.core.check.judging.verdict import Verdict
from obento.core.check.running.binding import Binding
from obento.core.handin import Reading
from obento.core.ir.design import Design
from obento.core.ir.drivers import expressions, functions_called, statements, written_bits
from obento.core.ir.nodes import Assign, Binary
from obento.core.ir.walks import walk
from obento.core.limits import Limits
from obento.core.sentences.said import Said, say


def find_all(expectation: Expectation, verdict: Verdict, ready: Ready, limits: Limits) -> list[Finding]:
    """Everything that can be said of a hand-in, with its place; warnings on its clocking go to its messages."""
    if expectation.cases.stimulus is None:
        slips = find_slips(expectation, verdict, _adds(expectation, ready.design))
        found = [*_as_findings(slips), *conditions(expectation, verdict, _explained(slips))]
    else:
        found = _clocked_findings(verdict, expectation, ready, limits)
    found = [_placed(f, ready.reading, ready.design, ready.binding) for f in found]
    found = [*_errors_of_the_run(expectation, verdict, ready.reading), *found, *_unsettled(expectation, verdict)]
    structural = _structural(found, ready) if found else []
    # Where something is kept, or nobody knows what it is, what keeps it is the cause.
    is_kept = any(f.kind in ("remembers", "undefined") for f in found)
    causes = [f for f in structural if f.kind in CAUSES or (is_kept and f.kind in KEEPERS)]
    return [*causes, *found, *(f for f in structural if f not in causes)]


def _explained(slips: list[Slip]) -> frozenset[str]:
    """The outputs of which a slip says everything."""
    exchanged = {str(v) for s in slips if isinstance(s.text, Said) and s.kind == "exchanged-outputs"
                 for v in s.text.values.values()}  # fmt: skip
    return frozenset({s.output for s in slips} | exchanged)


def _adds(expectation: Expectation, design: Design) -> bool:
    """Whether the equations or the hand-in add or subtract."""
    equations = expectation.spec.equations
    if equations is not None and ("+" in equations[0] or "-" in equations[0]):
        return True
    bodies = [b for p in design.processes for b in (p.body, *(f.body for f in functions_called(p.body)))]
    return any(
        isinstance(e, Binary) and e.op in ("add", "sub")
        for body in bodies
        for s in statements(body)
        for whole in expressions(s)
        for e in walk(whole)
    )


def _errors_of_the_run(expectation: Expectation, verdict: Verdict, reading: Reading) -> list[Finding]:
    """A value out of its range, an index outside of its array, a division by zero: called what it is, with its line and
    its cases."""
    found: list[Finding] = []
    for ended in verdict.ends:
        cases = ended.cases & verdict.stopped
        if not cases:
            continue
        key, condition = "run-ends-in-steps", ""
        if expectation.cases.stimulus is None:
            condition = failing_condition(expectation.spec, expectation.cases, cases, verdict.not_compared)
            key = "run-ends-whenever" if condition and condition != ALWAYS else "run-ends"
        place = reading.sources.place(ended.position) if ended.position else None
        text = say(key, what=ended.text, when=condition, count=cases.bit_count(), total=verdict.count)
        found.append(Finding("run-error", text, "", place.file if place else "", place.line if place else 0))
    return found


def _unsettled(expectation: Expectation, verdict: Verdict) -> list[Finding]:
    """Cases that go on for ever."""
    ended = 0
    for one in verdict.ends:
        ended |= one.cases
    moving = verdict.stopped & ~ended & ~verdict.untried
    found: list[Finding] = []
    if verdict.untried:
        tried = verdict.count - verdict.untried.bit_count()
        found.append(Finding("stopped", say("settles-nowhere" if moving else "ends-nowhere", count=tried)))
    elif moving:
        key = "does-not-settle" if expectation.cases.stimulus is None else "does-not-settle-in-steps"
        found.append(Finding("stopped", say(key, count=moving.bit_count(), total=verdict.count)))
    return found


CAUSES = frozenset(["undriven", "never-assigned", "two-drivers", "reset-edge", "open-input", "open-output"])
"""What is wrong whatever is expected: said before how it shows."""

KEEPERS = frozenset(["latch", "sensitivity"])
"""What has a value kept: the cause where something is kept."""

_STRUCTURE = CAUSES | frozenset(
    [
        "width-cut",
        "number-cut",
        "port-width",
        "open-input",
        "open-output",
        "out-of-range",
        "latch",
        "sensitivity",
        "other-edge",
    ]
)
"""Messages that name a slip in how a design is put together: no more than worth a look while it is right, a likely
reason when it is not."""


def _structural(found: list[Finding], ready: Ready) -> list[Finding]:
    told = {f.text for f in found}
    messages = [m for m in ready.reading.messages() if m.code in _STRUCTURE and m.line and m.text not in told]
    return [Finding(m.code, m.text, "", m.file, m.line) for m in messages]


def _as_findings(slips: list[Slip]) -> list[Finding]:
    return [Finding(s.kind, s.text, s.output) for s in slips]


def _clocked_findings(verdict: Verdict, expectation: Expectation, ready: Ready, limits: Limits) -> list[Finding]:
    """What kind of slip it is, where each output goes astray; warnings on how the hand-in is clocked go to the
    messages."""
    reading, design, binding = ready.reading, ready.design, ready.binding
    suspicious: list[Slip] = []

    def tell(code: str, text: str, at: int, hint: str) -> None:
        reading.collector.warning(code, text, at, None, hint)
        suspicious.append(Slip(code, text, ""))

    advise_clocking(design, binding, tell)
    relied = relies_on_start(expectation, ready, verdict.right, limits)
    if relied is not None:
        text = say("start-values", count=relied.steps)
        tell("start-values", text, relied.position, "a reset should set them")
    found = diverge(expectation, verdict)
    slips = find_timing_slips(expectation, verdict, found, design, binding, limits) or find_slips(
        expectation, verdict, _adds(expectation, design)
    )
    if found.first and not slips:
        slips = suspicious  # not proven to be the reason, but the first thing to look at
    findings = _as_findings(slips)
    when = when_it_diverges(expectation, verdict, found)
    if when:
        output = next((n for n, o in verdict.outputs.items() if o.failed | o.undefined), "")
        findings.append(Finding("diverges", say("goes-wrong", when=when, count=found.first.bit_count()), output))
    for name, output_verdict in verdict.outputs.items():
        if output_verdict.failed | output_verdict.undefined:
            kind = "wrong" if output_verdict.failed else "undefined"
            findings.append(Finding(kind, describe(expectation, verdict, found, name), name))
    return findings


def _placed(finding: Finding, reading: Reading, design: Design, binding: Binding) -> Finding:
    """A finding with the line on which its output gets its value (the first one, where there are several)."""
    bits = {port.signal.offset + i for (ours, _), (port, i) in binding.bits.items() if ours == finding.output}
    places = [
        s.position
        for process in design.processes
        if bits & written_bits(process)
        for s in statements(process.body)
        if isinstance(s, Assign)
        and any(bits & set(range(t.signal.offset, t.signal.offset + t.signal.width)) for t in s.targets)
    ]
    if not places:
        return finding
    place = reading.sources.place(min(places))
    return replace(finding, file=place.file, line=place.line)


def conditions(expectation: Expectation, verdict: Verdict, explained: frozenset[str] = frozenset()) -> list[Finding]:
    """For each output that is not right: when, as the shortest condition, and in how many cases. Of outputs of which
    everything is `explained` a long condition says nothing more."""
    found: list[Finding] = []
    count = verdict.count
    runs = {name for name, _ in verdict.failing_runs if name != "fresh"}
    for name, output in verdict.outputs.items():
        for plane, kind in ((output.failed, "wrong"), (output.undefined, "undefined")):
            if not plane:
                continue
            when = failing_condition(expectation.spec, expectation.cases, plane, output.not_compared)
            if name in explained and " or " in when:
                text = say(kind, output=name, count=plane.bit_count(), total=count)
                found.append(Finding(kind, text, name))
                continue
            key, among = f"{kind}-always" if when == ALWAYS else f"{kind}-whenever" if when else kind, count
            if not when:
                when, holds = necessary_condition(expectation.spec, expectation.cases, plane)
                if when:
                    key, among = f"{kind}-only-when", holds
            text = say(key, output=name, when=when, count=plane.bit_count(), total=among)
            found.append(Finding(kind, text, name))
    remembered = 0
    for name, mask in verdict.failing_runs:
        if name != "fresh":
            remembered |= mask
    if remembered:
        single = {f"{p.name}[{p.right}]": p.name for p in expectation.spec.inputs if p.width == 1}
        turned = [r.removeprefix("after ") for r in sorted(runs)[:4]]
        names = [single.get(t, t) for t in turned]
        text = say("remembers", count=remembered.bit_count(), total=count, names=names)
        found.insert(0, Finding("remembers", text))
    return found
