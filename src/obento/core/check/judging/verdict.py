"""Holding what a design does against what is expected, bit by bit, for all cases at once."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass, field

from obento.core.check.expectation.model import Expectation, Key, Planes
from obento.core.check.running.observation import Observation, Run
from obento.core.check.running.power_up import Ended
from obento.core.planes import case_flags, plane_digits
from obento.core.spec.model import SpecPort
from obento.core.values import Word


@dataclass(slots=True)
class OutputVerdict:
    """One output in all cases: exactly one of the five planes has a one for each case."""

    passed: int = 0
    failed: int = 0
    undefined: int = 0
    not_compared: int = 0
    stopped: int = 0


@dataclass(slots=True)
class Verdict:
    """A hand-in in all cases.

    `shown` are the values to show: those of the fresh run, or of the first run that went wrong. `failing_runs` says
    which run that was: pairs of a run's name and the cases it is shown for. `expected` is what it was held against.
    `ends` are the errors in which cases ended; `untried` and `unjudged` are the cases that were not run (see
    `Observation`)."""

    count: int
    outputs: dict[str, OutputVerdict]
    shown: dict[Key, tuple[int, int]]
    expected: dict[Key, Planes]
    failing_runs: list[tuple[str, int]] = field(default_factory=list)
    passed: int = 0
    failed: int = 0
    undefined: int = 0
    not_compared: int = 0
    stopped: int = 0
    cluster: str = ""
    ends: list[Ended] = field(default_factory=list)
    untried: int = 0
    unjudged: int = 0

    @property
    def right(self) -> int:
        """The cases that count as passed: right, or with nothing to compare."""
        return self.passed | self.not_compared

    def run_of(self, case: int) -> str:
        """The first run in which a case failed; `fresh` where it failed in none."""
        for name, mask in self.failing_runs:
            if mask >> case & 1:
                return name
        return "fresh"

    def cells(self) -> str:
        """One letter for each case: p, f, u, n or s."""
        # Each case is one byte of a whole number; the planes never overlap, so that sums stay within their bytes.
        letters = int.from_bytes(b"p" * self.count, "little")
        for plane, letter in ((self.not_compared, "n"), (self.undefined, "u"), (self.failed, "f"), (self.stopped, "s")):
            if plane:
                letters += int.from_bytes(case_flags(plane, self.count), "little") * (ord(letter) - ord("p"))
        return letters.to_bytes(self.count, "little").decode("ascii")

    def digits(self) -> str:
        """One digit for each case: 1 pass, 0 not."""
        return plane_digits(self.right, self.count)


def judge(expectation: Expectation, observation: Observation) -> Verdict:
    """The verdict on every case and output."""
    full = expectation.cases.full
    shown = dict(observation.runs[0].outputs)
    wanted_in = [wanted(expectation, run.outputs) for run in observation.runs]
    expected = dict(wanted_in[0])
    taken = 0
    stopped = 0
    failing: list[tuple[str, int]] = []
    for run, wants in zip(observation.runs, wanted_in, strict=True):
        fresh_wrong = _wrong(wants, run) & ~taken
        if not fresh_wrong:
            continue
        failing.append((run.name, fresh_wrong))
        taken |= fresh_wrong
        stopped |= run.stopped & fresh_wrong
        if run is not observation.runs[0]:
            for key, (one, zero) in run.outputs.items():
                a, b = shown[key]
                shown[key] = (a & ~fresh_wrong | one & fresh_wrong, b & ~fresh_wrong | zero & fresh_wrong)
            for key, want in wants.items():
                expected[key] = expected[key].with_cases(want, fresh_wrong)
    compared = 0
    for bits in expected.values():
        compared |= bits.care
    outputs = {p.name: _output(full, expected, p.name, p.width, shown, stopped) for p in expectation.spec.outputs}
    verdict = Verdict(expectation.cases.count, outputs, shown, expected, failing, ends=observation.ends)
    verdict.untried, verdict.unjudged = observation.untried, observation.unjudged
    verdict.not_compared = full & ~compared
    verdict.stopped = stopped & compared
    for output in outputs.values():
        verdict.failed |= output.failed
        verdict.undefined |= output.undefined
    verdict.failed &= ~verdict.stopped
    verdict.undefined &= ~verdict.stopped & ~verdict.failed
    verdict.passed = full & ~(verdict.not_compared | verdict.stopped | verdict.failed | verdict.undefined)
    verdict.cluster = _cluster(verdict, expectation.bits)
    return verdict


def wanted(expectation: Expectation, seen: dict[Key, tuple[int, int]]) -> dict[Key, Planes]:
    """What is expected of one hand-in, whose outputs were `seen` so."""
    return {key: bits.after(seen[key]) for key, bits in expectation.bits.items()}


def _wrong(wants: dict[Key, Planes], run: Run) -> int:
    """The cases in which a run is not right."""
    wrong = 0
    compared = 0
    for key, want in wants.items():
        one, zero = run.outputs[key]
        wrong |= ((one ^ want.one) | (zero ^ want.zero)) & want.care
        compared |= want.care
    return wrong | run.stopped & compared


def _output(
    full: int, expected: dict[Key, Planes], port: str, width: int, shown: dict[Key, tuple[int, int]], stopped: int
) -> OutputVerdict:
    failed = undefined = compared = 0
    for i in range(width):
        want = expected[port, i]
        one, zero = shown[port, i]
        differs = ((one ^ want.one) | (zero ^ want.zero)) & want.care
        open_value = differs & (want.one ^ want.zero) & ~(one ^ zero)
        undefined |= open_value
        failed |= differs & ~open_value
        compared |= want.care
    stopped &= compared
    failed &= ~stopped
    undefined &= ~stopped & ~failed
    not_compared = full & ~compared
    return OutputVerdict(
        full & ~(failed | undefined | stopped | not_compared), failed, undefined, not_compared, stopped
    )


def _cluster(verdict: Verdict, asked: dict[Key, Planes]) -> str:
    """Hand-ins with the same key behave alike on every compared bit of every case. Of a bit that is expected as it was
    before, in a step that was left open, all that counts is whether it is."""
    digest = hashlib.sha256()
    size = (verdict.count + 7) // 8
    for key, want in verdict.expected.items():
        one, zero = verdict.shown[key]
        keep = want.care & ~verdict.stopped
        for step in asked[key].follow:
            one, zero = (
                seen & ~(1 << step) | (((seen ^ wanted) >> step & 1) << step)
                for seen, wanted in ((one, want.one), (zero, want.zero))
            )
        digest.update((one & keep).to_bytes(size, "little"))
        digest.update((zero & keep).to_bytes(size, "little"))
    digest.update(verdict.stopped.to_bytes(size, "little"))
    for name, mask in verdict.failing_runs:
        if name != "fresh":
            digest.update(name.encode() + mask.to_bytes(size, "little"))
    return digest.hexdigest()[:24]


def shown_word(verdict: Verdict, port: SpecPort, case: int) -> Word:
    """What an output was in one case."""
    one = zero = 0
    for i in range(port.width - 1, -1, -1):
        a, b = verdict.shown[port.name, i]
        one, zero = one << 1 | (a >> case & 1), zero << 1 | (b >> case & 1)
    return one, zero
