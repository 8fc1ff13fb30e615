"""What system tasks and functions do (IEEE 1364-2005 clause 17): printing, time, files, random numbers, dumps."""

from __future__ import annotations

import math
import struct
from collections.abc import Callable, Iterable, Mapping
from typing import Protocol, cast

from obento.core import values as v
from obento.core.ir.design import Design, Variable
from obento.core.ir.evaluate import round_half_away, to_real
from obento.core.ir.nodes import SystemCall
from obento.core.ir.part import Finished
from obento.core.limits import LimitReached, Limits
from obento.core.sim.bench.display import Formatter, TimeFormat, Value, characters, digits, unescape
from obento.core.sim.bench.files import Folder
from obento.core.sim.bench.random import DISTRIBUTIONS, Generator
from obento.core.sim.bench.scan import BadMemoryFile, memory_words, scan
from obento.core.sim.bench.vcd import Dump
from obento.core.values import Word

_TIMES = frozenset(["$time", "$stime", "$realtime"])
_MATH: dict[str, Callable[..., float]] = {
    "$ln": math.log,
    "$log10": math.log10,
    "$exp": math.exp,
    "$sqrt": math.sqrt,
    "$pow": math.pow,
    "$floor": math.floor,
    "$ceil": math.ceil,
    "$sin": math.sin,
    "$cos": math.cos,
    "$tan": math.tan,
    "$asin": math.asin,
    "$acos": math.acos,
    "$atan": math.atan,
    "$atan2": math.atan2,
    "$hypot": math.hypot,
    "$sinh": math.sinh,
    "$cosh": math.cosh,
    "$tanh": math.tanh,
    "$asinh": math.asinh,
    "$acosh": math.acosh,
    "$atanh": math.atanh,
}
_SEVERITIES = {"$info": "info", "$warning": "warning", "$error": "error", "$fatal": "fatal"}


class Kernel(Protocol):
    """What system tasks need of the kernel that runs them."""

    design: Design
    limits: Limits
    words: list[Word]
    now: int
    changed: set[int] | None

    def write(self, signal: int, low: int, width: int, word: Word) -> None:
        """A variable takes a value from outside of all processes."""


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


class Bench:
    """System tasks without a terminal: what is printed is lost, nothing ends. For circuits that are only checked."""

    def __init__(self) -> None:
        self._calls: list[SystemCall] = []
        self._random = Generator()

    def prepare(self, kernel: Kernel, calls: list[SystemCall]) -> None:
        """Learn of the kernel, and of all calls of the design by number."""
        self.kernel = kernel
        self._calls = calls

    def power_up(self) -> None:
        """Begin anew."""
        self._random = Generator()

    def say(self, text: str, position: int) -> None:
        """A part of the design has something to say."""

    def report(self, severity: str, text: str, position: int) -> None:
        """A report or a failed assertion."""

    def came_to(self, position: int) -> None:
        """An assertion is looked at, whatever comes of it."""

    def ended(self, position: int) -> None:
        """The statement that ends the run."""

    def end_of_step(self) -> None:
        """Everything of this step of time has happened."""

    def task(self, number: int, given: list[Value]) -> None:
        """A system task that gives nothing back."""

    def postpone(self, number: int, arguments: Callable[[], list[Value]]) -> None:
        """A task that prints when the step ends."""

    def value(self, number: int, given: list[Value]) -> object:
        """A system function's value; with the words for its arguments beside it where it writes to some."""
        call = self._calls[number]
        name = call.name
        results: list[Value] = [None] * len(call.args)
        if name in _TIMES:
            return self._time(call)
        if name in ("$random", "$urandom"):
            value = self._drawn(call, given, results, lambda g: g.number(), 0)
        elif name == "$urandom_range":
            a, b = self._number(call, given, 0), self._number(call, given, 1) if len(given) > 1 else 0
            value = v.word(self._random.between(min(a, b) - (1 << 31), max(a, b) - (1 << 31)) + (1 << 31), 32)
        elif name in DISTRIBUTIONS:
            rest = [self._number(call, given, i) for i in range(1, len(given))]
            value = self._drawn(call, given, results, lambda g: DISTRIBUTIONS[name](g, *rest), 0)
        elif name in _MATH:
            return self._math(call, given)
        elif name == "$rtoi":
            real = self._real(call, given, 0)
            value = v.word(int(real) if math.isfinite(real) else 0, 32)
        elif name == "$realtobits":
            value = v.word(int.from_bytes(_packed(self._real(call, given, 0)), "big"), 64)
        elif name == "$itor":
            return given[0]
        elif name == "$bitstoreal":
            return _unpacked((self._number(call, given, 0) & v.ones(64)).to_bytes(8, "big"))
        else:
            value = self._other(call, given, results)
        return (value, results) if any(a.targets for a in call.args) else value

    def _other(self, call: SystemCall, given: list[Value], results: list[Value]) -> Word:
        return v.word(0, 32)

    def _time(self, call: SystemCall) -> Word | float:
        if call.name == "$realtime":
            return self.kernel.now / call.tick
        now = (2 * self.kernel.now + call.tick) // (2 * call.tick)
        return v.word(now, 64 if call.name == "$time" else 32)

    def _number(self, call: SystemCall, given: list[Value], index: int) -> int:
        if index >= len(given):
            return 0
        value, argument = given[index], call.args[index]
        if isinstance(value, float):
            return round_half_away(value)
        if value is None or argument.value is None:
            return 0
        known = value[0] & ~value[1]
        return v.signed_value(known, argument.value.width) if argument.signed else known

    def _real(self, call: SystemCall, given: list[Value], index: int) -> float:
        """An argument as a real number."""
        value, argument = given[index], call.args[index]
        if isinstance(value, float):
            return value
        return 0.0 if value is None or argument.value is None else to_real(value, argument.value.width, argument.signed)

    def _drawn(
        self, call: SystemCall, given: list[Value], results: list[Value], draw: Callable[[Generator], int], seed: int
    ) -> Word:
        if not call.args or not call.args[seed].targets:
            generator = self._random
        else:
            generator = Generator(self._number(call, given, seed))
        value = v.word(draw(generator), 32)
        if generator is not self._random:
            results[seed] = v.word(generator.seed, sum(t.width for t in call.args[seed].targets))
        return value

    def _math(self, call: SystemCall, given: list[Value]) -> float:
        args = [self._real(call, given, i) for i in range(len(given))]
        try:
            return float(_MATH[call.name](*args))
        except (ValueError, ZeroDivisionError):
            return math.nan
        except OverflowError:
            return math.inf


