"""The files of one hand-in: which can be read, in which language, and which units (modules, wiring lists) they hold."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import partial

from obento.core.copies import Choice, Piece, choose, looks_like_copy
from obento.core.diagnostics import Collector, Diagnostic, Message, Severity, to_messages
from obento.core.ir.design import Design
from obento.core.limits import LimitReached, Limits
from obento.core.pause import collector_held
from obento.core.pieces import Text, parse_texts
from obento.core.sim.bench.files import Folder
from obento.core.source import SourceFile, Sources
from obento.core.texts import CLUTTER, LANGUAGES, SUFFIXES, decode, language_of, suffix
from obento.core.verilog.elaboration.hierarchy import elaborate as elaborate_verilog
from obento.core.verilog.elaboration.hierarchy import modules_used
from obento.core.verilog.syntax import ast as verilog_ast
from obento.core.vhdl.dependencies import architecture_is_named, check_design_units, entities_used
from obento.core.vhdl.design_units import DesignUnits
from obento.core.vhdl.elaboration.hierarchy import Elaborator
from obento.core.vhdl.syntax import ast as vhdl_ast
from obento.core.wiring import ast as wiring_ast
from obento.core.wiring.elaborate import elaborate as elaborate_wiring

_ONLY_WHEN_USED = frozenset(["generic", "unconstrained", "no-module", "no-block", "no-path", "limit", "recursion"])
"""Errors of a unit by itself that a use of it could settle."""


@dataclass(frozen=True, slots=True)
class HandinFile:
    """A file as handed in. One that could not be taken in has no data, and says why in `refused`."""

    path: str
    data: bytes
    refused: str = ""


@dataclass(slots=True)
class Unit:
    """Something that can be checked: a module, an entity or a wiring list."""

    name: str
    language: str
    file: SourceFile | None
    has_ports: bool
    uses: frozenset[str]
    verilog: verilog_ast.Module | None = None
    wiring: wiring_ast.Wiring | None = None
    vhdl: vhdl_ast.Entity | None = None

    @property
    def position(self) -> int:
        """Where its name stands."""
        if self.verilog is not None:
            return self.verilog.name_start
        if self.vhdl is not None:
            return self.vhdl.name_pos
        return self.wiring.name_start if self.wiring is not None else 0


@dataclass(slots=True)
class Reading:
    """A hand-in as read. `texts` are the files that were read, `ignored` the paths that were passed over, `given`
    all texts by path: what a design may open while it runs."""

    sources: Sources
    collector: Collector
    limits: Limits
    units: dict[str, Unit] = field(default_factory=dict)
    texts: list[SourceFile] = field(default_factory=list)
    given: dict[str, str] = field(default_factory=dict)
    ignored: list[str] = field(default_factory=list)
    duplicates: set[str] = field(default_factory=set)
    choice: Choice = field(default_factory=Choice)
    primitives: dict[str, verilog_ast.Primitive] = field(default_factory=dict)
    packages: dict[str, verilog_ast.Package] = field(default_factory=dict)
    """Verilog packages; under `$unit` what is declared outside of everything, in all files."""
    design_units: DesignUnits = field(default_factory=DesignUnits)
    empty: bool = False
    _building: list[str] = field(default_factory=list)

    def messages(self) -> list[Message]:
        """What was said so far, with places."""
        return to_messages(self.collector.items(), self.sources)

    def errors_in_files_of(self, unit: Unit) -> list[Diagnostic]:
        """Errors in the files that a unit and what it uses stand in: it would not compile with them."""
        units, needed = self._needed(unit), self.files_needed(unit)
        ambiguous = any(u.name in self.duplicates for u in units)
        return [
            d
            for d in self.collector.items()
            if d.severity == "error" and (self._file_at(d.start) in needed or (ambiguous and d.code == "duplicate"))
        ]

    def files_needed(self, unit: Unit) -> set[str]:
        """Names of the files that a unit and what it uses stand in; packages may hold anything that it uses."""
        units = self._needed(unit)
        found = {u.file.name for u in units if u.file is not None}
        if any(u.verilog is not None for u in units):
            found |= {self._file_at(p.name_start) for p in self.packages.values()}
        return found - {""}

    def _file_at(self, position: int) -> str:
        file = self.sources.file_at(position)
        return file.name if file is not None else ""

    def standing_twice(self, top: Unit) -> dict[str, list[str]]:
        """What a unit needs that stands differently in several files, with these: nobody but a person can say which is
        meant."""
        units = self._needed(top)
        names = {n.lower() for u in units for n in (u.name, *u.uses)}
        found = {n: files for n, files in self.choice.open.items() if n in names}
        for name, files in self.choice.open_architectures.items():
            if name in names and not architecture_is_named(self.design_units, name, [u.name for u in units]):
                found[name] = files
        texts = "\n".join(u.file.text.lower() for u in units if u.file is not None)
        packages = self.design_units.packages.keys() | self.design_units.bodies.keys()
        packages |= {name.lower() for name in self.packages}
        for name, files in self.choice.open.items():
            if name in packages and re.search(rf"\b{re.escape(name)}\b", texts):
                found[name] = files
        return found

    def ask_which(self, top: Unit, hint: str) -> dict[str, list[str]]:
        """Say of everything that `standing_twice` gives that it does."""
        twice = self.standing_twice(top)
        for name, files in twice.items():
            position = self.units[name].position if name in self.units else top.position
            self.collector.error(
                "unit-twice", f"`{name}` stands differently in {' and in '.join(files[:4])}", position, None, hint
            )
        return twice

    def _needed(self, unit: Unit) -> list[Unit]:
        found: dict[str, Unit] = {}
        queue = [unit]
        while queue:
            u = queue.pop()
            if u.name not in found:
                found[u.name] = u
                queue += [self.units[n] for n in u.uses if n in self.units]
        return list(found.values())

    def elaborate(self, name: str) -> Design | None:
        """A fresh Design of a unit; None when something is wrong with it (reported)."""
        unit = self.units[name]
        if name in self._building or len(self._building) > self.limits.instance_depth:
            self.collector.error("recursion", f"`{name}` uses itself", unit.position)
            return None
        self._building.append(name)
        try:
            with collector_held():
                design = self._elaborated(unit)
            if design is not None:
                design.given = self.given
            return design
        finally:
            self._building.pop()

    def _elaborated(self, unit: Unit) -> Design | None:
        if unit.verilog is not None:
            modules = self.modules()
            return elaborate_verilog(modules, unit.name, self.collector, self.limits, self.entity, self.packages)
        if unit.vhdl is not None:
            return self.elaborate_vhdl(unit.name)
        assert unit.wiring is not None
        return elaborate_wiring(unit.wiring, self._block, list(self.units), self.collector, self.limits)

    def elaborate_vhdl(self, name: str) -> Design | None:
        """A Design of an entity."""
        return self._elaborator(self.design_units).top(name)

    def problems_elsewhere(self, tops: Iterable[Unit]) -> list[tuple[str, Diagnostic]]:
        """Errors in units that tops do not use but that stand in files that they need: with the name of the unit.

        A compiler would refuse the file. What a use of the unit could settle (a generic without a value, a unit that is
        not here) is none."""
        used = [u for top in tops for u in self._needed(top)]
        needed, files = {u.name for u in used}, {id(u.file) for u in used}
        found: list[tuple[str, Diagnostic]] = []
        own, self.collector = self.collector, Collector()
        try:
            for name, analyse in self._analyses(needed, files):
                self.collector = Collector()
                try:
                    with collector_held():
                        analyse()
                except (LimitReached, RecursionError):
                    continue
                found += [
                    (name, d) for d in self.collector.items() if d.severity == "error" and d.code not in _ONLY_WHEN_USED
                ]
        finally:
            self.collector = own
        return found

    def _analyses(self, needed: set[str], files: set[int]) -> Iterator[tuple[str, Callable[[], object]]]:
        """What builds each unit and each further architecture of these files that is not needed."""

        def is_here(position: int) -> bool:
            return id(self.sources.file_at(position)) in files

        for unit in self.units.values():
            if unit.name not in needed and unit.wiring is None and is_here(unit.position):
                yield unit.name, partial(self._elaborated, unit)
        for name, architectures in self.design_units.architectures.items():
            for a in architectures[:-1] if name in self.design_units.entities else ():
                if is_here(a.name_pos):
                    known = self.design_units.architectures | {name: [a]}
                    alone = replace(self.design_units, architectures=known, configurations={})
                    yield f"{name}({a.name})", partial(self._built_alone, alone, name)
        for name, package in self.design_units.packages.items():
            if is_here(package.name_pos):
                yield name, partial(self._package_alone, name, package)

    def _built_alone(self, design_units: DesignUnits, name: str) -> Design | None:
        return self._elaborator(design_units).top(name)

    def _package_alone(self, name: str, package: vhdl_ast.Package) -> None:
        self._elaborator(self.design_units).package_alone(name, package)

    def _elaborator(self, design_units: DesignUnits) -> Elaborator:
        folder = Folder(self.given, keeps=False)
        return Elaborator(design_units, self.collector, self.limits, self.sources, self._foreign, folder)

    def entity(self, name: str, position: int) -> Design | None:
        """The VHDL entity or wiring list that a Verilog module means by a name."""
        del position
        unit = self.units.get(name) or self.units.get(name.lower())
        return self.elaborate(unit.name) if unit is not None and unit.verilog is None else None

    def _foreign(self, name: str, node: vhdl_ast.Node) -> Design | None:
        del node
        lower = {u.name.lower(): u.name for u in self.units.values() if u.vhdl is None}
        return self.elaborate(lower[name.lower()]) if name.lower() in lower else None

    def modules(self) -> dict[str, verilog_ast.Module | verilog_ast.Primitive]:
        """Everything that a Verilog module may use."""
        modules = {n: u.verilog for n, u in self.units.items() if u.verilog is not None}
        return {**self.primitives, **modules}

    def _block(self, name: str, position: int) -> Design | None:
        del position
        return self.elaborate(name) if name in self.units else None


def read_handin(
    files: Iterable[HandinFile],
    limits: Limits,
    provided: Iterable[HandinFile] = (),
    chosen: Mapping[str, str] | None = None,
) -> Reading:
    """Read all files of a hand-in. Nothing raises: what is wrong stands in the reading's messages.

    `provided` files belong to the lab; a file handed in under the same name is passed over with a note. Where a unit
    stands in several files, `chosen` says which file counts, by the unit's name."""
    reading = Reading(Sources(), Collector(), limits)
    provided = list(provided)
    given_names = {f.path.rpartition("/")[2] for f in provided}
    texts: list[Text] = []
    real = False
    refused: list[HandinFile] = []
    for file in [*provided, *sorted(files, key=lambda f: f.path)]:
        own = file not in provided
        if CLUTTER.search(file.path):
            reading.ignored.append(file.path)
            continue
        if own and file.path.rpartition("/")[2] in given_names:
            reading.collector.note("provided", f"{file.path} is taken from the lab's own files, not from the hand-in")
            continue
        if file.refused:
            refused.append(file)
            continue
        real = real or bool(file.data.strip())
        source = _take_in(file, reading)
        language = _language(file.path, source, reading) if source is not None else None
        if source is not None and language is not None:
            texts.append(
                Text(source, language, own and looks_like_copy(file.path, suffix(file.path) in SUFFIXES, source.text))
            )
    reading.empty = not real and not refused
    texts = _that_count(texts, reading)
    _read_units(reading, texts, chosen or {})
    for file in refused:
        severity: Severity = "warning" if reading.units else "error"
        reading.collector.add(
            severity, "not-taken", f"{file.path} was not taken in: {file.refused}", hint="hand it in again"
        )
    if not reading.texts and not reading.empty and not reading.collector.errors:
        names = ", ".join(sorted(reading.ignored)[:3]) or "no files"
        reading.collector.error(
            "nothing-readable", f"no file here can be read as Verilog, VHDL or a wiring list ({names})"
        )
    return reading


