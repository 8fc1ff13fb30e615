"""What is expected in every case, from all sources of a spec held against each other."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from obento.core.check.expectation.bench import expect_bench
from obento.core.check.expectation.function_table import FunctionTable
from obento.core.check.expectation.model import Disagreement, Expectation, Key, Planes, Source, case_text
from obento.core.check.expectation.steps import combined_words, from_function, from_steps, inputs_of, plan
from obento.core.check.running.binding import bind_ports
from obento.core.check.running.cases import observe
from obento.core.check.running.observation import Observation
from obento.core.check.running.steps import observe_steps
from obento.core.diagnostics import Collector
from obento.core.formula.ast import Name
from obento.core.formula.lower import FormulaLowering, Operand
from obento.core.formula.parser import FormulaParser
from obento.core.handin import HandinFile, Reading, read_handin
from obento.core.ir import nodes as ir
from obento.core.ir.design import Design, Port, Process
from obento.core.ir.drivers import stretches_read, watches_of
from obento.core.ir.evaluate import evaluate
from obento.core.ir.signal import Signal
from obento.core.limits import Limits
from obento.core.sim.levelized import HasMemory, Levelized
from obento.core.spec.cases import Cases, expand_cases, match_plane
from obento.core.spec.model import Cell, Row, Spec
from obento.core.suggest import did_you_mean
from obento.core.syntax.stream import SyntaxProblem
from obento.core.values import Word

_MOST_TOLD = 5


def build_expectation(
    spec: Spec, others: Mapping[str, bytes], collector: Collector, limits: Limits, position: int = 0
) -> tuple[Expectation | None, bool]:
    """Work out the cases and what is expected, and whether hand-ins may be held against it.

    When sources contradict each other (reported) the expectation is given all the same, to be looked at.

    Parameters
    ----------
    others
        Files beside the spec, by name.
    collector
        Hears of what is wrong with the spec.
    position
        Where to point when a message is about the spec as a whole.
    """
    if spec.bench is not None:
        return expect_bench(spec, spec.bench, others, collector, limits, position)
    if spec.is_clocked:
        return _build_clocked(spec, others, collector, limits, position)
    errors = collector.errors
    try:
        cases = expand_cases(spec, limits.cases)
    except ValueError as error:
        collector.error("too-many-cases", str(error), position)
        return None, False
    result = _build_plain(spec, cases, others, collector, limits, position)
    return result, result is not None and collector.errors == errors


def expect_for(spec: Spec, cases: Cases, others: Mapping[str, bytes], limits: Limits) -> Expectation | None:
    """What the sources of a right spec say of other cases than its own: inputs set by hand. None where they say
    nothing."""
    unheard = Collector()
    if spec.is_clocked:
        return _build_clocked(replace(spec, steps=()), others, unheard, limits, 0, cases)[0]
    return _build_plain(replace(spec, listed=()), cases, others, unheard, limits, 0)


def _build_plain(
    spec: Spec, cases: Cases, others: Mapping[str, bytes], collector: Collector, limits: Limits, position: int
) -> Expectation | None:
    sources: list[Source] = []
    if spec.table is not None:
        sources.append(_from_rows("table", spec.table, spec, cases, collector))
    if any(row.outputs for row in spec.listed):
        sources.append(_from_rows("listed rows", spec.listed, spec, cases, collector))
    if spec.equations is not None:
        source = _from_equations(spec, cases, collector, limits)
        if source is not None:
            sources.append(source)
    for model in spec.models:
        source = _from_model(spec, model, others, cases, collector, limits, position)
        if source is not None:
            sources.append(source)
    groups = {name: _condition(spec, text, at, cases, collector, limits) for name, (text, at) in spec.groups.items()}
    if not sources:
        return None
    result = Expectation(spec, cases, {}, sources, groups)
    _combine(result, collector, position)
    _completeness(result, collector, position)
    return result


def _build_clocked(
    spec: Spec,
    others: Mapping[str, bytes],
    collector: Collector,
    limits: Limits,
    position: int,
    given: Cases | None = None,
) -> tuple[Expectation | None, bool]:
    """The same for a clocked lab, whose cases are the steps of sequences: those `given`, or all that the spec asks
    for."""
    errors = collector.errors
    table = FunctionTable(spec, spec.function, collector) if spec.function else None
    if collector.errors > errors:
        return None, False
    cases, coverage = plan(spec, table, collector, limits.cases) if given is None else (given, None)
    if cases is None or cases.stimulus is None:
        return None, False
    sources: list[Source] = []
    if any(row.outputs for item in spec.steps for row in item.rows):
        sources.append(from_steps(spec, cases))
    if table is not None:
        sources.append(from_function(spec, table, cases, cases.stimulus))
    for model in spec.models:
        source = _from_model(spec, model, others, cases, collector, limits, position)
        if source is not None:
            sources.append(source)
    groups = {name: _condition(spec, text, at, cases, collector, limits) for name, (text, at) in spec.groups.items()}
    result = Expectation(spec, cases, {}, sources, groups, coverage=coverage)
    if spec.equations is not None:
        so_far = Expectation(spec, cases, {}, sources, {})
        _combine(so_far, Collector(), position)
        source = _equations_in_steps(spec, so_far, collector)
        if source is not None:
            sources.append(source)
    if not sources:
        return None, False
    _combine(result, collector, position)
    _completeness(result, collector, position)
    return result, collector.errors == errors


def _equations_in_steps(spec: Spec, so_far: Expectation, collector: Collector) -> Source | None:
    """Outputs that equations give from inputs, and from what other sources expect of other outputs in the same step."""
    made = equation_design(spec, collector, True)
    if made is None:
        return None
    design, operands = made
    value_of = {
        t.signal.id: p.body.value for p in design.processes if isinstance(p.body, ir.Assign) for t in p.body.targets
    }
    name_of = {o.signal.id: name for name, o in operands.items()}
    bits = {key: Planes() for key in _keys(spec)}
    for step, expected in enumerate(combined_words(so_far.bits, spec, so_far.cases)):
        known = expected | dict(zip((p.name for p in spec.inputs), inputs_of(spec, so_far.cases, step), strict=True))
        words: dict[int, Word] = {}

        def read(signal: Signal, known: dict[str, Word] = known, words: dict[int, Word] = words) -> Word:
            if signal.id not in value_of:
                return known[name_of[signal.id]]
            if signal.id not in words:
                words[signal.id] = 0, 0  # going round in a circle it stays unknown
                words[signal.id] = evaluate(value_of[signal.id], read)
            return words[signal.id]

        for port in spec.outputs:
            signal = operands[port.name].signal
            one, zero = read(signal) if signal.id in value_of else (0, 0)
            for i in range(port.width):
                planes = bits[port.name, i]
                planes.one |= (one & ~zero) >> i & 1 and 1 << step
                planes.zero |= (zero & ~one) >> i & 1 and 1 << step
                planes.care |= (one ^ zero) >> i & 1 and 1 << step
    return Source("equations", bits)


def _keys(spec: Spec) -> list[Key]:
    return [(p.name, i) for p in spec.outputs for i in range(p.width)]


# Tables.


def _from_rows(name: str, rows: tuple[Row, ...], spec: Spec, cases: Cases, collector: Collector) -> Source:
    source = Source(name, {key: Planes() for key in _keys(spec)}, dict.fromkeys(_keys(spec), 0))
    told = 0
    for row in rows:
        if row.outputs is None:
            continue
        plane = match_plane(row, spec, cases)
        source.rows.append((row, plane))
        for port, cell in zip(spec.outputs, row.outputs, strict=True):
            clash = _enter(source, port.name, port.width, cell, plane)
            if clash and told < _MOST_TOLD:
                told += 1
                other = next(
                    r for r, p in source.rows[:-1]
                    if p & clash and r.outputs is not None and r.outputs[spec.outputs.index(port)] != cell
                )  # fmt: skip
                case = (clash & -clash).bit_length() - 1
                collector.error(
                    "rows-contradict",
                    f"this row says another `{port.name}` than line {other.line} of the table for"
                    f" {case_text(spec, cases, case)}",
                    row.position,
                    row.position + 1,
                    "two rows that overlap must agree",
                )
    return source


def _enter(source: Source, port: str, width: int, cell: Cell, plane: int) -> int:
    """Enter a row's value for an output; gives the cases in which an earlier row says otherwise."""
    clash = 0
    for i in range(width):
        bits = source.bits[port, i]
        if not cell.care >> i & 1:
            source.masked[port, i] |= plane
            continue
        one, zero = cell.word[0] >> i & 1, cell.word[1] >> i & 1
        both = plane & bits.care
        clash |= both & ((bits.one ^ (both if one else 0)) | (bits.zero ^ (both if zero else 0)))
        bits.care |= plane
        if one:
            bits.one |= plane
        if zero:
            bits.zero |= plane
    return clash


