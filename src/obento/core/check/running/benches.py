"""Running a bench on one design, and what its own files said of it."""

from __future__ import annotations

import re
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, field

from obento.core.diagnostics import Message
from obento.core.handin import HandinFile
from obento.core.limits import Limits
from obento.core.sim.bench.tasks import Listener
from obento.core.simulate import ENDED, BadCall, Options, Outcome, simulate
from obento.core.source import Sources
from obento.core.spec.model import Bench

LIMITS = Limits(loop_rounds=1 << 20, call_depth=200, deltas=20_000, time_steps=200_000, output_bytes=1 << 20)
"""Bounds for one run of a bench: generous for coursework, short enough for a class."""


_FAILING = frozenset(["error", "failure", "fatal"])


@dataclass(frozen=True, slots=True)
class Report:
    """One report of a bench: severity, text, and `file:line` of the statement."""

    severity: str
    text: str
    place: str

    @property
    def is_failure(self) -> bool:
        """Whether it says that something is wrong, rather than what went on."""
        return self.severity in _FAILING


class _Witness(Listener):
    """Keeps what the files of a bench say. What a hand-in prints is no evidence, and ending the run is not its
    business."""

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
    """What a bench did on one design: all that was printed, the lines that it printed itself, its reports, and the
    assertions of VHDL benches that it came to. `trouble` says why it did not come to its end by itself."""

    outcome: Outcome
    output: str
    lines: list[str] = field(default_factory=list)
    reports: list[Report] = field(default_factory=list)
    reached: set[str] = field(default_factory=set)
    trouble: str = ""

    @property
    def ended(self) -> bool:
        """Whether the bench came to its end by itself."""
        return self.outcome.status == ENDED and not self.trouble

    @property
    def first_failure(self) -> Report | None:
        """The first report that says that something is wrong, if any."""
        return next((r for r in self.reports if r.is_failure), None)


def run_bench(
    files: Sequence[HandinFile], top: str | None, own: Collection[str], chosen: Mapping[str, str] | None = None
) -> BenchRun:
    """Run a bench with everything it needs; `own` are the names of its own files, `chosen` files for units that stand
    in several."""
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


def checks_told(bench: Bench, checks: Sequence[str], run: BenchRun) -> tuple[int, int]:
    """The checks that passed and those that failed in a run, as planes; in neither where it did not come that far."""
    lines = run.lines
    one = zero = 0
    passed = set(checks_named(bench.passing, lines)) if bench.passing else set()
    failed = set(checks_named(bench.failing, lines)) if bench.failing else set()
    places = {r.place for r in run.reports if r.is_failure}
    for index, check in enumerate(checks):
        if check in failed or check in places:
            zero |= 1 << index
        elif check in passed if bench.passing else run.ended and _was_reached(check, run):
            one |= 1 << index
    return one, zero


def _was_reached(check: str, run: BenchRun) -> bool:
    """Whether a bench came to an assertion; of Verilog's, whose condition stands elsewhere, it cannot be told."""
    return check in run.reached or not check.rpartition(":")[0].lower().endswith((".vhd", ".vhdl"))


def checks_named(pattern: str, lines: Iterable[str]) -> Iterable[str]:
    """The names of checks in printed lines."""
    compiled = re.compile(pattern)
    for line in lines:
        found = compiled.search(line)
        if found is not None:
            named = found.groupdict().get("check")
            yield (named if named is not None else found.group()).strip()
