"""`always` and `initial` (IEEE 1364-2005 clauses 9.9 and 11)."""

from __future__ import annotations

from typing import TYPE_CHECKING

from obento.core.ir import nodes as ir
from obento.core.ir.design import Process
from obento.core.ir.drivers import body_watches, targets, waits
from obento.core.verilog import ast
from obento.core.verilog.lower_statements import StatementLowering
from obento.core.verilog.scope import Scope

if TYPE_CHECKING:
    from obento.core.verilog.module_body import ModuleBody


def build(body: ModuleBody, p: ast.Process, scope: Scope) -> None:
    """Add a process to the design."""
    lowering = StatementLowering(body.x(scope), body)
    if p.kind == "final":
        body.collector.note("final", "`final` blocks are passed over", p.start)
    elif p.kind == "initial":
        lowered = lowering.statement(p.body) or ir.Block(p.start, [])
        body.b.process(Process("initial", lowered, [], p.start, p.kind, scope.path))
    elif p.kind in ("always_comb", "always_latch"):
        _combinational(body, p, lowering, scope)
    else:
        _always(body, p, lowering, scope)


def _combinational(body: ModuleBody, p: ast.Process, lowering: StatementLowering, scope: Scope) -> None:
    lowered = lowering.statement(p.body) or ir.Block(p.start, [])
    if waits(lowered):
        raise body.error("comb-waits", f"`{p.kind}` waits by itself and cannot wait for anything inside", p, "take `@` and `#` out")
    own = {id(t.signal) for t in targets(lowered)}
    watches = [w for w in body_watches(lowered) if id(w.signal) not in own and not w.signal.automatic]
    body.b.process(Process("continuous", lowered, watches, p.start, p.kind, scope.path))


def _always(body: ModuleBody, p: ast.Process, lowering: StatementLowering, scope: Scope) -> None:
    s = p.body
    if isinstance(s, ast.Timed) and s.timing.control is not None:
        terms = s.timing.control.terms
        inner = lowering.statement(s.body) or ir.Block(p.start, [])
        watches = body_watches(inner) if terms is None else body.watches(terms, body.x(scope))
        watches = [w for w in watches if not w.signal.automatic]
        if not waits(inner):
            body.b.process(Process("always", inner, watches, p.start, p.kind, scope.path))
            return
        _forever(body, p, ir.Block(p.start, [ir.Await(s.start, watches), inner]), scope)
        return
    if s is None or (isinstance(s, ast.Block) and not s.body and not s.name):
        raise body.error("always-empty", "this `always` does nothing, without end", p, "take it out")
    lowered = lowering.statement(s) or ir.Block(p.start, [])
    if not waits(lowered):
        raise body.error("always-no-event", "this `always` waits for nothing", p, "write `always @*` or `always @(posedge clk)`")
    _forever(body, p, lowered, scope)


def _forever(body: ModuleBody, p: ast.Process, lowered: ir.Stmt, scope: Scope) -> None:
    body.b.process(Process("forever", lowered, [], p.start, p.kind, scope.path))
