"""`unique`, `unique0` and `priority`: that one branch is taken, and one alone, is looked at in the run (IEEE 1800-2017
clauses 12.4.2 and 12.5.3). What is taken is the same without them."""

from __future__ import annotations

from obento.core import values
from obento.core.ir import nodes as ir
from obento.core.verilog.lowering.lowered import Expressions
from obento.core.verilog.syntax import ast

_MOST = 64
"""Branches that are held against each other."""


def looked_at(x: Expressions, s: ast.If | ast.Case, made: ir.Stmt | None) -> ir.Stmt | None:
    """A statement with the reports that the word before it asks for."""
    if isinstance(made, ir.Case):
        tests = [_any(made, arm) for arm in made.arms]
        if made.default is None and s.check != "unique0":
            made.default = _report(x, s, "no arm has this value")
        is_clear = _are_distinct(made)
    else:
        tests = []
        link = made
        while isinstance(link, ir.If):
            tests.append(_bit(link.cond))
            if link.other is None and s.check != "unique0":
                link.other = _report(x, s, "none of the conditions holds")
                break
            link = link.other
        is_clear = False
    if s.check == "priority" or is_clear or made is None or len(tests) > _MOST:
        return made
    total: ir.Expr = ir.Const(32, *values.word(0, 32))
    for test in tests:
        total = ir.Binary(32, "add", total, ir.Extend(32, ir.Binary(1, "ceq", test, ir.Const(1, 1, 0)), False))
    several = ir.Binary(1, "lt", ir.Const(32, *values.word(1, 32)), total)
    what = "arms have this value" if isinstance(made, ir.Case) else "of the conditions hold"
    return ir.Block(s.start, [ir.If(s.start, several, _report(x, s, f"several {what}"), None), made])


def _bit(e: ir.Expr) -> ir.Expr:
    return e if e.width == 1 else ir.Unary(1, "ror", e)


def _any(case: ir.Case, arm: ir.CaseArm) -> ir.Expr:
    tests: list[ir.Expr] = [ir.Binary(1, case.match, case.subject, label) for label in arm.labels]
    found = tests[0]
    for test in tests[1:]:
        found = ir.Binary(1, "or", found, test)
    return found


def _are_distinct(case: ir.Case) -> bool:
    """Whether the labels are constants of which no two can be met by one value."""
    labels = [label for arm in case.arms for label in arm.labels]
    if case.match != "ceq" or not all(isinstance(label, ir.Const) for label in labels):
        return False
    return len({(label.one, label.zero) for label in labels if isinstance(label, ir.Const)}) == len(labels)


def _report(x: Expressions, s: ast.If | ast.Case, text: str) -> ir.Stmt:
    kind = s.kind if isinstance(s, ast.Case) else "if"
    what = ir.Argument(text=f"`{s.check} {kind}`: {text}")
    call = ir.SystemCall(32, "$violation", [what], x.scope.path, x.scope.times[0], s.start)
    return ir.SystemTask(s.start, call, True)
