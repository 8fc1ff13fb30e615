"""Functions and tasks (IEEE 1364-2005 clause 10)."""

from __future__ import annotations

from dataclasses import replace

from obento.core.ir import nodes as ir
from obento.core.ir.design import ScopeOfNames
from obento.core.ir.drivers import statements, waits
from obento.core.ir.signal import Signal
from obento.core.values import word
from obento.core.verilog.elaboration.declarations import (
    declare_names,
    declare_variables,
    named_blocks,
    shown_variable,
)
from obento.core.verilog.elaboration.module_context import ModuleContext
from obento.core.verilog.lowering.arguments import gives_back
from obento.core.verilog.lowering.endings import ends_by_itself
from obento.core.verilog.lowering.statements import StatementLowering
from obento.core.verilog.model.errors import ElaborationError
from obento.core.verilog.model.scope import Formal, FunctionEntry, Inside, Scope, Vector
from obento.core.verilog.syntax import ast


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
    is_called_for_value = result is not None and not gives_back(item)
    for declared in item.declarations:
        declaration = declared
        if isinstance(declaration, ast.Parameter):
            body.declare_parameter(declaration, scope)
            continue
        if isinstance(declaration, ast.TypeDefinition | ast.Import):
            declare_names(body, declaration, scope)
            continue
        assert isinstance(declaration, ast.Declaration)
        if not declaration.direction and all(d.name in scope.entries for d in declaration.names):
            _complete(declaration, scope)
            continue  # `input a; reg a;`
        if declaration.direction in ("ref", "const ref"):
            if not item.automatic:
                text = f"`ref` needs storage of its own for each call, and `{item.name}` is static (1800 clause 13.5.2)"
                word = "task" if item.task else "function"
                raise body.error("reference-static", text, declaration, f"write `{word} automatic`")
            by_value = _by_reference(body, entry, declaration)
            if by_value is None:
                continue
            declaration = by_value
        if declaration.direction in ("out", "inout") and not item.task and not body.m.system_verilog:
            raise body.error("function-output", "a function has inputs only", declaration, "its result is its name")
        names = [replace(d, value=None) for d in declaration.names] if declaration.direction else declaration.names
        made = replace(declaration, kind=declaration.kind or "reg", direction="", names=names)
        declare_variables(body, made, scope)
        for d in declaration.names:
            vector = scope.entries.get(d.name)
            if not isinstance(vector, Vector):
                continue
            if declaration.direction:
                entry.formals.append(Formal(d.name, declaration.direction, vector, d.value))
            if declaration.direction in ("in", "inout"):
                params.append(vector.signal)
            if declaration.direction in ("out", "inout"):
                outputs.append(vector.signal)
                outputs_signed.append(vector.signed)
            if not declaration.direction and vector.signal.automatic == item.automatic:
                local.append(vector.signal)
    if result is not None and not is_called_for_value:  # goes back as one output more
        local.append(result)
        if item.type.word != "void":
            outputs.append(result)
            outputs_signed.append(entry.shape.type.signed if entry.shape is not None else False)
        result = None
    return ir.Function(
        item.name,
        params,
        result,
        local,
        None,
        item.start,
        outputs,
        outputs_signed,
        item.automatic,
        ir.Label(item.name),
        item.task,
    )


def _by_reference(body: ModuleContext, entry: FunctionEntry, declaration: ast.Declaration) -> ast.Declaration | None:
    """Arguments that are other names of variables, where those are known; else as they are when values go in and come
    back, which nothing can tell as long as nothing waits."""
    named = [d for d in declaration.names if d.name in entry.same_as]
    for d in named:
        vector = entry.same_as[d.name]
        types = body.x(entry.inner).types
        of = types.shape(declaration.type)
        if not types.declared(of, d.dims).fits(vector.shape):
            text = f"`{d.name}` is given a variable of another type, and is that variable (1800 clause 13.5.2)"
            raise body.error("reference-type", text, entry.asked_at or d)
        entry.inner.entries[d.name] = vector
        entry.formals.append(Formal(d.name, "same", vector, None))
    if named:
        return None
    return replace(declaration, direction="inout" if declaration.direction == "ref" else "in")


