"""One use of a module: its names first, then what is made of them (IEEE 1364-2005 clauses 4, 6 and 12)."""

from __future__ import annotations

from collections.abc import Callable

from obento.core.diagnostics import Severity
from obento.core.ir import nodes as ir
from obento.core.ir.design import Instance, ScopeOfNames
from obento.core.ir.evaluate import NotConstant, evaluate
from obento.core.limits import LimitReached
from obento.core.sim.bench.display import Formatter, TimeFormat
from obento.core.suggest import did_you_mean
from obento.core.verilog.elaboration import gates, generate, instances, processes
from obento.core.verilog.elaboration.declarations import declare_names, named_blocks
from obento.core.verilog.elaboration.functions import lower_function, register
from obento.core.verilog.elaboration.module_context import Given, ModuleContext, Nested
from obento.core.verilog.lowering.arguments import has_references
from obento.core.verilog.lowering.cut_widths import warn_if_cut
from obento.core.verilog.lowering.statements import names_written
from obento.core.verilog.model.builder import Builder
from obento.core.verilog.model.scope import Broken, FunctionEntry, Inside, Scope, Vector, View
from obento.core.verilog.syntax import ast


def instantiate(
    builder: Builder,
    module: ast.Module,
    name: str,
    parent: Scope,
    given: Given,
    depth: int,
) -> ModuleContext:
    """Declare one use of a module with all below it; its work is left in the builder."""
    builder.instances += 1
    if depth > builder.limits.instance_depth or builder.instances > builder.limits.instances:
        raise LimitReached(f"`{module.name}` is used too deep or too often", module.name_start, "does it use itself?")
    path = f"{parent.path}.{name}" if parent.path else name
    shown = ScopeOfNames(name, "interface" if module.is_interface else "module", path)
    scope = Scope(path, builder.elaborated.get("$unit"), parent, shown)
    scope.package, scope.packages = builder.package, builder.packages
    scope.system_verilog = module.system_verilog
    scope.module = module.name
    scope.times = builder.times(module)
    scope.precision = builder.design.precision
    scope.entries.update(given.interfaces)
    body = ModuleContext(
        builder,
        module,
        scope,
        given,
        Instance(name, module.name, module.name_start),
        shown,
        depth,
        _NESTED,
    )
    declare(body)
    return body


def declare(body: ModuleContext) -> None:
    """Everything that a module declares; what uses it is left as work."""
    for item in body.m.items:
        if isinstance(item, ast.Import):
            body.b.guarded(lambda item=item: body.take_in(item, body.scope))  # type: ignore[misc]
    for item in body.m.items:
        if isinstance(item, ast.FunctionItem):
            body.b.guarded(lambda item=item: register(body, item, body.scope))  # type: ignore[misc]
    for item in body.m.items:
        if isinstance(item, ast.Parameter):
            body.b.guarded(lambda item=item: body.declare_parameter(item, body.scope))  # type: ignore[misc]
        elif isinstance(item, ast.TypeDefinition) and item.type.of is not None:
            continue  # the type of a variable: in its turn, behind that
        elif isinstance(item, ast.TypeDefinition | ast.TypeParameter):
            body.b.guarded(lambda item=item: declare_names(body, item, body.scope))  # type: ignore[misc]
    for item in body.m.items:
        body.b.guarded(lambda item=item: _note_direction(body, item))  # type: ignore[misc]
    _ports_of_expressions(body)
    _every_port_declared(body)
    declare_items(body, body.m.items, body.scope)
    body.joined |= {port for port, e in body.m.port_values.items() if isinstance(e, ast.Name) and e.name in body.joined}


def declare_items(body: ModuleContext, items: list[ast.Item], scope: Scope) -> None:
    """Declare everything of one level, then what is below it; what uses it waits as work."""
    for item in items:
        body.b.guarded(lambda item=item: _declare(body, item, scope))  # type: ignore[misc]
    for item in sorted(items, key=lambda item: not _is_interface(body, item)):  # first what others are connected to
        body.b.guarded(lambda item=item: _elaborate(body, item, scope))  # type: ignore[misc]


def _is_interface(body: ModuleContext, item: ast.Item) -> bool:
    child = body.b.modules.get(item.module) if isinstance(item, ast.Instance) else None
    return isinstance(child, ast.Module) and child.is_interface


