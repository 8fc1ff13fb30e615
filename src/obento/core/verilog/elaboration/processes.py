"""`always` and `initial` (IEEE 1364-2005 clauses 9.9 and 11)."""

from __future__ import annotations

from dataclasses import replace

from obento.core.ir import nodes as ir
from obento.core.ir.design import Process
from obento.core.ir.drivers import (
    body_watches,
    expressions,
    functions_called_for_values,
    statements,
    stretches_read,
    targets,
    waits,
    watches_of,
)
from obento.core.verilog.elaboration.module_context import ModuleContext
from obento.core.verilog.lowering.statements import StatementLowering
from obento.core.verilog.model.errors import ElaborationError
from obento.core.verilog.model.scope import Scope
from obento.core.verilog.syntax import ast


def build(body: ModuleContext, p: ast.Process, scope: Scope) -> None:
    """Add a process to the design."""
    lowering = StatementLowering(body.x(scope), body)
    if p.kind == "final":
        lowered = lowering.statement(p.body) or ir.Block(p.start, [])
        if waits(lowered):
            raise body.error(
                "final-waits", "`final` runs in no time and cannot wait (1800 clause 9.2.3)", p, "take `@` and `#` out"
            )
        body.b.design.finals.append(Process("initial", lowered, [], p.start, p.kind, scope.path))
    elif p.kind == "initial":
        lowered = lowering.statement(p.body) or ir.Block(p.start, [])
        body.b.process(Process("initial", lowered, [], p.start, p.kind, scope.path))
    elif p.kind in ("always_comb", "always_latch"):
        _combinational(body, p, lowering, scope)
    else:
        _always(body, p, lowering, scope)


def _combinational(body: ModuleContext, p: ast.Process, lowering: StatementLowering, scope: Scope) -> None:
    lowered = lowering.statement(p.body) or ir.Block(p.start, [])
    if waits(lowered):
        raise body.error(
            "comb-waits", f"`{p.kind}` waits by itself and cannot wait for anything inside", p, "take `@` and `#` out"
        )
    used = functions_called_for_values(lowered)
    bodies = [lowered, *(f.body for f in used)]
    own = {id(t.signal) for b in bodies for t in targets(b)} | {id(s) for f in used for s in f.storage()}
    inside = [
        r for f in used for s in statements(f.body) for e in expressions(s) for r in stretches_read(e)
    ]  # 1800 clause 9.2.2.2.1
    found = {(w.signal.id, w.low, w.width): w for w in (*body_watches(lowered), *watches_of(inside))}
    watches = [w for w in found.values() if id(w.signal) not in own and not w.signal.automatic]
    body.b.process(Process("continuous", lowered, watches, p.start, p.kind, scope.path))


def _always(body: ModuleContext, p: ast.Process, lowering: StatementLowering, scope: Scope) -> None:
    s = p.body
    if p.kind == "always_ff" and (
        not isinstance(s, ast.Timed) or s.timing.control is None or s.timing.control.terms is None
    ):
        raise body.error(
            "ff-event",
            "`always_ff` begins with one event control (1800 clause 9.2.2.4)",
            p,
            "write `always_ff @(posedge clk)`",
        )
    if isinstance(s, ast.Timed) and s.timing.control is not None:
        terms = s.timing.control.terms
        inner = lowering.statement(s.body) or ir.Block(p.start, [])
        if terms is not None and len(terms) == 1 and terms[0].only_if is not None:
            cond, terms = body.x(scope).truth(terms[0].only_if), [replace(terms[0], only_if=None)]
            inner = ir.If(p.start, cond, inner, None)
        watches = body_watches(inner) if terms is None else body.watches(terms, body.x(scope))
        watches = [w for w in watches if not w.signal.automatic]
        if terms is None:
            body.warn_of_deaf_calls(inner, "`@*`", s.start)
        if p.kind == "always_ff":
            _no_blocking_timing(body, inner)
        if not waits(inner):
            body.b.process(Process("always", inner, watches, p.start, p.kind, scope.path))
            return
        _forever(body, p, ir.Block(p.start, [ir.Await(s.start, watches), inner]), scope)
        return
    if s is None or (isinstance(s, ast.Block) and not s.body and not s.name):
        raise body.error("always-empty", "this `always` does nothing, without end", p, "take it out")
    lowered = lowering.statement(s) or ir.Block(p.start, [])
    if not waits(lowered):
        raise body.error(
            "always-no-event", "this `always` waits for nothing", p, "write `always @*` or `always @(posedge clk)`"
        )
    _forever(body, p, lowered, scope)


def _no_blocking_timing(body: ModuleContext, inner: ir.Stmt) -> None:
    """Nothing inside `always_ff` may hold it up; `q <= #1 d` does not (1800 clause 9.2.2.4)."""
    for s in statements(inner):
        held_up = isinstance(s, ir.Delay | ir.Await | ir.WaitUntil | ir.Fork) or (
            isinstance(s, ir.Assign) and s.timing is not None and s.blocking
        )
        if held_up:
            text = "`always_ff` waits at its head only (1800 clause 9.2.2.4)"
            body.collector.error("ff-waits", text, s.position, None, "take `#` and `@` out of it; `q <= #1 d` may stay")
            raise ElaborationError


def _forever(body: ModuleContext, p: ast.Process, lowered: ir.Stmt, scope: Scope) -> None:
    body.b.process(Process("forever", lowered, [], p.start, p.kind, scope.path))