def _packed(x: float) -> bytes:
    return struct.pack(">d", x)


def _unpacked(data: bytes) -> float:
    return cast(float, struct.unpack(">d", data)[0])


class Terminal(Bench):
    """System tasks of a bench that is run for itself. `put` takes what it prints; `given` are the files it may read."""

    def __init__(self, put: Callable[[str], None], given: Mapping[str, str], note: Callable[[str, int], None]) -> None:
        super().__init__()
        self._put_text = put
        self._given = given
        self._note = note
        self._spent = 0
        self.dump: Dump | None = None
        self.dump_file = "dump.vcd"
        self.hears = Listener()
        self._speaker = 0

    def power_up(self) -> None:
        """Begin anew: empty folder, nothing printed, no monitor."""
        super().power_up()
        self.folder = Folder(self._given, self._put, self._spend)
        self._format = Formatter(TimeFormat(self.kernel.design.precision), self.kernel.design.precision)
        self._strobes: list[tuple[int, Callable[[], list[Value]]]] = []
        self._monitor: tuple[int, Callable[[], list[Value]]] | None = None
        self._file_monitors: list[tuple[int, Callable[[], list[Value]]]] = []
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
            "$fclose": self._close,
            "$readmemb": self._readmem,
            "$readmemh": self._readmem,
            "$writememb": self._writemem,
            "$writememh": self._writemem,
            "$dumpfile": self._dumpfile,
            "$dumpvars": self._dumpvars,
            "$dumpon": self._dumpswitch,
            "$dumpoff": self._dumpswitch,
            "$dumpall": self._dumpswitch,
        }

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
            elif call.name.startswith(("$display", "$write")):
                self._put(self._text(call, given, 0) + ("\n" if "display" in call.name else ""))
            elif call.name.startswith(("$fdisplay", "$fwrite")):
                text = self._text(call, given, 1) + ("\n" if "display" in call.name else "")
                self.folder.write(self._number(call, given, 0) & 0xFFFFFFFF, text)
            elif call.name in ("$rewind", "$fseek", "$fgetc", "$ungetc", "$fopen"):
                self.value(number, given)
        except LimitReached as limit:
            if not limit.position:
                raise LimitReached(limit.text, call.position, limit.hint) from None
            raise

    def _text(self, call: SystemCall, given: list[Value], first: int) -> str:
        radix = call.name[-1] if call.name[-1] in "boh" and not call.name.endswith(("strobe", "info")) else "d"
        return self._format.text(call, call.args[first:], given[first:], radix)

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
            if not (isinstance(a.value, SystemCall) and a.value.name in _TIMES)
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

    def _timeformat(self, call: SystemCall, given: list[Value]) -> None:
        if not call.args:
            self._format.time_format = TimeFormat(self.kernel.design.precision)
            return
        unit, places, _, width = (self._number(call, given, i) if i != 2 else 0 for i in range(4))
        suffix = self._string(call, given, 2) if len(given) > 2 else ""
        unit, places = min(max(unit, -15), 0), min(max(places, 0), 20)
        self._format.time_format = TimeFormat(unit, places, suffix, min(width, 200) if len(given) > 3 else 20)

    # Files.

    def _string(self, call: SystemCall, given: list[Value], index: int) -> str:
        argument, value = call.args[index], given[index]
        if argument.text is not None:
            return unescape(argument.text)
        if isinstance(value, tuple) and argument.value is not None:
            return characters(value, argument.value.width)
        return ""

    def _close(self, call: SystemCall, given: list[Value]) -> None:
        self.folder.close(self._number(call, given, 0) & 0xFFFFFFFF)

    def _readmem(self, call: SystemCall, given: list[Value]) -> None:
        name = self._string(call, given, 0)
        text = self.folder.text(name)
        memory = call.args[1].memory
        if memory is None:
            return
        if text is None:
            self._note(f"{call.name} finds no file `{name}` among those given", call.position)
            return
        signal, left, right = memory
        start = self._number(call, given, 2) if len(given) > 2 else min(left, right)
        end = (
            self._number(call, given, 3)
            if len(given) > 3
            else max(left, right)
            if len(given) < 3 or start <= max(left, right)
            else start
        )
        at, step = start, 1 if end >= start else -1
        try:
            for jump, word, width in memory_words(text, call.name[-1]):
                at = at if jump is None else jump
                if not min(left, right) <= at <= max(left, right):
                    self._note(
                        f"`{name}` holds more than fits: address {at} is outside of [{left}:{right}]", call.position
                    )
                    return
                fitted = (
                    v.extend(word, width, signal.element, False)
                    if width < signal.element
                    else v.select(word, width, 0, signal.element)
                )
                self.kernel.write(signal.id, (at - min(left, right)) * signal.element, signal.element, fitted)
                at += step
        except BadMemoryFile as bad:
            self._note(f"`{name}` line {bad.line}: `{bad.text}` is no number for {call.name}", call.position)

    def _writemem(self, call: SystemCall, given: list[Value]) -> None:
        memory = call.args[1].memory
        if memory is None:
            return
        signal = memory[0]
        elements = cast(list[Word], self.kernel.words[signal.id])
        bits = 4 if call.name[-1] == "h" else 1
        name = self._string(call, given, 0)
        self.folder.written[name] = []
        for word in elements:
            self.folder.append(name, digits(word, signal.element, bits, None) + "\n")

    def _other(self, call: SystemCall, given: list[Value], results: list[Value]) -> Word:
        name = call.name
        if name == "$fopen":
            mode = self._string(call, given, 1) if len(given) > 1 else None
            return v.word(self.folder.open(self._string(call, given, 0), mode or None), 32)
        if name in ("$sscanf", "$fscanf"):
            return self._scan(call, given, results)
        if name in ("$sformat", "$swrite", "$swriteb", "$swriteo", "$swriteh"):
            text = self._text(call, given, 1)
            data = text.encode("latin-1", "replace")
            results[0] = v.word(int.from_bytes(data, "big"), sum(t.width for t in call.args[0].targets))
            return v.word(0, 32)
        if name in ("$fgetc", "$fgets", "$feof", "$rewind", "$ftell", "$fseek", "$ungetc"):
            return self._read_file(call, given, results)
        return v.word(0, 32)

    def _read_file(self, call: SystemCall, given: list[Value], results: list[Value]) -> Word:
        descriptor = 1 if call.name in ("$fgets", "$ungetc") else 0
        reader = self.folder.reader(self._number(call, given, descriptor) & 0xFFFFFFFF)
        if reader is None:
            return v.word(1 if call.name == "$feof" else -1 if call.name != "$fgets" else 0, 32)
        match call.name:
            case "$fgetc":
                return v.word(reader.character(), 32)
            case "$feof":
                return v.word(reader.ended, 32)
            case "$ftell":
                return v.word(reader.at, 32)
            case "$rewind" | "$fseek":
                at = self._number(call, given, 1) if call.name == "$fseek" else 0
                origin = self._number(call, given, 2) if call.name == "$fseek" and len(given) > 2 else 0
                reader.at = min(
                    max(at + (0, reader.at, len(reader.text))[origin if origin in (1, 2) else 0], 0), len(reader.text)
                )
                reader.ended = False
                return v.word(0, 32)
            case "$ungetc":
                reader.at = max(0, reader.at - 1)
                return v.word(0, 32)
        width = sum(t.width for t in call.args[0].targets)
        line = reader.line(width // 8)
        results[0] = v.word(int.from_bytes(line.encode("latin-1", "replace"), "big"), width)
        return v.word(len(line), 32)

    def _scan(self, call: SystemCall, given: list[Value], results: list[Value]) -> Word:
        places = call.args[2:]
        widths = [sum(t.width for t in a.targets) for a in places]
        reals = [a.real for a in places]
        form = self._string(call, given, 1)
        if call.name == "$sscanf":
            count, found, _ = scan(self._string(call, given, 0), 0, form, widths, reals)
        else:
            reader = self.folder.reader(self._number(call, given, 0) & 0xFFFFFFFF)
            if reader is None:
                return v.word(-1, 32)
            count, found, reader.at = scan(reader.text, reader.at, form, widths, reals)
            reader.ended = count < 0 or reader.at >= len(reader.text)
        for i, value in enumerate(found):
            if isinstance(value, float) and not places[i].real:
                value = v.word(round_half_away(value), widths[i])
            elif isinstance(value, tuple):
                value = (
                    v.extend(value, max(1, (value[0] | value[1]).bit_length()), widths[i], False)
                    if widths[i]
                    else value
                )
                value = v.select(value, widths[i], 0, widths[i])
            results[i + 2] = value
        return v.word(count, 32)

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
