"""What waits, and what is waited for: delays, events, conditions, assertions that are reported later (IEEE 1364-2005
clause 9.7, 1800-2017 clauses 9.4, 15.5 and 16.4)."""

from __future__ import annotations

from dataclasses import replace
from typing import Protocol

from obento.core.ir import nodes as ir
from obento.core.ir.drivers import stretches_read, watches_of
from obento.core.ir.signal import Signal, Watch
from obento.core.values import word
from obento.core.verilog.lowering.effects import Effects
from obento.core.verilog.lowering.expressions import ExpressionLowering
from obento.core.verilog.model.scope import Scope, Vector
from obento.core.verilog.syntax import ast


class Watching(Protocol):
    """The module around, as far as what is waited for needs it."""

    def watches(self, terms: list[ast.EventTerm], x: ExpressionLowering) -> list[Watch]:
        """What an event control waits for."""
        ...

    def counted(self, event: Signal, position: int, scope: Scope) -> tuple[Signal, Signal]:
        """A count of how often an event is to be triggered, and one that triggers it when it changes."""
        ...


class Statements(Protocol):
    """Statements inside of those that wait."""

    def statement(self, s: ast.Stmt | None) -> ir.Stmt | None:
        """A lowered statement."""

    def by_kind(self, s: ast.Stmt) -> ir.Stmt | None:
        """A statement by itself, without what its expressions do first."""


class WaitLowering:
    """Statements that wait, in one process, function or task."""

    def __init__(self, x: ExpressionLowering, around: Watching, effects: Effects, statements: Statements) -> None:
        self._x = x
        self._around = around
        self._effects = effects
        self._statements = statements

    def _lowered(self, s: ast.Stmt | None) -> ir.Stmt:
        return self._statements.statement(s) or ir.Block(s.start if s else 0, [])

    def deferred(self, s: ast.Deferred) -> ir.Stmt:
        """What an assertion says when the step of time is over (1800 clause 16.4)."""
        made = self._statements.by_kind(s.body)
        if not isinstance(made, ir.SystemTask):
            text = "a deferred assertion calls a system task here"
            raise self._x.error("not-yet", text, s.body, "`$error(...)`, or `assert (...)` without `#0`")
        made.deferred = True
        return made

    def in_order(self, s: ast.WaitOrder) -> ir.Stmt:
        """Events one after the other: what is awaited next has to come before those behind it (1800 clause 15.5.4)."""
        signals = [self._event(e) for e in s.events]
        failed = ir.Label("wait_order")
        failed.used = True
        body: list[ir.Stmt] = []
        for i, event in enumerate(s.events):
            body.append(ir.Await(s.start, [Watch(signal, "any", 0, 1) for signal in signals[i:]]))
            missed = ir.Block(s.start, [self._lowered(s.other), ir.Disable(s.start, failed)])
            body.append(ir.If(s.start, self._x.typed.triggered(event), None, missed))
        return ir.Block(s.start, [*body, self._lowered(s.then)], failed)

    def _event(self, e: ast.Expr, text: str = "this is no event") -> Signal:
        entry = self._x.entry(e) if isinstance(e, ast.Name | ast.Dotted) else None
        if not isinstance(entry, Vector) or entry.kind != "event":
            raise self._x.error("not-an-event", text, e, "declare it with `event`")
        return entry.signal

    def timed(self, s: ast.Timed) -> ir.Stmt:
        """A statement behind its timing."""
        terms = s.timing.control.terms if s.timing.control is not None else None
        if terms is not None and len(terms) == 1 and terms[0].only_if is not None:
            return ir.Block(s.start, [self._only_if(s.timing), self._lowered(s.body)])
        return ir.Block(s.start, [self.timing(s.timing), self._lowered(s.body)])

    def _only_if(self, t: ast.Timing) -> ir.Stmt:
        """`@(posedge clk iff ready)`: it goes on waiting where that is not so (1800 clause 9.4.2.3)."""
        assert t.control is not None and t.control.terms is not None
        (first,) = t.control.terms
        assert first.only_if is not None
        came = ir.Label("iff")
        came.used = True
        waited = self._around.watches([replace(first, only_if=None)], self._x)
        met = ir.If(t.start, self._x.truth(first.only_if), ir.Disable(t.start, came), None)
        loop = ir.Loop(t.start, ir.Const(1, 1, 0), ir.Block(t.start, [ir.Await(t.start, waited), met]))
        return ir.Block(t.start, [loop], came)

    def timing(self, t: ast.Timing) -> ir.Delay | ir.Await | ir.WaitUntil:
        """A wait, by itself or inside of an assignment."""
        outside = self._effects.begin()
        try:
            made = self._waited(t)
        finally:
            before = self._effects.end(outside)
        if before:
            raise self._x.error("effect-outside", "what is waited for cannot write to a variable", t)
        return made

    def _waited(self, t: ast.Timing) -> ir.Delay | ir.Await | ir.WaitUntil:
        x = self._x
        if t.delay is not None:
            amount = x.reals.lower(t.delay) if x.reals.is_real(t.delay) else x.self_determined(t.delay)
            tick, step = self._x.scope.times
            return ir.Delay(t.start, amount, tick, step)
        if t.wait is not None:
            cond = x.truth(t.wait)
            return ir.WaitUntil(t.start, cond, watches_of(stretches_read(cond)))
        assert t.control is not None
        if t.control.terms is None:
            raise self._x.error("star-inside", "`@*` stands behind `always` only", t, "name what is waited for")
        count = x.self_determined(t.count) if t.count is not None else None
        return ir.Await(t.start, self._around.watches(t.control.terms, x), count)

    def trigger(self, s: ast.Trigger) -> ir.Stmt:
        """`-> event`; `->> event` counts on, and whoever sees the count triggers it (1800 clause 15.5.1)."""
        event = self._event(s.event, "`->` triggers an event, and this is none")
        if not s.later:
            return ir.Trigger(s.start, event)
        timing = self.timing(s.timing) if s.timing is not None else None
        if isinstance(timing, ir.WaitUntil):
            raise self._x.error("bad-timing", "`wait` cannot stand inside of this", s)
        asked, told = self._around.counted(event, s.start, self._x.scope)
        more = ir.Binary(32, "add", ir.Ref(32, asked), ir.Const(32, *word(1, 32)))
        count = ir.Assign(s.start, [ir.Target(asked, 0, 32)], more)
        tell = ir.Assign(s.start, [ir.Target(told, 0, 32)], ir.Ref(32, asked), False, timing)
        return ir.Block(s.start, [count, tell])
