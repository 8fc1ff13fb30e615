"""The specification file: TOML with short texts of our own inside, every mistake said at its line and column."""

from __future__ import annotations

import hashlib
import re
import tomllib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any

from obento.core.diagnostics import Collector
from obento.core.source import SourceFile
from obento.core.spec.choices import is_without_reset, read_aliases, read_groups, read_marks, read_rules, which_cases
from obento.core.spec.expected import check_kind, meaning_of_x, read_bench, read_table, read_timed, warn_told_twice
from obento.core.spec.model import (
    EDITION,
    SEE,
    TELL,
    Bench,
    Clock,
    FunctionRow,
    Reset,
    Row,
    See,
    Spec,
    SpecPort,
    StepList,
    StepRow,
    Tell,
)
from obento.core.spec.ports import check_names, check_ports, read_clock, read_ports, read_reset, with_timing
from obento.core.spec.steps import Sides, parse_function, parse_steps
from obento.core.spec.toml_reader import FORMAT, Reader, check_keys, section_of, string_of, strings_of
from obento.core.spec.unknowns import (
    all_rows,
    function_as_any,
    row_as_any,
    steps_as_any,
)
from obento.core.suggest import did_you_mean


def load_spec(
    file: SourceFile,
    others: Mapping[str, bytes],
    collector: Collector,
    edition: int = EDITION,
    reserved: Mapping[str, frozenset[str]] = MappingProxyType({}),
) -> Spec | None:
    """Read a spec; None when something in it is wrong (reported).

    Parameters
    ----------
    others
        Files that stand beside it by name: reference models, tables.
    edition
        How its texts are read (`EDITION`).
    reserved
        The words that nothing can be named by, for each language that may be handed in.
    """
    errors = collector.errors
    data = _parsed(file, collector)
    if data is None:
        return None
    reader = Reader(file, collector, edition)
    check_keys(data, reader)
    _check_format(data, reader)
    head = _head(data, reader, others)
    check_ports((*head.inputs, *head.inner), head.outputs, reader)
    check_names(head.unit, (*head.inputs, *head.outputs), data, reader, reserved)
    if collector.errors > errors:
        return None
    expect, cases = section_of(data, "expect", reader), section_of(data, "cases", reader)
    told = _told(expect, cases, head, reader, others)
    is_clocked = head.clock is not None or bool(told.steps) or told.function is not None
    check_kind(is_clocked, expect, cases, told.function is not None, head.inner, reader)
    equations = string_of(expect, "expect", "equations", reader)
    models = _models(expect, reader, others)
    has_source = head.bench is not None or equations is not None or bool(models) or told.says_something
    if not has_source and collector.errors == errors:
        _no_source(is_clocked, reader)
    all_cases, corners, random = which_cases(
        cases, head.inputs, told.listed, is_clocked or head.bench is not None, reader
    )
    see, hidden, tell_change = _students(data, reader)
    lenient, aliases = _match(data, head, reader)
    rules, marks, groups = read_rules(data, reader), read_marks(data, reader), read_groups(cases, reader)
    without_reset = is_without_reset(cases, head.reset, told.function, reader)
    if collector.errors > errors:
        return None
    return Spec(
        title=str(data.get("title") or head.unit), unit=head.unit, inputs=head.inputs, outputs=head.outputs,
        equations=None if equations is None else (equations, reader.text("expect", "equations", equations)),
        table=told.table, listed=told.listed, models=models, all_cases=all_cases, corners=corners, random=random,
        groups=groups, lenient=lenient, aliases=aliases, rules=rules, marks=marks, see=see, hidden=hidden,
        digest=_digest(file, others, models, head.bench), clock=head.clock, reset=head.reset, inner=head.inner,
        steps=told.steps, function=told.function, bench=head.bench, without_reset=without_reset,
        tell_change=tell_change, edition=edition,
    )  # fmt: skip


def _parsed(file: SourceFile, collector: Collector) -> dict[str, Any] | None:
    """The TOML of a text; None where it is none (reported at the place that the TOML reader tells)."""
    try:
        return tomllib.loads(file.text)
    except RecursionError:
        collector.error(
            "bad-toml", "lists are nested too deep in this", file.base, file.base, "a spec needs none of that"
        )
        return None
    except tomllib.TOMLDecodeError as error:
        at = re.search(r"\(at line (\d+), column (\d+)\)", str(error))
        position = file.base + len(file.text)
        if at:
            position = file.base + file.line_starts[int(at[1]) - 1] + int(at[2]) - 1
        message = re.sub(r"\s*\(at .*\)", "", str(error))
        collector.error("toml", f"this is not valid TOML: {message[:1].lower()}{message[1:]}", position)
        return None


def _check_format(data: Mapping[str, Any], reader: Reader) -> None:
    if data.get("obento") != FORMAT:
        text = f'the first line must be obento = "{FORMAT}"'
        reader.error("", "obento", "format", text, "it says which version of the format this is")


@dataclass(frozen=True, slots=True)
class _Head:
    """What is to be handed in: the unit with its ports, and what moves it."""

    unit: str
    bench: Bench | None
    inputs: tuple[SpecPort, ...]
    outputs: tuple[SpecPort, ...]
    inner: tuple[SpecPort, ...]
    clock: Clock | None
    reset: Reset | None


