"""Run a bench by itself: files in, what it prints and writes out."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field, replace

from obento.core.diagnostics import Message
from obento.core.handin import HandinFile, Reading, read_handin
from obento.core.ir.design import Design
from obento.core.ir.part import Finished, RunError
from obento.core.limits import LimitReached, Limits
from obento.core.pause import collector_held
from obento.core.sim.bench.tasks import Listener, Terminal
from obento.core.sim.timeline.kernel import DidNotSettle, Timeline
from obento.core.source import Sources
from obento.core.verilog.elaboration.hierarchy import elaborate_tops, top_modules
from obento.core.vhdl.dependencies import top_entities

ENDED, FAILED, UNREADABLE, STOPPED = 0, 1, 2, 3
"""How a run ended: by itself, by a failing assertion, not at all since it does not compile, by a limit."""


@dataclass(slots=True)
class Outcome:
    """`status` is one of the numbers above; `written` the files that the bench made."""

    status: int
    messages: list[Message] = field(default_factory=list)
    written: dict[str, str] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Options:
    """`until` is a time in ticks of the design's precision, or a number and a unit; `dump` names a file for all
    changes; `chosen` says which file counts for units that stand in several."""

    top: str | None = None
    until: str | None = None
    dump: str | None = None
    chosen: Mapping[str, str] = field(default_factory=dict)


class BadCall(Exception):
    """The call itself makes no sense."""


def simulate(
    files: Iterable[HandinFile],
    put: Callable[[str], None],
    options: Options,
    limits: Limits,
    expired: Callable[[], bool] = lambda: False,
    listen: Callable[[Sources], Listener] | None = None,
) -> Outcome:
    """Read, elaborate and run; whatever is wrong stands in the outcome's messages.

    Parameters
    ----------
    put
        Takes what the run prints, piece by piece.
    expired
        Asked now and then; the run is ended when it says so.
    listen
        Makes, of the texts' positions, somebody who wants to know more of the run.

    Raises
    ------
    BadCall
        If there is no such module to begin with, or the time cannot be read.
    """
    reading = read_handin(files, limits, (), options.chosen)
    if reading.collector.errors:
        return Outcome(UNREADABLE, reading.messages())
    design = _design(reading, options.top)
    tops = (
        [reading.units[scope.name] for scope in design.names if scope.name in reading.units]
        if design is not None
        else []
    )
    for top in tops:
        reading.ask_which(top, "give one of them")
    for _, problem in reading.problems_elsewhere(tops):
        reading.collector.add("error", problem.code, problem.text, problem.start, problem.end, problem.hint)
    if design is None or reading.collector.errors:
        return Outcome(UNREADABLE, reading.messages())
    bench = Terminal(put, reading.given, lambda text, position: reading.collector.warning("run", text, position))
    if listen is not None:
        bench.hears = listen(reading.sources)
    return _run(design, reading, bench, options, replace(limits, expired=expired))


def _design(reading: Reading, top: str | None) -> Design | None:
    """What is to be run: the unit asked for, or what no other unit uses. Verilog may have several such units."""
    if top is not None:
        configuration = reading.design_units.configurations.get(top.lower())
        top = configuration.entity if configuration is not None else top
        unit = reading.units.get(top) or reading.units.get(top.lower())
        if unit is None or unit.wiring is not None:
            raise BadCall(f"there is no module or entity `{top}` in these files")
        if unit.vhdl is not None:
            return _vhdl(reading, unit.name)
        with collector_held():
            return elaborate_tops(
                reading.modules(), [unit.name], reading.collector, reading.limits, reading.entity, reading.packages
            )
    used = {n.lower() for u in reading.units.values() for n in u.uses}
    modules = [n for n in top_modules(reading.modules()) if n.lower() not in used]
    entities = [n for n in top_entities(reading.design_units) if n not in used]
    benches = [n for n in entities if not reading.design_units.entities[n].ports] or entities
    if benches and not modules:
        if len(benches) > 1:
            names = ", ".join(f"`{n}`" for n in benches[:4])
            reading.collector.note(
                "tops", f"{names} could all be begun with; `{benches[-1]}` is taken", hint="--top NAME says which"
            )
        return _vhdl(reading, benches[-1])
    if not modules:
        reading.collector.error(
            "no-top", "there is no module or entity to begin with", hint="one unit must not be used by any other"
        )
        return None
    with collector_held():
        return elaborate_tops(
            reading.modules(), modules, reading.collector, reading.limits, reading.entity, reading.packages
        )


def _vhdl(reading: Reading, name: str) -> Design | None:
    with collector_held():
        return reading.elaborate_vhdl(name)


def _run(
    design: Design,
    reading: Reading,
    bench: Terminal,
    options: Options,
    limits: Limits,
) -> Outcome:
    collector = reading.collector
    status = ENDED
    try:
        status = _to_its_end(Timeline(design, limits, bench), bench, options)
    except RunError as error:
        bench.end_of_run()
        collector.error("run", error.text, error.position)
        status = FAILED
    except LimitReached as limit:
        collector.error("limit", limit.text, limit.position, None, limit.hint)
        status = STOPPED
    except DidNotSettle as moving:
        text = (
            f"time stands still: more than {limits.deltas} rounds at one moment, by"
            f" {', '.join(moving.signals) or 'a loop without delay'}"
        )
        collector.error(
            "limit", text, moving.position, None, "something wakes itself up again and again without a delay"
        )
        status = STOPPED
    except RecursionError:
        collector.error("limit", "calls or forks nest too deep to be run")
        status = STOPPED
    bench.close()
    written = {name: "".join(parts) for name, parts in bench.folder.written.items()} if hasattr(bench, "folder") else {}
    return Outcome(status, reading.messages(), written)


def _to_its_end(timeline: Timeline, bench: Terminal, options: Options) -> int:
    """Run until it ends, then what it does at its end. The status."""
    status, design = ENDED, timeline.design
    try:
        timeline.start()
        if options.dump is not None:
            bench.dump_file = options.dump
            bench.start_dump([s.path for s in design.names])
        timeline.run(_ticks(options.until, design.precision))
        for position in timeline.unfinished():
            bench.hears.left_waiting(position)
    except Finished as finished:
        status = FAILED if finished.failed else ENDED
        bench.end_of_run()
    try:
        timeline.run_finals()
    except Finished as finished:
        status = FAILED if finished.failed else status
    return status


_UNITS = {"s": 0, "ms": -3, "us": -6, "ns": -9, "ps": -12, "fs": -15}


def _ticks(until: str | None, precision: int) -> int | None:
    """A time like `100ns`, or a bare number of ticks."""
    if until is None:
        return None
    number = until.rstrip("smunpf")
    unit = until[len(number) :]
    try:
        value = float(number)
    except ValueError:
        raise BadCall(f"`{until}` is no time: write for instance 100ns") from None
    if not unit:
        return int(value)
    if unit not in _UNITS:
        raise BadCall(f"`{unit}` is no unit of time")
    return int(value * 10.0 ** (_UNITS[unit] - precision))
