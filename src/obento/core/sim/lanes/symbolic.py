"""Run a process body on symbols: its effect, for every lane at once, as literals of a graph."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from functools import partial
from typing import Protocol

from obento.core.ir.nodes import (
    Assign,
    Block,
    Case,
    Disable,
    Expr,
    Function,
    If,
    Label,
    Loop,
    Repeat,
    Stmt,
    SystemCall,
    SystemTask,
    Target,
    TaskCall,
)
from obento.core.ir.signal import Signal
from obento.core.limits import LimitReached, Limits, TimeIsUp
from obento.core.sim.bench import memory_files
from obento.core.sim.lanes.bits import ZERO, Bit, BitOps, BitWord, Unfit, X
from obento.core.sim.lanes.graph import FALSE, TRUE
from obento.core.sim.lanes.words import Words, Writes

_MOST_CONDITIONAL_ROUNDS = 64
_DEEPEST_CALL = 32
_MOST_LEFT_ROUNDS = 2_048
"""Rounds of a loop that some lanes have left."""


class Surroundings(Protocol):
    """What a body reads from outside and whom it tells of its changes. Bits are numbered over the whole design."""

    def read(self, bit: int) -> Bit:
        """The value of a bit that the body has not certainly written yet."""
        ...

    def watched(self, bit: int) -> Bit | None:
        """The value outside of a bit whose changes the surroundings wants to hear of; None for all others."""
        ...

    def changed(self, bit: int, old: Bit, new: Bit, active: int) -> None:
        """A blocking write to a watched bit, in the lanes of `active`."""
        ...


@dataclass(slots=True)
class Effect:
    """What a body did at once, and what it left for the non-blocking update.

    `each` has all non-blocking writes of a bit one by one: what is overwritten at once still is an event.
    """

    blocking: Writes = field(default_factory=dict)
    later: Writes = field(default_factory=dict)
    each: dict[int, list[tuple[Bit, int]]] = field(default_factory=dict)


@dataclass(slots=True)
class _Leaving:
    """A block that may be left before its end, and the lanes that have left it."""

    label: Label
    lanes: int = FALSE


_LOOK_AT_CLOCK = 200
"""Statements between two looks at the clock."""


class Symbolic(Words):
    """Executes one body. A branch works on a layer of its own, merged when it ends. `files` are those that it may
    read, where that can be told."""

    def __init__(
        self, ops: BitOps, surroundings: Surroundings, limits: Limits, files: Mapping[str, str] | None = None
    ) -> None:
        super().__init__(ops)
        self._world = surroundings
        self._limits = limits
        self._files = files
        self._layers: list[Writes] = [{}]
        self._later_layers: list[Writes] = [{}]
        self._each: dict[int, list[tuple[Bit, int]]] = {}
        self._active = TRUE
        self._depth = 0
        self._calls: list[Function] = []
        self._rounds = 0
        self._done = 0
        self._left: list[_Leaving] = []
        self._own_since = 0
        self._owned: dict[int, set[int]] = {}
        self._counters: set[int] = set()

    def run(self, body: Stmt) -> Effect:
        """Run a whole body from its beginning; it must not wait.

        Raises
        ------
        LimitReached
            If it goes round too often or nests too deep for this way of running it.
        """
        try:
            self._statement(body)
        except RecursionError:
            raise LimitReached("this nests too deep to be run for all cases at once") from None
        return Effect(self._layers[0], self._later_layers[0], self._each)

    # Reading and writing bits.

    def _find(self, bit: int) -> tuple[Bit, int] | None:
        for layer in reversed(self._layers):
            hit = layer.get(bit)
            if hit is not None:
                return hit
        return None

    def _read_bit(self, bit: int) -> Bit:
        hit = self._find(bit)
        if hit is None:
            return self._world.read(bit)
        value, written = hit
        if written == TRUE or self.g.is_tautology(written):
            return value
        return self.ops.choose(written, value, self._world.read(bit))

    def _write_bit(self, bit: int, value: Bit, condition: int, blocking: bool) -> None:
        if not blocking:
            before = self._find_later(bit)
            self._later_layers[-1][bit] = self._over(before, value, condition)
            self._each.setdefault(bit, []).append((value, self.g.and_(self._active, condition)))
            return
        before = self._find(bit)
        old = self._current(bit, before)
        self._layers[-1][bit] = self._over(before, value, condition)
        if old is not None:
            self._world.changed(bit, old, value, self.g.and_(self._active, condition))

    def _current(self, bit: int, before: tuple[Bit, int] | None) -> Bit | None:
        """The value before a write, where the surroundings wants to hear of changes."""
        outside = self._world.watched(bit)
        if outside is None or before is None:
            return outside
        return self.ops.choose(before[1], before[0], outside)

    def _over(self, before: tuple[Bit, int] | None, value: Bit, condition: int) -> tuple[Bit, int]:
        if condition == TRUE:
            return value, TRUE
        if before is None:
            return value, condition
        return self.ops.choose(condition, value, before[0]), self.g.or_(condition, before[1])

    def _find_later(self, bit: int) -> tuple[Bit, int] | None:
        for layer in reversed(self._later_layers):
            hit = layer.get(bit)
            if hit is not None:
                return hit
        return None

    # Statements.

    def _statement(self, s: Stmt | None) -> None:
        self._done += 1
        if not self._done % _LOOK_AT_CLOCK and self._limits.expired():
            raise TimeIsUp("it takes too long to be put side by side", s.position if s is not None else 0)
        match s:
            case None:
                return
            case Block():
                self._block(s)
            case Disable():
                self._leave(s)
            case Assign():
                self._assign(s)
            case If():
                self._if(s)
            case Case():
                self._case(s)
            case Loop():
                self._loop(s, 0)
            case Repeat():
                self._repeat(s)
            case TaskCall():
                self._task(s)
            case SystemTask():
                self._system_task(s.call)
            case _:
                raise Unfit(type(s).__name__)

    def _block(self, s: Block) -> None:
        if s.label is not None and s.label.used:
            self._labelled(s.label, s.body)
            return
        for inner in s.body:
            if self._left and self._all_gone():
                return
            self._statement(inner)

    def _labelled(self, label: Label, body: list[Stmt]) -> None:
        """A block that lanes may leave: what they do not come to any more is not written in them."""
        self._left.append(_Leaving(label))
        for inner in body:
            if self._all_gone():
                break
            self._statement(inner)
        self._left.pop()

    def _leave(self, s: Disable) -> None:
        for leaving in reversed(self._left):
            if leaving.label is s.label:
                here = self.g.and_(self._active, self._gone(self._left) ^ 1)
                leaving.lanes = self.g.or_(leaving.lanes, here)
                return
        raise Unfit("Disable")

    def _gone(self, left: list[_Leaving]) -> int:
        """The lanes that have left one of these blocks."""
        return self.g.any_of(leaving.lanes for leaving in left) if left else FALSE

    def _all_gone(self) -> bool:
        return bool(self._left) and self.g.and_(self._active, self._gone(self._left) ^ 1) == FALSE

    def _stays(self, signal: Signal) -> int:
        """The lanes in which a write counts. What belongs to a function, or to a loop, is not known any more where
        those were left, so it does not matter there."""
        if not self._left:
            return TRUE
        left = self._left
        if self._calls and signal.id in self._storage():
            left = left[self._own_since :]
        elif signal.id in self._counters:
            left = [leaving for leaving in left if leaving.label.name == "continue"]
        return self._gone(left) ^ 1

    def _storage(self) -> set[int]:
        """What is new in each call of the function at hand."""
        f = self._calls[-1]
        known = self._owned.get(id(f))
        if known is None:
            known = self._owned[id(f)] = {s.id for s in (f.storage() if f.automatic else f.params)}
        return known

    def _system_task(self, call: SystemCall) -> None:
        """Memories take what stands in a file that is the same for every case; what else writes nothing changes nothing
        of a circuit."""
        if any(a.targets for a in call.args):
            raise Unfit(call.name)
        memory = call.args[1].memory if call.name in memory_files.TASKS else None
        if memory is None:
            return
        loaded = memory_files.known_load(call, self._files) if self._files is not None else None
        if loaded is None:
            raise Unfit(call.name)
        signal = memory[0]
        for low, (one, zero) in loaded.elements:
            bits = [(one >> i & 1, zero >> i & 1) for i in range(signal.element)]
            self._write(Target(signal, low, signal.element), bits, True)

    def _repeat(self, s: Repeat) -> None:
        count = self.expr(s.count)
        if any(one > TRUE or zero > TRUE for one, zero in count):
            raise Unfit("a repetition whose count depends on the inputs")
        known = all(one ^ zero for one, zero in count)
        times = sum(one << i for i, (one, _) in enumerate(count)) if known else 0
        if s.signed and known and count[-1][0]:
            times = 0
        if times > self._limits.loop_rounds:
            raise LimitReached(f"this loop runs more than {self._limits.loop_rounds} rounds", s.position)
        for _ in range(times):
            if self._all_gone():
                return
            self._statement(s.body)

    def _task(self, s: TaskCall) -> None:
        found = self._called(s.task, s.args, s.task.outputs)
        for value, signed, targets in zip(found, s.task.outputs_signed, s.results, strict=True):
            missing = sum(t.width for t in targets) - len(value)
            self._spread(targets, value + [value[-1] if signed else ZERO] * missing, True)

    def _called(self, f: Function, args: list[Expr], results: list[Signal]) -> list[BitWord]:
        """The results of a call. An automatic one that calls itself finds its own storage as it was when it goes on."""
        nested = f.automatic and any(f is g for g in self._calls)
        before = [(s, self._read(s)) for s in f.storage()] if nested else []
        self._calls.append(f)
        self._enter(f, args)
        self._calls.pop()
        found = [self._read(s) for s in results]
        for signal, bits in before:
            self._write(Target(signal, 0, signal.width), bits, True)
        return found

    def _enter(self, f: Function, args: list[Expr]) -> None:
        """Run the body of a function or task on these arguments; its results are then in its own storage."""
        if self._depth >= _DEEPEST_CALL:
            raise Unfit("calls itself")
        given = [self.expr(a) for a in args]
        if f.automatic:
            for signal in f.storage():
                self._write(Target(signal, 0, signal.width), [ZERO if signal.two_state else X] * signal.width, True)
        for param, arg in zip(f.params, given, strict=True):
            self._write(Target(param, 0, param.width), arg, True)
        self._depth += 1
        before, self._own_since = self._own_since, len(self._left)
        if f.label is not None and f.label.used and f.body is not None:
            self._labelled(f.label, [f.body])
        else:
            self._statement(f.body)
        self._own_since = before
        self._depth -= 1

    def _if(self, s: If) -> None:
        self._branch(self.ops.is_true(self.expr(s.cond)), s.then, s.other)

    def _branch(self, condition: int, then: Stmt | None, other: Stmt | None) -> None:
        if condition == TRUE:
            return self._statement(then)
        if condition == FALSE:
            return self._statement(other)
        taken = self._layer(condition, lambda: self._statement(then))
        untaken = self._layer(condition ^ 1, lambda: self._statement(other))
        self._merge(condition, taken, untaken)
        return None

    def _layer(self, condition: int, body: Callable[[], None]) -> tuple[Writes, Writes]:
        active = self._active
        self._active = self.g.and_(active, condition)
        self._layers.append({})
        self._later_layers.append({})
        body()
        self._active = active
        return self._layers.pop(), self._later_layers.pop()

    def _merge(self, condition: int, taken: tuple[Writes, Writes], untaken: tuple[Writes, Writes]) -> None:
        for a, b, into, find in (
            (taken[0], untaken[0], self._layers[-1], self._find),
            (taken[1], untaken[1], self._later_layers[-1], self._find_later),
        ):
            for bit in a.keys() | b.keys():
                before = find(bit)
                va, wa = a.get(bit) or before or (None, FALSE)
                vb, wb = b.get(bit) or before or (None, FALSE)
                # Where a side never wrote, its value does not matter: take the other's.
                value = vb if va is None else va if vb is None else self.ops.choose(condition, va, vb)
                assert value is not None
                into[bit] = value, self.g.mux(condition, wa, wb)

    def _case(self, s: Case) -> None:
        subject = self.expr(s.subject)
        # Arms are merged from the last to the first, each against "none before matched"; done without recursion, since
        # a table may have thousands of arms.
        conditions: list[int] = []
        layers = []
        none_yet = TRUE
        for arm in s.arms:
            match = self.g.any_of(self._label_matches(s.match, subject, self.expr(label)) for label in arm.labels)
            if match == FALSE:
                continue
            conditions.append(match)
            taken = self.g.and_(none_yet, match)
            layers.append(self._layer(taken, partial(self._statement, arm.body)))
            none_yet = self.g.and_(none_yet, match ^ 1)
            if none_yet == FALSE:
                break
        rest = self._layer(none_yet, lambda: self._statement(s.default))
        complete = none_yet != FALSE and s.default is None and self.g.is_tautology(none_yet ^ 1)
        if (complete or none_yet == FALSE) and layers:
            rest = layers.pop()
            conditions.pop()
        for condition, layer in zip(reversed(conditions), reversed(layers), strict=True):
            self._layers.append({})
            self._later_layers.append({})
            self._merge(condition, layer, rest)
            rest = self._layers.pop(), self._later_layers.pop()
        self._layers[-1].update(rest[0])
        self._later_layers[-1].update(rest[1])

    def _label_matches(self, match: str, subject: BitWord, label: BitWord) -> int:
        if match == "ceq":
            return self.ops.identical(subject, label)
        return self.ops.matches_casez(subject, label) if match == "casez" else self.ops.matches_casex(subject, label)

    def _loop(self, s: Loop, conditional: int) -> None:
        rounds = 0
        self._counters |= {signal.id for signal in s.own}
        while True:
            condition = self.ops.is_true(self.expr(s.cond))
            if condition == FALSE or self._all_gone():
                return
            if condition != TRUE:
                condition = self.g.and_(condition, self._gone(self._left) ^ 1)
                break
            rounds += 1
            self._rounds += 1
            if rounds > _MOST_LEFT_ROUNDS and self._gone(self._left) != FALSE:
                raise Unfit("a loop whose end depends on the inputs")
            if rounds > self._limits.loop_rounds or self._rounds > 64 * self._limits.loop_rounds:
                raise LimitReached(
                    f"this loop ran more than {self._limits.loop_rounds} rounds",
                    s.position,
                    "does its condition ever become false?",
                )
            self._statement(s.body)
        if conditional >= _MOST_CONDITIONAL_ROUNDS:
            raise Unfit("a loop whose end depends on the inputs")

        def once() -> None:
            self._statement(s.body)
            self._loop(s, conditional + 1)

        self._merge(condition, self._layer(condition, once), self._layer(condition ^ 1, lambda: None))

    def _assign(self, s: Assign) -> None:
        if s.timing is not None:
            raise Unfit("waits")
        self._spread(s.targets, self.expr(s.value), s.blocking)

    def _spread(self, targets: list[Target], value: BitWord, blocking: bool) -> None:
        low = sum(t.width for t in targets)
        for target in targets:
            low -= target.width
            self._write(target, value[low : low + target.width], blocking)

    def _write(self, t: Target, value: BitWord, blocking: bool) -> None:
        first, size = t.signal.offset, t.signal.width
        stays = self._stays(t.signal)
        for low, reached in self._reached(t):
            here = self.g.and_(reached, stays)
            for i in range(max(0, -low), min(t.width, size - low)):
                self._write_bit(first + low + i, value[i], here, blocking)

    def _reached(self, t: Target) -> list[tuple[int, int]]:
        """Where a target may lie: pairs of its lowest digit and the literal of "it lies there"."""
        reached = [(t.low, TRUE)]
        for o in t.offsets:
            index = self.expr(o.index)
            span = range(o.window - o.width + 1) if o.window else range(-t.low - t.width + 1, t.signal.width - t.low)
            places = self._places(index, o.signed, o.base, o.step, span)
            reached = [(low + offset, self.g.and_(before, here)) for low, before in reached for offset, here in places]
        return reached