# Equations.


def equation_design(spec: Spec, collector: Collector, with_equations: bool) -> tuple[Design, dict[str, Operand]] | None:
    """The equations as a design with the spec's ports, and what each name in them means; None where they are wrong
    (reported)."""
    design = Design(spec.unit, "equations")
    operands: dict[str, Operand] = {}
    for port in (*spec.inputs, *spec.outputs):
        if port.direction == "out" and not with_equations:
            continue
        signal = design.add_signal(port.name, port.width, "net")
        operands[port.name] = Operand(signal, port.signed, port.left < port.right, min(port.left, port.right))
        design.ports.append(Port(port.name, port.direction, signal, port.signed))
    if not with_equations or spec.equations is None:
        return design, operands
    errors = collector.errors
    text, base = spec.equations
    written: dict[str, int] = {}
    inputs = {p.name for p in spec.inputs}
    outputs = {p.name for p in spec.outputs}
    names: set[str] = set(operands)

    def declare(target: Name) -> None:
        names.add(target.name)
        if target.name in inputs:
            collector.error(
                "input-driven", f"`{target.name}` is an input and cannot be given an equation", target.start, target.end
            )
        elif target.name in written:
            collector.error("duplicate", f"`{target.name}` has two equations", target.start, target.end)
        written[target.name] = target.start

    parser = FormulaParser(text, base, collector, lambda n: operands[n].signal.width if n in operands else None)
    equations = parser.equations(declare)
    if collector.errors > errors:
        return None
    pending = {e.target.name: e for e in equations}

    def find(name: str) -> Operand | None:
        """Inner names get their width from their own equation, worked out when first needed."""
        if name in busy and name not in operands:
            where = pending[name]
            collector.error(
                "circle", f"`{name}` depends on itself", where.start, where.end, "equations cannot go round in a circle"
            )
            raise SyntaxProblem
        if name not in operands and name in pending:
            busy.add(name)
            value, signed = lowering.lower(pending[name].value)
            signal = design.add_signal(name, value.width, "net", pending[name].start)
            operands[name] = Operand(signal, signed)
            _drive(design, signal, value, pending[name].start)
        return operands.get(name)

    busy: set[str] = set()
    lowering = FormulaLowering(find, lambda n: did_you_mean(n, names), collector)
    for equation in equations:
        name = equation.target.name
        try:
            if name in outputs:
                signal = operands[name].signal
                _drive(design, signal, lowering.to_width(equation.value, signal.width), equation.start)
            else:
                find(name)
        except SyntaxProblem:
            continue
    return None if collector.errors > errors else (design, operands)


