"""Uses of modules: parameters, connections, arrays of instances (IEEE 1364-2005 clauses 12.2 and 12.3)."""

from __future__ import annotations

from dataclasses import replace

from obento.core.ir import nodes as ir
from obento.core.ir.design import Design, Port
from obento.core.ir.embed import embed, instance_of
from obento.core.ir.evaluate import NotConstant, evaluate
from obento.core.suggest import did_you_mean
from obento.core.verilog.elaboration import interface_ports, primitives
from obento.core.verilog.elaboration.module_context import Given, ModuleContext
from obento.core.verilog.elaboration.ports import ports_of
from obento.core.verilog.lowering.aggregates import aligned
from obento.core.verilog.lowering.expressions import ExpressionLowering
from obento.core.verilog.lowering.statements import VARIABLES, names_written
from obento.core.verilog.model.builder import Overrides
from obento.core.verilog.model.errors import ElaborationError
from obento.core.verilog.model.scope import FunctionEntry, Inside, Outside, Parameter, Scope, TypeName, Vector
from obento.core.verilog.model.types import Shape, vector
from obento.core.verilog.syntax import ast


def build(body: ModuleContext, item: ast.Instance, scope: Scope) -> None:
    """Declare the instances of an item; their connections wait as work where they are more than joined wires."""
    child = body.b.modules.get(item.module)
    if child is None and body.b.foreign is not None and item.range is None:
        inner = body.b.foreign(item.module, item.start)
        if inner is not None:
            _foreign(body, inner, item, scope)
            return
    if child is None:
        hint = did_you_mean(item.module, body.b.modules) or "hand in the file with this module too"
        raise body.error("no-module", f"there is no module `{item.module}`", item, hint)
    if isinstance(child, ast.Primitive):
        body.b.later(lambda: primitives.build(body, child, item, scope))
        return
    x = body.x(scope, implicit=True)
    overrides, types = _overrides(body, child, item, x)
    given = _connections(body, child, item, scope)
    interfaces = interface_ports.connected(body, child, item, given, scope)
    use = Given(overrides, types, {}, interfaces, frozenset(given))
    if item.range is None:
        _one(body, child, item, item.name, scope, x, use, given, 1, 0)
        return
    msb, lsb, copies = body.range(item.range, scope)
    if copies > body.b.limits.instances:
        raise body.error("too-many", f"{copies} instances are more than can be taken", item)
    given = {port: _shared(body, child, port, e, scope, x) for port, e in given.items()}
    step = 1 if msb >= lsb else -1
    for number in range(copies):
        _one(body, child, item, f"{item.name}[{lsb + step * number}]", scope, x, use, given, copies, number)


def _one(
    body: ModuleContext,
    child: ast.Module,
    item: ast.Instance,
    name: str,
    scope: Scope,
    x: ExpressionLowering,
    use: Given,
    given: dict[str, ast.Expr],
    copies: int,
    number: int,
) -> None:
    directions = _port_directions(child)
    outside: dict[str, Outside] = {}
    for port, e in given.items():
        joined = _wire(body, e, scope, x, directions.get(port, ("", False)))
        if joined is not None:
            joined.copies, joined.number = copies, number
            outside[port] = joined
    made = body.nested.child(body, child, name, scope, replace(use, outside=outside))
    scope.entries[name] = Inside(made.scope, item.start, interface=child.name if child.is_interface else "")
    body.b.later(lambda: _connect_all(body, made, given, scope, x, copies, number))


def _connect_all(
    body: ModuleContext,
    made: ModuleContext,
    given: dict[str, ast.Expr],
    scope: Scope,
    x: ExpressionLowering,
    copies: int,
    number: int,
) -> None:
    for port in ports_of(made):
        if port.name not in given or port.name in made.joined:
            continue
        entry = made.scope.entries.get(port.name)
        shape = entry.shape if isinstance(entry, Vector) and entry.total == port.signal.width else None
        if shape is not None and shape.is_aggregate and copies == 1:
            body.b.guarded(lambda port=port, shape=shape: _connect_whole(body, port, given[port.name], x, scope, shape))  # type: ignore[misc]
        else:
            body.b.guarded(lambda port=port: _connect(body, port, given[port.name], x, scope, copies, number))  # type: ignore[misc]


