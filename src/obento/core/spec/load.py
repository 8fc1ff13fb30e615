"""The specification file: TOML with short texts of our own inside, every mistake said at its line and column."""

from __future__ import annotations

import hashlib
import re
import tomllib
from collections.abc import Callable, Mapping, Sequence
from types import MappingProxyType
from typing import Any, Literal, TypeVar

from obento.core.diagnostics import Collector
from obento.core.source import SourceFile
from obento.core.spec.model import (
    EDITION,
    Bench,
    Clock,
    FunctionRow,
    Marks,
    RandomCases,
    Reset,
    Row,
    Rules,
    Spec,
    SpecPort,
    StepRow,
)
from obento.core.spec.steps import Sides, parse_function, parse_steps
from obento.core.spec.table import parse_table
from obento.core.spec.unknowns import (
    MEANINGS,
    all_rows,
    first_applied,
    first_expected,
    function_as_any,
    row_as_any,
    steps_as_any,
)
from obento.core.suggest import did_you_mean

FORMAT = "spec/1"
RULES = ("languages", "only_gates", "max_gates", "max_levels", "behaviour")
_RADIXES: dict[str, Literal["bin", "dec", "hex"]] = {"bin": "bin", "dec": "dec", "hex": "hex"}
_PORT = re.compile(r"(?P<name>[A-Za-z_]\w*)(?:\[(?P<a>\d+)(?:\.\.(?P<b>\d+))?\])?(?P<s>s)?(?::(?P<radix>\w+))?$")
_KEYS: dict[str, tuple[str, ...]] = {
    "": (
        "obento",
        "title",
        "unit",
        "ports",
        "expect",
        "cases",
        "clock",
        "reset",
        "match",
        "rules",
        "marks",
        "students",
        "bench",
    ),
    "ports": ("in", "out", "inner"),
    "expect": ("equations", "table", "model", "steps", "function", "bench", "x"),
    "cases": ("all", "listed", "corners", "random", "groups", "without_reset"),
    "clock": ("port", "edge"),
    "reset": ("port", "active", "kind"),
    "bench": ("top", "pass", "fail", "checks", "right", "wrong"),
    "match": ("names", "aliases"),
    "rules": RULES,
    "marks": ("total", "by", "weights", "rules"),
    "students": ("see", "hidden"),
}
_MOST_EXHAUSTIVE = 16


