"""One hand-in against one spec: from its files to its verdicts."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

from obento.core.check.advice import advise
from obento.core.check.bind import Binding, Bound, bind_ports, choose_name
from obento.core.check.clocking import advise_clocking, relies_on_start
from obento.core.check.condition import failing_condition, necessary_condition
from obento.core.check.divergence import describe, diverge, when_it_diverges
from obento.core.check.expect import build_expectation
from obento.core.check.expectation import Expectation
from obento.core.check.observe import Observation, observe
from obento.core.check.observe_steps import observe_steps
from obento.core.check.rules import RuleResult, check_rules
from obento.core.check.slips import Slip, find_slips
from obento.core.check.timing_slips import find_timing_slips
from obento.core.check.verdict import Verdict, judge
from obento.core.diagnostics import Collector, Message, Severity, to_messages
from obento.core.handin import HandinFile, Reading, Unit, decode, read_handin
from obento.core.ir.design import Design
from obento.core.ir.drivers import statements, written_bits
from obento.core.ir.nodes import Assign
from obento.core.limits import LimitReached, Limits
from obento.core.source import Sources
from obento.core.spec.load import load_spec
from obento.core.spec.model import Spec

Status = Literal["checked", "unreadable", "no_unit", "ports", "stopped", "empty"]


@dataclass(frozen=True, slots=True)
class Finding:
    """A sentence on what is wrong, with its evidence; `line` is where the output gets its value, 0 where none fits."""

    kind: str
    text: str
    output: str = ""
    file: str = ""
    line: int = 0


@dataclass(slots=True)
class Checked:
    """The outcome for one hand-in. `verdict` is None unless it was run."""

    status: Status
    language: str = ""
    unit: str = ""
    verdict: Verdict | None = None
    binding: list[Bound] = field(default_factory=list)
    rules: list[RuleResult] = field(default_factory=list)
    findings: list[Finding] = field(default_factory=list)
    messages: list[Message] = field(default_factory=list)
    engine: str = ""


@dataclass(slots=True)
class LoadedSpec:
    """A spec with its messages; `expectation` is None when it cannot be used, `draft` is what it would be all the same."""

    expectation: Expectation | None
    spec: Spec | None
    messages: list[Message]
    draft: Expectation | None = None


def open_spec(name: str, data: bytes, others: Mapping[str, bytes], limits: Limits | None = None) -> LoadedSpec:
    """Read a spec file and work out what it expects."""
    limits = limits or Limits()
    sources, collector = Sources(), Collector()
    text = decode(data)
    if text is None:
        return LoadedSpec(None, None, [Message("error", "binary", name, 1, 1, "this is no text file")])
    file = sources.add(name, text.replace("\r\n", "\n"))
    spec = load_spec(file, others, collector)
    draft, is_right = None, False
    if spec is not None:
        try:
            draft, is_right = build_expectation(spec, others, collector, limits, file.base)
        except LimitReached as limit:
            collector.error("limit", limit.text, limit.position or file.base)
    return LoadedSpec(draft if is_right else None, spec, to_messages(collector.items(), sources), draft)


def check_handin(
    expectation: Expectation,
    files: Sequence[HandinFile],
    provided: Sequence[HandinFile] = (),
    limits: Limits | None = None,
    choices: Mapping[str, str] | None = None,
) -> Checked:
    """Check one hand-in.

    Parameters
    ----------
    provided
        The lab's own files that every hand-in may use.
    choices
        Settled by a person: our port (or the unit's name) -> theirs. They come before all other rules.
    """
    limits = limits or Limits()
    reading = read_handin(files, limits, provided)
    if reading.empty:
        reading.collector.error("empty", "nothing was handed in")
        return Checked("empty", messages=reading.messages())
    spec = expectation.spec
    bound_unit, unit = _choose_unit(reading, spec, choices or {})
    if unit is None:
        return _no_unit(reading, spec)
    outcome = Checked("unreadable", unit.language, unit.name)
    if reading.errors_in_files_of(unit):
        outcome.messages = reading.messages()
        return outcome
    try:
        design = reading.elaborate(unit.name)
    except (LimitReached, RecursionError) as error:
        text = error.text if isinstance(error, LimitReached) else "this is nested too deep to be built"
        reading.collector.error("limit", text, error.position if isinstance(error, LimitReached) else 0)
        design = None
    if design is None:
        outcome.messages = _softened(reading, unit)
        return outcome
    _run(outcome, expectation, reading, unit, design, bound_unit, choices or {}, limits)
    return outcome


def _run(
    outcome: Checked,
    expectation: Expectation,
    reading: Reading,
    unit: Unit,
    design: Design,
    bound_unit: Bound,
    choices: Mapping[str, str],
    limits: Limits,
) -> None:
    binding = _bind(expectation.spec, design, choices)
    if bound_unit.how == "only" and binding.problems:
        # Being the only unit was the sole reason to take it; with other ports it is something else.
        elsewhere = _no_unit(reading, expectation.spec)
        outcome.status, outcome.language, outcome.unit, outcome.messages = elsewhere.status, "", "", elsewhere.messages
        return
    outcome.binding = ([bound_unit] if bound_unit.how != "exact" else []) + binding.ports
    for problem in binding.problems:
        position = next((p.position for p in design.ports if f"`{p.name}`" in problem), 0)
        reading.collector.error("port", problem, position or unit.position)
    if binding.problems:
        outcome.status = "ports"
        outcome.messages = _softened(reading, unit)
        return
    advise(design, limits, lambda code, text, at, hint: reading.collector.warning(code, text, at, None, hint))
    for port in binding.floating:
        reading.collector.warning("extra-input", f"input `{port.name}` is none of ours and floats", port.position)
    watch = observe if expectation.cases.drive is None else observe_steps
    observation = watch(design, binding, expectation.spec.inputs, expectation.cases, limits)
    outcome.engine = observation.engine
    outcome.status = "checked"
    if observation.trouble is not None:
        reading.collector.warning("run", f"{observation.trouble.text}: some cases end here", observation.trouble.position)
    if observation.limit is not None:
        outcome.status = "stopped"
        reading.collector.error("limit", observation.limit.text, observation.limit.position, None, observation.limit.hint)
        for run in observation.runs:
            run.stopped = expectation.cases.full
            for key in expectation.bits:
                run.outputs.setdefault(key, (0, 0))
    outcome.verdict = judge(expectation, observation)
    outcome.rules = check_rules(expectation.spec.rules, design)
    if expectation.cases.drive is None:
        findings = [*_as_findings(find_slips(expectation, outcome.verdict)), *conditions(expectation, outcome.verdict)]
    else:
        findings = _clocked_findings(outcome.verdict, expectation, reading, design, binding, limits)
    outcome.findings = [_placed(f, reading, design, binding) for f in findings]
    outcome.messages = _softened(reading, unit)


def _as_findings(slips: list[Slip]) -> list[Finding]:
    return [Finding(s.kind, s.text, s.output) for s in slips]


def _clocked_findings(
    verdict: Verdict, expectation: Expectation, reading: Reading, design: Design, binding: Binding, limits: Limits
) -> list[Finding]:
    """What kind of slip it is, where each output goes astray; warnings on how the hand-in is clocked go to the messages."""

    suspicious: list[Slip] = []

    def tell(code: str, text: str, at: int, hint: str) -> None:
        reading.collector.warning(code, text, at, None, hint)
        suspicious.append(Slip(code, text, ""))

    def again(other: Design) -> Observation:
        return observe_steps(other, binding, expectation.spec.inputs, expectation.cases, limits)

    advise_clocking(design, binding, tell)
    relied = relies_on_start(expectation, design, again, verdict.right)
    if relied:
        tell("start-values", f"{relied} steps are right only because registers have initial values", 0, "a reset should set them")
    found = diverge(expectation, verdict)
    slips = find_timing_slips(expectation, verdict, found, design, binding, limits) or find_slips(expectation, verdict)
    if found.first and not slips:
        slips = suspicious  # not proven to be the reason, but the first thing to look at
    findings = _as_findings(slips)
    when = when_it_diverges(expectation, verdict, found)
    if when:
        output = next((n for n, o in verdict.outputs.items() if o.failed | o.undefined), "")
        findings.append(Finding("diverges", f"goes wrong whenever {when}: {found.first.bit_count()} times", output))
    for name, output_verdict in verdict.outputs.items():
        if output_verdict.failed | output_verdict.undefined:
            kind = "wrong" if output_verdict.failed else "undefined"
            findings.append(Finding(kind, f"{name} is {kind} {describe(expectation, verdict, found, name)}", name))
    if verdict.stopped:
        findings.append(Finding("stopped", f"does not settle: {verdict.stopped.bit_count()} of {verdict.count} steps"))
    return findings


def _placed(finding: Finding, reading: Reading, design: Design, binding: Binding) -> Finding:
    """A finding with the line on which its output gets its value (the first one, where there are several)."""
    bits = {port.signal.offset + i for (ours, _), (port, i) in binding.bits.items() if ours == finding.output}
    places = [
        s.position
        for process in design.processes
        if bits & written_bits(process)
        for s in statements(process.body)
        if isinstance(s, Assign) and any(bits & set(range(t.signal.offset, t.signal.offset + t.signal.width)) for t in s.targets)
    ]
    if not places:
        return finding
    place = reading.sources.place(min(places))
    return replace(finding, file=place.file, line=place.line)


def _bind(spec: Spec, design: Design, choices: Mapping[str, str]) -> Binding:
    """Bind ports, what a person has chosen first."""
    chosen = {p.name: choices[p.name] for p in (*spec.inputs, *spec.outputs) if p.name in choices}
    if not chosen:
        return bind_ports(spec, design)
    renamed = {theirs: ours for ours, theirs in chosen.items()}
    originals = {id(p): p.name for p in design.ports}
    for port in design.ports:
        port.name = renamed.get(port.name, f"{port.name} " if port.name in chosen else port.name)
    binding = bind_ports(spec, design)
    for port in design.ports:
        port.name = originals[id(port)]
    binding.ports = [Bound(b.ours, chosen[b.ours], "chosen") if b.ours in chosen else b for b in binding.ports]
    return binding


def _softened(reading: Reading, unit: Unit) -> list[Message]:
    """The messages; errors in files that the unit does not need are only warnings for it."""
    needed = {f.name for f in reading.texts if any(u.file is f for u in reading._needed(unit))}
    out = []
    for m in reading.messages():
        if m.severity == "error" and m.file and m.file not in needed:
            m = Message("warning", m.code, m.file, m.line, m.column, m.text, m.hint, m.end_line, m.end_column)
        out.append(m)
    return out


def _choose_unit(reading: Reading, spec: Spec, choices: Mapping[str, str]) -> tuple[Bound, Unit | None]:
    chosen = choices.get(spec.unit)
    if chosen in reading.units:
        return Bound(spec.unit, chosen, "chosen"), reading.units[chosen]
    used = {n for u in reading.units.values() for n in u.uses}
    tops = [u.name for u in reading.units.values() if u.has_ports and u.name not in used]
    with_ports = [u.name for u in reading.units.values() if u.has_ports]
    broken = reading.collector.errors > 0
    bound = choose_name(spec.unit, with_ports, spec, () if broken and len(tops) != 1 else tops)
    return (bound, reading.units[bound.theirs]) if bound else (Bound(spec.unit, "", ""), None)


def _no_unit(reading: Reading, spec: Spec) -> Checked:
    names = ", ".join(f"`{n}`" for n in list(reading.units)[:6])
    if reading.collector.errors and not reading.units:
        return Checked("unreadable", messages=reading.messages())
    status: Status = "unreadable" if reading.collector.errors else "no_unit"
    portless = reading.units.get(spec.unit)
    if portless is not None and not portless.has_ports:
        reading.collector.error("no-ports", f"`{spec.unit}` has no ports", portless.position, None, "declare its inputs and outputs")
        return Checked("ports" if status == "no_unit" else status, portless.language, portless.name, messages=reading.messages())
    hint = f"found {names}" if names else "no module or wiring list was found"
    severity: Severity = "note" if reading.collector.errors else "error"
    reading.collector.add(severity, "no-unit", f"there is no unit `{spec.unit}`", hint=hint)
    return Checked(status, messages=reading.messages())


def conditions(expectation: Expectation, verdict: Verdict) -> list[Finding]:
    """For each output that is not right: when, as the shortest condition, and in how many cases."""
    found: list[Finding] = []
    count = verdict.count
    runs = {name for name, _ in verdict.failing_runs if name != "fresh"}
    for name, output in verdict.outputs.items():
        for plane, kind, word in ((output.failed, "wrong", "is wrong"), (output.undefined, "undefined", "is undefined")):
            if not plane:
                continue
            text = failing_condition(expectation.spec, expectation.cases, plane, output.not_compared)
            when = "" if not text else " always" if text == "always" else f" whenever {text}"
            among = count
            if not text:
                words, holds = necessary_condition(expectation.spec, expectation.cases, plane)
                if words:
                    when, among = f" only when {words}", holds
            found.append(Finding(kind, f"{name} {word}{when}: {plane.bit_count()} of {among}", name))
    remembered = 0
    for name, mask in verdict.failing_runs:
        if name != "fresh":
            remembered |= mask
    if remembered:
        single = {f"{p.name}[{p.right}]": p.name for p in expectation.spec.inputs if p.width == 1}
        turned = [r.removeprefix("after ") for r in sorted(runs)[:4]]
        names = ", ".join(single.get(t, t) for t in turned)
        found.insert(
            0,
            Finding(
                "remembers",
                f"the result depends on the case before: {remembered.bit_count()} of {count} are right fresh, but wrong after a change of {names}",
            ),
        )
    if verdict.stopped:
        found.append(Finding("stopped", f"does not settle: {verdict.stopped.bit_count()} of {count}"))
    return found