def _connect_whole(
    body: ModuleContext, port: Port, e: ast.Expr, x: ExpressionLowering, scope: Scope, shape: Shape
) -> None:
    """Join a port that is an array or structure with another one (1800 clause 23.3.3.5)."""
    if port.direction == "in":
        target = [ir.Target(port.signal, 0, shape.width)]
        body.b.drive(target, ir.settled(target, x.to_shape(e, shape)), e.start, "port", scope.path)
        return
    if port.direction == "inout":
        raise _two_way(body, port, e)
    written, own = x.targets(e), x.target_shape(e)
    for name in names_written(e):
        body.check_net(name, scope, "an instance")
    if not own.fits(shape):
        raise body.error("array-differs", f"port `{port.name}` has another type or another number of elements", e)
    value = aligned(ir.Ref(shape.width, port.signal), shape, own)
    body.b.drive(written, ir.settled(written, value), e.start, "port", scope.path)


def _foreign(body: ModuleContext, inner: Design, item: ast.Instance, scope: Scope) -> None:
    """A unit in another language: its signals move in, its ports are joined like those of a module."""
    if item.parameters:
        raise body.error(
            "foreign-parameters", f"`{item.module}` is written in another language and takes no parameters here", item
        )
    body.instance.children.append(instance_of(inner, item.name, item.module, item.start))
    ports = embed(body.b.design, inner, f"{scope.path}.{item.name}")
    by_name = {p.name.lower(): p for p in ports}
    x = body.x(scope, implicit=True)
    for index, c in enumerate(item.connections):
        port = by_name.get(c.port.lower()) if c.port is not None else ports[index] if index < len(ports) else None
        if port is None:
            names = [p.name for p in ports]
            raise body.error(
                "no-port",
                f"`{item.module}` has no such port",
                c,
                did_you_mean(c.port or "", names) or _listed("its ports are", names),
            )
        if c.value is not None:
            body.b.later(lambda port=port, value=c.value: _connect(body, port, value, x, scope, 1, 0))  # type: ignore[misc]


def _overrides(
    body: ModuleContext, child: ast.Module, item: ast.Instance, x: ExpressionLowering
) -> tuple[Overrides, dict[str, Shape]]:
    """What the parameters of an instance are given: values, and types."""
    known = {p.name: p for p in child.items if isinstance(p, ast.Parameter | ast.TypeParameter) and not p.local}
    names = list(known)
    found: Overrides = {}
    types: dict[str, Shape] = {}
    for index, connection in enumerate(item.parameters):
        name = connection.port
        if name is None:
            if index >= len(names):
                raise body.error("too-many", f"`{child.name}` has {len(names)} parameters", connection)
            name = names[index]
        elif name not in names:
            raise body.error(
                "no-parameter",
                f"`{child.name}` has no parameter `{name}`",
                connection,
                did_you_mean(name, names) or _listed("its parameters are", names),
            )
        value = connection.value
        if isinstance(known[name], ast.TypeParameter):
            named = x.scope.find(value.name) if isinstance(value, ast.Name) else None
            if isinstance(value, ast.TypeArgument):
                types[name] = x.type_shape(value)
            elif isinstance(named, TypeName):
                types[name] = named.shape
            else:
                raise body.error("type-wanted", f"`{name}` of `{child.name}` is a type", connection, "give it a type")
        elif value is not None:
            found[name] = _value_for(x, known[name], value, body)
    return found, types


def _value_for(
    x: ExpressionLowering, parameter: ast.Parameter | ast.TypeParameter, value: ast.Expr, body: ModuleContext
) -> Parameter:
    """What a parameter is given; a whole array or structure lies there as it is."""
    assert isinstance(parameter, ast.Parameter)
    shape = x.shape_of(value)
    if shape is not None and shape.is_aggregate:
        try:
            return Parameter(ir.Const(shape.width, *evaluate(x.digits(value))), False, value.start, None, shape)
        except NotConstant:
            raise body.error("not-constant", "a parameter's value must be a constant", value) from None
    return body.parameter_value(x, value)