def _drive(design: Design, signal: Signal, value: ir.Expr, position: int) -> None:
    body = ir.Assign(position, [ir.Target(signal, 0, signal.width)], value)
    design.processes.append(Process("continuous", body, watches_of(stretches_read(value)), position, "equation"))


def _from_equations(spec: Spec, cases: Cases, collector: Collector, limits: Limits) -> Source | None:
    made = equation_design(spec, collector, True)
    if made is None:
        return None
    design, _ = made
    driven = {t.signal.name for p in design.processes if isinstance(p.body, ir.Assign) for t in p.body.targets}
    binding = bind_ports(spec, design)
    observation = observe(design, binding, spec.inputs, cases, limits)
    if observation.engine != "levelized" and cases.all_known:
        assert spec.equations is not None
        collector.error("circle", "these equations depend on each other in a circle", spec.equations[1])
        return None
    run = observation.runs[0]
    bits: dict[Key, Planes] = {}
    for key in _keys(spec):
        one, zero = run.outputs[key]
        bits[key] = Planes(one, zero, cases.full) if key[0] in driven else Planes()
    missing = [p.name for p in spec.outputs if p.name not in driven]
    if missing and spec.table is None and not spec.models:
        assert spec.equations is not None
        collector.warning("no-equation", f"no equation says what {', '.join(missing)} should be", spec.equations[1])
    _no_unknowns(spec, "the equations", bits, cases, collector, spec.equations[1] if spec.equations else 0)
    return Source("equations", bits)


