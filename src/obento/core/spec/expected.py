"""Sources of what is expected: tables, steps, functions, benches."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping, Sequence
from typing import Any, TypeVar

from obento.core.diagnostics import Collector
from obento.core.spec.model import (
    Bench,
    FunctionRow,
    Row,
    SpecPort,
    StepRow,
)
from obento.core.spec.steps import Sides
from obento.core.spec.table import parse_table
from obento.core.spec.toml_reader import Reader, section_of, string_of, strings_of
from obento.core.spec.unknowns import (
    MEANINGS,
    first_applied,
    first_expected,
)
from obento.core.suggest import did_you_mean

_T = TypeVar("_T")


def read_timed(
    section: Mapping[str, Any],
    key: str,
    parse: Callable[[str, int, Sides, Collector], _T],
    sides: Sides,
    reader: Reader,
    others: Mapping[str, bytes],
) -> _T | None:
    """A clocked text, or the CSV file beside the spec that it names."""
    text = string_of(section, "expect", key, reader)
    if text is None:
        return None
    if text.strip().endswith(".csv") and "\n" not in text.strip():
        data = others.get(text.strip())
        if data is None:
            reader.error(
                "expect",
                key,
                "no-table",
                f"there is no file `{text.strip()}` beside the spec",
                did_you_mean(text, others),
            )
            return None
        return parse(data.decode("utf-8-sig", "replace"), reader.key("expect", key)[0], sides, reader.collector)
    return parse(text, reader.text("expect", key, text), sides, reader.collector)


def read_bench(data: Mapping[str, Any], reader: Reader, others: Mapping[str, bytes]) -> Bench | None:
    """A bench beside the spec as the source of verdicts, or the designs that a bench handed in is tried on."""
    given = data.get("expect")
    expect: Mapping[str, Any] = given if isinstance(given, dict) else {}
    files = strings_of(expect, "expect", "bench", reader)
    section = section_of(data, "bench", reader)
    if not files and not section:
        return None
    right, wrong = strings_of(section, "bench", "right", reader), strings_of(section, "bench", "wrong", reader)
    for names, key, where in ((files, "bench", "expect"), (right, "right", "bench"), (wrong, "wrong", "bench")):
        for name in names:
            if name not in others:
                reader.error(
                    where, key, "no-model", f"there is no file `{name}` beside the spec", did_you_mean(name, others)
                )
    if bool(files) == bool(right or wrong):
        hint = "`bench` in [expect] tries each hand-in; `right` and `wrong` in [bench] try benches that are handed in"
        reader.error(
            "bench", "bench", "bench-kind", "say either which bench to use, or which designs to try benches on", hint
        )
    for name in expect:
        if name not in ("bench", "model"):
            reader.error(
                "expect", name, "bench-alone", f"with a bench, `{name}` says nothing more", "make it a task of its own"
            )
    patterns: dict[str, str | None] = {}
    for key in ("pass", "fail"):
        patterns[key] = string_of(section, "bench", key, reader)
        try:
            re.compile(patterns[key] or "")
        except re.error as error:
            reader.error(
                "bench",
                key,
                "bad-pattern",
                f"this pattern cannot be read: {error}",
                "a regular expression; (?P<check>.*) names the check",
            )
    top = string_of(section, "bench", "top", reader)
    return Bench(
        files, top, patterns["pass"], patterns["fail"], strings_of(section, "bench", "checks", reader), right, wrong
    )


def check_kind(
    is_clocked: bool,
    expect: Mapping[str, Any],
    cases: Mapping[str, Any],
    has_function: bool,
    inner: tuple[SpecPort, ...],
    reader: Reader,
) -> None:
    """Tables of cases and lists of steps exclude each other."""
    for section, name, keys in ((expect, "expect", ("table",)), (cases, "cases", ("all", "listed", "corners"))):
        for key in keys if is_clocked else ():
            if key in section:
                reader.error(
                    name, key, "clocked", f"`{key}` is for labs without memory", "give `steps` or a `function` table"
                )
    if inner and not has_function:
        reader.error("ports", "inner", "no-function", "`inner` are states of a `function` table, and there is none")


def read_table(
    section: Mapping[str, Any],
    name: str,
    key: str,
    inputs: tuple[SpecPort, ...],
    outputs: tuple[SpecPort, ...],
    reader: Reader,
    others: Mapping[str, bytes],
    need_outputs: bool,
) -> tuple[Row, ...] | None:
    """A table of cases, or the CSV file that it names; None when there is none."""
    text = string_of(section, name, key, reader)
    if text is None:
        return None
    if text.strip().endswith(".csv") and "\n" not in text.strip():
        data = others.get(text.strip())
        if data is None:
            reader.error(
                name, key, "no-table", f"there is no file `{text.strip()}` beside the spec", did_you_mean(text, others)
            )
            return ()
        where = reader.key(name, key)[0]
        return parse_table(
            data.decode("utf-8-sig", "replace"), where, inputs, outputs, reader.collector, need_outputs, reader.edition
        )
    return parse_table(
        text, reader.text(name, key, text), inputs, outputs, reader.collector, need_outputs, reader.edition
    )


def warn_told_twice(rows: tuple[Row, ...], reader: Reader) -> None:
    """The same inputs in two rows: the second one adds nothing, and may be a slip of the pen."""
    first: dict[tuple[tuple[int, int, int], ...], Row] = {}
    for row in rows:
        key = tuple((cell.word[0] & cell.care, cell.word[1] & cell.care, cell.care) for cell in row.inputs)
        known = first.setdefault(key, row)
        if known is not row:
            text = f"this row has the same inputs as line {known.line} of the table"
            reader.collector.warning(
                "row-twice", text, row.position, row.position + 1, "one of the two may have been meant for other inputs"
            )


def meaning_of_x(
    expect: Mapping[str, Any],
    rows: Sequence[Row | StepRow],
    function: Sequence[FunctionRow],
    given: Sequence[Row | StepRow],
    reader: Reader,
) -> str:
    """What x in tables means: as the spec says, else literally, which is asked about where it matters."""
    meaning = expect.get("x", "")
    if meaning not in ("", *MEANINGS):
        reader.error("expect", "x", "bad-value", '`x` is "any" or "unknown": what x in the tables means')
        return ""
    if meaning or reader.edition == 1:
        return str(meaning)
    asked = first_expected(rows, function)
    if asked is not None:
        reader.collector.warning(
            "which-x",
            "does x right of `|` mean that any value will do? Until you say so the output must be unknown there",
            asked,
            asked + 1,
            'x = "any" in [expect] lets any value pass, like `-`; x = "unknown" says that it must be unknown',
        )
    applied = first_applied(given)
    if applied is not None:
        text = "x among the inputs is applied as an unknown value"
        hint = 'write `-` where 0 and 1 are meant; x = "unknown" in [expect] says that this is'
        reader.collector.warning("x-applied", text, applied, applied + 1, hint)
    return ""
