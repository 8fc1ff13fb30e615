"""The catch rate of a spec: the share of likely mistakes that its cases catch.

The mistakes are single changes of the reference (the spec's model, else its equations): an operator, gate, inversion,
constant, wire or branch. A change that the spec's own cases do not show is tried on more cases: where those show it, it
was missed; where they do not either, it is harmless, since it makes no difference to what is compared."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from obento.core.check.check import LoadedSpec
from obento.core.check.expectation.cases import equation_design, expect_for, read_model
from obento.core.check.expectation.model import Expectation, case_text, expected_word
from obento.core.check.judging.verdict import Verdict, judge, shown_word
from obento.core.check.mutation.changes import Trial, limits_of_trials, trials_of
from obento.core.check.running.binding import Binding, bind_ports
from obento.core.check.running.cases import observe
from obento.core.diagnostics import Collector
from obento.core.ir.design import Design
from obento.core.limits import Limits
from obento.core.source import Sources
from obento.core.spec.cases import Cases, expand_cases
from obento.core.spec.model import RandomCases, Spec

MOST_TRIED = 600
_FEWEST_TRIED = 60
_MOST_PARTS = 120_000
"""Changes times parts of the design: each change is lowered anew. A large netlist gets fewer changes, spread over all
of it."""
_EXHAUSTIVE_BITS = 16
_WIDE = RandomCases(20_000, 0x0BE270)
"""Further cases where there are too many combinations, besides the corners."""
_MOST_CROSSED = 50_000
_MOST_MISSED = 40
_MOST_OUTPUTS = 4


class NoReference(Exception):
    """The spec has nothing that could be changed; the text says what it would need."""


@dataclass(frozen=True, slots=True)
class Missed:
    """A mistake that no case of the spec shows, and a case that would: its inputs, and what comes of the mistake
    there."""

    file: str
    line: int
    change: str
    inputs: str
    shows: str


@dataclass(frozen=True, slots=True)
class CatchRate:
    """Of `tried` changes of `reference`, those that were caught, and those that make no difference to what is compared.
    All others are missed; `missed` lists the first of them. `is_whole` unless there were more changes than are tried.

    `reference` is empty where there is none and none is needed: every combination is tried, so that whatever is wrong
    shows wherever something is compared. `compared` of the spec's `cases` are those."""

    reference: str
    tried: int
    caught: int
    harmless: int
    missed: list[Missed]
    is_whole: bool
    cases: int
    compared: int

    @property
    def share(self) -> float:
        """Of the changes that make a difference those that are caught; 1 where none does. Without a reference the cases
        that are compared."""
        if not self.reference:
            return self.compared / self.cases
        telling = self.tried - self.harmless
        return self.caught / telling if telling else 1.0


def catch_rate(loaded: LoadedSpec, others: Mapping[str, bytes], limits: Limits | None = None) -> CatchRate:
    """Try the likely mistakes on the cases of a spec that can be used.

    Raises
    ------
    NoReference
        If nothing says what is right in cases that are not in the spec, or the lab is clocked or judged by a bench.
    """
    limits = limits or Limits()
    tight = limits_of_trials(limits)
    expectation = loaded.expectation
    if expectation is None:
        raise NoReference("the spec has errors; mend it first")
    spec = expectation.spec
    if spec.bench is not None or spec.is_clocked:
        raise NoReference("a catch rate is worked out for labs without a clock")
    found = _reference(spec, others, loaded.sources, limits)
    cases = expectation.cases.count
    compared = expectation.compared.bit_count()
    if found is None:
        return CatchRate("", 0, 0, 0, [], True, cases, compared)
    reference, design, sources = found
    wide = expect_for(spec, _more_cases(spec, limits), others, limits)
    assert wide is not None
    binding = bind_ports(spec, design)
    trials = trials_of(design, sources)
    most = max(_FEWEST_TRIED, min(MOST_TRIED, _MOST_PARTS // max(1, len(design.processes))))
    chosen = trials if len(trials) <= most else [trials[i * len(trials) // most] for i in range(most)]
    caught = harmless = 0
    missed: list[Missed] = []
    for trial in chosen:
        if _wrong(trial, design, binding, expectation, tight) is not None:
            caught += 1
            continue
        verdict = _wrong(trial, design, binding, wide, tight)
        if verdict is None:
            harmless += 1
        elif len(missed) < _MOST_MISSED:
            place = sources.place(trial.position)
            missed.append(Missed(place.file or reference, place.line, trial.text, *_shown(wide, verdict)))
    return CatchRate(reference, len(chosen), caught, harmless, missed, len(chosen) == len(trials), cases, compared)


def _reference(
    spec: Spec, others: Mapping[str, bytes], own: Sources, limits: Limits
) -> tuple[str, Design, Sources] | None:
    """What is changed: its name, the design, and the texts it was read from. None where a table says all there is."""
    for model in spec.models:
        reading, design = read_model(spec, model, others, limits)
        if design is not None and not design.parts:
            return model, design, reading.sources
    made = equation_design(spec, Collector(), True) if spec.equations is not None else None
    if made is None and spec.all_cases:
        return None
    if made is None:
        raise NoReference(
            "a catch rate needs equations, or a model in Verilog or as a wiring list: something that can be changed"
        )
    return "equations", made[0], own


def _more_cases(spec: Spec, limits: Limits) -> Cases:
    """As many cases of a spec as can be had: all of them, else corners and random ones."""
    if spec.input_bits <= _EXHAUSTIVE_BITS:
        return expand_cases(replace(spec, all_cases=True, listed=(), corners=False, random=None), limits.cases)
    return expand_cases(
        replace(spec, all_cases=False, listed=(), corners=True, random=_WIDE), limits.cases, _MOST_CROSSED
    )


def _wrong(trial: Trial, design: Design, binding: Binding, expectation: Expectation, limits: Limits) -> Verdict | None:
    """The verdict of a changed reference where it is wrong somewhere. One that has to be stopped is caught too."""
    trial.make()
    try:
        observation = observe(design, binding, expectation.spec.inputs, expectation.cases, limits)
    finally:
        trial.undo()
    verdict = judge(expectation, observation)
    return verdict if verdict.right != expectation.cases.full else None


def _shown(expectation: Expectation, verdict: Verdict) -> tuple[str, str]:
    """The first case in which something is wrong, and what."""
    wrong = expectation.cases.full & ~verdict.right
    case = (wrong & -wrong).bit_length() - 1
    told = _outputs(expectation, verdict, case)
    more = f" and {len(told) - _MOST_OUTPUTS} more outputs" if len(told) > _MOST_OUTPUTS else ""
    return case_text(expectation.spec, expectation.cases, case), ", ".join(told[:_MOST_OUTPUTS]) + more


def _outputs(expectation: Expectation, verdict: Verdict, case: int) -> Sequence[str]:
    """`y is 01 instead of 10`, of each output that is wrong in a case."""
    told = []
    for port in expectation.spec.outputs:
        outcome = verdict.outputs[port.name]
        if (outcome.failed | outcome.undefined | outcome.stopped) >> case & 1:
            got = port.show(shown_word(verdict, port, case))
            wanted, _ = expected_word(expectation, port.name, port.width, case)
            told.append(f"{port.name} is {got} instead of {port.show(wanted)}")
    return told
