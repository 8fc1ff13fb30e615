"""Functions and tasks (IEEE 1364-2005 clause 10)."""

from __future__ import annotations

from obento.core.ir import nodes as ir
from obento.core.ir.design import ScopeOfNames, Variable
from obento.core.ir.drivers import waits
from obento.core.ir.signal import Signal
from obento.core.values import word
from obento.core.verilog.elaboration.declarations import declare_variables, named_blocks
from obento.core.verilog.elaboration.module_context import ModuleContext
from obento.core.verilog.lowering.statements import StatementLowering
from obento.core.verilog.model.scope import FunctionEntry, Inside, Scope, TypeName, Vector
from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.builtin_types import TWO_STATE, WIDTHS


def register(body: ModuleContext, item: ast.FunctionItem, scope: Scope) -> None:
    """Give a function or task its name and its level of names; its arguments come when it is lowered."""
    if item.name in scope.entries:
        raise body.error("duplicate", f"the name `{item.name}` is taken already", item, "give it another name")
    path = f"{scope.path}.{item.name}"
    shown = ScopeOfNames(item.name, "task" if item.task else "function", path)
    if scope.shown is not None:
        scope.shown.children.append(shown)
    inner = Scope(path, scope, None, shown)
    inner.automatic = item.automatic
    scope.entries[item.name] = FunctionEntry(item, scope, inner)


def lower_function(body: ModuleContext, entry: FunctionEntry) -> ir.Function:
    """The function or task of an entry, lowered the first time it is asked for."""
    if entry.lowered is None:
        entry.lowered = _declared(body, entry)
        body.b.design.functions.append(entry.lowered)
        named_blocks(body, ast.Block(entry.item.start, entry.item.end, None, [], entry.item.body), entry.inner)
        _lower_body(body, entry, entry.lowered)
    return entry.lowered


def _declared(body: ModuleContext, entry: FunctionEntry) -> ir.Function:
    item, scope = entry.item, entry.inner
    params: list[Signal] = []
    outputs: list[Signal] = []
    outputs_signed: list[bool] = []
    local: list[Signal] = []
    result = None if item.task else _result(body, entry)
    for declaration in item.declarations:
        if isinstance(declaration, ast.Parameter):
            body.declare_parameter(declaration, scope)
            continue
        assert isinstance(declaration, ast.Declaration)
        if not declaration.direction and all(d.name in scope.entries for d in declaration.names):
            _complete(declaration, scope)
            continue  # `input a; reg a;`
        if declaration.direction in ("out", "inout") and not item.task:
            raise body.error("function-output", "a function has inputs only", declaration, "its result is its name")
        made = ast.Declaration(
            declaration.start,
            declaration.end,
            declaration.kind or "reg",
            "",
            declaration.signed,
            declaration.range,
            declaration.names,
        )
        declare_variables(body, made, scope)
        for d in declaration.names:
            vector = scope.entries.get(d.name)
            if not isinstance(vector, Vector):
                continue
            if declaration.direction in ("in", "inout"):
                params.append(vector.signal)
            if declaration.direction in ("out", "inout"):
                outputs.append(vector.signal)
                outputs_signed.append(vector.signed)
            if not declaration.direction:
                local.append(vector.signal)
    return ir.Function(
        item.name, params, result, local, None, item.start, outputs, outputs_signed, item.automatic, ir.Label(item.name)
    )


def _complete(declaration: ast.Declaration, scope: Scope) -> None:
    for d in declaration.names:
        entry = scope.entries[d.name]
        if isinstance(entry, Vector):
            entry.kind = declaration.kind
            entry.signed = entry.signed or declaration.signed


def _result(body: ModuleContext, entry: FunctionEntry) -> Signal:
    """The variable that bears the function's name inside it (10.4.1)."""
    item, scope = entry.item, entry.inner
    width = WIDTHS.get(item.kind, 1)
    msb, lsb = width - 1, 0
    signed = item.signed
    named = entry.scope.find(item.kind) if item.kind else None
    if isinstance(named, TypeName):
        msb, lsb, signed = named.msb, named.lsb, named.signed
    elif item.range is not None:
        msb, lsb, _ = body.range(item.range, entry.scope)
    width = abs(msb - lsb) + 1
    entry.signed = signed
    result = body.b.signal(f"{scope.path}.{item.name}", width, "variable", item.start)
    kind = named.kind if isinstance(named, TypeName) else item.kind
    result.real = kind in ("real", "realtime")
    result.automatic = item.automatic
    if kind in TWO_STATE:
        result.two_state, result.initial = True, word(0, width)
    entry.enum = named.enum if isinstance(named, TypeName) else None
    scope.entries[item.name] = Vector(result, msb, lsb, signed, "function", [], item.start, enum=entry.enum)
    if scope.shown is not None:
        scope.shown.variables.append(Variable(item.name, result, "reg", msb, lsb))
    return result


def _lower_body(body: ModuleContext, entry: FunctionEntry, function: ir.Function) -> None:
    item, scope = entry.item, entry.inner
    result = scope.entries.get(item.name)
    statements = StatementLowering(body.x(scope), body, function.label, result if isinstance(result, Vector) else None)
    block = ast.Block(item.start, item.end, None, [], item.body)
    function.body = statements.statement(block)
    _adopt(function, scope)
    if not item.task:
        _no_waiting(body, item, function)


def _adopt(function: ir.Function, scope: Scope) -> None:
    """Variables of blocks inside a function or task belong to it too."""
    for entry in scope.entries.values():
        if isinstance(entry, Inside) and entry.scope is not None:
            function.local += [v.signal for v in entry.scope.entries.values() if isinstance(v, Vector)]
            _adopt(function, entry.scope)


def _no_waiting(body: ModuleContext, item: ast.FunctionItem, function: ir.Function) -> None:
    if waits(function.body):
        raise body.error(
            "function-waits", f"the function `{item.name}` waits, which only a task may", item, "make a task of it"
        )