def _that_count(texts: list[Text], reading: Reading) -> list[Text]:
    """The files without those that look like copies and hold nothing that the others do not hold too."""
    copies = [t for t in texts if t.is_copy]
    first = [t for t in texts if not t.is_copy]
    known = (
        {p.key for p in parse_texts(first, Collector(), reading.limits).pieces(reading.sources)}
        if copies and first
        else set()
    )
    left_out: list[str] = []
    for text in copies:
        alone = {p.key for p in parse_texts([text], Collector(), reading.limits).pieces(reading.sources)}
        path = text.file.name
        new = alone - known
        if first and not new:
            left_out.append(path)
            continue
        if suffix(path) in SUFFIXES:
            what = f"nothing else holds `{min(new)[1]}`" if first else "there is nothing else"
            reading.collector.warning(
                "copy-read", f"{path} looks like a copy, and is read because {what}", text.file.base
            )
        else:
            reading.collector.warning(
                "wrong-suffix", f"{path} is read as {LANGUAGES[text.language]}, whatever its name says", text.file.base
            )
    if left_out:
        more = f" and {len(left_out) - 4} more" if len(left_out) > 4 else ""
        reading.collector.note(
            "left-out", f"left out, as copies of what is handed in beside them: {', '.join(left_out[:4])}{more}"
        )
    reading.ignored += left_out
    return [t for t in texts if t.file.name not in set(left_out)]


