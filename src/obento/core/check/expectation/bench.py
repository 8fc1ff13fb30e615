"""The checks that a bench makes, as cases: those that its printed lines name by the TA's patterns, else its assertions,
each by its line."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from obento.core.check.expectation.model import Expectation, Planes, Source
from obento.core.check.running.benches import BenchRun, checks_named, checks_told, run_bench
from obento.core.diagnostics import Collector
from obento.core.handin import HandinFile, read_handin
from obento.core.limits import Limits
from obento.core.source import SourceFile, Sources
from obento.core.spec.cases import Cases
from obento.core.spec.model import Bench, Spec, SpecPort
from obento.core.texts import decode
from obento.core.verilog.syntax.lexer import lex
from obento.core.vhdl.syntax.lexer import tokenize

CHECK = SpecPort("check", "out", 1, 0, 0, False, "bin")
"""The one output of a task that is judged by a bench: 1 where a check passes."""


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
        text = "this bench checks nothing that can be told apart" + (
            "" if reference or not bench.passing else " without a reference `model`"
        )
        collector.error(
            "no-checks",
            text,
            position,
            None,
            "give it assertions, or patterns in [bench] and a `model` that passes them, or `checks`",
        )
        return None, False
    expectation = _expectation(spec, checks, others)
    if reference is not None:
        passed, _ = checks_told(bench, checks, reference)
        for index, name in enumerate(checks):
            if not passed >> index & 1:
                collector.error(
                    "bad-model",
                    f"the reference does not pass the check `{name}`",
                    position,
                    None,
                    "no student can be judged by it",
                )
                return expectation, False
    return expectation, True


def _expectation(spec: Spec, checks: Sequence[str], others: Mapping[str, bytes]) -> Expectation:
    count = len(checks)
    full = (1 << count) - 1
    source = Source("bench", {(CHECK.name, 0): Planes(full, 0, full)})
    bare = replace(spec, inputs=(), outputs=(CHECK,), groups={})
    return Expectation(
        bare,
        Cases(count, (), (), labels=tuple(checks)),
        dict(source.bits),
        [source],
        {},
        handed_in=spec,
        beside=dict(others),
    )


def _unit_is_used(files: list[HandinFile], spec: Spec, collector: Collector, position: int) -> bool:
    """Whether the bench can be read and uses the unit that is handed in."""
    reading = read_handin(files, Limits())
    if reading.collector.errors:
        first = next((str(m) for m in reading.messages() if m.severity == "error"), "")
        collector.error("bad-bench", f"the bench cannot be read: {first}", position)
        return False
    used = {n.lower() for u in reading.units.values() for n in u.uses}
    if spec.unit.lower() not in used:
        collector.error(
            "bad-bench",
            f"the bench does not use `{spec.unit}`",
            position,
            None,
            "it must place the unit that is handed in, by name",
        )
        return False
    return True


def _checks_of(bench: Bench, files: list[HandinFile], reference: BenchRun | None) -> tuple[str, ...]:
    if bench.passing:
        if reference is None:
            return ()
        lines = reference.lines
        failed = checks_named(bench.failing, lines) if bench.failing else ()
        return tuple(dict.fromkeys([*checks_named(bench.passing, lines), *failed]))
    if bench.failing and reference is None:
        return ()
    places = [place for file in files for place in assertions_of(file)]
    return tuple(places)


def assertions_of(file: HandinFile) -> list[str]:
    """`file:line` of everything in a bench that can report a failure: assertions and reports in VHDL, `$error` and
    `$fatal`."""
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
