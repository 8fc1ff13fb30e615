"""System tasks of a bench that is run for itself (IEEE 1364-2005 clause 17): printing, ending, dumps."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping

from obento.core.ir.design import Variable
from obento.core.ir.nodes import SystemCall
from obento.core.ir.part import Finished
from obento.core.limits import LimitReached
from obento.core.sim.bench.display import TimeFormat, Value
from obento.core.sim.bench.file_tasks import FILE_TASKS, CircuitBench
from obento.core.sim.bench.files import Folder
from obento.core.sim.bench.functions import TIMES
from obento.core.sim.bench.vcd import Dump

_SEVERITIES = {"$info": "info", "$warning": "warning", "$error": "error", "$fatal": "fatal"}


class Listener:
    """Who wants to know more of a run than what it prints. Positions are those of the statements."""

    def printed(self, text: str, position: int) -> None:
        """Something was printed."""

    def reported(self, severity: str, text: str, position: int) -> None:
        """A report or a failed assertion."""

    def came_to(self, position: int) -> None:
        """An assertion was looked at."""

    def ended(self, position: int) -> None:
        """This statement ended the run."""

    def left_waiting(self, position: int) -> None:
        """Nothing happens any more, and this process still waits."""


class Terminal(CircuitBench):
    """System tasks of a bench that is run for itself. `put` takes what it prints; `given` are the files it may read."""

    def __init__(self, put: Callable[[str], None], given: Mapping[str, str], note: Callable[[str, int], None]) -> None:
        super().__init__()
        self._put_text = put
        self._given = given
        self._say_of_file = note
        self._spent = 0
        self.dump: Dump | None = None
        self.dump_file = "dump.vcd"
        self.hears = Listener()
        self._speaker = 0

    def power_up(self) -> None:
        """Begin anew: empty folder, nothing printed, no monitor."""
        super().power_up()
        self._strobes: list[tuple[int, Callable[[], list[Value]]]] = []
        self._monitor: tuple[int, Callable[[], list[Value]]] | None = None
        self._file_monitors: list[tuple[int, Callable[[], list[Value]]]] = []
        self._violated: set[int] = set()
        self._deferred: dict[int, list[tuple[int, list[Value]]]] = {}
        self._monitor_on = True
        self._shown: dict[int, list[Value]] = {}
        self._rules: dict[str, Callable[[SystemCall, list[Value]], None]] = {
            "$finish": self._finish,
            "$stop": self._finish,
            "$fatal": self._severity,
            "$error": self._severity,
            "$warning": self._severity,
            "$info": self._severity,
            "$timeformat": self._timeformat,
            "$monitoron": self._switch_monitor,
            "$monitoroff": self._switch_monitor,
            "$dumpfile": self._dumpfile,
            "$dumpvars": self._dumpvars,
            "$violation": self._violation,
            "$dumpon": self._dumpswitch,
            "$dumpoff": self._dumpswitch,
            "$dumpall": self._dumpswitch,
        }

    def _fresh_folder(self) -> Folder:
        return Folder(self._given, self._put, self._spend)

    def _note(self, text: str, position: int) -> None:
        self._say_of_file(text, position)

    def _spend(self, size: int) -> None:
        self._spent += size
        if self._spent > self.kernel.limits.output_bytes:
            raise LimitReached(f"the bench prints more than {self.kernel.limits.output_bytes} characters", 0)

    def _put(self, text: str) -> None:
        self._spend(len(text))
        self.hears.printed(text, self._speaker)
        self._put_text(text)

    # Tasks.

    def task(self, number: int, given: list[Value]) -> None:
        """Do a system task with its values."""
        call = self._calls[number]
        self._speaker = call.position
        rule = self._rules.get(call.name)
        try:
            if rule is not None:
                rule(call, given)
            elif call.name in FILE_TASKS:
                super().task(number, given)
            elif call.name.startswith(("$display", "$write")):
                self._put(self._text(call, given, 0) + ("\n" if "display" in call.name else ""))
            elif call.name.startswith(("$fdisplay", "$fwrite")):
                text = self._text(call, given, 1) + ("\n" if "display" in call.name else "")
                self.folder.write(self._number(call, given, 0) & 0xFFFFFFFF, text)
            else:
                super().task(number, given)
        except LimitReached as limit:
            if not limit.position:
                raise LimitReached(limit.text, call.position, limit.hint) from None
            raise

    def postpone(self, number: int, arguments: Callable[[], list[Value]]) -> None:
        """Keep a task that prints at the end of the time step."""
        name = self._calls[number].name
        if "strobe" in name:
            self._strobes.append((number, arguments))
        elif name.startswith("$f"):
            self._file_monitors.append((number, arguments))
            self._shown.pop(number, None)
        else:
            self._monitor = number, arguments
            self._shown.pop(number, None)

    def defer(self, process: int, number: int, given: list[Value]) -> None:
        """Keep a task of a deferred assertion until the step of time is over."""
        self._deferred.setdefault(process, []).append((number, given))

    def withdraw(self, process: int) -> None:
        """Forget the deferred tasks of a process that goes on in the same step of time."""
        self._deferred.pop(process, None)

    def say(self, text: str, position: int) -> None:
        """Print a line for a part of the design."""
        self._speaker = position
        self._put(text)

    def report(self, severity: str, text: str, position: int) -> None:
        """Print a report, and end the run where it is severe enough."""
        self._speaker = position
        self.hears.reported(severity, text, position)
        self._put(f"{severity}: {text}\n" if text else f"{severity}:\n")

    def came_to(self, position: int) -> None:
        """A VHDL assertion is looked at."""
        self.hears.came_to(position)

    def ended(self, position: int) -> None:
        """A statement that ends the run."""
        self.hears.ended(position)

    def end_of_step(self) -> None:
        """Print what waited for the end of the time step (17.1.2, 17.1.3)."""
        deferred, self._deferred = self._deferred, {}
        for number, given in (task for tasks in deferred.values() for task in tasks):
            self.task(number, given)
        strobes, self._strobes = self._strobes, []
        for number, arguments in strobes:
            self._print_later(number, arguments())
        if self._monitor is not None and self._monitor_on:
            self._look(*self._monitor)
        for number, arguments in self._file_monitors:
            self._look(number, arguments)
        if self.dump is not None and self.kernel.changed is not None:
            self.dump.step(self.kernel.now, self.kernel.changed)
            self.kernel.changed.clear()

    def end_of_run(self) -> None:
        """The run was ended in the middle of a step."""
        if self.dump is not None and self.kernel.changed is not None:
            self.dump.step(self.kernel.now, self.kernel.changed)

    def close(self) -> None:
        """The run is over, whatever ended it."""
        if self.dump is not None:
            self.dump.end(self.kernel.now)

    def _look(self, number: int, arguments: Callable[[], list[Value]]) -> None:
        """A monitor prints when any argument but the time has changed (17.1.3)."""
        call = self._calls[number]
        now = arguments()
        seen = [
            x
            for x, a in zip(now, call.args, strict=True)
            if not (isinstance(a.value, SystemCall) and a.value.name in TIMES)
        ]
        if number not in self._shown or self._shown[number] != seen:
            self._shown[number] = seen
            self._print_later(number, now)

    def _print_later(self, number: int, given: list[Value]) -> None:
        call = self._calls[number]
        self._speaker = call.position
        if call.name.startswith("$f"):
            self.folder.write(self._number(call, given, 0) & 0xFFFFFFFF, self._text(call, given, 1) + "\n")
        else:
            self._put(self._text(call, given, 0) + "\n")

    def _switch_monitor(self, call: SystemCall, given: list[Value]) -> None:
        self._monitor_on = call.name == "$monitoron"
        if self._monitor_on and self._monitor is not None:
            self._shown.pop(self._monitor[0], None)  # switched on, it prints at once (17.1.3)

    def _finish(self, call: SystemCall, given: list[Value]) -> None:
        self.hears.ended(call.position)
        raise Finished(position=call.position)

    def _severity(self, call: SystemCall, given: list[Value]) -> None:
        first = 1 if call.name == "$fatal" and call.args and call.args[0].text is None else 0
        text = self._text(call, given, first)
        self.report(_SEVERITIES[call.name], text.rstrip(), call.position)
        if call.name == "$fatal":
            self.hears.ended(call.position)
            raise Finished(True, call.position)

    def _violation(self, call: SystemCall, given: list[Value]) -> None:
        """What `unique` or `priority` promises does not hold: told once for each place."""
        if call.position not in self._violated:
            self._violated.add(call.position)
            time = self._format.time_format.text(self.kernel.now, self.kernel.design.precision, 0)
            self._note(f"{self._text(call, given, 0)} (first at {time})", call.position)

    def _timeformat(self, call: SystemCall, given: list[Value]) -> None:
        if not call.args:
            self._format.time_format = TimeFormat(self.kernel.design.precision)
            return
        unit, places, _, width = (self._number(call, given, i) if i != 2 else 0 for i in range(4))
        suffix = self._string(call, given, 2) if len(given) > 2 else ""
        unit, places = min(max(unit, -15), 0), min(max(places, 0), 20)
        self._format.time_format = TimeFormat(unit, places, suffix, min(width, 200) if len(given) > 3 else 20)

    # Dumps.

    def _dumpfile(self, call: SystemCall, given: list[Value]) -> None:
        if self.dump is None:
            self.dump_file = self._string(call, given, 0) or self.dump_file

    def _dumpvars(self, call: SystemCall, given: list[Value]) -> None:
        levels = self._number(call, given, 0) if given else 0
        scopes = [a.scope for a in call.args[1:] if a.scope]
        signals = [a.memory[0].id for a in call.args[1:] if a.memory is not None]
        if not scopes and not signals:
            scopes = [s.path for s in self.kernel.design.names]
        self.start_dump(scopes, levels, signals)

    def start_dump(self, scopes: Iterable[str], levels: int = 0, signals: Iterable[int] = ()) -> None:
        """Begin a dump of these scopes, `levels` deep (0: all), and of single signals."""
        if self.dump is not None:
            return
        chosen = list(scopes)
        single = set(signals)

        def wanted(path: str, variable: Variable) -> bool:
            if variable.signal.id in single:
                return True
            inside = [s for s in chosen if path == s or path.startswith(s + ".")]
            return any(not levels or path[len(s) :].count(".") < levels for s in inside)

        self.folder.written[self.dump_file] = []
        for part in self.kernel.design.parts:
            part.show_all()
        self.dump = Dump(
            lambda text: self.folder.append(self.dump_file, text),
            lambda s: self.kernel.words[s],
            self.kernel.design.precision,
        )
        self.dump.choose(self.kernel.design.names, wanted)
        self.dump.begin(self.kernel.now)
        self.kernel.changed = set()

    def _dumpswitch(self, call: SystemCall, given: list[Value]) -> None:
        if self.dump is None:
            return
        self.dump.step(self.kernel.now, self.kernel.changed or ())
        if call.name == "$dumpall":
            self.dump.all("$dumpall")
        elif self.dump.on != (call.name == "$dumpon"):
            self.dump.on = call.name == "$dumpon"
            self.dump.all(call.name)