class _Reader:
    """Finds places of keys and texts in the file, which the TOML reader does not tell."""

    def __init__(self, file: SourceFile, collector: Collector, edition: int) -> None:
        self.file = file
        self.collector = collector
        self.edition = edition
        self._sections: dict[str, tuple[int, int]] = {"": (0, len(file.text))}
        heads = list(re.finditer(r"^[ \t]*\[([\w.]+)\][ \t]*(?:#.*)?$", file.text, re.MULTILINE))
        if heads:
            self._sections[""] = (0, heads[0].start())
        for i, head in enumerate(heads):
            end = heads[i + 1].start() if i + 1 < len(heads) else len(file.text)
            self._sections[head[1]] = (head.start(), end)

    def key(self, section: str, key: str) -> tuple[int, int]:
        """Positions of a key, or of its section's head, or of the file's beginning."""
        if not section and key in self._sections:  # a section named by its own head
            at = self.file.text.index("[", self._sections[key][0])
            return self.file.base + at, self.file.base + at + len(key) + 2
        start, end = self._sections.get(section, (0, len(self.file.text)))
        m = re.compile(rf"^[ \t]*(?:{re.escape(key)}|\"{re.escape(key)}\")[ \t]*[.=]", re.MULTILINE).search(
            self.file.text, start, end
        )
        if m is None:
            return self.file.base + start, self.file.base + start
        first = m.start() + len(m.group()) - len(m.group().lstrip())
        return self.file.base + first, self.file.base + m.end()

    def text(self, section: str, key: str, value: str) -> int:
        """Position of the first character of a text value."""
        _, after = self.key(section, key)
        at = self.file.text.find(value, after - self.file.base) if value else -1
        return self.file.base + at if at >= 0 else after

    def error(self, section: str, key: str, code: str, text: str, hint: str = "") -> None:
        start, end = self.key(section, key)
        self.collector.error(code, text, start, end, hint)


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
    try:
        data = tomllib.loads(file.text)
    except tomllib.TOMLDecodeError as error:
        at = re.search(r"\(at line (\d+), column (\d+)\)", str(error))
        position = file.base + len(file.text)
        if at:
            position = file.base + file.line_starts[int(at[1]) - 1] + int(at[2]) - 1
        message = re.sub(r"\s*\(at .*\)", "", str(error))
        collector.error("toml", f"this is not valid TOML: {message[:1].lower()}{message[1:]}", position)
        return None
    reader = _Reader(file, collector, edition)
    _check_keys(data, reader)
    if data.get("obento") != FORMAT:
        reader.error(
            "",
            "obento",
            "format",
            f'the first line must be obento = "{FORMAT}"',
            "it says which version of the format this is",
        )
    unit = data.get("unit")
    if not isinstance(unit, str) or not re.fullmatch(r"[A-Za-z_][\w$]*", unit):
        reader.error("", "unit", "unit", "`unit` must name the module or wiring list to be handed in")
        unit = ""
    bench = read_bench(data, reader, others)
    has_ports = bench is None or not (bench.right or bench.wrong)  # a bench that is handed in has none
    inputs = _ports(data, "in", reader) if has_ports else ()
    outputs = _ports(data, "out", reader) if has_ports else ()
    inner = _ports(data, "inner", reader) if "inner" in (data.get("ports") or {}) else ()
    clock, reset = _clock(data, reader), _reset(data, reader)
    inputs = _with_timing(inputs, clock, reset, reader)
    _check_ports((*inputs, *inner), outputs, reader)
    _check_names(unit, (*inputs, *outputs), data, reader, reserved)
    if collector.errors > errors:
        return None
    expect = _section(data, "expect", reader)
    cases = _section(data, "cases", reader)
    match = _section(data, "match", reader)
    table = _table(expect, "expect", "table", inputs, outputs, reader, others, True)
    listed = _table(cases, "cases", "listed", inputs, outputs, reader, others, False) or ()
    sides = Sides(inputs, outputs, inner, clock, reset, edition)
    steps = _timed(expect, "steps", parse_steps, sides, reader, others) or ()
    function = _timed(expect, "function", parse_function, sides, reader, others)
    _told_twice(table or (), reader)
    _told_twice(listed, reader)
    meaning = _meaning_of_x(
        expect,
        [*all_rows(table, listed, steps)],
        function or (),
        (*listed, *(r for s in steps for r in s.rows)),
        reader,
    )
    if meaning == "any":
        table = None if table is None else tuple(map(row_as_any, table))
        listed, steps = tuple(map(row_as_any, listed)), steps_as_any(steps)
        function = None if function is None else function_as_any(function)
    is_clocked = clock is not None or bool(steps) or function is not None
    _check_kind(is_clocked, expect, cases, function is not None, inner, reader)
    equations = _string(expect, "expect", "equations", reader)
    models = _strings(expect, "expect", "model", reader)
    for model in models:
        if model not in others:
            reader.error(
                "expect",
                "model",
                "no-model",
                f"there is no file `{model}` beside the spec",
                did_you_mean(model, others),
            )
    says = (
        function is not None
        or any(row.outputs for item in steps for row in item.rows)
        or any(r.outputs for r in listed)
    )
    if bench is None and equations is None and table is None and not models and not says and collector.errors == errors:
        reader.error(
            "expect",
            "expect",
            "no-source",
            "nothing says what is right",
            "give `steps`, a `function` table or a `model`"
            if is_clocked
            else "give `equations`, a `table`, a `model` or listed rows with outputs",
        )
    all_cases, corners, random = _which_cases(cases, inputs, listed, is_clocked or bench is not None, reader)
    rules, marks = _rules(data, reader), _marks(data, reader)
    students = _section(data, "students", reader)
    see = students.get("see", "first-failing")
    if see not in ("first-failing", "all", "counts", "nothing"):
        reader.error("students", "see", "bad-value", "`see` is first-failing, all, counts or nothing")
    groups = _groups(cases, reader)
    without_reset = _without_reset(cases, reset, function, reader)
    names = match.get("names", "lenient")
    if names not in ("lenient", "exact"):
        reader.error("match", "names", "bad-value", '`names` is "lenient" or "exact"')
    aliases = _aliases(match, {p.name for p in (*inputs, *outputs)} | {unit}, reader)
    if collector.errors > errors:
        return None
    digest = hashlib.sha256(file.text.encode())
    beside = {*models, *((*bench.files, *bench.right, *bench.wrong) if bench else ())}
    for name in sorted(n for n in others if n in beside or n.endswith(".csv")):
        digest.update(name.encode() + b"\0" + others[name])
    return Spec(
        title=str(data.get("title") or unit), unit=unit, inputs=inputs, outputs=outputs,
        equations=None if equations is None else (equations, reader.text("expect", "equations", equations)),
        table=table, listed=listed, models=models, all_cases=all_cases, corners=corners, random=random, groups=groups,
        lenient=names == "lenient", aliases=aliases, rules=rules, marks=marks, see=see,
        hidden=tuple(_strings(students, "students", "hidden", reader)), digest="sha256:" + digest.hexdigest(),
        clock=clock, reset=reset, inner=inner, steps=steps, function=function, bench=bench,
        without_reset=without_reset, edition=edition,
    )  # fmt: skip