def _complete(declaration: ast.Declaration, scope: Scope) -> None:
    for d in declaration.names:
        entry = scope.entries[d.name]
        if isinstance(entry, Vector):
            entry.kind = declaration.kind
            if declaration.type.signed and not entry.signed:
                entry.type = replace(entry.type, signed=True)


def _result(body: ModuleContext, entry: FunctionEntry) -> Signal:
    """The variable that bears the function's name inside it (10.4.1)."""
    item, scope = entry.item, entry.inner
    shape = entry.shape = body.x(entry.scope).types.shape(item.type)
    element = shape.type.width if shape.dims and not item.automatic else 0
    result = body.b.signal(f"{scope.path}.{item.name}", shape.width, "variable", item.start, element=element)
    result.real, result.text = shape.type.is_real, shape.type.is_text
    result.collection = shape.type.collected.runs_as() if shape.type.collected is not None else None
    result.automatic = item.automatic
    if shape.type.two_state:
        result.two_state, result.initial = True, word(0, shape.width)
    vector = scope.entries[item.name] = Vector(result, shape.type, "function", shape.dims, item.start)
    if scope.shown is not None:
        scope.shown.variables.append(shown_variable(item.name, vector, "reg"))
    return result


def _lower_body(body: ModuleContext, entry: FunctionEntry, function: ir.Function) -> None:
    item, scope = entry.item, entry.inner
    result = scope.entries.get(item.name)
    lowering = StatementLowering(body.x(scope), body, function.label, result if isinstance(result, Vector) else None)
    block = ast.Block(item.start, item.end, None, [], item.body)
    values = [s for declaration in item.declarations for s in lowering.entry_values(declaration)]
    function.body = ir.Block(item.start, [*values, lowering.statement(block) or ir.Block(item.start, [])])
    if function.label is not None:
        ends_by_itself(function.body, function.label)
        function.label.used = any(isinstance(s, ir.Disable) for s in statements(function.body))
    function.local += lowering.nameless
    _adopt(function, scope)
    if not item.task:
        _no_waiting(body, item, function)
        _only_computes(body, item, function)


def _adopt(function: ir.Function, scope: Scope) -> None:
    """Variables of blocks inside a function or task belong to it too."""
    for entry in scope.entries.values():
        if isinstance(entry, Inside) and entry.scope is not None:
            inner = [v.signal for v in entry.scope.entries.values() if isinstance(v, Vector)]
            function.local += [s for s in inner if s.automatic == function.automatic]
            _adopt(function, entry.scope)


def _only_computes(body: ModuleContext, item: ast.FunctionItem, function: ir.Function) -> None:
    """A function has an input, calls no task and assigns nothing for later (1364-2005 clause 10.4.4)."""
    if not body.m.system_verilog and not function.params:
        raise body.error(
            "function-inputs", f"the function `{item.name}` has no input (1364-2005 clause 10.4.4)", item, "give it one"
        )
    for s in statements(function.body):
        if isinstance(s, ir.Assign) and not s.blocking:
            body.collector.error(
                "function-later",
                f"`{item.name}` is a function: it cannot write with `<=`",
                s.position,
                None,
                "write `=`",
            )
            raise ElaborationError
        if isinstance(s, ir.TaskCall) and s.task.is_task:
            body.collector.error(
                "function-task",
                f"`{item.name}` is a function: it cannot call a task",
                s.position,
                None,
                "make it a task",
            )
            raise ElaborationError


def _no_waiting(body: ModuleContext, item: ast.FunctionItem, function: ir.Function) -> None:
    if waits(function.body):
        raise body.error(
            "function-waits", f"the function `{item.name}` waits, which only a task may", item, "make a task of it"
        )
