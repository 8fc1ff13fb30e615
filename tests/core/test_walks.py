"""Every walk over a tree has a rule for every kind of node: what is forgotten is found here, and not by a student."""

from __future__ import annotations

import ast
import inspect
import textwrap
from collections.abc import Callable, Iterator

import pytest

from obento.core.exhaustive import no_rule
from obento.core.ir import drivers, nodes, walks
from obento.core.ir.evaluate import evaluate, evaluate_real, evaluate_text
from obento.core.sim.lanes.symbolic import Symbolic
from obento.core.sim.timeline import statements as timeline_statements
from obento.core.sim.timeline.expressions import ExpressionEmitter as TimelineExpressions
from obento.core.verilog.lowering.statements import StatementLowering
from obento.core.verilog.syntax import ast as verilog
from obento.core.vhdl.analysis import reads, subexpressions
from obento.core.vhdl.code.bodies import walk
from obento.core.vhdl.code.expressions import ExpressionEmitter
from obento.core.vhdl.code.statements import Emitter
from obento.core.vhdl.lanes.processes import Lanes
from obento.core.vhdl.model import typed_tree


def kinds(base: type[object]) -> set[str]:
    """The names of all kinds of a node that have no kinds of their own."""
    below: list[type[object]] = base.__subclasses__()
    return set[str]().union(*(kinds(b) for b in below)) if below else {base.__name__}


def named(function: Callable[..., object]) -> Iterator[str]:
    """The kinds that a function names in its cases and `isinstance` tests."""
    for node in ast.walk(ast.parse(textwrap.dedent(inspect.getsource(function)))):
        found: list[ast.expr] = []
        if isinstance(node, ast.MatchClass):
            found = [node.cls]
        elif isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id == "isinstance":
            found = [n for n in ast.walk(node.args[1]) if isinstance(n, ast.Name | ast.Attribute)]
        for x in found:
            yield x.attr if isinstance(x, ast.Attribute) else x.id if isinstance(x, ast.Name) else ""


WAITS = {
    "Delay",
    "Await",
    "WaitUntil",
    "Trigger",
    "Fork",
    "WaitFork",
    "Disable",
    "DisableFork",
    "Hold",
    "LetGo",
    "CollectionTask",
}
"""What a process may do that cannot run in lanes: refused as a whole."""

REALS = {"DigitsReal", "RealConst", "RealDigits", "RealMux", "RealOp", "RealRelation", "Rounded", "ToReal"}
"""Real numbers are no circuits: refused as a whole."""

TEXTS = {"TextConst", "TextOp", "TextValue"}
"""Strings neither."""

WALKS: list[tuple[Callable[..., object], type, set[str]]] = [
    (drivers.statements, nodes.Stmt, set()),
    (drivers.expressions, nodes.Stmt, set()),
    (drivers.targets, nodes.Stmt, set()),
    (Symbolic._statement, nodes.Stmt, WAITS - {"Disable"}),
    (Symbolic.expr, nodes.Expr, REALS | TEXTS | {"SystemCall", "CollectionOp"}),
    (StatementLowering.by_kind, verilog.Stmt, set()),
    (walk, typed_tree.Stmt, set()),
    (reads.read_by, typed_tree.Stmt, set()),
    (Emitter.statement, typed_tree.Stmt, set()),
    (Lanes._plain, typed_tree.Stmt, {"Wait"}),
    (subexpressions.children, typed_tree.Expr, set()),
    (ExpressionEmitter.value, typed_tree.Expr, set()),
]


@pytest.mark.parametrize(("function", "base", "refused"), WALKS, ids=lambda x: getattr(x, "__qualname__", ""))
def test_a_walk_names_every_kind_of_node(function: Callable[..., object], base: type, refused: set[str]) -> None:
    assert kinds(base) - set(named(function)) == refused


SHARED: list[tuple[list[Callable[..., object]], set[str]]] = [
    ([evaluate, evaluate_real, evaluate_text], set()),
    ([TimelineExpressions._expr, TimelineExpressions._real], set()),
]
"""Walks over expressions in several functions: words in one, real numbers in another."""


@pytest.mark.parametrize(("functions", "refused"), SHARED)
def test_walks_over_words_and_reals_name_every_expression(
    functions: list[Callable[..., object]], refused: set[str]
) -> None:
    assert kinds(nodes.Expr) - {name for f in functions for name in named(f)} == refused


TABLES = [
    (timeline_statements._RULES, nodes.Stmt, set()),
    (walks._CHILDREN, nodes.Expr, {"Const", "Ref", "RealConst", "TextConst"}),
]


@pytest.mark.parametrize(("table", "base", "leaves"), TABLES)
def test_a_table_of_rules_has_every_kind_of_node(table: dict[type, object], base: type, leaves: set[str]) -> None:
    assert kinds(base) - {kind.__name__ for kind in table} == leaves


def test_a_forgotten_kind_is_said_at_once() -> None:
    with pytest.raises(AssertionError, match="no rule for int"):
        raise no_rule(3)