def _condition(spec: Spec, text: str, position: int, cases: Cases, collector: Collector, limits: Limits) -> int:
    """The cases in which a group's condition on the inputs holds."""
    made = equation_design(spec, collector, False)
    assert made is not None
    design, operands = made
    parser = FormulaParser(text, position, collector, lambda n: operands[n].signal.width if n in operands else None)
    lowering = FormulaLowering(operands.get, lambda n: did_you_mean(n, operands), collector)
    try:
        value = lowering.condition(parser.single())
    except SyntaxProblem:
        return 0
    signal = design.add_signal("group", 1, "net")
    design.ports.append(Port("group", "out", signal, False))
    _drive(design, signal, value, position)
    try:
        levelized = Levelized(design, limits)
    except HasMemory:  # a formula over inputs only is always a function of them
        raise AssertionError(text) from None
    return levelized.run(list(cases.one), cases.full)[signal.offset][0]


# Reference models.


def read_model(spec: Spec, model: str, others: Mapping[str, bytes], limits: Limits) -> tuple[Reading, Design | None]:
    """A reference model, read and built; no design where something is wrong with it."""
    reading = read_handin([HandinFile(model, others[model])], limits)
    unit = spec.unit if spec.unit in reading.units else None
    tops = [
        u.name
        for u in reading.units.values()
        if u.has_ports and not any(u.name in o.uses for o in reading.units.values())
    ]
    if unit is None and len(tops) == 1:
        unit = tops[0]
    return reading, reading.elaborate(unit) if unit is not None and not reading.collector.errors else None


def _from_model(
    spec: Spec,
    model: str,
    others: Mapping[str, bytes],
    cases: Cases,
    collector: Collector,
    limits: Limits,
    position: int,
) -> Source | None:
    reading, design = read_model(spec, model, others, limits)
    if design is None:
        first = next((str(m) for m in reading.messages() if m.severity == "error"), f"it has no unit `{spec.unit}`")
        collector.error("bad-model", f"the reference model cannot be used: {first}", position)
        return None
    binding = bind_ports(spec, design)
    if binding.problems:
        collector.error("bad-model", f"the ports of {model} do not fit: {binding.problems[0]}", position)
        return None
    watch = observe if cases.stimulus is None else observe_steps
    observation: Observation = watch(design, binding, spec.inputs, cases, limits)
    run = observation.runs[0]
    if run.stopped:
        why = f"ends in an error ({observation.ends[0].text})" if observation.ends else "does not settle"
        collector.error("bad-model", f"{model} {why} in {run.stopped.bit_count()} cases", position)
        return None
    if cases.stimulus is not None:
        return Source(model, _known_in_all(observation, _keys(spec), cases.full))
    bits = {key: Planes(*run.outputs[key], cases.full) for key in _keys(spec)}
    for other in observation.runs[1:]:
        for key in bits:
            if other.outputs[key] != run.outputs[key]:
                collector.error("bad-model", f"{model} remembers: `{key[0]}` depends on the case before", position)
                return None
    masked = dict.fromkeys(bits, 0)
    if spec.table is not None:
        for row in spec.table:
            if row.outputs is not None:
                _mask(spec, row, match_plane(row, spec, cases), masked)
    _no_unknowns(
        spec,
        model,
        {k: Planes(p.one, p.zero, p.care & ~masked[k]) for k, p in bits.items()},
        cases,
        collector,
        position,
    )
    return Source(model, bits)


def _known_in_all(observation: Observation, keys: list[Key], full: int) -> dict[Key, Planes]:
    """What a clocked model does wherever it is known (before a reset it is not) and no open input matters."""
    bits: dict[Key, Planes] = {}
    for key in keys:
        one, zero = full, full
        for run in observation.runs:
            a, b = run.outputs[key]
            one, zero = one & a & ~b, zero & b & ~a
        bits[key] = Planes(one, zero, one | zero)
    return bits


def _mask(spec: Spec, row: Row, plane: int, masked: dict[Key, int]) -> None:
    assert row.outputs is not None
    for port, cell in zip(spec.outputs, row.outputs, strict=True):
        for i in range(port.width):
            if not cell.care >> i & 1:
                masked[port.name, i] |= plane


