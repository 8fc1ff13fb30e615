"""Run a process body on symbols: its effect, for every lane at once, as literals of a graph."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from functools import partial, reduce
from typing import Protocol

from obento.core import values
from obento.core.ir.evaluate import evaluate
from obento.core.ir.nodes import (
    Assign,
    Binary,
    Block,
    Call,
    Case,
    Concat,
    Const,
    Expr,
    Extend,
    Function,
    If,
    Loop,
    Mux,
    Pick,
    Power,
    Ref,
    Repeat,
    Resolve,
    Shift,
    Slice,
    Stmt,
    SystemTask,
    Target,
    TaskCall,
    Tristate,
    Unary,
    calls_something,
)
from obento.core.ir.signal import Signal
from obento.core.limits import LimitReached, Limits
from obento.core.sim.lanes.bits import ONE, ZERO, Bit, BitOps, BitWord, Unfit, X
from obento.core.sim.lanes.graph import FALSE, TRUE

_MOST_CONDITIONAL_ROUNDS = 64
_WIDEST_TABLE = 12
_DEEPEST_CALL = 32
_PULL_STRENGTH = 5


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


Writes = dict[int, tuple[Bit, int]]
"""Bit -> its value and the literal of the lanes in which it was written."""


@dataclass(slots=True)
class Effect:
    """What a body did at once, and what it left for the non-blocking update.

    `each` has all non-blocking writes of a bit one by one: what is overwritten at once still is an event.
    """

    blocking: Writes = field(default_factory=dict)
    later: Writes = field(default_factory=dict)
    each: dict[int, list[tuple[Bit, int]]] = field(default_factory=dict)


class Symbolic:
    """Executes one body. A branch works on a layer of its own, merged when it ends."""

    def __init__(self, ops: BitOps, surroundings: Surroundings, limits: Limits) -> None:
        self.ops = ops
        self.g = ops.g
        self._world = surroundings
        self._limits = limits
        self._layers: list[Writes] = [{}]
        self._later_layers: list[Writes] = [{}]
        self._each: dict[int, list[tuple[Bit, int]]] = {}
        self._active = TRUE
        self._depth = 0
        self._calls: list[Function] = []
        self._rounds = 0

    def run(self, body: Stmt) -> Effect:
        """Run a whole body from its beginning; it must not wait."""
        self._statement(body)
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

    def _read(self, signal: Signal) -> BitWord:
        return [self._read_bit(b) for b in range(signal.offset, signal.offset + signal.width)]

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
        match s:
            case None:
                return
            case Block():
                for inner in s.body:
                    self._statement(inner)
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
                if any(a.targets for a in s.call.args) or s.call.name.startswith("$readmem"):
                    raise Unfit(s.call.name)  # any other changes nothing of a circuit
            case _:
                raise Unfit(type(s).__name__)

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
        self._statement(f.body)
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
        while True:
            condition = self.ops.is_true(self.expr(s.cond))
            if condition == FALSE:
                return
            if condition != TRUE:
                break
            rounds += 1
            self._rounds += 1
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
        for low, here in self._reached(t):
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

    def _places(self, index: BitWord, signed: bool, base: int, step: int, offsets: range) -> list[tuple[int, int]]:
        """Where a computed offset may point: pairs of offset and the literal of "it points there"."""
        known = self.ops.all_known(index)
        if known == FALSE:
            return []
        n = len(index)
        if all(bit[0] < 2 for bit in index):
            value = sum(bit[0] << i for i, bit in enumerate(index)) - ((1 << n) if signed and index[-1][0] else 0)
            offset = (value - base) * step
            return [(offset, known)] if offset in offsets else []
        offset_of: dict[int, int] = {}
        for offset in _multiples(step, offsets):
            value = base + offset // step
            if -(1 << n - 1) <= value < 1 << n - 1 if signed else 0 <= value < 1 << n:
                offset_of[value & ((1 << n) - 1)] = offset
        here = self._decoded(known, [bit[0] for bit in index], offset_of)
        return [(offset, here[value]) for value, offset in offset_of.items() if value in here]

    def _decoded(self, known: int, digits: list[int], values: Iterable[int]) -> dict[int, int]:
        """Of some values the literal of "the digits spell it"; those that they cannot spell are left out. Values that
        begin alike share what tells their beginning."""
        found = {0: known}
        for i in range(len(digits) - 1, -1, -1):
            wanted = {value >> i for value in values}
            longer: dict[int, int] = {}
            for value, here in found.items():
                for digit in (0, 1):
                    if 2 * value + digit in wanted:
                        literal = self.g.and_(here, digits[i] ^ 1 ^ digit)
                        if literal != FALSE:
                            longer[2 * value + digit] = literal
            found = longer
        return found

    # Expressions.

    def expr(self, e: Expr) -> BitWord:
        """The digits of an expression, lowest first."""
        ops = self.ops
        match e:
            case Ref():
                return self._read(e.signal)
            case Const():
                return [(e.one >> i & 1, e.zero >> i & 1) for i in range(e.width)]
            case Binary():
                return self._binary(e)
            case Unary():
                return self._unary(e)
            case Mux():
                truth = ops.truth(self.expr(e.cond))
                if calls_something(e.a) or calls_something(e.b):
                    if TRUE in truth:
                        return self.expr(e.a if truth[0] == TRUE else e.b)
                    a, b = self._where(truth[1] ^ 1, e.a), self._where(truth[0] ^ 1, e.b)
                    return [ops.merge(truth, x, y) for x, y in zip(a, b, strict=True)]
                return [ops.merge(truth, x, y) for x, y in zip(self.expr(e.a), self.expr(e.b), strict=True)]
            case Concat():
                return [bit for part in reversed(e.parts) for bit in self.expr(part)]
            case Slice():
                return self._slice(e)
            case Extend():
                word = self.expr(e.a)
                fill = word[-1] if e.signed and word else ZERO
                return word + [fill] * (e.width - len(word))
            case Pick():
                return self._pick(e)
            case Shift():
                return self._shift(e)
            case Tristate():
                return self._tristate(e)
            case Call():
                return self._call(e)
            case Power():
                return self._power(e)
            case Resolve():
                return self._resolve(e)
        raise Unfit(type(e).__name__)

    def _where(self, condition: int, e: Expr) -> BitWord:
        """An expression evaluated in some lanes only, since its calls may have effects."""
        if condition == TRUE:
            return self.expr(e)
        found: list[BitWord] = []
        taken = self._layer(condition, lambda: found.append(self.expr(e)))
        self._merge(condition, taken, ({}, {}))
        return found[0]

    def _slice(self, e: Slice) -> BitWord:
        if isinstance(e.a, Ref):  # read only the bits asked for
            first, size = e.a.signal.offset, e.a.signal.width
            return [self._read_bit(first + e.low + i) if 0 <= e.low + i < size else X for i in range(e.width)]
        word = self.expr(e.a)
        return [word[e.low + i] if 0 <= e.low + i < len(word) else X for i in range(e.width)]

    def _unary(self, e: Unary) -> BitWord:
        ops, a = self.ops, self.expr(e.a)
        match e.op:
            case "not":
                return [ops.not_(bit) for bit in a]
            case "lnot":
                return [ops.not_(ops.truth(a))]
            case "ror":
                return [ops.truth(a)]
            case "rand":
                result = ONE
                for bit in a:
                    result = ops.and_(result, bit)
                return [result]
            case "rxor":
                result = ZERO
                for bit in a:
                    result = ops.xor(result, bit)
                return [result]
            case "two":
                return [ops.flag(ops.g.and_(bit[0], bit[1] ^ 1)) for bit in a]
            case "neg":
                return ops.guarded(ops.negate([b[0] for b in a]), ops.all_known(a))
        raise AssertionError(e.op)

    def _binary(self, e: Binary) -> BitWord:
        ops, g, op = self.ops, self.g, e.op
        a, b = self.expr(e.a), self.expr(e.b)
        bitwise = {"and": ops.and_, "or": ops.or_, "xor": ops.xor, "resolve": ops.resolve}.get(op)
        if bitwise:
            return [bitwise(x, y) for x, y in zip(a, b, strict=True)]
        match op:
            case "eq":
                return [ops.equal(a, b)]
            case "ne":
                return [ops.not_(ops.equal(a, b))]
            case "ceq":
                return [ops.flag(ops.identical(a, b))]
            case "casez":
                return [ops.flag(ops.matches_casez(a, b))]
            case "casex":
                return [ops.flag(ops.matches_casex(a, b))]
        la, lb = [x[0] for x in a], [y[0] for y in b]
        known = ops.all_known(a, b)
        match op:
            case "add":
                return ops.guarded(ops.add(la, lb)[0], known)
            case "sub":
                return ops.guarded(ops.add(la, [y ^ 1 for y in lb], TRUE)[0], known)
            case "mul":
                return ops.guarded(ops.multiply(la, lb), known)
            case "lt" | "slt" | "le" | "sle":
                if op[0] == "s":
                    la, lb = [*la[:-1], la[-1] ^ 1], [*lb[:-1], lb[-1] ^ 1]
                less = ops.less(la, lb) if op[-1] == "t" else ops.less(lb, la) ^ 1
                return ops.guarded([less], known)
            case "div" | "mod" | "sdiv" | "smod":
                known = g.and_(known, g.any_of(lb))
                q, r = ops.signed_divide(la, lb) if op[0] == "s" else ops.divide(la, lb)
                return ops.guarded(q if op.endswith("div") else r, known)
        raise AssertionError(op)

    def _shift(self, e: Shift) -> BitWord:
        ops = self.ops
        a, b = self.expr(e.a), self.expr(e.b)
        fill = a[-1] if e.op == "sar" else ZERO
        width = len(a)
        for i, (amount, _) in enumerate(b):
            if amount == FALSE:
                continue
            n = min(1 << min(i, 30), width)
            moved = [fill] * n + a[: width - n] if e.op == "shl" else a[n:] + [fill] * n
            a = [ops.choose(amount, m, x) for m, x in zip(moved, a, strict=True)]
        known = ops.all_known(b)
        return a if known == TRUE else [ops.choose(known, bit, X) for bit in a]

    def _pick(self, e: Pick) -> BitWord:
        ops = self.ops
        index = self.expr(e.index)
        signal = e.a.signal if isinstance(e.a, Ref) else None
        word = self.expr(e.a)
        size = signal.width if signal else len(word)
        n = len(index)
        known = ops.all_known(index)
        if n <= _WIDEST_TABLE:
            lits = [b[0] for b in index]
            out: BitWord = []
            for i in range(e.width):
                table: BitWord = []
                for raw in range(1 << n):
                    at = values.signed_value(raw, n) if e.index_signed else raw
                    low = (at - e.base) * e.step + i
                    table.append(word[low] if 0 <= low < size else X)
                for lit in lits:
                    table = [ops.choose(lit, table[k + 1], table[k]) for k in range(0, len(table), 2)]
                out.append(table[0])
        else:
            out = [X] * e.width
            for low, here in self._places(index, e.index_signed, e.base, e.step, range(1 - e.width, size)):
                for i in range(e.width):
                    if 0 <= low + i < size:
                        out[i] = ops.choose(here, word[low + i], out[i])
        return out if known == TRUE else [ops.choose(known, bit, X) for bit in out]

    def _tristate(self, e: Tristate) -> BitWord:
        ops = self.ops
        one, zero = ops.truth(self.expr(e.enable))
        floating: Bit = (TRUE, TRUE)
        return [
            ops.choose(self.g.or_(one, ops.floats(bit)), bit, ops.choose(zero, floating, X)) for bit in self.expr(e.a)
        ]

    def _call(self, e: Call) -> BitWord:
        assert e.function.result is not None
        return self._called(e.function, e.args, [e.function.result])[0]

    def _resolve(self, e: Resolve) -> BitWord:
        """Drivers whose 0 and 1 are equally strong: those of the next strength count where the stronger ones float."""
        ops = self.ops
        words = [self.expr(d) for d in e.drivers]
        if e.net in ("wand", "triand", "wor", "trior"):
            wired = ops.wired_and if e.net in ("wand", "triand") else ops.wired_or
            return [reduce(wired, bits) for bits in zip(*words, strict=True)]
        if any(s0 != s1 for s0, s1 in e.strengths) or e.net == "trireg":
            raise Unfit("strengths that depend on the value")
        floating: BitWord = [(TRUE, TRUE)] * e.width
        might = [floating if m is None else self.expr(m) for m in e.might]
        levels: dict[int, list[tuple[BitWord, BitWord]]] = {}
        for word, other, (strength, _) in zip(words, might, e.strengths, strict=True):
            levels.setdefault(strength, []).append((word, other))
        pull = {"tri0": ZERO, "tri1": ONE}.get(e.net)
        if pull is not None:
            levels.setdefault(_PULL_STRENGTH, []).append(([pull] * e.width, floating))
        strongest_first = [levels[strength] for strength in sorted(levels, reverse=True)]
        return [
            ops.resolved([[(word[i], other[i]) for word, other in level] for level in strongest_first])
            for i in range(e.width)
        ]

    def _power(self, e: Power) -> BitWord:
        if isinstance(e.a, Const) and isinstance(e.b, Const):
            return self.expr(Const(e.width, *evaluate(e)))
        b = self.expr(e.b)
        if e.b_signed and b[-1][0] != FALSE:
            raise Unfit("a power with a signed exponent")
        ops = self.ops
        a = self.expr(e.a)
        base = [x[0] for x in a]
        result = [TRUE] + [FALSE] * (len(a) - 1)
        for i, (digit, _) in enumerate(b):
            if digit != FALSE:
                product = ops.multiply(result, base)
                result = [self.g.mux(digit, p, r) for p, r in zip(product, result, strict=True)]
            if any(d != FALSE for d, _ in b[i + 1 :]):
                base = ops.multiply(base, base)
        return ops.guarded(result, ops.all_known(a, b))


def _multiples(step: int, offsets: range) -> range:
    """Those of some offsets, one after the other, that are multiples of a step."""
    apart = abs(step)  # an array that is numbered downwards has a negative step
    return range(offsets.start + -offsets.start % apart, offsets.stop, apart)
