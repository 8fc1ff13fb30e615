"""Wiring lists to a Design."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

from obento.core import values
from obento.core.diagnostics import Collector
from obento.core.ir import nodes as ir
from obento.core.ir.design import Design, Instance, LibraryPart, Port, Process
from obento.core.ir.drivers import stretches_read, watches_of
from obento.core.ir.embed import embed, instance_of
from obento.core.ir.resolve import resolve_drivers
from obento.core.ir.signal import Signal
from obento.core.limits import Limits
from obento.core.suggest import did_you_mean
from obento.core.wiring import placing
from obento.core.wiring.ast import Bus, Constant, Count, Join, Line, Open, Operand, Use, Wire, Wiring
from obento.core.wiring.kinds.kind import Kind
from obento.core.wiring.kinds.registry import KINDS
from obento.core.wiring.placing import Refused

GATES = {"and": "and", "nand": "and", "or": "or", "nor": "or", "xor": "xor", "xnor": "xor"}
PULL = (5, 5)
"""Strengths of what gives way to every gate (IEEE 1364-2005 table 7-7)."""
_ONE_INPUT = frozenset(["not", "buf"])
INVERTING = frozenset(["nand", "nor", "xnor"])
NEGATED = {"and": "nand", "or": "nor", "xor": "xnor"}
_FLOATING = frozenset(["tristate", "pull"])
FIRST_GATES = frozenset(GATES) | _ONE_INPUT | {"select", "flipflop", "latch"}
"""What is a gate whatever units are handed in beside it."""
GATE_NAMES = FIRST_GATES | _FLOATING | KINDS.keys()
"""Gates and other parts."""

BlockFinder = Callable[[str, int], "Design | None"]
"""Gives a fresh Design of the unit with that name (used at that position), or None when there is none."""


def elaborate(
    wiring: Wiring, find_block: BlockFinder, block_names: list[str], collector: Collector, limits: Limits
) -> Design | None:
    """The Design of a wiring list; None when something is wrong with it (reported)."""
    return _Builder(wiring, find_block, block_names, collector, limits).build()


def wire_widths(wiring: Wiring, limits: Limits) -> dict[str, int]:
    """How wide its wires are, as far as that can be said without the blocks beside it, whatever is wrong with it."""
    builder = _Builder(wiring, lambda name, position: None, [], Collector(), limits)
    builder.build()
    return builder.widths()


class _Builder:
    def __init__(
        self, wiring: Wiring, find_block: BlockFinder, block_names: list[str], collector: Collector, limits: Limits
    ) -> None:
        self._w = wiring
        self._find_block = find_block
        self._block_names = block_names
        self._collector = collector
        self._limits = limits
        self.design = Design(wiring.name, "wiring")
        self.root = Instance(wiring.name, wiring.name, wiring.name_start)
        self._buses: dict[str, Bus] = {b.name: b for b in [*wiring.takes, *wiring.gives]}
        self._signals: dict[str, Signal] = {}
        self._makers: dict[str, list[tuple[Line, Wire]]] = {}
        self._blocks: dict[int, Design] = {}
        self._sizing: set[str] = set()
        self._widths: dict[str, int] = {}
        self.path = wiring.name

    def error(self, code: str, text: str, node: Wire | Line | Operand | Bus, hint: str = "") -> Refused:
        self._collector.error(code, text, node.start, node.end, hint)
        return Refused()

    def _is_gate(self, what: str) -> bool:
        """Whether this names a gate or a part, and no unit that is handed in beside it."""
        return what in FIRST_GATES or (what in GATE_NAMES and (what not in self._block_names or what == self._w.name))

    def _kind(self, what: str) -> Kind | None:
        return KINDS.get(what) if self._is_gate(what) else None

    def room_for(self, width: int, node: Operand) -> None:
        """Refuse what would make the design larger than can be run."""
        if self.design.bits + width > self._limits.signal_bits:
            raise self.error("too-wide", "the design is larger than can be run", node)

    def build(self) -> Design | None:
        errors = self._collector.errors
        self._ports()
        self._drivers()
        for line in self._w.lines:
            try:
                self._line(line)
            except Refused:
                continue
        if self._collector.errors > errors:
            return None
        self._loops()
        if any(isinstance(line.value, Use) and line.value.what in _FLOATING for line in self._w.lines):
            resolve_drivers(self.design, lambda signal, a, b: None)  # of two drivers the lines are told
        self.design.root = self.root
        return self.design

    def widths(self) -> dict[str, int]:
        """The widths that are known."""
        return {name: signal.width for name, signal in self._signals.items()} | self._widths

    # Names, their drivers and widths.

    def _ports(self) -> None:
        sides: list[tuple[list[Bus], Literal["in", "out"]]] = [(self._w.takes, "in"), (self._w.gives, "out")]
        for buses, direction in sides:
            for bus in buses:
                if bus.name in self._signals:
                    self.error("duplicate", f"port `{bus.name}` is listed twice", bus)
                    continue
                signal = self.design.add_signal(bus.name, bus.width, "net", bus.start)
                self._signals[bus.name] = signal
                self._widths[bus.name] = bus.width
                self.design.ports.append(Port(bus.name, direction, signal, False, bus.start))
        if not self._w.gives:
            self._collector.error(
                "no-outputs", f"`{self._w.name}` gives nothing", self._w.name_start, None, "add a `gives` line"
            )

    def _drivers(self) -> None:
        for line in self._w.lines:
            for target in line.targets:
                if target.name == "_":
                    continue
                if any(b.name == target.name for b in self._w.takes):
                    self.error(
                        "input-driven",
                        f"`{target.name}` comes from outside (`takes`) and cannot be driven here",
                        target,
                    )
                    continue
                earlier = self._makers.setdefault(target.name, [])
                for other_line, other in earlier:
                    if self._floats(line) and self._floats(other_line):
                        continue
                    if other.left is None or target.left is None or self._bits(other) & self._bits(target):
                        self.error(
                            "two-drivers", f"`{target.name}` is driven twice", target, "every wire has one driver"
                        )
                        break
                earlier.append((line, target))
        for bus in self._w.gives:
            if bus.name not in self._makers:
                self._collector.warning(
                    "open-output",
                    f"output `{bus.name}` is left open",
                    bus.start,
                    bus.end,
                    f"add a line `{bus.name} <- ...`",
                )

    def _floats(self, line: Line) -> bool:
        """Whether a line lets go of its wire at times, or gives way: several of those may drive one."""
        return isinstance(line.value, Use) and line.value.what in _FLOATING and self._is_gate(line.value.what)

    @staticmethod
    def _bits(wire: Wire) -> set[int]:
        assert wire.left is not None and wire.right is not None
        return set(range(min(wire.left, wire.right), max(wire.left, wire.right) + 1))

    def _width(self, name: str, at: Operand) -> int | None:
        """Bits of a wire; None while that is being worked out (a loop). One where nothing else says otherwise (`t <-
        flipflop(not(t), …)`)."""
        if name in self._widths:
            return self._widths[name]
        makers = self._makers.get(name)
        if not makers:
            near = did_you_mean(name, [*self._signals, *self._makers]) if self._collector.shows("error") else ""
            raise self.error("undriven", f"nothing drives `{name}`", at, near or "give it a line of its own")
        if name in self._sizing:
            return None
        self._sizing.add(name)
        try:
            if all(w.left is not None for _, w in makers):
                width: int | None = max(max(self._bits(w)) for _, w in makers) + 1
            else:
                line, target = min(makers, key=lambda m: isinstance(m[0].value, Use) and m[0].value.what == "pull")
                width = self._target_width(line, target)
        finally:
            self._sizing.discard(name)
        if width is None and not self._sizing:
            width = 1
        if width is not None:
            self._widths[name] = width
        return width

    def _target_width(self, line: Line, target: Wire) -> int | None:
        kind = self._kind(line.value.what) if isinstance(line.value, Use) else None
        if kind is not None and isinstance(line.value, Use):
            sizes = placing.sizes_of(kind, line.value, self)
            index = line.targets.index(target)
            return sizes[index] if index < len(sizes) else None
        if isinstance(line.value, Use) and not self._is_gate(line.value.what):
            outputs = [p for p in self._block(line.value).ports if p.direction == "out"]
            index = line.targets.index(target)
            return outputs[index].signal.width if index < len(outputs) else 1
        return self.size(line.value)

    def size(self, e: Operand) -> int | None:
        match e:
            case Wire():
                if e.left is not None and e.right is not None:
                    return abs(e.left - e.right) + 1
                return self._width(e.name, e)
            case Constant():
                return e.width
            case Join():
                sizes = [self.size(p) for p in e.parts]
                return None if None in sizes else sum(s for s in sizes if s)
            case Count():
                return 1
            case Open():
                return None
            case Use():
                kind = self._kind(e.what)
                if kind is not None:
                    return next(iter(placing.sizes_of(kind, e, self)), None)
                if e.what == "tristate" and self._is_gate(e.what):
                    return self.size(e.args[0]) if e.args else None
                if self._is_gate(e.what):
                    sizes = [self.size(a) for a in (e.args[1:] if e.what == "select" else e.args)]
                    return next((s for s in sizes if s is not None), None)
                outputs = [p for p in self._block(e).ports if p.direction == "out"]
                return outputs[0].signal.width if outputs else 1
        raise AssertionError(type(e).__name__)

    def _signal(self, name: str, at: Operand) -> Signal:
        signal = self._signals.get(name)
        if signal is None:
            width = self._width(name, at)
            assert width is not None
            self.room_for(width, at)
            signal = self.design.add_signal(name, width, "net", at.start)
            self._signals[name] = signal
        return signal

    # Lines.

    def _line(self, line: Line) -> None:
        value = line.value
        if isinstance(value, Use) and not self._is_gate(value.what):
            self._block_line(line, value)
            return
        kind = self._kind(value.what) if isinstance(value, Use) else None
        if isinstance(value, Use) and kind is not None:
            self._part_line(line, value, kind)
            return
        if self._floats(line) and isinstance(value, Use):
            self._floating_line(line, value)
            return
        if len(line.targets) > 1:
            raise self.error("too-many-outputs", "a gate has one output", line.targets[1], "only blocks have several")
        self._drive(line.targets[0], self.lower(value, line.label or line.targets[0].name), line)

    def _part_line(self, line: Line, e: Use, kind: Kind) -> None:
        """A part that drives one wire or several; what nobody takes is left out at the end, or `_`."""
        label = line.label or next((t.name for t in line.targets if t.name != "_"), line.targets[0].name)
        outputs = placing.build(kind, e, label, self)
        if len(line.targets) > len(outputs):
            names = ", ".join(kind.gives)
            raise self.error("too-many-outputs", f"`{e.what}` gives {names}", line.targets[len(outputs)])
        for target, signal in zip(line.targets, outputs, strict=False):
            if target.name != "_":
                self._drive(target, ir.Ref(signal.width, signal), line)

    def _floating_line(self, line: Line, e: Use) -> None:
        """`tristate(a, when: e)` lets go of its wire where `e` is 0; `pull(1)` gives way to every other driver."""
        if len(line.targets) > 1:
            raise self.error("too-many-outputs", "a gate has one output", line.targets[1], "only blocks have several")
        target = line.targets[0]
        wants = {"tristate": ("when", "when_low"), "pull": ()}[e.what]
        args = [a for a, pin in zip(e.args, e.pins, strict=True) if pin is None]
        pins = {pin: a for a, pin in zip(e.args, e.pins, strict=True) if pin is not None}
        wrong = next((pin for pin in pins if pin not in wants), None)
        if len(args) != 1 or wrong is not None or len(pins) != bool(wants):
            example = "tristate(a, when: e)" if wants else "pull(1)"
            raise self.error("pin", f"`{e.what}` is written `{example}`", e)
        self.root.children.append(Instance(line.label or target.name, e.what, e.start))
        value = self.lower(args[0], target.name)
        if e.what == "pull":
            width = self._stretch(target, self._signal(target.name, target))[1]
            if value.width == 1 and width > 1:
                value = ir.Concat(width, [value] * width)
            self._drive(target, value, line)
            self.design.processes[-1].strengths = PULL
            return
        (pin, enable), *_ = pins.items()
        on = self.lower(enable, f"{target.name}.{pin}")
        if on.width != 1:
            raise self.error("width-misfit", f"`{pin}:` takes one bit, but gets {on.width}", enable)
        self._drive(target, ir.Tristate(value.width, ir.Unary(1, "not", on) if pin == "when_low" else on, value), line)

    def _drive(self, target: Wire, value: ir.Expr, line: Line) -> None:
        signal = self._signal(target.name, target)
        low, width = self._stretch(target, signal)
        if value.width != width:
            raise self.error("width-misfit", f"`{target.name}` takes {width} bits here, but gets {value.width}", line)
        self._process(ir.Assign(line.start, [ir.Target(signal, low, width)], value), line)

    def _process(self, body: ir.Assign, line: Line) -> None:
        if len(self.design.processes) >= self._limits.processes:
            raise self.error("too-many", "the design has more parts than can be run", line)
        is_gate = isinstance(line.value, Use) and self._kind(line.value.what) is None
        origin = line.value.what if is_gate and isinstance(line.value, Use) else "wire"
        watches = watches_of(stretches_read(body.value))
        self.design.processes.append(Process("continuous", body, watches, line.start, origin, self._w.name))

    def _stretch(self, wire: Wire, signal: Signal) -> tuple[int, int]:
        """Offset and width of the stretch that a wire names."""
        if wire.left is None or wire.right is None:
            return 0, signal.width
        bus = self._buses.get(wire.name)
        ascending = bus is not None and bus.left < bus.right
        lowest = min(bus.left, bus.right) if bus else 0
        if (wire.left < wire.right) != ascending and wire.left != wire.right:
            raise self.error(
                "reversed",
                f"`{wire.name}[{wire.left}..{wire.right}]` runs against the bus",
                wire,
                f"write [{wire.right}..{wire.left}]",
            )
        highest = lowest + signal.width - 1
        if not (lowest <= min(wire.left, wire.right) and max(wire.left, wire.right) <= highest):
            raise self.error("out-of-range", f"`{wire.name}` has bits {lowest} to {highest} only", wire)
        low = highest - wire.right if ascending else wire.right - lowest
        return low, abs(wire.left - wire.right) + 1

    def lower(self, e: Operand, label: str) -> ir.Expr:
        match e:
            case Constant():
                return ir.Const(e.width, *values.word(e.value, e.width))
            case Join():
                parts = [self.lower(p, label) for p in e.parts]
                return ir.Concat(sum(p.width for p in parts), parts)
            case Wire():
                signal = self._signal(e.name, e)
                low, width = self._stretch(e, signal)
                ref = ir.Ref(signal.width, signal)
                return ref if width == signal.width else ir.Slice(width, ref, low)
            case Count():
                return ir.Const(1, *values.word(e.value & 1, 1))
            case Open():
                text = "`_` leaves a whole pin open, and this is none"
                raise self.error("open-input", text, e, "connect it, or write 0 or 1")
            case Use():
                return self._gate(e, label)
        raise AssertionError(type(e).__name__)

    def _gate(self, e: Use, label: str) -> ir.Expr:
        if not self._is_gate(e.what):
            return self._inline_block(e, label)
        kind = self._kind(e.what)
        if kind is not None:
            signal = placing.build(kind, e, label, self)[0]
            return ir.Ref(signal.width, signal)
        if e.what in _FLOATING:
            raise self.error("pin", f"`{e.what}` drives a wire of its own", e, f"give it a line: `name <- {e.what}(…)`")
        inner = e.args[0] if e.what == "not" and len(e.args) == 1 else None
        if isinstance(inner, Use) and inner.what in NEGATED:
            return self._gate(
                Use(e.start, e.end, NEGATED[inner.what], inner.args, inner.pins), label
            )  # `not(and(a, b))` is one gate
        pin = next((p for p in e.pins if p), None)
        if pin:
            raise self.error("pin", f"`{e.what}` has no pin names", e, "list its inputs in order")
        self.root.children.append(Instance(label, e.what, e.start))
        args = self._inputs(e, label)
        if e.what == "select":
            return self._selector(e, args, label)
        if e.what in _ONE_INPUT:
            if len(args) != 1:
                raise self.error("gate-count", f"`{e.what}` has one input, here are {len(args)}", e)
            inverted = ir.Unary(args[0].width, "not", _apart(args[0]) if isinstance(args[0], ir.Unary) else args[0])
            return inverted if e.what == "not" else ir.Unary(args[0].width, "not", inverted)
        if not args:
            raise self.error("gate-count", f"`{e.what}` needs an input", e)
        result = args[0]
        if isinstance(result, ir.Binary) and result.op == GATES[e.what]:
            result = _apart(result)
        for arg, operand in zip(args[1:], e.args[1:], strict=True):
            if arg.width != result.width:
                raise self.error(
                    "width-misfit",
                    f"`{e.what}` gets {result.width} and {arg.width} bits",
                    operand,
                    "all inputs need one width",
                )
            result = ir.Binary(result.width, GATES[e.what], result, arg)
        return ir.Unary(result.width, "not", result) if e.what in INVERTING else result

    def _inputs(self, e: Use, label: str) -> list[ir.Expr]:
        """The inputs of a gate; one that is left open is as wide as the others, and unknown."""
        found = []
        for number, arg in enumerate(e.args, 1):
            if not isinstance(arg, Open):
                found.append(self.lower(arg, label))
            elif e.what == "select" and number == 1:
                found.append(self.left_open(arg, f"the choice of `{e.what}`", max(1, (len(e.args) - 2).bit_length())))
            else:
                found.append(self.left_open(arg, f"input {number} of `{e.what}`", self.size(e) or 1))
        return found

    def left_open(self, e: Operand, what: str, width: int) -> ir.Expr:
        """What an input reads that nothing is connected to: unknown digits, and a warning."""
        text = f"{what} is left open, so it is unknown"
        self._collector.warning("open-input", text, e.start, e.end, "connect it, or write 0 or 1")
        return ir.Const(width, 0, 0)

    def _selector(self, e: Use, args: list[ir.Expr], label: str) -> ir.Expr:
        if len(args) < 3:
            raise self.error(
                "gate-count", "`select` needs a choice and at least two inputs", e, "select(s, when_0, when_1)"
            )
        choice, options = args[0], args[1:]
        if len(options) > 1 << min(choice.width, 16):
            raise self.error(
                "gate-count", f"{choice.width} bits choose among {1 << choice.width} inputs, here are {len(options)}", e
            )
        width = options[0].width
        for option, operand in zip(options, e.args[1:], strict=True):
            if option.width != width:
                raise self.error(
                    "width-misfit",
                    f"`select` gets {width} and {option.width} bits",
                    operand,
                    "all inputs need one width",
                )
        for i in range(choice.width):
            bit = ir.Slice(1, choice, i)
            if len(options) % 2:
                options.append(ir.Const(width, 0, 0))  # a value without an input is unknown
            options = [ir.Mux(width, bit, options[k + 1], options[k]) for k in range(0, len(options), 2)]
        if len(args) == 3:
            return options[0]
        # One of many is one symbol, and so has an output of its own.
        self.room_for(width, e)
        wire = self.design.add_signal(f"{label}.y", width, "net", e.start)
        body = ir.Assign(e.start, [ir.Target(wire, 0, width)], options[0])
        process = Process("continuous", body, watches_of(stretches_read(options[0])), e.start, "select", self._w.name)
        self.design.processes.append(process)
        drawn = [("s", choice), *((str(k), option) for k, option in enumerate(args[1:]))]
        self.design.library.append(LibraryPart("select", label, e.start, self._w.name, drawn, [("y", wire)], [process]))
        return ir.Ref(width, wire)

    # Blocks.

    def _block(self, e: Use) -> Design:
        known = self._blocks.get(id(e))
        if known is None:
            known = self._find_block(e.what, e.start)
            if known is None:
                if e.what in self._block_names:
                    raise Refused  # what is wrong with it was reported there
                names = [*GATE_NAMES, *self._block_names]
                raise self.error("no-block", f"there is no gate or block `{e.what}`", e, did_you_mean(e.what, names))
            self._blocks[id(e)] = known
        return known

    def _connected(self, e: Use, label: str) -> list[Port]:
        """Put a block in place, connect its inputs and give its outputs."""
        block = self._block(e)
        self.root.children.append(instance_of(block, label, e.what, e.start))
        ports = embed(self.design, block, label)
        inputs = [p for p in ports if p.direction == "in"]
        given: dict[str, tuple[Operand, str]] = {}
        for index, (arg, pin) in enumerate(zip(e.args, e.pins, strict=True)):
            name = pin or (inputs[index].name if index < len(inputs) else "")
            if not any(p.name == name for p in inputs):
                text = (
                    f"`{e.what}` has no input `{pin}`"
                    if pin
                    else f"`{e.what}` has {len(inputs)} inputs, here are {len(e.args)}"
                )
                raise self.error("no-pin", text, arg, did_you_mean(pin or "", [p.name for p in inputs]))
            if name in given:
                raise self.error("duplicate", f"input `{name}` is connected twice", arg)
            given[name] = (arg, label)
        for port in inputs:
            if port.name not in given:
                raise self.error("open-input", f"input `{port.name}` of `{e.what}` is not connected", e)
            arg = given[port.name][0]
            value = ir.Const(port.signal.width, 0, 0) if isinstance(arg, Open) else self.lower(arg, label)
            if value.width != port.signal.width:
                raise self.error(
                    "width-misfit", f"`{port.name}` takes {port.signal.width} bits, but gets {value.width}", arg
                )
            body = ir.Assign(arg.start, [ir.Target(port.signal, 0, port.signal.width)], value)
            self.design.processes.append(
                Process("continuous", body, watches_of(stretches_read(value)), arg.start, "port", self._w.name)
            )
        return [p for p in ports if p.direction == "out"]

    def _inline_block(self, e: Use, label: str) -> ir.Expr:
        outputs = self._connected(e, label)
        if len(outputs) != 1:
            raise self.error("several-outputs", f"`{e.what}` has {len(outputs)} outputs and needs a line of its own", e)
        return ir.Ref(outputs[0].signal.width, outputs[0].signal)

    def _block_line(self, line: Line, e: Use) -> None:
        label = line.label or line.targets[0].name
        outputs = self._connected(e, label)
        if len(line.targets) != len(outputs):
            names = ", ".join(p.name for p in outputs)
            raise self.error(
                "block-outputs",
                f"`{e.what}` gives {len(outputs)} outputs ({names}), taken are {len(line.targets)}",
                line,
            )
        for target, port in zip(line.targets, outputs, strict=True):
            if target.name == "_":
                continue
            self._drive(target, ir.Ref(port.signal.width, port.signal), line)

    # Loops.

    def _loops(self) -> None:
        """Say where wires go round in a circle with nothing that remembers in between."""
        makers: dict[str, list[tuple[Line, Wire]]] = self._makers
        state: dict[str, int] = {}
        for root in makers:
            stack: list[tuple[str, list[str]]] = [(root, [])]
            while stack:
                name, pending = stack[-1]
                if state.get(name, 0) == 0:
                    state[name] = 1
                    pending += [n for line, _ in makers.get(name, []) for n in _names_read(line.value)]
                if not pending:
                    state[name] = 2
                    stack.pop()
                    continue
                nxt = pending.pop()
                if state.get(nxt, 0) == 1:
                    names = [n for n, _ in stack]
                    if nxt in names:
                        circle = names[names.index(nxt) :]
                        line = makers[circle[0]][0][0]
                        self._collector.warning(
                            "loop",
                            "wires go round in a circle: " + " <- ".join([*circle, circle[0]]),
                            line.start,
                            line.end,
                            "such a circuit may remember or never settle",
                        )
                elif state.get(nxt, 0) == 0 and nxt in makers:
                    stack.append((nxt, []))


def _apart(e: ir.Expr) -> ir.Expr:
    """A nested gate that stays one of its own: without this its operator would read as one with the operator around
    it."""
    return ir.Concat(e.width, [e])


def _names_read(e: Operand) -> list[str]:
    match e:
        case Wire():
            return [e.name]
        case Join():
            return [n for p in e.parts for n in _names_read(p)]
        case Use():
            # What is stored waits: no circle goes through it.
            return [] if e.what in KINDS and KINDS[e.what].stores else [n for a in e.args for n in _names_read(a)]
        case _:
            return []
