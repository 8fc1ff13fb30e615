"""One hand-in against one spec: from its files to its verdicts."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from obento.core.check.expectation.cases import build_expectation
from obento.core.check.expectation.model import Expectation
from obento.core.check.explaining.advice import advise
from obento.core.check.explaining.findings import find_all
from obento.core.check.judging.benches import check_by_bench
from obento.core.check.judging.evidence import check_evidence, is_evidence
from obento.core.check.judging.outcome import Checked
from obento.core.check.judging.ready import Ready, make_ready, softened
from obento.core.check.judging.rules import check_rules
from obento.core.check.judging.verdict import Verdict, judge
from obento.core.check.running.cases import observe
from obento.core.check.running.observation import Observation
from obento.core.check.running.steps import observe_steps
from obento.core.diagnostics import Collector, Message, to_messages
from obento.core.handin import HandinFile
from obento.core.limits import LimitReached, Limits
from obento.core.source import Sources
from obento.core.spec.load import load_spec
from obento.core.spec.model import EDITION, Spec
from obento.core.texts import decode
from obento.core.verilog.syntax.lexer import KEYWORDS as VERILOG_WORDS
from obento.core.verilog.syntax.lexer import SYSTEM_VERILOG_KEYWORDS as SYSTEM_VERILOG_WORDS
from obento.core.vhdl.syntax.lexer import KEYWORDS as VHDL_WORDS
from obento.core.wiring.elaborate import FIRST_GATES
from obento.core.wiring.parser import KEYWORDS as WIRING_WORDS


@dataclass(slots=True)
class LoadedSpec:
    """A spec with its messages; `expectation` is None when it cannot be used, `draft` is what it would be all the
    same."""

    expectation: Expectation | None
    spec: Spec | None
    messages: list[Message]
    draft: Expectation | None = None
    sources: Sources = field(default_factory=Sources)


_RESERVED = {
    "verilog": VERILOG_WORDS,
    "systemverilog": SYSTEM_VERILOG_WORDS - VERILOG_WORDS,
    "vhdl": VHDL_WORDS,
    "wiring": WIRING_WORDS | FIRST_GATES,
}


def open_spec(
    name: str, data: bytes, others: Mapping[str, bytes], limits: Limits | None = None, edition: int = EDITION
) -> LoadedSpec:
    """Read a spec file and work out what it expects.

    Parameters
    ----------
    name
        Of the file, for messages.
    others
        Files beside the spec, by name. Models, tables, benches.
    edition
        The one that the text was first used by.
    """
    limits = limits or Limits()
    sources, collector = Sources(), Collector()
    text = decode(data)
    if text is None:
        return LoadedSpec(None, None, [Message("error", "binary", name, 1, 1, "this is no text file")])
    file = sources.add(name, text.replace("\r\n", "\n"))
    spec = load_spec(file, others, collector, edition, _RESERVED)
    draft, is_right = None, False
    if spec is not None:
        try:
            draft, is_right = build_expectation(spec, others, collector, limits, file.base)
        except LimitReached as limit:
            collector.error("limit", limit.text, limit.position or file.base)
        except RecursionError:
            text, hint = "what is expected is nested too deep to be worked out", "split it into smaller parts"
            collector.error("too-deep", text, file.base, file.base, hint)
    return LoadedSpec(draft if is_right else None, spec, to_messages(collector.items(), sources), draft, sources)


_MANY_ONE_BY_ONE = 256
"""From more cases on it is worth a word that they were run one by one."""


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
    if expectation.spec.bench is not None:
        return check_by_bench(expectation, expectation.spec.bench, files, provided, limits, choices or {})
    if is_evidence(files):
        return check_evidence(expectation, files)
    ready = make_ready(expectation.spec, files, provided, limits, choices or {})
    if isinstance(ready, Checked):
        return ready
    check_ready(ready, expectation, limits)
    return ready.outcome


def check_ready(ready: Ready, expectation: Expectation, limits: Limits) -> None:
    """Check what is ready to be run; its outcome has everything then."""
    reading, design, binding, outcome = ready.reading, ready.design, ready.binding, ready.outcome
    advise(design, limits, lambda code, text, at, hint: reading.collector.warning(code, text, at, None, hint))
    for port in binding.floating:
        reading.collector.warning("extra-input", f"input `{port.name}` is none of ours and floats", port.position)
    watch = observe if expectation.cases.stimulus is None else observe_steps
    observation = watch(design, binding, expectation.spec.inputs, expectation.cases, limits)
    outcome.engine = observation.engine
    outcome.status = "checked"
    if observation.refused is not None:
        text = (
            f"while the inputs are unknown the run ends here: {observation.refused.text}. Every case was begun with its"
            " own values instead"
        )
        hint = "a bench that leaves its inputs uninitialised would end at its start"
        reading.collector.note("power-up", text, observation.refused.position, hint=hint)
    for ended in observation.ends:
        reading.collector.warning("run", f"{ended.text}: {ended.cases.bit_count()} cases end here", ended.position)
    _say_how_it_went(observation, expectation, reading.collector)
    if observation.limit is not None:
        outcome.status = "stopped"
        reading.collector.error(
            "limit", observation.limit.text, observation.limit.position, None, observation.limit.hint
        )
        for run in observation.runs:
            run.stopped = expectation.cases.full
            for key in expectation.bits:
                run.outputs.setdefault(key, (0, 0))
    verdict = outcome.verdict = judge(expectation, observation)
    outcome.rules = check_rules(expectation.spec.rules, design)
    if verdict.unjudged:
        outcome.status = "stopped"
        reading.collector.error("limit", _partial(verdict), hint="the mark waits for a person")
    else:
        outcome.findings = find_all(expectation, verdict, ready, limits)
    outcome.messages = softened(reading, ready.unit)


def _say_how_it_went(observation: Observation, expectation: Expectation, collector: Collector) -> None:
    """What a person should know of a run that was not all cases at once."""
    if observation.why and expectation.cases.count > _MANY_ONE_BY_ONE:
        steps = "cases" if expectation.cases.stimulus is None else "sequences"
        collector.note("one-by-one", f"the {steps} were run one by one, not all at once: {observation.why}")


def _partial(verdict: Verdict) -> str:
    """What was judged until the time was up."""
    judged = verdict.count - verdict.unjudged.bit_count()
    right = (verdict.right & ~verdict.unjudged).bit_count()
    return (
        f"the time for one hand-in was up after {judged} of {verdict.count} cases: {right} of them are right, the"
        " others were not run"
    )