def _note_direction(body: ModuleContext, item: ast.Item) -> None:
    if not isinstance(item, ast.Declaration) or not item.direction:
        return
    inside = [n.name for e in body.m.port_values.values() for n in names_written(e) if isinstance(n, ast.Name)]
    for declarator in item.names:
        if declarator.name not in body.m.ports and declarator.name not in inside:
            raise body.error(
                "not-a-port",
                f"`{declarator.name}` is declared as a port but missing in the module's list of ports",
                declarator,
                did_you_mean(declarator.name, body.m.ports),
            )
        body.directions[declarator.name] = (item.direction, declarator)


def _every_port_declared(body: ModuleContext) -> None:
    interfaces = {p.name for p in body.m.items if isinstance(p, ast.InterfacePort)}
    for name, (start, end) in zip(body.m.ports, body.m.port_spans, strict=True):
        inner = body.m.port_values.get(name)
        if name not in interfaces and name not in body.directions and inner is None:
            text = f"port `{name}` has no `input` or `output` declaration"
            body.collector.error("port-undeclared", text, start, end, "declare it in the module")
            body.scope.entries[name] = Broken(start)


def _ports_of_expressions(body: ModuleContext) -> None:
    """Ports written `.name(inner)`: a plain inner name simply goes by another name outside (12.3.3)."""
    for port, e in body.m.port_values.items():
        names = names_written(e)
        first = names[0].name if names and isinstance(names[0], ast.Name) else ""
        if first in body.directions:
            body.directions.setdefault(port, body.directions[first])
        if isinstance(e, ast.Name) and port in body.outside:
            body.outside[e.name] = body.outside[port]


def _declare(body: ModuleContext, item: ast.Item, scope: Scope) -> None:
    match item:
        case ast.Parameter() if scope is not body.scope:
            body.declare_parameter(item, scope)
        case ast.TypeDefinition() | ast.Declaration():
            declare_names(body, item, scope)
        case ast.Modport():
            scope.entries[item.name] = View(item.directions, item.start)
        case ast.TypeParameter() | ast.Import() if scope is not body.scope:
            declare_names(body, item, scope)
        case ast.FunctionItem() if scope is not body.scope:
            register(body, item, scope)
        case ast.Process():
            named_blocks(body, item.body, scope)
        case ast.DefParam():
            made = body.parameter_value(body.x(scope), item.value)
            head = (
                ""
                if item.path[0] == body.scope.path.split(".")[0] and item.path[0] not in scope.entries
                else f"{scope.path}."
            )
            x = body.x(scope)
            path = [
                name if index is None else f"{name}[{x.integer(index, 'the number of a block or instance')}]"
                for name, index in zip(item.path, item.indices, strict=True)
            ]
            body.b.defparams[head + ".".join(path)] = made
        case ast.Instance() | ast.GateInstance() if item.name:
            if item.name in scope.entries:
                raise body.error(
                    "duplicate", f"the name `{item.name}` is taken already", item, "every instance has its own name"
                )
            scope.entries[item.name] = Inside(None, item.start)
        case _:
            pass


def _elaborate(body: ModuleContext, item: ast.Item, scope: Scope) -> None:
    later: Callable[[], None] | None = None
    match item:
        case ast.ContinuousAssign():
            later = lambda: _continuous(body, item, scope)  # noqa: E731
        case ast.Declaration():
            _net_values(body, item, scope)
        case ast.GateInstance():
            later = lambda: gates.build(body, item, scope)  # noqa: E731
        case ast.Instance():
            instances.build(body, item, scope)
        case ast.Process():
            later = lambda: processes.build(body, item, scope)  # noqa: E731
        case ast.FunctionItem():
            entry = scope.entries.get(item.name)
            if isinstance(entry, FunctionEntry):
                later = lambda: _function(body, entry)  # noqa: E731
        case ast.ElaborationTask():
            later = lambda: _said(body, item, scope)  # noqa: E731
        case ast.GenerateFor() | ast.GenerateIf() | ast.GenerateCase() | ast.GenerateBlock():
            number = body.generated[id(scope)] = body.generated.get(id(scope), 0) + 1
            generate.build(body, item, scope, f"genblk{number}")
        case _:
            pass
    if later is not None:
        body.b.later(later)


def _function(body: ModuleContext, entry: FunctionEntry) -> None:
    if not (entry.item.task and has_references(entry)):  # such a task is one for each variable that it is given
        body.callable(entry)