def _connections(body: ModuleContext, child: ast.Module, item: ast.Instance, scope: Scope) -> dict[str, ast.Expr]:
    given: dict[str, ast.Expr] = {}
    named = {c.port for c in item.connections if c.port is not None}
    defaults = _with_defaults(child)
    for index, c in enumerate(item.connections):
        if c.everything:
            given |= {
                p: _by_its_name(body, child, p, c, scope)
                for p in child.ports
                if p not in named and (p not in defaults or scope.find(p) is not None)
            }
            continue
        name = c.port
        if name is None:
            if named:
                raise body.error(
                    "mixed-connections", "connections by name and by order cannot be mixed", c, "name them all"
                )
            if index >= len(child.ports):
                raise body.error(
                    "too-many", f"`{child.name}` has {len(child.ports)} ports, here are {len(item.connections)}", item
                )
            name = child.ports[index]
        elif name not in child.ports:
            raise body.error(
                "no-port",
                f"`{child.name}` has no port `{name}`",
                c,
                did_you_mean(name, child.ports) or _listed("its ports are", child.ports),
            )
        elif name in given:
            raise body.error("duplicate", f"port `{name}` is connected twice", c)
        if c.port is None and isinstance(c.value, ast.Call) and c.value.name in child.ports and c.value.path is None:
            if not isinstance(scope.find_callable(c.value.name), FunctionEntry):
                text = f"a port is connected with a dot before its name: `.{c.value.name}(...)`"
                raise body.error("connection-form", text, c, "or leave its name out")
        if c.value is not None:
            given[name] = _by_its_name(body, child, name, c, scope) if c.is_implied else c.value
    _warn_open(body, child, item, given, bool(named))
    return given if not child.open_inputs else _pulled(child, item) | given


def _pulled(child: ast.Module, item: ast.Instance) -> dict[str, ast.Expr]:
    """What the inputs have to which nothing is connected, as `unconnected_drive says (22.9)."""
    defaults = _with_defaults(child)
    open_inputs = [
        p for p, (direction, _) in _port_directions(child).items() if direction == "in" and p not in defaults
    ]
    return {port: ast.Fill(item.start, item.end, child.open_inputs) for port in open_inputs}


def _with_defaults(child: ast.Module) -> set[str]:
    """Inputs that have a value of their own where nothing is connected (1800 clause 23.2.2.4)."""
    declared = [i for i in child.items if isinstance(i, ast.Declaration) and i.direction == "in"]
    return {d.name for i in declared for d in i.names if d.value is not None}


def _by_its_name(body: ModuleContext, child: ast.Module, port: str, c: ast.Connection, scope: Scope) -> ast.Expr:
    """What a port is connected to that is named once, or not at all: something of its own name, which must be declared
    (1800 clauses 23.3.2.3 and 23.3.2.4)."""
    if scope.find(port) is None:
        text = f"there is no `{port}` here for the port `{port}` of `{child.name}`"
        near = did_you_mean(port, scope.all_names()) or f"declare it, or write `.{port}(...)`"
        raise body.error("undeclared", text, c, near)
    return ast.Name(c.start, c.end, port)


def _listed(what: str, names: list[str]) -> str:
    return f"{what} {', '.join(f'`{n}`' for n in names[:8])}{' ...' if len(names) > 8 else ''}" if names else ""


def _warn_open(
    body: ModuleContext, child: ast.Module, item: ast.Instance, given: dict[str, ast.Expr], named: bool
) -> None:
    """Ports that nobody connected."""
    if any(c.everything for c in item.connections):
        return
    if not named and 0 < len(item.connections) < len(child.ports):
        body.collector.warning(
            "too-few",
            f"`{child.name}` has {len(child.ports)} ports, here are {len(item.connections)}",
            item.start,
            item.end,
        )
        return
    written_open = {c.port for c in item.connections if c.value is None}
    directions, defaults = _port_directions(child), _with_defaults(child)
    missing = [
        p
        for p in child.ports
        if p not in given and p not in written_open and p not in defaults and directions.get(p, ("",))[0] == "in"
    ]
    if missing and (named or not item.connections):
        names = ", ".join(f"`{p}`" for p in missing[:4])
        body.collector.warning(
            "open-input",
            f"{names} of `{child.name}` {'is' if len(missing) == 1 else 'are'} not connected",
            item.start,
            item.end,
        )


