"""Loops on digits: written out round by round, those whose end depends on what changes as far as some rounds."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Protocol

from obento.core.ir import nodes as ir
from obento.core.ir.signal import Signal
from obento.core.limits import Limits
from obento.core.vhdl.code.bodies import walk
from obento.core.vhdl.lanes.values import (
    Digits,
    NoLanes,
    bit,
    both,
    either,
    none_of,
    not_,
    number,
    number_width,
    same,
    widened,
)
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Object
from obento.core.vhdl.model.types import RangeX

_ROUNDS_WRITTEN = 24
"""Of a loop that goes on while a condition holds; lanes that go on longer are run step by step."""
_NUMBERS_WRITTEN = 40
"""Of a loop from or to a number that may be any; lanes in which there are more are run step by step."""


class Writer(Protocol):
    """Who lowers the statements around and within a loop."""

    limits: Limits
    bound: dict[Object, Digits]
    gone: bool
    """Whether what was lowered last leaves the subprogram in any case."""

    def value(self, x: t.Expr) -> Digits:
        """The digits, or the constant, that an expression gives."""
        ...

    def statements(self, body: list[t.Stmt]) -> None:
        """Lower statements in their order."""
        ...

    def escape(self, when: ir.Expr) -> None:
        """The cases in which a condition holds are told by the timeline."""
        ...

    def scratch(self, name: str, width: int) -> Signal:
        """Digits that nobody else sees."""
        ...

    def set(self, signal: Signal, value: ir.Expr) -> None:
        """Give scratch digits a value."""
        ...

    def add(self, s: ir.Stmt) -> None:
        """One more statement."""
        ...

    def inner(self, work: Any) -> ir.Block:
        """What some work adds, as a block of its own."""
        ...

    def flags_of(self, s: t.Stmt) -> list[Signal]:
        """Flags that a statement may raise on its way out."""
        ...


class Loops:
    """The loops of one process, with a flag for each that was left and for each round that was."""

    def __init__(self, writer: Writer) -> None:
        self._writer = writer
        self._flags: dict[int, tuple[Signal, Signal]] = {}

    def flag_of(self, s: t.Jump) -> Signal | None:
        """The flag that a jump raises; None where its loop is not being written."""
        pair = self._flags.get(id(s.loop))
        return None if pair is None else pair[0 if s.kind == "exit" else 1]

    def loop(self, s: t.Loop) -> None:
        """Write a loop out.

        Raises
        ------
        NoLanes
            If it is too long.
        """
        if s.range is None or s.parameter is None:
            self._while(s)
            return
        rounds, within = self._rounds(s.range)
        if len(rounds) > self._writer.limits.loop_rounds:
            raise NoLanes("a very long loop")
        jumps = [j for j in walk(s.body) if isinstance(j, t.Jump) and j.loop is s]
        if jumps:
            self._flags[id(s)] = self._writer.scratch("loop left", 1), self._writer.scratch("round left", 1)
            self._writer.set(self._flags[id(s)][0], bit(False))
        outside = [f for f in self._writer.flags_of(s) if f not in self._flags.get(id(s), ())]
        for value in rounds:
            self._writer.bound[s.parameter] = Digits(s.parameter.subtype, value, True)
            stop = list(outside)
            if jumps:
                self._writer.set(self._flags[id(s)][1], bit(False))
                stop.append(self._flags[id(s)][0])
            runs = [none_of(stop)] if stop else []
            runs += [within(value)] if within is not None else []
            if runs:
                inner = self._writer.inner(lambda: self._writer.statements(s.body))
                self._writer.add(ir.If(s.pos, runs[0] if len(runs) == 1 else both(*runs), inner, None))
            else:
                self._writer.statements(s.body)
                if self._writer.gone:
                    break
        self._flags.pop(id(s), None)

    def _rounds(self, r: RangeX) -> tuple[range, Callable[[int], ir.Expr] | None]:
        """The values that a parameter may come to, and, where the bounds change, when it does; those are what they were
        at the beginning (8.9)."""
        left, right = self._writer.value(r.left), self._writer.value(r.right)
        down = r.down if isinstance(r.down, bool) else self._writer.value(r.down).value
        if down is None:
            raise NoLanes("a range whose direction is only known in the run")
        (low, _), (_, high) = (right.bounds, left.bounds) if down else (left.bounds, right.bounds)
        rounds = range(high, low - 1, -1) if down else range(low, high + 1)
        if left.known and right.known:
            return rounds, None
        if len(rounds) > _NUMBERS_WRITTEN and (left.known or right.known):
            rounds = self._some(rounds, left, right, down)
        width = number_width(min(low, left.bounds[0], right.bounds[0], -1), max(high, left.bounds[1], right.bounds[1]))
        kept = []
        for bound in (right, left) if down else (left, right):
            signal = self._writer.scratch("bound of a loop", width)
            self._writer.set(signal, widened(bound, width))
            kept.append(ir.Ref(width, signal))

        def within(value: int) -> ir.Expr:
            here = number(value, width)
            return both(ir.Binary(1, "sle", kept[0], here), ir.Binary(1, "sle", here, kept[1]))

        return rounds, within

    def _some(self, rounds: range, left: Digits, right: Digits, down: bool) -> range:
        """The rounds next to the end that is known; lanes whose other end lies beyond them are run step by step."""
        some = rounds[:_NUMBERS_WRITTEN] if left.known else rounds[-_NUMBERS_WRITTEN:]
        other, last = (right, some[-1]) if left.known else (left, some[0])
        is_upwards = left.known is not down
        width = number_width(min(other.bounds[0], last, -1), max(other.bounds[1], last))
        here, there = widened(other, width), number(last, width)
        inside = ir.Binary(1, "sle", here, there) if is_upwards else ir.Binary(1, "sle", there, here)
        self._writer.escape(not_(same(inside, bit(True))))
        return some

    def _while(self, s: t.Loop) -> None:
        """A loop while a condition holds, or until it is left: some rounds are written out, and lanes that go on are
        run step by step."""
        w = self._writer
        left, following = w.scratch("loop left", 1), w.scratch("round left", 1)
        self._flags[id(s)] = left, following
        w.set(left, bit(False))
        stop = [left, *(f for f in w.flags_of(s) if f not in (left, following))]

        def unless_stopped(work: Callable[[], None]) -> None:
            w.add(ir.If(s.pos, none_of(stop), w.inner(work), None))

        for _ in range(_ROUNDS_WRITTEN):
            w.set(following, bit(False))
            unless_stopped(lambda: self._leave_unless(s, left))
            unless_stopped(lambda: w.statements(s.body))
        unless_stopped(lambda: self._leave_unless(s, left))
        w.escape(none_of(stop))
        self._flags.pop(id(s))

    def _leave_unless(self, s: t.Loop, left: Signal) -> None:
        if s.condition is None:
            return
        c = self._writer.value(s.condition)
        self._writer.set(left, bit(not c.value) if c.known else not_(same(c.digits, bit(True))))

    def jump(self, s: t.Jump) -> None:
        """Raise the flag of an exit or next statement."""
        flag = self._flags[id(s.loop)][0 if s.kind == "exit" else 1]
        if s.condition is None:
            self._writer.set(flag, bit(True))
            return
        c = self._writer.value(s.condition)
        self._writer.set(flag, either(ir.Ref(1, flag), c.digits if not c.known else bit(bool(c.value))))