def _check_keys(data: Mapping[str, Any], reader: _Reader) -> None:
    for key, value in data.items():
        if key not in _KEYS[""]:
            reader.error("", key, "unknown-key", f"`{key}` means nothing in a spec", did_you_mean(key, _KEYS[""]))
        elif isinstance(value, dict):
            known = _KEYS.get(key)
            for inner in value if known else ():
                if inner not in (known or ()):
                    reader.error(
                        key,
                        inner,
                        "unknown-key",
                        f"`{inner}` means nothing in [{key}]",
                        did_you_mean(inner, known or ()),
                    )


def _section(data: Mapping[str, Any], name: str, reader: _Reader) -> Mapping[str, Any]:
    value = data.get(name, {})
    if not isinstance(value, dict):
        reader.error("", name, "bad-value", f"[{name}] must be a table of keys", f"write a line [{name}]")
        return {}
    return value


def _string(section: Mapping[str, Any], name: str, key: str, reader: _Reader) -> str | None:
    value = section.get(key)
    if value is not None and not isinstance(value, str):
        reader.error(name, key, "bad-value", f"`{key}` must be a text")
        return None
    return value


def _strings(section: Mapping[str, Any], name: str, key: str, reader: _Reader) -> tuple[str, ...]:
    value = section.get(key, [])
    items = [value] if isinstance(value, str) else value
    if not isinstance(items, list) or not all(isinstance(i, str) for i in items):
        reader.error(name, key, "bad-value", f"`{key}` must be a text or a list of texts")
        return ()
    return tuple(items)


def _ports(data: Mapping[str, Any], side: str, reader: _Reader) -> tuple[SpecPort, ...]:
    text = data.get("ports", {}).get(side) if isinstance(data.get("ports"), dict) else None
    if side == "in" and "clock" in data and (text is None or text == ""):
        return ()
    if not isinstance(text, str) or not text.strip():
        what = "states" if side == "inner" else f"{side}puts"
        reader.error(
            "ports", side, "ports", f"`{side}` in [ports] must list the {what}", 'for instance in = "a b depth[4]"'
        )
        return ()
    base = reader.text("ports", side, text)
    ports: list[SpecPort] = []
    for m in re.finditer(r"[^\s,]+", text):
        start, end = base + m.start(), base + m.end()
        found = _PORT.match(m.group())
        if found is None:
            reader.collector.error(
                "port",
                f"`{m.group()}` cannot be read as a port",
                start,
                end,
                "name, name[4], name[0..3], name[8]s, name[8]:dec",
            )
            continue
        left, right = 0, 0
        if found["a"] is not None:
            left, right = (int(found["a"]), int(found["b"])) if found["b"] else (int(found["a"]) - 1, 0)
        width = abs(left - right) + 1
        radix = _RADIXES.get(found["radix"] or "bin")
        if left < 0 or width > 4096:
            reader.collector.error("port", f"`{m.group()}` cannot have {max(width, 0)} bits", start, end)
        elif radix is None:
            reader.collector.error("port", f"`{found['radix']}` is no radix", start, end, "bin, dec or hex")
        else:
            direction: Literal["in", "out"] = "in" if side == "in" else "out"
            ports.append(SpecPort(found["name"], direction, width, left, right, bool(found["s"]), radix))
    return tuple(ports)