def _read_units(reading: Reading, texts: Sequence[Text], chosen: Mapping[str, str]) -> None:
    """Parse the files and enter their units, each of them once."""
    for language in ("wiring", "verilog", "vhdl"):
        reading.texts += [t.file for t in texts if t.language == language]
    parsed = parse_texts(texts, reading.collector, reading.limits)

    def same(piece: Piece, other: Piece) -> None:
        reading.collector.note("twice", f"`{piece.key[1]}` stands the same in {other.file.name}", piece.start)

    reading.choice = choose(parsed.pieces(reading.sources), {t.file.name for t in texts if t.is_copy}, chosen, same)
    gone = reading.choice.passed_over
    for module in parsed.modules:
        if module.name_start in gone:
            continue
        if isinstance(module, verilog_ast.Primitive):
            _add_primitive(reading, module)
            continue
        if isinstance(module, verilog_ast.Package):
            _add_package(reading, module)
            continue
        file = reading.sources.file_at(module.name_start)
        _add_unit(
            reading,
            Unit(
                module.name,
                "verilog",
                file,
                bool(module.ports) and not module.is_interface,
                frozenset(modules_used(module.items)),
                verilog=module,
            ),
        )
    for wiring in parsed.wirings:
        if wiring.name_start not in gone:
            file = reading.sources.file_at(wiring.name_start)
            _add_unit(
                reading,
                Unit(wiring.name, "wiring", file, bool(wiring.gives), frozenset(_blocks_used(wiring)), wiring=wiring),
            )
    _enter_vhdl(reading, [u for u in parsed.vhdl if u.name_pos not in gone])