def _wire(
    body: ModuleContext, e: ast.Expr, scope: Scope, x: ExpressionLowering, port: tuple[str, bool]
) -> Outside | None:
    """The wire outside, when a port can simply be part of it: a name, or a constant part of one."""
    direction, is_variable = port
    base = e
    while isinstance(base, ast.Index | ast.Part):
        base = base.base
    if not isinstance(base, ast.Name) or is_variable or not direction:
        return None
    if scope.find(base.name) is None:
        x.size(base)  # declares it, where that is allowed
    entry = scope.find(base.name)
    if not isinstance(entry, Vector) or entry.dims or not entry.signal.has_digits or entry.signal.automatic:
        return None
    if direction != "in":
        if entry.signal.kind != "net":
            return None
        body.check_net(base, scope, "an instance")
    if base is e:
        return Outside(entry.signal, entry.at, entry.total)
    selected = x.self_determined(e)
    if (
        not isinstance(selected, ir.Slice)
        or not isinstance(selected.a, ir.Ref)
        or not 0 <= selected.low <= selected.a.width - selected.width
    ):
        return None
    return Outside(selected.a.signal, selected.low, selected.width)


def _shared(
    body: ModuleContext, child: ast.Module, port: str, e: ast.Expr, scope: Scope, x: ExpressionLowering
) -> ast.Expr:
    """A connection that an array of instances shares out, as a name: a hidden wire stands for any other expression."""
    if isinstance(e, ast.Name):
        return e
    width = x.size(e)[0]
    direction = _port_directions(child).get(port, ("in", False))[0]
    name = f"{child.name}.{port}@{e.start}"
    signal = body.b.signal(f"{scope.path}.{name}", width, "net", e.start)
    scope.entries[name] = Vector(signal, vector("logic", False, width - 1, 0), "wire", (), e.start)
    if direction == "in":
        body.b.later(
            lambda: body.b.drive([ir.Target(signal, 0, width)], x.to_width(e, width), e.start, "port", scope.path)
        )
    else:
        body.b.later(lambda: body.b.drive(x.targets(e), ir.Ref(width, signal), e.start, "port", scope.path))
    return ast.Name(e.start, e.end, name)


def _connect(
    body: ModuleContext, port: Port, e: ast.Expr, x: ExpressionLowering, scope: Scope, copies: int, number: int
) -> None:
    """Join a port with what it is connected to by a continuous assignment (12.3.9.2)."""
    width = port.signal.width
    own = width if isinstance(e, ast.Pattern | ast.Fill) else x.size(e)[0]
    shared = copies > 1 and own == width * copies
    if own != width and not shared and not (isinstance(e, ast.Number) and e.width is None):
        body.collector.warning(
            "port-width", f"port `{port.name}` is {width} bits wide, connected are {own}", e.start, e.end
        )
    if port.direction == "in":
        value: ir.Expr
        if shared:
            value = ir.Slice(width, x.self_determined(e), number * width)
        else:
            value = x.reals.lower(e) if port.signal.real else x.to_width(e, width)
        target = [ir.Target(port.signal, 0, width)]
        body.b.drive(target, ir.settled(target, value), e.start, "port", scope.path)
        return
    written = x.targets(e)
    for name in names_written(e):
        body.check_net(name, scope, "an instance")
    inside: ir.Expr = ir.Ref(width, port.signal)
    if shared:
        whole = written[0]
        written = [ir.Target(whole.signal, whole.low + number * width, width, whole.offsets)]
    else:
        total = sum(t.width for t in written)
        if total < width:
            inside = ir.Slice(total, inside, 0)
        elif total > width:
            inside = ir.Extend(total, inside, port.signed)
    if port.direction == "inout":
        raise _two_way(body, port, e)
    body.b.drive(written, ir.settled(written, inside), e.start, "port", scope.path)


def _two_way(body: ModuleContext, port: Port, e: ast.Expr) -> ElaborationError:
    return body.error(
        "inout-connection",
        f"`{port.name}` goes both ways and must be connected to a net of its own width",
        e,
        "name a wire, or a part of one",
    )


def _port_directions(module: ast.Module) -> dict[str, tuple[str, bool]]:
    """Of each port its direction, and whether it is a variable inside."""
    directions: dict[str, str] = {}
    variables: set[str] = set()
    for item in module.items:
        if isinstance(item, ast.Declaration):
            for d in item.names:
                if item.direction:
                    directions[d.name] = item.direction
                if item.kind in VARIABLES and not (item.direction == "in" and item.kind == "logic"):
                    variables.add(d.name)
    found = {name: (direction, name in variables) for name, direction in directions.items()}
    for port, e in module.port_values.items():
        names = names_written(e)
        if isinstance(e, ast.Name) and e.name in found:
            found[port] = found[e.name]
        elif names and isinstance(names[0], ast.Name) and names[0].name in found:
            found[port] = (found[names[0].name][0], True)
    return found