def _check_ports(inputs: tuple[SpecPort, ...], outputs: tuple[SpecPort, ...], reader: _Reader) -> None:
    seen: set[str] = set()
    for port in (*inputs, *outputs):
        if port.name in seen:
            reader.error("ports", port.direction, "duplicate", f"port `{port.name}` is listed twice")
        seen.add(port.name)


def _check_names(
    unit: str,
    ports: Sequence[SpecPort],
    data: Mapping[str, Any],
    reader: _Reader,
    reserved: Mapping[str, frozenset[str]],
) -> None:
    """Names that a language reserves: nobody could hand in a unit or port that is called so."""
    rules = data.get("rules")
    allowed = rules.get("languages") if isinstance(rules, dict) else None
    languages = [name for name in reserved if not isinstance(allowed, list) or name in allowed]
    for section, key, name in (("", "unit", unit), *(("ports", p.direction, p.name) for p in ports)):
        kept = [n for n in languages if name in reserved[n] or (n == "vhdl" and name.lower() in reserved[n])]
        if kept:
            start, end = reader.key(section, key)
            text = f"`{name}` is a word of {_listed_words(kept)}: nothing can have this name there"
            reader.collector.warning(
                "reserved-name",
                text,
                start,
                end,
                "choose another name, or leave that language out of `languages` in [rules]",
            )


def _listed_words(languages: Sequence[str]) -> str:
    shown = [
        {"verilog": "Verilog", "systemverilog": "SystemVerilog", "vhdl": "VHDL", "wiring": "wiring lists"}[n]
        for n in languages
    ]
    return " and ".join(filter(None, [", ".join(shown[:-1]), shown[-1]]))


def _clock(data: Mapping[str, Any], reader: _Reader) -> Clock | None:
    if "clock" not in data:
        return None
    section = _section(data, "clock", reader)
    port, edge = section.get("port"), section.get("edge", "rise")
    if not isinstance(port, str) or not port.isidentifier():
        reader.error("clock", "port", "bad-value", "`port` in [clock] names the clock input", 'port = "clk"')
        return None
    if edge not in ("rise", "fall"):
        reader.error("clock", "edge", "bad-value", "`edge` is rise or fall: the one on which the design acts")
        return None
    return Clock(port, edge)


def _reset(data: Mapping[str, Any], reader: _Reader) -> Reset | None:
    if "reset" not in data:
        return None
    section = _section(data, "reset", reader)
    port, active, kind = section.get("port"), section.get("active", 1), section.get("kind", "async")
    if not isinstance(port, str) or not port.isidentifier():
        reader.error("reset", "port", "bad-value", "`port` in [reset] names the reset input", 'port = "clr_n"')
        return None
    if active not in (0, 1) or isinstance(active, bool):
        reader.error("reset", "active", "bad-value", "`active` is 0 or 1: the level that resets")
        return None
    if kind not in ("async", "sync"):
        reader.error("reset", "kind", "bad-value", "`kind` is async (at once) or sync (at the edge)")
        return None
    return Reset(port, active, kind)


def _with_timing(
    inputs: tuple[SpecPort, ...], clock: Clock | None, reset: Reset | None, reader: _Reader
) -> tuple[SpecPort, ...]:
    """The inputs, with clock and reset before them where [ports] leaves them out."""
    for section, timing in (("reset", reset), ("clock", clock)):
        if timing is None:
            continue
        known = next((p for p in inputs if p.name == timing.port), None)
        if known is None:
            inputs = (SpecPort(timing.port, "in", 1, 0, 0, False, "bin"), *inputs)
        elif known.width != 1:
            reader.error(section, "port", "port", f"`{timing.port}` must have one bit")
    return inputs


