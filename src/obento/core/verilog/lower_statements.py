"""Statements to the intermediate representation, and what a process waits for."""

from __future__ import annotations

from collections.abc import Callable

from obento.core.diagnostics import Collector
from obento.core.ir import nodes as ir
from obento.core.verilog import ast
from obento.core.verilog.lower_expressions import ExpressionLowering, Wrong
from obento.core.verilog.scope import Scope, Vector

_SILENT = frozenset(
    [
        "$display",
        "$write",
        "$strobe",
        "$monitor",
        "$displayb",
        "$displayh",
        "$displayo",
        "$writeb",
        "$writeh",
        "$writeo",
        "$dumpfile",
        "$dumpvars",
        "$dumpon",
        "$dumpoff",
        "$timeformat",
        "$finish",
        "$stop",
        "$monitoron",
        "$monitoroff",
        "$fdisplay",
        "$error",
        "$warning",
        "$info",
        "$fatal",
    ]
)
"""System tasks that change nothing of a circuit; a check passes over them."""


class StatementLowering:
    """Lowers the body of one process or function. `declare` gives the scope of a block with declarations of its own."""

    def __init__(self, expressions: ExpressionLowering, declare: Callable[[ast.Block, Scope], Scope]) -> None:
        self._x = expressions
        self._declare = declare
        self._collector: Collector = expressions.collector
        self.scope: Scope = expressions.scope

    def error(self, code: str, text: str, node: ast.Node, hint: str = "") -> Wrong:
        return self._x.error(code, text, node, hint)

    def statement(self, s: ast.Stmt | None) -> ir.Stmt | None:
        """A lowered statement. Several wrong ones inside a block are each reported."""
        match s:
            case None:
                return None
            case ast.Block():
                return self._block(s)
            case ast.Assign():
                return self.assign(s)
            case ast.If():
                cond = self._x.self_determined(s.cond)
                return ir.If(s.start, cond, self.statement(s.then), self.statement(s.other))
            case ast.Case():
                return self._case(s)
            case ast.For():
                step = self.assign(s.step)
                loop = ir.Loop(s.start, self._x.self_determined(s.cond), ir.Block(s.start, [self._some(s.body), step]))
                return ir.Block(s.start, [self.assign(s.init), loop])
            case ast.While():
                if s.cond is None:
                    raise self.error("not-yet", "`forever` is not run in a check by this version", s)
                return ir.Loop(s.start, self._x.self_determined(s.cond), self.statement(s.body))
            case ast.RepeatTimes():
                return self._repeat(s)
            case ast.TaskCall():
                if s.name in _SILENT:
                    return None
                raise self.error("not-yet", f"`{s.name}` is not run in a check by this version", s)
            case ast.Timed():
                what = "`@`" if s.control else "a delay `#`" if s.delay else "`wait`"
                raise self.error(
                    "not-yet", f"{what} inside a process is not run in a check by this version", s,
                    "delays belong into a bench, not into the circuit",
                )  # fmt: skip
            case ast.Other():
                raise self.error("not-yet", f"`{s.what}` is not run in a check by this version", s)
        raise AssertionError(type(s).__name__)

    def _some(self, s: ast.Stmt | None) -> ir.Stmt:
        return self.statement(s) or ir.Block(s.start if s else 0, [])

    def _block(self, s: ast.Block) -> ir.Stmt:
        if s.parallel:
            raise self.error("not-yet", "`fork` is not run in a check by this version", s)
        if s.declarations:
            inside = StatementLowering(self._x.inside(self._declare(s, self.scope)), self._declare)
            return inside._block(ast.Block(s.start, s.end, s.name, [], s.body))
        body: list[ir.Stmt] = []
        wrong = False
        for inner in s.body:
            try:
                lowered = self.statement(inner)
                if lowered is not None:
                    body.append(lowered)
            except Wrong:
                wrong = True
        if wrong:
            raise Wrong
        return ir.Block(s.start, body)

    def assign(self, s: ast.Assign) -> ir.Stmt:
        targets = self._x.targets(s.target)
        self._check_variables(s.target)
        width = sum(t.width for t in targets)
        value = self._x.to_width(s.value, width)
        return ir.Assign(s.start, targets, value, s.blocking)

    def _check_variables(self, target: ast.Expr) -> None:
        for name in names_written(target):
            entry = self.scope.find(name.name)
            if isinstance(entry, Vector) and entry.kind not in ("reg", "logic", "integer", "time", "bit", "function"):
                raise self.error(
                    "net-in-process",
                    f"`{name.name}` is a wire and cannot be written inside a process",
                    name,
                    f"declare it as `reg`: `output reg {name.name}`, or use `assign`",
                )

    def _case(self, s: ast.Case) -> ir.Stmt:
        labels = [label for item in s.items for label in item.labels]
        sizes = [self._x.size(e) for e in (s.subject, *labels)]
        width = max(w for w, _ in sizes)
        signed = all(sign for _, sign in sizes)
        subject = self._x.lower(s.subject, width, signed)
        match = {"case": "ceq", "casez": "casez", "casex": "casex"}[s.kind]
        arms = []
        for item in s.items:
            lowered = [self._x.lower(label, width, signed) for label in item.labels]
            arms.append(ir.CaseArm(lowered, self.statement(item.body), item.start))
        return ir.Case(s.start, match, subject, arms, self.statement(s.default))

    def _repeat(self, s: ast.RepeatTimes) -> ir.Stmt:
        count = self._x.integer(s.count, "the count of `repeat`")
        if count > self._x.limits.loop_rounds:
            raise self.error("loop-too-long", f"`repeat` with {count} rounds is more than can be run", s.count)
        return ir.Block(s.start, [self._some(s.body) for _ in range(max(0, count))])


def names_written(target: ast.Expr) -> list[ast.Name]:
    """The names on a left side."""
    if isinstance(target, ast.Concat):
        return [n for part in target.parts for n in names_written(part)]
    while isinstance(target, ast.Index | ast.Part):
        target = target.base
    return [target] if isinstance(target, ast.Name) else []
