"""Run a function body on constants: calls of functions in constant expressions (IEEE 1364-2005 clause 10.4.5)."""

from __future__ import annotations

import copy
from contextlib import suppress
from dataclasses import dataclass, field

from obento.core import values as v
from obento.core.ir.evaluate import NotConstant, evaluate
from obento.core.ir.nodes import (
    Assign,
    Block,
    Call,
    Case,
    Const,
    Disable,
    Expr,
    Function,
    If,
    Label,
    Loop,
    Mux,
    Repeat,
    Stmt,
    Target,
)
from obento.core.ir.signal import Signal
from obento.core.ir.walks import children, walk
from obento.core.limits import LimitReached, Limits
from obento.core.values import Word


class _Left(Exception):
    """On the way out of a block."""

    def __init__(self, label: Label) -> None:
        super().__init__(label.name)
        self.label = label


@dataclass
class Interpreter:
    """Evaluates expressions with calls of functions that read nothing but their arguments."""

    limits: Limits
    _steps: int = 0
    _frames: list[dict[int, Word]] = field(default_factory=list)
    _calling: dict[int, tuple[Expr, bool]] = field(default_factory=dict)

    def value(self, e: Expr) -> Word:
        """The value of a constant expression.

        Raises
        ------
        NotConstant, LimitReached
        """
        return evaluate(self._without_calls(e), self._read)

    def _calls(self, e: Expr) -> bool:
        """Whether anything in an expression is a call; a loop asks this of the same expression again and again. The
        expression is kept, lest another one comes to lie in its place."""
        known = self._calling.get(id(e))
        if known is None:
            known = self._calling[id(e)] = (e, any(isinstance(part, Call) for part in walk(e)))
        return known[1]

    def _without_calls(self, e: Expr) -> Expr:
        if not self._calls(e):
            return e
        if isinstance(e, Mux):
            truth = v.v_ror(self.value(e.cond), e.cond.width)
            if truth != v.X1:
                return self._without_calls(e.a if truth == v.ONE1 else e.b)
        if isinstance(e, Call):
            args = [self.value(a) for a in e.args]
            return Const(e.width, *self._call(e.function, args))
        return _with_children(e, [self._without_calls(c) for c in children(e)])

    def _read(self, signal: Signal) -> Word:
        if self._frames and signal.id in self._frames[-1]:
            return self._frames[-1][signal.id]
        raise NotConstant(signal.name)

    def _call(self, function: Function, args: list[Word]) -> Word:
        if len(self._frames) >= self.limits.call_depth:
            raise LimitReached(f"`{function.name}` calls itself too deep", function.position)
        if function.result is None:
            raise NotConstant(function.name)
        frame = {s.id: s.initial or v.X1 for s in function.storage()}
        frame |= {p.id: a for p, a in zip(function.params, args, strict=True)}
        self._frames.append(frame)
        with suppress(_Left):
            self._run(function.body)
        return self._frames.pop()[function.result.id]

    def _run(self, s: Stmt | None) -> None:
        self._steps += 1
        if self._steps > self.limits.constant_steps:
            raise LimitReached("this constant takes too many steps to work out", s.position if s else 0)
        match s:
            case None:
                return
            case Block():
                try:
                    for inner in s.body:
                        self._run(inner)
                except _Left as left:
                    if left.label is not s.label:
                        raise
            case Assign():
                self._assign(s)
            case If():
                truth = v.v_ror(self.value(s.cond), s.cond.width)
                self._run(s.then if truth == v.ONE1 else s.other)
            case Case():
                self._case(s)
            case Loop():
                while v.v_ror(self.value(s.cond), s.cond.width) == v.ONE1:
                    self._run(s.body)
            case Repeat():
                count = self.value(s.count)
                for _ in range(count[0] if v.is_known(count, s.count.width) else 0):
                    self._run(s.body)
            case Disable():
                raise _Left(s.label)
            case _:
                raise NotConstant(type(s).__name__)

    def _case(self, s: Case) -> None:
        subject = self.value(s.subject)
        for arm in s.arms:
            if any(v.BINARY[s.match](subject, self.value(label), label.width) == v.ONE1 for label in arm.labels):
                return self._run(arm.body)
        return self._run(s.default)

    def _assign(self, s: Assign) -> None:
        value = self.value(s.value)
        low = s.value.width
        for t in s.targets:
            low -= t.width
            self._write(t, v.select(value, 0, low, t.width))

    def _write(self, t: Target, part: Word) -> None:
        old = self._read(t.signal)
        at = t.low
        for offset in t.offsets:
            index = self.value(offset.index)
            if not v.is_known(index, offset.index.width):
                return
            number = v.signed_value(index[0], offset.index.width) if offset.signed else index[0]
            at += (number - offset.base) * offset.step
        if not 0 <= at <= t.signal.width - t.width:
            return
        mask = v.ones(t.width) << at
        self._frames[-1][t.signal.id] = (old[0] & ~mask | part[0] << at, old[1] & ~mask | part[1] << at)


def _with_children(e: Expr, new: list[Expr]) -> Expr:
    """A copy of an expression over other operands."""
    made = copy.copy(e)
    for name in ("a", "b", "cond", "index", "enable"):
        old = getattr(e, name, None)
        if isinstance(old, Expr):
            position = next(i for i, c in enumerate(children(e)) if c is old)
            setattr(made, name, new[position])
    for name in ("parts", "args", "drivers"):
        if isinstance(getattr(e, name, None), list) and not isinstance(e, Call):
            setattr(made, name, new)
    return made