def _enter_vhdl(reading: Reading, units: Sequence[vhdl_ast.Unit]) -> None:
    last = reading.choice.last

    def comes_last(unit: vhdl_ast.Unit) -> bool:
        """Whether a person has chosen this architecture: where none is named, the last one is taken (IEEE 1076
        7.3.3)."""
        chosen = last.get(unit.entity) if isinstance(unit, vhdl_ast.Architecture) else None
        return chosen is not None and reading.sources.file_at(unit.name_pos) is chosen

    with collector_held():
        reading.design_units.add(sorted(units, key=comes_last), reading.collector)
    check_design_units(reading.design_units, reading.collector)
    for entity in reading.design_units.entities.values():
        uses = frozenset(entities_used(reading.design_units, entity.name))
        file = reading.sources.file_at(entity.name_pos)
        _add_unit(reading, Unit(entity.name, "vhdl", file, bool(entity.ports), uses, vhdl=entity))


def _add_primitive(reading: Reading, primitive: verilog_ast.Primitive) -> None:
    if primitive.name in reading.primitives:
        reading.collector.error(
            "duplicate", f"`{primitive.name}` is defined a second time", primitive.name_start, None, "keep one of them"
        )
    reading.primitives[primitive.name] = primitive


def _add_package(reading: Reading, package: verilog_ast.Package) -> None:
    known = reading.packages.get(package.name)
    if known is None:
        reading.packages[package.name] = package
    elif package.name == "$unit":
        known.items = known.items + package.items
        known.reals = known.reals or package.reals
    else:
        reading.collector.error(
            "duplicate", f"the package `{package.name}` is defined a second time", package.name_start, None, "keep one"
        )


def _add_unit(reading: Reading, unit: Unit) -> None:
    known = reading.units.get(unit.name)
    if known is None:
        reading.units[unit.name] = unit
        return
    where = known.file.name if known.file else "another file"
    reading.duplicates.add(unit.name)
    reading.collector.error(
        "duplicate",
        f"`{unit.name}` is defined a second time, first in {where}",
        unit.position,
        None,
        "keep one of them",
    )


def _take_in(file: HandinFile, reading: Reading) -> SourceFile | None:
    """Decode a file; None when no source can stand in it. Other texts may be opened by what runs."""
    collector = reading.collector
    text = decode(file.data)
    if text is not None:
        reading.given[file.path] = text
    if len(file.data) > reading.limits.source_bytes:
        if suffix(file.path) in SUFFIXES:
            collector.error(
                "too-large",
                f"{file.path} is larger than {reading.limits.source_bytes // 1_000_000} MB and was not read",
            )
        reading.ignored.append(file.path)
        return None
    if text is None:
        if suffix(file.path) in SUFFIXES:
            collector.error(
                "binary", f"{file.path} is no text file", hint="hand in the source text, not a project or a picture"
            )
        reading.ignored.append(file.path)
        return None
    return reading.sources.add(file.path, text)


def _language(path: str, source: SourceFile, reading: Reading) -> str | None:
    """The language of a text, by its name and what stands in it; what its name says wrongly is told."""
    declared = SUFFIXES.get(suffix(path))
    if not source.text.strip():
        if declared:
            reading.collector.warning("empty-file", f"{path} is empty", source.base)
        return None
    actual = language_of(source.text, declared)
    if actual is None:
        reading.ignored.append(path)
    elif declared is not None and actual != declared:
        reading.collector.warning(
            "wrong-suffix", f"{path} is read as {LANGUAGES[actual]}, whatever its name says", source.base
        )
    return actual


def _blocks_used(wiring: wiring_ast.Wiring) -> list[str]:
    used: list[str] = []
    stack: list[wiring_ast.Operand] = [line.value for line in wiring.lines]
    while stack:
        e = stack.pop()
        if isinstance(e, wiring_ast.Use):
            used.append(e.what)
            stack += e.args
        elif isinstance(e, wiring_ast.Join):
            stack += e.parts
    return used