def _head(data: Mapping[str, Any], reader: Reader, others: Mapping[str, bytes]) -> _Head:
    unit = data.get("unit")
    if not isinstance(unit, str) or not re.fullmatch(r"[A-Za-z_][\w$]*", unit):
        reader.error("", "unit", "unit", "`unit` must name the module or wiring list to be handed in")
        unit = ""
    bench = read_bench(data, reader, others)
    has_ports = bench is None or not (bench.right or bench.wrong)  # a bench that is handed in has none
    inputs = read_ports(data, "in", reader) if has_ports else ()
    outputs = read_ports(data, "out", reader) if has_ports else ()
    inner = read_ports(data, "inner", reader) if "inner" in (data.get("ports") or {}) else ()
    clock, reset = read_clock(data, reader), read_reset(data, reader)
    return _Head(unit, bench, with_timing(inputs, clock, reset, reader), outputs, inner, clock, reset)


@dataclass(frozen=True, slots=True)
class _Told:
    """What tables, steps and functions say, with x in them read as the spec means it."""

    table: tuple[Row, ...] | None
    listed: tuple[Row, ...]
    steps: tuple[StepList, ...]
    function: tuple[FunctionRow, ...] | None

    @property
    def says_something(self) -> bool:
        """Whether any of it says what is right, rather than only what is to be tried."""
        if self.table is not None or self.function is not None:
            return True
        return any(r.outputs for r in self.listed) or any(r.outputs for item in self.steps for r in item.rows)


def _told(
    expect: Mapping[str, Any], cases: Mapping[str, Any], head: _Head, reader: Reader, others: Mapping[str, bytes]
) -> _Told:
    table = read_table(expect, "expect", "table", head.inputs, head.outputs, reader, others, True)
    listed = read_table(cases, "cases", "listed", head.inputs, head.outputs, reader, others, False) or ()
    sides = Sides(head.inputs, head.outputs, head.inner, head.clock, head.reset, reader.edition)
    steps = read_timed(expect, "steps", parse_steps, sides, reader, others) or ()
    function = read_timed(expect, "function", parse_function, sides, reader, others)
    warn_told_twice(table or (), reader)
    warn_told_twice(listed, reader)
    applied: list[Row | StepRow] = [*listed, *(r for s in steps for r in s.rows)]
    if meaning_of_x(expect, [*all_rows(table, listed, steps)], function or (), applied, reader) == "any":
        table = None if table is None else tuple(map(row_as_any, table))
        listed, steps = tuple(map(row_as_any, listed)), steps_as_any(steps)
        function = None if function is None else function_as_any(function)
    return _Told(table, listed, steps, function)


def _models(expect: Mapping[str, Any], reader: Reader, others: Mapping[str, bytes]) -> tuple[str, ...]:
    models = strings_of(expect, "expect", "model", reader)
    for model in models:
        if model not in others:
            text = f"there is no file `{model}` beside the spec"
            reader.error("expect", "model", "no-model", text, did_you_mean(model, others))
    return models


def _no_source(is_clocked: bool, reader: Reader) -> None:
    hint = "give `equations`, a `table`, a `model` or listed rows with outputs"
    if is_clocked:
        hint = "give `steps`, a `function` table or a `model`"
    reader.error("expect", "expect", "no-source", "nothing says what is right", hint)


def _students(data: Mapping[str, Any], reader: Reader) -> tuple[See, tuple[str, ...], Tell]:
    """How much students see, the groups whose values they never do, and when they are told the smallest change."""
    students = section_of(data, "students", reader)
    see = next((s for s in SEE if s == students.get("see", "first-failing")), None)
    if see is None:
        reader.error("students", "see", "bad-value", "`see` is first-failing, all, counts or nothing")
    tell = next((t for t in TELL if t == students.get("change", "always")), None)
    if tell is None:
        reader.error("students", "change", "bad-value", '`change` is "always", "after due" or "never"')
    return see or "nothing", strings_of(students, "students", "hidden", reader), tell or "never"


def _match(data: Mapping[str, Any], head: _Head, reader: Reader) -> tuple[bool, dict[str, tuple[str, ...]]]:
    """Whether names may differ in case and style, and other names that are ours."""
    match = section_of(data, "match", reader)
    names = match.get("names", "lenient")
    if names not in ("lenient", "exact"):
        reader.error("match", "names", "bad-value", '`names` is "lenient" or "exact"')
    known = {p.name for p in (*head.inputs, *head.outputs)} | {head.unit}
    return names == "lenient", read_aliases(match, known, reader)


def _digest(file: SourceFile, others: Mapping[str, bytes], models: Sequence[str], bench: Bench | None) -> str:
    """A print of the text and of the files that it rests on."""
    digest = hashlib.sha256(file.text.encode())
    beside = {*models, *((*bench.files, *bench.right, *bench.wrong) if bench else ())}
    for name in sorted(n for n in others if n in beside or n.endswith(".csv")):
        digest.update(name.encode() + b"\0" + others[name])
    return "sha256:" + digest.hexdigest()
