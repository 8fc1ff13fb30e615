"""Expressions on symbols (IEEE 1364-2005 clause 5): the digits of a value as literals of a graph, one lane a case."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Callable, Iterable
from functools import reduce

from obento.core import values
from obento.core.ir.evaluate import evaluate
from obento.core.ir.nodes import (
    Binary,
    Call,
    Concat,
    Const,
    Expr,
    Extend,
    Function,
    Mux,
    Pick,
    Power,
    Ref,
    Resolve,
    Shift,
    Slice,
    Tristate,
    Unary,
)
from obento.core.ir.signal import Signal
from obento.core.ir.walks import calls_something
from obento.core.sim.lanes.bits import ONE, ZERO, Bit, BitOps, BitWord, Unfit, X
from obento.core.sim.lanes.graph import FALSE, TRUE

_WIDEST_TABLE = 12
_PULL_STRENGTH = 5

Writes = dict[int, tuple[Bit, int]]
"""Bit -> its value and the literal of the lanes in which it was written."""


class Words(ABC):
    """Evaluates expressions; who derives from it says what is read, and what a call does."""

    def __init__(self, ops: BitOps) -> None:
        self.ops = ops
        self.g = ops.g

    @abstractmethod
    def _read_bit(self, bit: int) -> Bit:
        """The value of a bit of the design now."""

    @abstractmethod
    def _called(self, f: Function, args: list[Expr], results: list[Signal]) -> list[BitWord]:
        """The results of a call."""

    @abstractmethod
    def _layer(self, condition: int, body: Callable[[], None]) -> tuple[Writes, Writes]:
        """What a body writes at once and later, run in the lanes of a condition."""

    @abstractmethod
    def _merge(self, condition: int, taken: tuple[Writes, Writes], untaken: tuple[Writes, Writes]) -> None:
        """Keep what two bodies wrote, each where it was run."""

    def _read(self, signal: Signal) -> BitWord:
        return [self._read_bit(b) for b in range(signal.offset, signal.offset + signal.width)]

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
        number = _constant(index, e.index_signed)
        if number is not None and signal is not None:
            low = (number - e.base) * e.step
            there = range(signal.width)
            return [self._read_bit(signal.offset + i) if i in there else X for i in range(low, low + e.width)]
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

    def _places(self, index: BitWord, signed: bool, base: int, step: int, offsets: range) -> list[tuple[int, int]]:
        """Where a computed offset may point: pairs of offset and the literal of "it points there"."""
        number = _constant(index, signed)
        if number is not None:
            offset = (number - base) * step
            return [(offset, TRUE)] if offset in offsets else []
        known = self.ops.all_known(index)
        if known == FALSE:
            return []
        n = len(index)
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


def _constant(word: BitWord, signed: bool) -> int | None:
    """The number that a word is in every lane; None where it varies, or is not known."""
    number = 0
    for i, (one, zero) in enumerate(word):
        if one | zero != TRUE or one == zero:
            return None
        number |= one << i
    return values.signed_value(number, len(word)) if signed else number


def _multiples(step: int, offsets: range) -> range:
    """Those of some offsets, one after the other, that are multiples of a step."""
    apart = abs(step)  # an array that is numbered downwards has a negative step
    return range(offsets.start + -offsets.start % apart, offsets.stop, apart)
