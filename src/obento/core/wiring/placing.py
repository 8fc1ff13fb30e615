"""Parts put in place: what a line gives them, sorted out by name, sized and built."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Protocol

from obento.core.ir import nodes as ir
from obento.core.ir.design import Design, Instance, LibraryPart, Process
from obento.core.ir.drivers import stretches_read, watches_of
from obento.core.ir.signal import Signal
from obento.core.suggest import did_you_mean
from obento.core.wiring.ast import Constant, Count, Join, Open, Operand, Use
from obento.core.wiring.kinds.kind import Kind, Misfit, Pin, Values
from obento.core.words import counted


class Refused(Exception):
    """A line that cannot be built; already reported."""


class Host(Protocol):
    """The wiring list around a part, as far as the part needs it."""

    design: Design
    root: Instance
    path: str

    def error(self, code: str, text: str, node: Operand, hint: str = "") -> Refused:
        """Report an error; raise what is given back."""

    def size(self, e: Operand) -> int | None:
        """Bits of an operand; None while that is being worked out (a loop)."""

    def lower(self, e: Operand, label: str) -> ir.Expr:
        """An operand as an expression."""

    def room_for(self, width: int, node: Operand) -> None:
        """Refuse what would make the design larger than can be run."""

    def left_open(self, e: Operand, what: str, width: int) -> ir.Expr:
        """What an input reads that nothing is connected to."""


def sizes_of(kind: Kind, e: Use, host: Host) -> Sequence[int]:
    """How wide the outputs of a part are; nothing where that cannot be said yet."""
    given = _sorted_out(kind, e, host)
    try:
        return kind.sizes(_sizes(given, host))
    except Misfit:
        return []  # told where it is built


def build(kind: Kind, e: Use, label: str, host: Host) -> list[Signal]:
    """Put a part in place; the signals that it drives, in order."""
    given = _sorted_out(kind, e, host)
    pins = {name for name in given if name in kind.pins}
    problem = kind.check(pins)
    if problem:
        raise host.error("pin", problem, e)
    for name in kind.operands:
        if name not in given:
            takes = ", ".join([*kind.operands, *(f"{p}: …" for p in kind.pins[:2])])
            text = f"`{kind.name}` needs its operand `{name}`"
            raise host.error("gate-count", text, e, f"write `{kind.name}({takes})`")
    lowered = _lowered(kind, given, label, host)
    sizes = {name: value.width for name, value in lowered.items()}
    sizes |= {name: arg.value for name, arg in given.items() if isinstance(arg, Count)}
    for name in pins - kind.wide:
        if sizes[name] != 1 and name != "bits":
            raise host.error("width-misfit", f"`{name}:` takes one bit, but gets {sizes[name]}", given[name])
    try:
        widths = kind.sizes(sizes)
        host.room_for(sum(widths), e)
        host.root.children.append(Instance(label, kind.name, e.start))
        place = _Spot(host, e, e.start, label, host.path)
        values = kind.build(Values(lowered, sizes), place)
    except Misfit as misfit:
        at = given.get(misfit.at, e)
        raise host.error(misfit.code or "width-misfit", f"`{kind.name}`: {misfit.text}", at, misfit.hint) from None
    made = [place.output(give, value) for give, value in zip(kind.gives, values, strict=True)]
    if "from" in given:
        _check_words(given["from"], widths[0], host)
    drawn = [(name, place.rewired.get(name, value)) for name, value in lowered.items() if name != "from"]
    outputs = list(zip(kind.gives, made, strict=True))
    host.design.library.append(LibraryPart(kind.name, label, e.start, host.path, drawn, outputs, place.processes))
    assert [s.width for s in made] == list(widths), kind.name
    return made


def _lowered(kind: Kind, given: dict[str, Operand], label: str, host: Host) -> dict[str, ir.Expr]:
    """What the pins are given; an operand that is left open is as wide as the first one that is not."""
    known = [host.size(given[name]) for name in kind.operands]
    usual = next((size for size in known if size is not None), None) or 1
    found = {}
    for name, arg in given.items():
        if isinstance(arg, Open):
            text = f"`{name}` of `{kind.name}`" if name in kind.operands else f"pin `{name}:` of `{kind.name}`"
            found[name] = host.left_open(arg, text, usual if name in kind.operands else 1)
        elif not isinstance(arg, Count):
            found[name] = host.lower(arg, f"{label}.{name}")
    return found


def _sorted_out(kind: Kind, e: Use, host: Host) -> dict[str, Operand]:
    """What is given, by the names of operands and pins."""
    given: dict[str, Operand] = {}
    operands = iter(kind.operands)
    for arg, pin in zip(e.args, e.pins, strict=True):
        name = pin if pin is not None else next((n for n in operands if n not in given), None)
        if name is None:
            text = f"`{kind.name}` takes {counted(len(kind.operands), 'operand')} by order, all others by pin"
            raise host.error("no-pin", text, arg, f"its pins are {', '.join(kind.pins)}" if kind.pins else "")
        if name not in kind.operands and name not in kind.pins:
            near = did_you_mean(name, [*kind.operands, *kind.pins]) or f"its pins are {', '.join(kind.pins)}"
            raise host.error("no-pin", f"`{kind.name}` has no pin `{name}`", arg, near)
        if name in given:
            raise host.error("duplicate", f"pin `{name}` is connected twice", arg)
        if (name == "bits") != isinstance(arg, Count):
            text = "`bits:` takes a plain number" if name == "bits" else "a plain number says no width"
            raise host.error("bad-number", text, arg, "write for instance `bits: 8`, and values as 8d5")
        if name == "from" and not _is_constant(arg):
            raise host.error("pin", "the contents of a memory are constants", arg, "write them as `{8h3f, 8h06}`")
        given[name] = arg
    return given


def _check_words(contents: Operand, width: int, host: Host) -> None:
    """Each word of a memory is as wide as the memory."""
    for word in contents.parts if isinstance(contents, Join) else [contents]:
        size = host.size(word)
        if size != width:
            raise host.error("width-misfit", f"a word of this memory has {width} bits, this one {size}", word)


def _is_constant(e: Operand) -> bool:
    return isinstance(e, Constant) or (isinstance(e, Join) and all(map(_is_constant, e.parts)))


def _sizes(given: dict[str, Operand], host: Host) -> dict[str, int]:
    found: dict[str, int] = {}
    for name, arg in given.items():
        size = arg.value if isinstance(arg, Count) else host.size(arg)
        if size is not None:
            found[name] = size
    return found


@dataclass(slots=True)
class _Spot:
    """Where one part stands."""

    host: Host
    use: Use
    position: int
    label: str
    path: str
    kept: set[int] = field(default_factory=set)
    processes: list[Process] = field(default_factory=list)
    rewired: dict[str, ir.Expr] = field(default_factory=dict)
    """Pins that got a wire of their own, with that."""

    def held(self, name: str, width: int) -> Signal:
        """A variable that keeps digits, unknown at power-up."""
        self.host.room_for(width, self.use)
        made = self.host.design.add_signal(f"{self.label}.{name}", width, "variable", self.position)
        self.kept.add(made.id)
        return made

    def memory(self, name: str, width: int, count: int, first: tuple[int, int]) -> Signal:
        """A memory of so many words, with what it holds at first."""
        made = self.held(name, width * count)
        made.element, made.initial = width, first
        return made

    def wire(self, value: ir.Expr, name: str) -> Pin:
        """The wire that has this value; what is no wire gets one."""
        if isinstance(value, ir.Ref):
            return value.signal, 0
        if isinstance(value, ir.Slice) and isinstance(value.a, ir.Ref):
            return value.a.signal, value.low
        wire, process = self._driven(name, value, "wire")
        self.host.design.processes.append(process)
        self.rewired[name] = ir.Ref(1, wire)
        return wire, 0

    def process(self, process: Process) -> None:
        """A process of the part."""
        self.host.design.processes.append(process)
        self.processes.append(process)

    def output(self, name: str, value: ir.Expr) -> Signal:
        """The signal of an output: what keeps it, or a wire."""
        if isinstance(value, ir.Ref) and value.signal.id in self.kept:
            return value.signal
        wire, process = self._driven(name, value, self.use.what)
        self.process(process)
        return wire

    def _driven(self, name: str, value: ir.Expr, origin: str) -> tuple[Signal, Process]:
        wire = self.host.design.add_signal(f"{self.label}.{name}", value.width, "net", self.position)
        body = ir.Assign(self.position, [ir.Target(wire, 0, value.width)], value)
        watches = watches_of(stretches_read(value))
        return wire, Process("continuous", body, watches, self.position, origin, self.path)
