"""A design whose wires can be turned from outside: each driven wire is XORed with an input of its own."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from obento.core.circuit.draw import Drawing
from obento.core.circuit.model import Pin
from obento.core.circuit.parts import target_bits
from obento.core.ir import nodes as ir
from obento.core.ir.design import Design, Port, Process
from obento.core.ir.drivers import expressions, statements, stretches_read, watches_of, written_bits
from obento.core.ir.signal import Signal, Watch
from obento.core.ir.walks import calls_something

_MOST_MASKS_WIDTH = 3


@dataclass(frozen=True, slots=True)
class Candidate:
    """A wire that can be turned: the pin that it starts at, the first of its inputs, and the ways of turning it."""

    pin: int
    first: int
    masks: tuple[int, ...]


class Flips:
    """Changes the design of a drawing. `port` is the new input, one digit for each digit of each candidate.

    No candidates are outputs of processes that read what they write, or write to computed places.
    """

    def __init__(self, drawing: Drawing, design: Design) -> None:
        self._design = design
        self.candidates: list[Candidate] = []
        self._width = 0
        wanted: list[tuple[int, Pin]] = []
        for part in drawing.circuit.parts:
            if part.id not in drawing.drafter.owners:
                continue
            for pin in part.pins:
                if pin.side == "out" and (part.id in drawing.drafter.nodes or _can_turn(_maker(drawing, part.id, pin))):
                    self.candidates.append(Candidate(pin.id, self._width, _masks(len(pin.bits))))
                    self._width += len(pin.bits)
                    wanted.append((part.id, pin))
        self.signal = design.add_signal("flips", max(1, self._width), "net")
        self.port = Port("flips", "in", self.signal, False)
        design.ports.append(self.port)
        by_node: dict[int, ir.Expr] = {}
        touched: dict[int, Process] = {}
        for candidate, (part_id, pin) in zip(self.candidates, wanted, strict=True):
            owner = _maker(drawing, part_id, pin)
            node = drawing.drafter.nodes.get(part_id)
            touched[id(owner)] = owner
            if node is not None:
                by_node[id(node)] = ir.Slice(node.width, ir.Ref(self.signal.width, self.signal), candidate.first)
            else:
                self._turn_behaviour(owner, pin, candidate.first)
        for process in touched.values():
            for s in statements(process.body):
                if isinstance(s, ir.Assign):
                    s.value = _turned(s.value, by_node)
            process.watches = [*process.watches, Watch(self.signal, "any", 0, self.signal.width)]

    @staticmethod
    def copy_of(design: Design, signal: Signal) -> Signal:
        """A wire that follows a signal."""
        copy = design.add_signal(f"copy of {signal.name}", signal.width, "net")
        value = ir.Ref(signal.width, signal)
        body = ir.Assign(0, [ir.Target(copy, 0, signal.width)], value)
        design.processes.append(Process("continuous", body, watches_of(stretches_read(value)), 0, "port"))
        return copy

    def planes(self, lanes: Sequence[tuple[int, int]]) -> tuple[int, ...]:
        """The planes of the new input where each lane turns one candidate by one of its masks."""
        columns: list[list[str]] = [["0"] * len(lanes) for _ in range(self.signal.width)]
        for lane, (k, mask) in enumerate(lanes):
            i = self.candidates[k].first
            while mask:
                if mask & 1:
                    columns[i][len(lanes) - 1 - lane] = "1"
                mask >>= 1
                i += 1
        return tuple(int("".join(c), 2) for c in columns)

    def _turn_behaviour(self, process: Process, pin: Pin, first: int) -> None:
        place = {bit: first + i for i, bit in enumerate(pin.bits)}
        for s in statements(process.body):
            if not isinstance(s, ir.Assign):
                continue
            bits = target_bits(s)
            if bits is None or not any(b in place for b in bits):
                continue
            whole = ir.Ref(self.signal.width, self.signal)
            parts: list[ir.Expr] = [
                ir.Slice(1, whole, place[b]) if b in place else ir.Const(1, 0, 1) for b in reversed(bits)
            ]
            s.value = ir.Binary(s.value.width, "xor", s.value, ir.Concat(len(parts), parts))


def _maker(drawing: Drawing, part_id: int, pin: Pin) -> Process:
    """The process that drives an output of a part."""
    owner = drawing.drafter.owners[part_id]
    makers = drawing.drafter.makers.get(part_id, [owner])
    return next((p for p in makers if set(pin.bits) & set(written_bits(p))), owner)


def _masks(width: int) -> tuple[int, ...]:
    """All ways of turning a narrow wire; of a wide one each digit alone, and all together."""
    if width <= _MOST_MASKS_WIDTH:
        return tuple(range(1, 1 << width))
    return (*(1 << i for i in range(width)), (1 << width) - 1)


def _can_turn(process: Process) -> bool:
    """Whether turning what a process assigns turns just what comes out of it."""
    read: set[int] = set()
    written: set[int] = set()
    for s in statements(process.body):
        if isinstance(s, ir.Assign):
            bits = target_bits(s)
            if bits is None or s.timing is not None:
                return False
            written.update(bits)
        elif isinstance(s, ir.TaskCall | ir.SystemTask | ir.Hold):
            return False
        for e in expressions(s):
            if calls_something(e):
                return False
            for signal, low, width in stretches_read(e):
                read.update(range(signal.offset + low, signal.offset + low + width))
    return not read & written


def _turned(e: ir.Expr, by_node: dict[int, ir.Expr]) -> ir.Expr:
    """An expression with some of its nodes turned."""
    match e:
        case ir.Unary() | ir.Slice() | ir.Extend():
            new: ir.Expr = replace(e, a=_turned(e.a, by_node))
        case ir.Binary() | ir.Shift():
            new = replace(e, a=_turned(e.a, by_node), b=_turned(e.b, by_node))
        case ir.Mux():
            new = replace(e, cond=_turned(e.cond, by_node), a=_turned(e.a, by_node), b=_turned(e.b, by_node))
        case ir.Concat():
            new = replace(e, parts=[_turned(p, by_node) for p in e.parts])
        case ir.Tristate():
            new = replace(e, enable=_turned(e.enable, by_node), a=_turned(e.a, by_node))
        case _:
            new = e
    mask = by_node.get(id(e))
    return new if mask is None else ir.Binary(e.width, "xor", new, mask)
