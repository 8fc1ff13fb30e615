"""Loops (IEEE 1364-2005 clause 9.6, 1800-2017 clauses 12.7 and 12.8)."""

from __future__ import annotations

from typing import Protocol

from obento.core.ir import nodes as ir
from obento.core.ir.signal import Signal
from obento.core.verilog.lowering.collection_statements import CollectionStatements
from obento.core.verilog.lowering.effects import Effects
from obento.core.verilog.lowering.expressions import ExpressionLowering
from obento.core.verilog.lowering.system_calls import dimensions_of
from obento.core.verilog.model.scope import Vector
from obento.core.verilog.syntax import ast
from obento.core.words import counted


class Statements(Protocol):
    """Statements inside of loops."""

    def some(self, s: ast.Stmt | None) -> ir.Stmt:
        """A lowered statement, an empty block where there is none."""

    def assign(self, s: ast.Assign) -> ir.Stmt:
        """An assignment."""


class LoopLowering:
    """The loops of one process, function or task. `open` are the labels by which the loops around are left and gone on
    with."""

    def __init__(
        self, x: ExpressionLowering, effects: Effects, collections: CollectionStatements, statements: Statements
    ) -> None:
        self._x = x
        self._effects = effects
        self._collections = collections
        self._statements = statements
        self.open: list[tuple[ir.Label, ir.Label]] = []

    def counted_loop(self, s: ast.For) -> ir.Stmt:
        """`for (...; ...; ...) body`."""
        for one in s.init:
            if isinstance(one.target, ast.Name) and self._x.scope.find(one.target.name) is None:
                name = one.target.name
                here = (
                    f"write `for (int {name} = ...`" if self._x.scope.system_verilog else f"declare `integer {name};`"
                )
                raise self._x.error("undeclared", f"`{name}` is not declared", one.target, here)
        init = [self._statements.some(one) for one in s.init]
        return ir.Block(s.start, [*init, self.loop(s, s.cond, s.body, s.step, self._own_counters(s))])

    def _own_counters(self, s: ast.For) -> list[Signal]:
        """What the head of a loop declares: gone when the loop is."""
        names = [init.target.name for init in s.init if isinstance(init.target, ast.Name)]
        found = [self._x.scope.entries.get(name) for name in names]
        return [e.signal for e in found if isinstance(e, Vector) and e.start >= s.start]

    def loop(
        self,
        s: ast.Stmt,
        cond: ast.Expr | None,
        body: ast.Stmt | None,
        step: list[ast.Assign],
        own: list[Signal] | None = None,
    ) -> ir.Stmt:
        """A loop with its condition, and what is done after each round."""
        out, on = ir.Label("break"), ir.Label("continue")
        self.open.append((out, on))
        inner = self._statements.some(body)
        self.open.pop()
        if on.used:
            inner = ir.Block(s.start, [inner], on)
        if step:
            inner = ir.Block(s.start, [inner, *map(self._statements.some, step)])
        outside = self._effects.begin()
        condition = ir.Const(1, 1, 0) if cond is None else self._x.truth(cond)
        before = self._effects.end(outside)
        if before:
            out.used = True
            inner = ir.Block(s.start, [*before, ir.If(s.start, condition, inner, ir.Disable(s.start, out))])
            condition = ir.Const(1, 1, 0)
        loop: ir.Stmt = ir.Loop(s.start, condition, inner, own or [])
        return ir.Block(s.start, [loop], out) if out.used else loop

    def foreach(self, s: ast.Foreach) -> ir.Stmt:
        """A loop in a loop for each dimension that is named, from its left end to its right one (1800 clause
        12.7.3)."""
        shape = self._x.shape_of(s.array)
        is_collection = shape is not None and not shape.dims and shape.type.collected is not None
        ends = [(0, 0)] if is_collection else dimensions_of(shape) if shape is not None else []
        if len(s.names) > len(ends):
            text = f"{len(s.names)} indices for {counted(len(ends), 'dimension')}"
            raise self._x.error("no-dimension", text, s, "give one name for each dimension")
        out, on = ir.Label("break"), ir.Label("continue")
        of = shape.type.collected if shape is not None and not shape.dims else None
        if of is not None:
            self._collections.declare_counter(s, of)
        self.open.append((out, on))
        made = self._statements.some(s.body)
        self.open.pop()
        if on.used:
            made = ir.Block(s.start, [made], on)
        if of is not None:
            made = self._collections.for_each(s, of, made)
            return ir.Block(s.start, [made], out) if out.used else made
        for name, (left, right) in reversed(list(zip(s.names, ends, strict=False))):
            if name is not None:
                made = self._counted(name, left, right, made, s)
        return ir.Block(s.start, [made], out) if out.used else made

    def _counted(self, name: str, left: int, right: int, body: ir.Stmt, s: ast.Foreach) -> ir.Stmt:
        """`body` for each value of a name from one end to the other."""
        counter = ast.Name(s.start, s.start, name)

        def number(n: int) -> ast.Expr:
            one = n & (1 << 32) - 1
            return ast.Number(s.start, s.start, None, True, one, one ^ (1 << 32) - 1, 32)

        up = left <= right
        cond = ast.Binary(s.start, s.start, "<=" if up else ">=", counter, number(right))
        step = ast.Assign(
            s.start, s.start, counter, ast.Binary(s.start, s.start, "+" if up else "-", counter, number(1)), True
        )
        init = self._statements.assign(ast.Assign(s.start, s.start, counter, number(left), True))
        round_ = ir.Block(s.start, [body, self._statements.assign(step)])
        return ir.Block(s.start, [init, ir.Loop(s.start, self._x.truth(cond), round_)])

    def repeat(self, s: ast.RepeatTimes) -> ir.Stmt:
        """`repeat (count) body`."""
        out, on = ir.Label("break"), ir.Label("continue")
        self.open.append((out, on))
        body = self._statements.some(s.body)
        self.open.pop()
        if on.used:
            body = ir.Block(s.start, [body], on)
        loop: ir.Stmt = ir.Repeat(s.start, self._x.self_determined(s.count), self._x.size(s.count)[1], body)
        return ir.Block(s.start, [loop], out) if out.used else loop
