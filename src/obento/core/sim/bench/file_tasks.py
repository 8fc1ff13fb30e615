"""System tasks on files (IEEE 1364-2005 clause 17.2): what every circuit may do with the files that came with it."""

from __future__ import annotations

from collections.abc import Callable
from typing import cast

from obento.core import values as v
from obento.core.ir.evaluate import round_half_away
from obento.core.ir.nodes import Expr, SystemCall
from obento.core.ir.strength import Stretch
from obento.core.ir.texts import MOST_LETTERS, from_digits
from obento.core.sim.bench.display import Formatter, TimeFormat, Value, characters, digits
from obento.core.sim.bench.files import Folder
from obento.core.sim.bench.functions import Bench
from obento.core.sim.bench.memory_files import load
from obento.core.sim.bench.scan import scan
from obento.core.sim.bench.strengths import level
from obento.core.values import Word


class CircuitBench(Bench):
    """System tasks for circuits that are only checked: what is printed or written is lost, nothing ends. The files that
    came with the design can be read, since tables may come from there."""

    def power_up(self) -> None:
        """Begin anew: nothing is open."""
        super().power_up()
        self.folder = self._fresh_folder()
        precision = self.kernel.design.precision
        self._format = Formatter(TimeFormat(precision), precision, self._level)

    def _level(self, value: Expr) -> Stretch | None:
        return level(self.kernel.design, self.kernel.words, value)

    def is_idle(self) -> bool:
        """Nothing was opened."""
        return not self.folder.was_used

    def _fresh_folder(self) -> Folder:
        return Folder(self.kernel.design.given, keeps=False)

    def task(self, number: int, given: list[Value]) -> None:
        """A system task that gives nothing back: only what is about files does anything."""
        call = self._calls[number]
        rule = FILE_TASKS.get(call.name)
        if rule is not None:
            rule(self, call, given)
        elif call.name in ("$rewind", "$fseek", "$fgetc", "$ungetc", "$fopen"):
            self.value(number, given)

    def _text(self, call: SystemCall, given: list[Value], first: int) -> str:
        radix = call.name[-1] if call.name[-1] in "boh" and not call.name.endswith(("strobe", "info")) else "d"
        return self._format.text(call, call.args[first:], given[first:], radix)

    def _string(self, call: SystemCall, given: list[Value], index: int) -> str:
        argument, value = call.args[index], given[index]
        if argument.text is not None:
            return argument.text
        if isinstance(value, str):
            return value
        if isinstance(value, tuple) and argument.value is not None:
            return characters(value, argument.value.width)
        return ""

    def _close(self, call: SystemCall, given: list[Value]) -> None:
        self.folder.close(self._number(call, given, 0) & 0xFFFFFFFF)

    def _readmem(self, call: SystemCall, given: list[Value]) -> None:
        memory = call.args[1].memory
        if memory is None:
            return
        name = self._string(call, given, 0)
        loaded = load(call, name, self.folder.text(name), [self._number(call, given, i) for i in range(2, len(given))])
        for low, word in loaded.elements:
            self.kernel.write(memory[0].id, low, memory[0].element, word)
        if loaded.problem:
            self._note(loaded.problem, call.position)

    def _note(self, text: str, position: int) -> None:
        """What is wrong with a file; of a circuit it was said when that was built."""

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

    def _other(self, call: SystemCall, given: list[Value], results: list[Value]) -> Word | str:
        name = call.name
        if name == "$fopen":
            mode = self._string(call, given, 1) if len(given) > 1 else None
            return v.word(self.folder.open(self._string(call, given, 0), mode or None), 32)
        if name == "$sformatf":
            return self._text(call, given, 0)
        if name in ("$sscanf", "$fscanf"):
            return self._scan(call, given, results)
        if name in ("$sformat", "$swrite", "$swriteb", "$swriteo", "$swriteh"):
            text = self._text(call, given, 1)
            if call.args[0].targets[0].signal.text:
                results[0] = text
                return v.word(0, 32)
            data = text.encode("latin-1", "replace")
            results[0] = v.word(int.from_bytes(data, "big"), sum(t.width for t in call.args[0].targets))
            return v.word(0, 32)
        if name == "$fread":
            return self._read_bytes(call, given, results)
        if name in ("$fgetc", "$fgets", "$feof", "$rewind", "$ftell", "$fseek", "$ungetc"):
            return self._read_file(call, given, results)
        return v.word(0, 32)

    def _read_bytes(self, call: SystemCall, given: list[Value], results: list[Value]) -> Word:
        """$fread: bytes into a variable or into the elements of a memory, the first byte on the left; how many there
        were (17.2.4.4)."""
        reader = self.folder.reader(self._number(call, given, 1) & 0xFFFFFFFF)
        if reader is None:
            return v.word(0, 32)
        memory = call.args[0].memory
        if memory is None:
            width = sum(t.width for t in call.args[0].targets)
            data = reader.bytes((width + 7) // 8)
            results[0] = v.word(int.from_bytes(data.ljust((width + 7) // 8, b"\0"), "big"), width)
            return v.word(len(data), 32)
        signal, left, right = memory
        low, high, total = min(left, right), max(left, right), 0
        at = self._number(call, given, 2) if len(given) > 2 and given[2] is not None else low
        last = at + self._number(call, given, 3) - 1 if len(given) > 3 else high
        while low <= at <= min(high, last):
            size = (signal.element + 7) // 8
            data = reader.bytes(size)
            if not data:
                break
            word = v.word(int.from_bytes(data.ljust(size, b"\0"), "big"), signal.element)
            self.kernel.write(signal.id, (at - low) * signal.element, signal.element, word)
            total, at = total + len(data), at + 1
        return v.word(total, 32)

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
        is_text = any(t.signal.text for t in call.args[0].targets)
        line = reader.line(MOST_LETTERS if is_text else width // 8)
        if is_text:
            results[0] = line
            return v.word(len(line), 32)
        results[0] = v.word(int.from_bytes(line.encode("latin-1", "replace"), "big"), width)
        return v.word(len(line), 32)

    def _scan(self, call: SystemCall, given: list[Value], results: list[Value]) -> Word:
        places = call.args[2:]
        texts = [any(t.signal.text for t in a.targets) for a in places]
        widths = [
            8 * MOST_LETTERS if is_text else sum(t.width for t in a.targets)
            for a, is_text in zip(places, texts, strict=True)
        ]
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
            elif isinstance(value, tuple) and texts[i]:
                results[i + 2] = from_digits(value)
                continue
            elif isinstance(value, tuple):
                value = (
                    v.extend(value, max(1, (value[0] | value[1]).bit_length()), widths[i], False)
                    if widths[i]
                    else value
                )
                value = v.select(value, widths[i], 0, widths[i])
            results[i + 2] = value
        return v.word(count, 32)


FILE_TASKS: dict[str, Callable[[CircuitBench, SystemCall, list[Value]], None]] = {
    "$fclose": CircuitBench._close,
    "$readmemb": CircuitBench._readmem,
    "$readmemh": CircuitBench._readmem,
    "$writememb": CircuitBench._writemem,
    "$writememh": CircuitBench._writemem,
}
"""What a task on files does."""
