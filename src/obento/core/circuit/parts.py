"""Parts from processes: symbols from expressions, boxes from behaviour.

What an expression gives inside a statement has no signal of its own. Each such place gets a *tap*: a signal that
follows it and that nothing reads, so that its value can be seen in any case."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Literal

from obento.core.circuit.model import FLOATING, ONE, UNKNOWN, ZERO, Bits, Part, Pin
from obento.core.circuit.operands import joined_operands
from obento.core.ir import nodes as ir
from obento.core.ir.design import Design, LibraryPart, Process
from obento.core.ir.drivers import expressions, statements, stretches_read, targets, watches_of
from obento.core.ir.signal import Signal
from obento.core.ir.walks import children, walk

TAP = "tap"
_EDGES: dict[str, Literal["", "rise", "fall"]] = {"pos": "rise", "neg": "fall"}
_GATES = {"and": "and", "or": "or", "xor": "xor"}
_SIGNS = {
    "add": "+",
    "sub": "-",
    "mul": "*",
    "div": "/",
    "sdiv": "/",
    "mod": "mod",
    "smod": "mod",
    "eq": "=",
    "ne": "≠",
    "ceq": "=",
    "cne": "≠",
    "lt": "<",
    "le": "≤",
    "slt": "<",
    "sle": "≤",
    "neg": "-",
    "shl": "<<",
    "shr": ">>",
    "sar": ">>>",
    "rand": "&",
    "ror": "≥1",
    "rxor": "=1",
    "lnot": "not",
}


def is_routing(e: ir.Expr) -> bool:
    """Whether an expression only takes wires apart and together."""
    match e:
        case ir.Ref() | ir.Const():
            return True
        case ir.Slice() | ir.Extend() | ir.Unary(op="two"):
            return is_routing(e.a)
        case ir.Concat():
            return all(is_routing(p) for p in e.parts)
        case _:
            return False


def target_bits(body: ir.Assign) -> Bits | None:
    """The bits that an assignment writes, rightmost first; None where they are computed."""
    found: list[int] = []
    for t in reversed(body.targets):
        if t.offsets or t.low < 0 or t.low + t.width > t.signal.width:
            return None
        found += range(t.signal.offset + t.low, t.signal.offset + t.low + t.width)
    return tuple(found)


def assignment_of(process: Process) -> ir.Assign | None:
    """The only statement of a process, where that is an assignment to places known beforehand."""
    body = process.body
    while isinstance(body, ir.Block) and len(body.body) == 1:
        body = body.body[0]
    if (
        process.kind != "continuous"
        or not isinstance(body, ir.Assign)
        or body.timing is not None
        or target_bits(body) is None
    ):
        return None
    return body


class Drafter:
    """Makes the parts of one design. `text_at` gives the first line of the text at a position; taps are added to the
    design."""

    def __init__(self, design: Design, text_at: Callable[[int], str]) -> None:
        self.design = design
        self.parts: list[Part] = []
        self.nodes: dict[int, ir.Expr] = {}
        self.owners: dict[int, Process] = {}
        self.makers: dict[int, list[Process]] = {}
        """Of a part that is made of several processes all of them; each drives outputs of its own."""
        self._text_at = text_at
        self._taps: list[Process] = []
        self._process: Process | None = None

    def finish(self) -> None:
        """Put in all taps, after everything else."""
        self.design.processes += self._taps

    def _part(self, kind: str, label: str, pins: Sequence[Pin], start: int, end: int = 0) -> Part:
        part = Part(len(self.parts), kind, label, -1, start, end or start, list(pins))
        self.parts.append(part)
        assert self._process is not None
        self.owners[part.id] = self._process
        return part

    # Assignments.

    def assignment(self, process: Process, body: ir.Assign) -> None:
        """Symbols for an assignment that does more than routing."""
        self._process = process
        made = target_bits(body)
        assert made is not None
        e = body.value
        if process.origin == "buf" or is_routing(e):
            inner = (
                e.a.a if isinstance(e, ir.Unary) and isinstance(e.a, ir.Unary) else e
            )  # a wiring list's buf is two inversions
            self._part(
                "buf", "1", [Pin("in", "", self._operand(inner, body.position)), Pin("out", "", made)], body.position
            )
        elif any(
            isinstance(
                x,
                ir.Call
                | ir.SystemCall
                | ir.RealOp
                | ir.ToReal
                | ir.RealDigits
                | ir.DigitsReal
                | ir.TextValue
                | ir.Resolve,
            )
            for x in walk(e)
        ):
            self.behaviour(process)
        else:
            self._symbol(e, body.position, made)

    def _operand(self, e: ir.Expr, at: int) -> Bits:
        """The digits of an operand, with symbols for what it is made of."""
        match e:
            case ir.Ref():
                return tuple(range(e.signal.offset, e.signal.offset + e.width))
            case ir.Const():
                return tuple(_digit(e.one >> i & 1, e.zero >> i & 1) for i in range(e.width))
            case ir.Concat():
                return tuple(bit for part in reversed(e.parts) for bit in self._operand(part, at))
            case ir.Slice():
                inner = self._operand(e.a, at)
                return tuple(inner[i] if 0 <= i < len(inner) else UNKNOWN for i in range(e.low, e.low + e.width))
            case ir.Unary(op="two"):
                return self._operand(e.a, at)
            case ir.Extend():
                inner = self._operand(e.a, at)
                return inner + (inner[-1] if e.signed else ZERO,) * (e.width - len(inner))
            case _:
                return self._symbol(e, at, self._tap(e, at))

    def _tap(self, e: ir.Expr, at: int) -> Bits:
        signal = self.design.add_signal(f"{TAP} {len(self._taps)}", e.width, "net", at)
        body = ir.Assign(at, [ir.Target(signal, 0, e.width)], e)
        assert self._process is not None
        self._taps.append(Process("continuous", body, watches_of(stretches_read(e)), at, TAP, self._process.path))
        return tuple(range(signal.offset, signal.offset + e.width))

    def _symbol(self, e: ir.Expr, at: int, made: Bits) -> Bits:
        """One symbol whose output is `made`, and those before it."""
        inverted = False
        node = e.a if isinstance(e, ir.Unary) and e.op == "two" else e
        while isinstance(node, ir.Unary) and node.op in ("not", "lnot") and _turns_into_one(node.a):
            inverted, node = not inverted, node.a
        out = Pin("out", "", made, inverted)
        match node:
            case ir.Binary(op="and" | "or" | "xor"):
                pins = [self._input(x, at) for x in joined_operands(node)]
                part = self._part(node.op, "", [*pins, out], at)
            case ir.Unary(op="not" | "lnot") if node.a.width == node.width:
                out.inverted = True
                part = self._part("not", "1", [Pin("in", "", self._operand(node.a, at)), out], at)
            case ir.Mux():
                choice = [
                    Pin("in", name, self._operand(x, at))
                    for name, x in (("s", node.cond), ("1", node.a), ("0", node.b))
                ]
                part = self._part("select", "", [*choice, out], at)
            case ir.Tristate():
                pins = [Pin("in", "", self._operand(node.a, at)), Pin("in", "en", self._operand(node.enable, at))]
                part = self._part("operator", "▽", [*pins, out], at)
            case _:
                sign = _SIGNS.get(getattr(node, "op", ""), type(node).__name__.lower())
                pins = [Pin("in", "", self._operand(x, at)) for x in children(node)]
                part = self._part("operator", sign, [*pins, out], at)
        self.nodes[part.id] = e
        return made

    def _input(self, e: ir.Expr, at: int) -> Pin:
        """An operand of a gate: an inversion before it is a circle."""
        if (
            isinstance(e, ir.Unary)
            and e.op in ("not", "lnot")
            and e.a.width == e.width
            and (is_routing(e.a) or not _turns_into_one(e.a))
        ):
            return Pin("in", "", self._operand(e.a, at), True)
        return Pin("in", "", self._operand(e, at))

    # Parts of a wiring list's library.

    def library_part(self, made: LibraryPart) -> None:
        """A box with the name of its kind, and its pins by their names."""
        self._process = made.processes[-1]
        pins = []
        for name, value in made.inputs:
            edge = name if name in ("rise", "fall") else ""
            bits = self._operand(value, made.position)
            shown = "" if edge else name.removesuffix("_low")
            pins.append(Pin("in", shown, bits, name.endswith("_low"), edge))  # type: ignore[arg-type]
        for name, signal in made.outputs:
            pins.append(Pin("out", name, tuple(range(signal.offset, signal.offset + signal.width))))
        part = self._part("part", made.kind, pins, made.position)
        self.makers[part.id] = made.processes

    # Behaviour.

    def behaviour(self, process: Process) -> None:
        """A box with what a process reads and writes."""
        self._process = process
        written: dict[int, tuple[Signal, int, int]] = {}
        read: dict[int, tuple[Signal, int, int]] = {}
        for t in targets(process.body):
            _widen(
                written,
                t.signal,
                0 if t.offsets else max(0, t.low),
                t.signal.width if t.offsets else min(t.signal.width, t.low + t.width),
            )
        last = process.position
        for s in statements(process.body):
            last = max(last, s.position)
            for e in expressions(s):
                for signal, low, width in stretches_read(e):
                    _widen(read, signal, low, low + width)
        edges = {w.signal.id: w.edge for w in process.watches if w.edge != "any"}
        pins = []
        for w in process.watches:
            if w.edge != "any" or (w.signal.id not in read and process.kind != "continuous"):
                _widen(read, w.signal, w.low, w.low + w.width)
        for number, (signal, low, high) in read.items():
            if number in written and not edges.get(number):
                continue
            edge = _EDGES.get(edges.get(number, ""), "")
            bits = tuple(range(signal.offset + low, signal.offset + high))
            pins.append(Pin("in", last_name(signal), bits, False, edge))
        for signal, low, high in written.values():
            pins.append(Pin("out", last_name(signal), tuple(range(signal.offset + low, signal.offset + high))))
        self._part("process", self._text_at(process.position), pins, process.position, last)


def last_name(signal: Signal) -> str:
    """The name of a signal without its path."""
    return signal.name.rpartition(".")[2]


def _widen(found: dict[int, tuple[Signal, int, int]], signal: Signal, low: int, high: int) -> None:
    if signal.element or not signal.has_digits:
        return
    before = found.get(signal.id)
    found[signal.id] = (signal, min(low, before[1]), max(high, before[2])) if before else (signal, low, high)


def _digit(one: int, zero: int) -> int:
    return {(0, 1): ZERO, (1, 0): ONE, (0, 0): UNKNOWN, (1, 1): FLOATING}[one, zero]


def _turns_into_one(e: ir.Expr) -> bool:
    """Whether an inversion after this is drawn as a circle on its symbol."""
    if isinstance(e, ir.Unary) and e.op in ("not", "lnot"):
        return _turns_into_one(e.a)
    return isinstance(e, ir.Binary) and e.op in _GATES