_T = TypeVar("_T")


def _timed(
    section: Mapping[str, Any],
    key: str,
    parse: Callable[[str, int, Sides, Collector], _T],
    sides: Sides,
    reader: _Reader,
    others: Mapping[str, bytes],
) -> _T | None:
    """A clocked text, or the CSV file beside the spec that it names."""
    text = _string(section, "expect", key, reader)
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


def read_bench(data: Mapping[str, Any], reader: _Reader, others: Mapping[str, bytes]) -> Bench | None:
    """A bench beside the spec as the source of verdicts, or the designs that a bench handed in is tried on."""
    given = data.get("expect")
    expect: Mapping[str, Any] = given if isinstance(given, dict) else {}
    files = _strings(expect, "expect", "bench", reader)
    section = _section(data, "bench", reader)
    if not files and not section:
        return None
    right, wrong = _strings(section, "bench", "right", reader), _strings(section, "bench", "wrong", reader)
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
        patterns[key] = _string(section, "bench", key, reader)
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
    top = _string(section, "bench", "top", reader)
    return Bench(
        files, top, patterns["pass"], patterns["fail"], _strings(section, "bench", "checks", reader), right, wrong
    )


def _check_kind(
    is_clocked: bool,
    expect: Mapping[str, Any],
    cases: Mapping[str, Any],
    has_function: bool,
    inner: tuple[SpecPort, ...],
    reader: _Reader,
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


def _table(
    section: Mapping[str, Any],
    name: str,
    key: str,
    inputs: tuple[SpecPort, ...],
    outputs: tuple[SpecPort, ...],
    reader: _Reader,
    others: Mapping[str, bytes],
    need_outputs: bool,
) -> tuple[Row, ...] | None:
    text = _string(section, name, key, reader)
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


def _told_twice(rows: tuple[Row, ...], reader: _Reader) -> None:
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


def _meaning_of_x(
    expect: Mapping[str, Any],
    rows: Sequence[Row | StepRow],
    function: Sequence[FunctionRow],
    given: Sequence[Row | StepRow],
    reader: _Reader,
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


def _which_cases(
    cases: Mapping[str, Any], inputs: tuple[SpecPort, ...], listed: tuple[Row, ...], is_clocked: bool, reader: _Reader
) -> tuple[bool, bool, RandomCases | None]:
    bits = sum(p.width for p in inputs)
    corners = cases.get("corners", False)
    if not isinstance(corners, bool):
        reader.error("cases", "corners", "bad-value", "`corners` is true or false")
        corners = False
    random = None
    given = cases.get("random")
    if given is not None:
        count, seed = (given.get("count"), given.get("seed", 1)) if isinstance(given, dict) else (given, 1)
        if (
            not isinstance(count, int)
            or not isinstance(seed, int)
            or isinstance(count, bool)
            or not 1 <= count <= 1 << 20
        ):
            reader.error(
                "cases",
                "random",
                "bad-value",
                "`random` needs a count from 1 to 1048576",
                "random = { count = 2000, seed = 7 }",
            )
        else:
            random = RandomCases(count, seed)
    if is_clocked:
        return False, False, random
    others = bool(listed) or corners or random is not None
    everything = cases.get("all", not others)
    if not isinstance(everything, bool):
        reader.error("cases", "all", "bad-value", "`all` is true or false")
        everything = False
    if everything and bits > _MOST_EXHAUSTIVE:
        reader.error(
            "cases",
            "all",
            "too-many-cases",
            f"{bits} input bits have more combinations than can be run (at most {_MOST_EXHAUSTIVE} bits)",
            "give listed, corners or random cases in [cases]",
        )
    if not everything and not others:
        reader.error("cases", "all", "no-cases", "this spec has no cases")
    return everything, corners, random


def _without_reset(cases: Mapping[str, Any], reset: Reset | None, function: object, reader: _Reader) -> bool:
    """Whether sequences that are made should also show what happens when nobody resets."""
    wanted = cases.get("without_reset", False)
    if not isinstance(wanted, bool):
        reader.error("cases", "without_reset", "bad-value", "`without_reset` is true or false")
    elif wanted and (reset is None or function is None):
        reader.error(
            "cases",
            "without_reset",
            "no-reset",
            "`without_reset` needs a [reset] and a `function` table to make sequences from",
        )
    return wanted is True


def _groups(cases: Mapping[str, Any], reader: _Reader) -> dict[str, tuple[str, int]]:
    groups = cases.get("groups", {})
    if not isinstance(groups, dict) or not all(isinstance(v, str) for v in groups.values()):
        reader.error(
            "cases", "groups", "bad-value", "`groups` gives each group a condition", 'groups = { raise = "op == 2" }'
        )
        return {}
    return {name: (text, reader.text("cases", "groups", text)) for name, text in groups.items()}


def _aliases(match: Mapping[str, Any], known: set[str], reader: _Reader) -> dict[str, tuple[str, ...]]:
    aliases = match.get("aliases", {})
    if not isinstance(aliases, dict):
        reader.error(
            "match", "aliases", "bad-value", "`aliases` gives lists of names", 'aliases = { level_eq = ["leq"] }'
        )
        return {}
    out: dict[str, tuple[str, ...]] = {}
    for name, others in aliases.items():
        if name not in known:
            reader.error(
                "match", "aliases", "unknown-port", f"`{name}` is no port of this spec", did_you_mean(name, known)
            )
        out[name] = (others,) if isinstance(others, str) else tuple(str(o) for o in others)
    return out


def _rules(data: Mapping[str, Any], reader: _Reader) -> Rules:
    rules = _section(data, "rules", reader)
    most: dict[str, int | None] = {}
    for name in ("max_gates", "max_levels"):
        most[name] = rules.get(name)
        if most[name] is not None and (
            not isinstance(most[name], int) or isinstance(most[name], bool) or rules[name] < 0
        ):
            reader.error("rules", name, "bad-value", f"`{name}` is a whole number")
            most[name] = None
    behaviour = rules.get("behaviour", True)
    if not isinstance(behaviour, bool):
        reader.error("rules", "behaviour", "bad-value", "`behaviour` is true or false")
    only = _strings(rules, "rules", "only_gates", reader)
    return Rules(
        _strings(rules, "rules", "languages", reader), only, most["max_gates"], most["max_levels"], bool(behaviour)
    )


def _marks(data: Mapping[str, Any], reader: _Reader) -> Marks:
    marks = _section(data, "marks", reader)
    total = marks.get("total", 10)
    by = marks.get("by", "cases")
    weights = marks.get("weights", {})
    if isinstance(total, bool) or not isinstance(total, int | float) or not 0 < total <= 10_000:
        reader.error("marks", "total", "bad-value", "`total` is a number above 0")
        total = 10
    if by not in ("cases", "groups", "all"):
        reader.error("marks", "by", "bad-value", "`by` is cases, groups or all")
        by = "cases"
    if not isinstance(weights, dict) or not all(isinstance(w, int | float) and w >= 0 for w in weights.values()):
        reader.error("marks", "weights", "bad-value", "`weights` gives each group a number")
        weights = {}
    costs = marks.get("rules", {})
    if not isinstance(costs, dict) or not all(
        isinstance(w, int | float) and not isinstance(w, bool) and w >= 0 for w in costs.values()
    ):
        reader.error(
            "marks", "rules", "bad-value", "`rules` gives rules the points that breaking them costs: { only_gates = 3 }"
        )
        costs = {}
    for name in costs.keys() - set(RULES):
        reader.error(
            "marks",
            "rules",
            "unknown-name",
            f"there is no rule `{name}`",
            did_you_mean(name, RULES) or f"rules are {', '.join(RULES)}",
        )
    for name in costs.keys() & set(RULES) - set(data.get("rules") or ()):
        reader.error(
            "marks",
            "rules",
            "unknown-name",
            f"the rule `{name}` is not set, so that nobody can break it",
            "set it under [rules]",
        )
    return Marks(float(total), by, {k: float(v) for k, v in weights.items()}, {k: float(v) for k, v in costs.items()})