def _no_unknowns(
    spec: Spec, what: str, bits: dict[Key, Planes], cases: Cases, collector: Collector, position: int
) -> None:
    """x from a source that computes is a mistake in it: only a table may expect x, by writing it."""
    for (port, _), planes in bits.items():
        unknown = planes.care & ~(planes.one ^ planes.zero)
        if unknown:
            case = (unknown & -unknown).bit_length() - 1
            collector.error(
                "unknown-expected",
                f"{what} gives no definite `{port}` in {unknown.bit_count()} cases, first"
                f" {case_text(spec, cases, case)}",
                position,
                None,
                "write `-` for it in a table if it is not to be compared",
            )
            return


# Together.


def _combine(result: Expectation, collector: Collector, position: int) -> None:
    told: dict[tuple[str, str], int] = {}
    spec, cases = result.spec, result.cases
    for key in _keys(spec):
        masked = 0
        for source in result.sources:
            masked |= source.masked.get(key, 0)
        total = Planes()
        owner: list[tuple[Source, Planes]] = []
        for source in result.sources:
            bits = source.bits[key]
            for earlier, other in owner:
                both = bits.care & other.care & ~masked
                clash = both & ((bits.one ^ other.one) | (bits.zero ^ other.zero))
                if clash:
                    told[earlier.name, source.name] = told.get((earlier.name, source.name), 0) | clash
                    _note_disagreements(result, key[0], earlier, source, clash)
            fresh = bits.care & ~total.care
            total.one |= bits.one & fresh
            total.zero |= bits.zero & fresh
            total.care |= fresh
            owner.append((source, bits))
        keep = total.care & ~masked
        follow: dict[int, tuple[int, bool]] = {}
        for source in result.sources:
            follow |= {
                step: anchor for step, anchor in source.bits[key].follow.items() if not (keep | masked) >> step & 1
            }
        result.bits[key] = Planes(total.one & keep, total.zero & keep, keep, follow)
    for (first, second), clash in told.items():
        shown: list[str] = []
        rest = clash
        while rest and len(shown) < _MOST_TOLD:
            case = (rest & -rest).bit_length() - 1
            rest &= rest - 1
            outputs = sorted(
                {d.output for d in result.disagreements if d.case == case and {d.first, d.second} == {first, second}}
            )
            shown.append(f"{case_text(spec, cases, case)} ({', '.join(outputs)})")
        more = f" and {clash.bit_count() - len(shown)} more" if clash.bit_count() > len(shown) else ""
        where = _place_of(spec, clash, result, first, second) or position
        collector.error(
            "sources-disagree",
            f"{first} and {second} disagree in {clash.bit_count()} of {cases.count} cases: " + "; ".join(shown) + more,
            where, None, "no student can be judged before they agree",
        )  # fmt: skip


def _place_of(spec: Spec, clash: int, result: Expectation, *names: str) -> int:
    """The table row to point at."""
    for source in result.sources:
        if source.name in names:
            for row, plane in source.rows:
                if plane & clash:
                    return row.position
    return spec.equations[1] if spec.equations and "equations" in names else 0


def _note_disagreements(result: Expectation, output: str, first: Source, second: Source, clash: int) -> None:
    count = 0
    while clash and count < 1000:
        case = (clash & -clash).bit_length() - 1
        clash &= clash - 1
        count += 1
        note = Disagreement(case, output, first.name, second.name)
        if note not in result.disagreements[-4:]:
            result.disagreements.append(note)


def _completeness(result: Expectation, collector: Collector, position: int) -> None:
    """Say which combinations no source covers; `-` on the right counts as covered."""
    spec, cases = result.spec, result.cases
    covered = 0
    for source in result.sources:
        if source.rows:
            for _, plane in source.rows:
                covered |= plane
        else:
            for bits in source.bits.values():
                covered |= bits.care
    missing = cases.full & ~covered
    result.uncovered = missing.bit_count()
    if missing and cases.stimulus is None:  # before the first reset nothing can be expected
        shown: list[str] = []
        rest = missing
        while rest and len(shown) < _MOST_TOLD:
            case = (rest & -rest).bit_length() - 1
            rest &= rest - 1
            shown.append(case_text(spec, cases, case))
        more = f" and {result.uncovered - len(shown)} more" if result.uncovered > len(shown) else ""
        where = spec.table[0].position if spec.table else position
        collector.warning(
            "incomplete",
            f"{result.uncovered} of {cases.count} cases are covered by no row and will not be compared: "
            + "; ".join(shown)
            + more,
            where,
        )
    if not any(bits.care or bits.follow for bits in result.bits.values()):
        collector.error("nothing-compared", "no output is compared in any case", position)
