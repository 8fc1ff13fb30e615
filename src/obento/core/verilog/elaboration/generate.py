"""Generate constructs (IEEE 1364-2005 clause 12.4)."""

from __future__ import annotations

from obento.core import values
from obento.core.ir import nodes as ir
from obento.core.ir.design import ScopeOfNames
from obento.core.limits import LimitReached
from obento.core.verilog.elaboration.module_context import ModuleContext
from obento.core.verilog.model.scope import Genvar, Inside, Parameter, Scope
from obento.core.verilog.syntax import ast


def build(body: ModuleContext, item: ast.Item, scope: Scope, unnamed: str) -> None:
    """Elaborate a generate construct; a block without a name is called `unnamed`."""
    match item:
        case ast.GenerateFor():
            _for(body, item, scope, unnamed)
        case ast.GenerateIf():
            chosen = item.then if body.x(scope).integer(item.cond, "a generate condition") else item.other
            _chosen(body, chosen, scope, unnamed)
        case ast.GenerateCase():
            _case(body, item, scope, unnamed)
        case ast.GenerateBlock():
            _chosen(body, item, scope, unnamed)


def _inside(scope: Scope, label: str, start: int) -> Scope:
    """The level of names of one generated block."""
    path = f"{scope.path}.{label}"
    shown = ScopeOfNames(label, "begin", path)
    if scope.shown is not None:
        scope.shown.children.append(shown)
    inner = Scope(path, scope, None, shown)
    scope.entries[label] = Inside(inner, start)
    return inner


def _chosen(body: ModuleContext, block: ast.GenerateBlock | None, scope: Scope, unnamed: str) -> None:
    if block is None:
        return
    only = block.items[0] if len(block.items) == 1 else None
    if block.name is None and isinstance(only, ast.GenerateIf | ast.GenerateCase):
        build(body, only, scope, unnamed)  # `else if` makes no level of its own (12.4.2)
        return
    label = block.name or unnamed
    if label in scope.entries:
        raise body.error("duplicate", f"the name `{label}` is taken already", block, "give the block another name")
    body.nested.items(body, block.items, _inside(scope, label, block.start))


def _for(body: ModuleContext, item: ast.GenerateFor, scope: Scope, unnamed: str) -> None:
    if not isinstance(item.init.target, ast.Name):
        raise body.error("bad-target", "a generate loop counts with a genvar", item.init)
    name = item.init.target.name
    if not item.declares and not isinstance(scope.find(name), Genvar):
        hint = f"declare it before the loop: genvar {name};"
        raise body.error(
            "genvar", f"a generate loop counts with a genvar, and `{name}` is none", item.init.target, hint
        )
    label = item.body.name or unnamed
    if label in scope.entries:
        raise body.error("duplicate", f"the name `{label}` is taken already", item.body, "give the block another name")
    inner = Scope(scope.path, scope)
    value = body.x(scope).integer(item.init.value, "the start of a generate loop")
    rounds = 0
    while True:
        counter = inner.entries[name] = Parameter(ir.Const(32, *values.word(value, 32)), True, item.start)
        if not body.x(inner).integer(item.cond, "the condition of a generate loop"):
            return
        rounds += 1
        if rounds > body.b.limits.generate_rounds:
            raise LimitReached(f"this generate loop runs more than {body.b.limits.generate_rounds} rounds", item.start)
        block = _inside(scope, f"{label}[{value}]", item.body.start)
        block.entries[name] = counter
        body.nested.items(body, item.body.items, block)
        following = body.x(inner).integer(item.step.value, "the step of a generate loop")
        if following == value:
            raise LimitReached(
                "this generate loop does not move on", item.start, f"its step leaves `{name}` at {value}"
            )
        value = following


def _case(body: ModuleContext, item: ast.GenerateCase, scope: Scope, unnamed: str) -> None:
    x = body.x(scope)
    subject = x.integer(item.subject, "what a generate case looks at")
    for labels, block in item.arms:
        if any(x.integer(label, "a case label") == subject for label in labels):
            _chosen(body, block, scope, unnamed)
            return
    _chosen(body, item.default, scope, unnamed)