def _said(body: ModuleContext, item: ast.ElaborationTask, scope: Scope) -> None:
    """What a module says of its parameters where it is placed (1800 clause 20.11)."""
    s = item.call
    args = s.args[1:] if s.name == "$fatal" and len(s.args) > 1 and not isinstance(s.args[0], ast.String) else s.args
    lowered = body.x(scope).system.arguments(s.name, args)
    try:
        given = [None if a.value is None else evaluate(a.value) for a in lowered]
    except NotConstant:
        raise body.error("not-constant", "what is said here is made of constants", s) from None
    call = ir.SystemCall(32, s.name, lowered, scope.path, scope.times[0], s.start)
    text = Formatter(TimeFormat(scope.precision), scope.precision).text(call, lowered, given, "d")
    severity: Severity = {"$warning": "warning", "$info": "note"}.get(s.name, "error")  # type: ignore[assignment]
    body.collector.add(severity, "module-says", text or s.name[1:], s.start, s.end, "")


def _net_values(body: ModuleContext, item: ast.Declaration, scope: Scope) -> None:
    for d in item.names:
        entry = scope.entries.get(d.name)
        if item.direction == "in" and (body.connected is None or d.name in body.connected):
            continue
        if item.direction == "in" and d.value is not None and isinstance(entry, Vector):
            body.b.later(lambda entry=entry, value=d.value: _left_open(body, entry, value, scope))  # type: ignore[misc]
            continue
        if d.value is not None and isinstance(entry, Vector) and entry.signal.kind == "net":
            name = ast.Name(d.start, d.start + len(d.name), d.name)
            made = ast.ContinuousAssign(d.start, d.end, name, d.value, item.delays, item.strengths)
            body.b.later(lambda made=made: _continuous(body, made, scope))  # type: ignore[misc]


def _left_open(body: ModuleContext, port: Vector, value: ast.Expr, scope: Scope) -> None:
    """An input that has a value where nothing is connected (1800 clause 23.2.2.4)."""
    target = [ir.Target(port.signal, port.at, port.total)]
    body.b.drive(target, body.x(scope).to_shape(value, port.shape), value.start, "port", scope.path)


def _continuous(body: ModuleContext, item: ast.ContinuousAssign, scope: Scope) -> None:
    x = body.x(scope, implicit=True)
    written = x.targets(item.target)
    x.implicit = None
    for name in names_written(item.target):
        body.check_net(name, scope, "`assign`")
    width = sum(t.width for t in written)
    warn_if_cut(x, item.value, width, item.target.start)
    value = x.settled(item.target, written, x.to_shape(item.value, x.target_shape(item.target)))
    body.warn_of_deaf_calls(ir.Assign(item.start, written, value), "this assignment", item.start)
    delay, strengths = body.delays(item.delays, scope), body.strengths(item.strengths)
    body.b.drive(written, value, item.start, "assign", scope.path, delay, strengths)


def child(body: ModuleContext, module: ast.Module, name: str, scope: Scope, given: Given) -> ModuleContext:
    """Declare an instance in this one."""
    made = instantiate(body.b, module, name, scope, given, body.depth + 1)
    body.instance.children.append(made.instance)
    if scope.shown is not None:
        scope.shown.children.append(made.shown)
    return made


def package(builder: Builder, name: str) -> Scope | None:
    """The names of a package, all declared the first time somebody asks for one (1800 clause 26.2); None where there is
    no such package."""
    known, text = builder.elaborated.get(name), builder.packages.get(name)
    if known is not None or text is None:
        return known
    module = ast.Module(text.start, text.end, text.name, text.name_start, text.name_end, items=text.items)
    module.system_verilog = True
    shown = ScopeOfNames(text.name, "module", text.name)
    is_unit = text.name == "$unit"
    scope = Scope(text.name, None if is_unit else builder.elaborated.get("$unit"), None, shown)
    scope.package, scope.packages = builder.package, builder.packages
    scope.times, scope.precision = builder.times(text), builder.design.precision
    scope.reals, scope.texts, scope.system_verilog = text.reals, text.texts, True
    builder.elaborated[text.name] = scope
    body = ModuleContext(builder, module, scope, Given(), Instance(text.name, text.name, text.start), shown, 0, _NESTED)
    for item in text.items:
        if isinstance(item, ast.FunctionItem):
            builder.guarded(lambda item=item: register(body, item, scope))  # type: ignore[misc]
    for item in text.items:
        if isinstance(item, ast.Parameter):
            builder.guarded(lambda item=item: body.declare_parameter(item, scope))  # type: ignore[misc]
        else:
            builder.guarded(lambda item=item: declare_names(body, item, scope))  # type: ignore[misc]
    return scope


_NESTED = Nested(declare_items, child, lower_function)
