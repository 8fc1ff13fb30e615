"""A hand-in made ready to be run: its unit found and built, its ports bound."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass

from obento.core.check.judging.outcome import Checked, Status
from obento.core.check.running.binding import Binding, Bound, bind_ports, choose_name, chosen_files
from obento.core.diagnostics import Message, Severity
from obento.core.handin import HandinFile, Reading, Unit, read_handin
from obento.core.ir.design import Design
from obento.core.limits import LimitReached, Limits
from obento.core.sim.bench import memory_files
from obento.core.spec.model import Spec


@dataclass(slots=True)
class Ready:
    """A hand-in that can be run, and what is known of it so far."""

    reading: Reading
    unit: Unit
    design: Design
    binding: Binding
    outcome: Checked


def make_ready(
    spec: Spec, files: Sequence[HandinFile], provided: Sequence[HandinFile], limits: Limits, choices: Mapping[str, str]
) -> Ready | Checked:
    """The unit of a hand-in, bound to the spec's ports; the outcome where that cannot be.

    Parameters
    ----------
    provided
        The lab's own files that every hand-in may use.
    choices
        Settled by a person: our port (or the unit's name) -> theirs.
    """
    reading = read_handin(files, limits, provided, chosen_files(choices))
    if reading.empty:
        reading.collector.error("empty", "nothing was handed in")
        return Checked("empty", messages=reading.messages())
    bound_unit, unit = _choose_unit(reading, spec, choices)
    if unit is None:
        return _no_unit(reading, spec)
    if reading.standing_twice(unit):
        if bound_unit.how == "only" and not _fits(reading, unit, spec, choices):
            return _no_unit(reading, spec)
        twice = reading.ask_which(unit, "say which is meant, or hand in one of them")
        return Checked("no_unit", unit.language, unit.name, messages=reading.messages(), twice=twice)
    outcome = Checked("unreadable", unit.language, unit.name)
    if reading.errors_in_files_of(unit):
        outcome.messages = reading.messages()
        return outcome
    try:
        design = reading.elaborate(unit.name)
    except (LimitReached, RecursionError) as error:
        text = error.text if isinstance(error, LimitReached) else "this is nested too deep to be built"
        position = error.position if isinstance(error, LimitReached) else 0
        reading.collector.error("limit", text, position or unit.position)
        design = None
    if design is None:
        outcome.messages = softened(reading, unit)
        return outcome
    for name, wrong in reading.problems_elsewhere([unit]):
        text = f"in `{name}`, which `{unit.name}` does not use: {wrong.text}"
        reading.collector.warning("unused-unit", text, wrong.start, wrong.end, wrong.hint)
    for problem, position in memory_files.problems(design):
        reading.collector.warning("memory-file", problem, position)
    binding = _bind(spec, design, choices)
    if bound_unit.how == "only" and binding.problems:
        # Being the only unit was the sole reason to take it; with other ports it is something else.
        return _no_unit(reading, spec)
    outcome.binding = ([bound_unit] if bound_unit.how != "exact" else []) + binding.ports
    for problem in binding.problems:
        position = next((p.position for p in design.ports if f"`{p.name}`" in problem), 0)
        reading.collector.error("port", problem, position or unit.position)
    if binding.problems:
        outcome.status = "ports"
        outcome.messages = softened(reading, unit)
        return outcome
    return Ready(reading, unit, design, binding, outcome)


def _fits(reading: Reading, unit: Unit, spec: Spec, choices: Mapping[str, str]) -> bool:
    """Whether a unit that was taken since it is the only one has the ports of the spec, as far as it can be built."""
    with suppress(LimitReached, RecursionError):
        design = reading.elaborate(unit.name)
        return design is not None and not _bind(spec, design, choices).problems
    return False


def _bind(spec: Spec, design: Design, choices: Mapping[str, str]) -> Binding:
    """Bind ports, what a person has chosen first."""
    chosen = {p.name: choices[p.name] for p in (*spec.inputs, *spec.outputs) if p.name in choices}
    if not chosen:
        return bind_ports(spec, design)
    renamed = {theirs: ours for ours, theirs in chosen.items()}
    originals = {id(p): p.name for p in design.ports}
    for port in design.ports:
        port.name = renamed.get(port.name, f"{port.name} " if port.name in chosen else port.name)
    binding = bind_ports(spec, design)
    for port in design.ports:
        port.name = originals[id(port)]
    binding.ports = [Bound(b.ours, chosen[b.ours], "chosen") if b.ours in chosen else b for b in binding.ports]
    return binding


def softened(reading: Reading, unit: Unit) -> list[Message]:
    """The messages; errors in files that the unit does not need are only warnings for it."""
    needed = reading.files_needed(unit)
    out = []
    for m in reading.messages():
        if m.severity == "error" and m.file and m.file not in needed:
            m = Message("warning", m.code, m.file, m.line, m.column, m.text, m.hint, m.end_line, m.end_column)
        out.append(m)
    return out


def _choose_unit(reading: Reading, spec: Spec, choices: Mapping[str, str]) -> tuple[Bound, Unit | None]:
    chosen = choices.get(spec.unit)
    if chosen in reading.units:
        return Bound(spec.unit, chosen, "chosen"), reading.units[chosen]
    used = {n for u in reading.units.values() for n in u.uses}
    tops = [u.name for u in reading.units.values() if u.has_ports and u.name not in used]
    with_ports = [u.name for u in reading.units.values() if u.has_ports]
    broken = reading.collector.errors > 0
    bound = choose_name(spec.unit, with_ports, spec, () if broken and len(tops) != 1 else tops)
    return (bound, reading.units[bound.theirs]) if bound else (Bound(spec.unit, "", ""), None)


def _no_unit(reading: Reading, spec: Spec) -> Checked:
    names = ", ".join(f"`{n}`" for n in list(reading.units)[:6])
    if reading.collector.errors and not reading.units:
        return Checked("unreadable", messages=reading.messages())
    status: Status = "unreadable" if reading.collector.errors else "no_unit"
    portless = reading.units.get(spec.unit)
    if portless is not None and not portless.has_ports:
        if status == "no_unit":  # else its ports may be what is wrong
            reading.collector.error(
                "no-ports", f"`{spec.unit}` has no ports", portless.position, None, "declare its inputs and outputs"
            )
        return Checked(
            "ports" if status == "no_unit" else status, portless.language, portless.name, messages=reading.messages()
        )
    hint = f"found {names}" if names else "no module or wiring list was found"
    severity: Severity = "note" if reading.collector.errors else "error"
    reading.collector.add(severity, "no-unit", f"there is no unit `{spec.unit}`", hint=hint)
    return Checked(status, messages=reading.messages())
