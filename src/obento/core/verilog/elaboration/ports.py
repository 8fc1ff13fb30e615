"""Ports of a module as the outside sees them (IEEE 1364-2005 clause 12.3)."""

from __future__ import annotations

from obento.core.ir import nodes as ir
from obento.core.ir.design import Port
from obento.core.ir.signal import Signal
from obento.core.verilog.elaboration.module_context import ModuleContext
from obento.core.verilog.lowering.aggregates import left_to_right
from obento.core.verilog.model.errors import ElaborationError
from obento.core.verilog.model.scope import Vector
from obento.core.verilog.syntax import ast
from obento.core.verilog.syntax.declarations import NET_TYPES


def ports_of(body: ModuleContext) -> list[Port]:
    """The ports of a module, in their order."""
    ports: list[Port] = []
    interfaces = {p.name for p in body.m.items if isinstance(p, ast.InterfacePort)}
    for name, (start, end) in zip(body.m.ports, body.m.port_spans, strict=True):
        if any(p.name == name for p in ports):
            body.collector.error("duplicate", f"port `{name}` is listed twice", start, end)
            raise ElaborationError
        if name not in interfaces:
            ports.append(_port(body, name, start, end))
        elif name not in body.scope.entries and f"{name}[0]" not in body.scope.entries:
            text = f"`{name}` is an interface, which only another module can connect"
            body.collector.error("interface-port", text, start, end, "check the module that uses this one")
            raise ElaborationError
    return ports


def flat_ports(body: ModuleContext, ports: list[Port]) -> list[Port]:
    """The ports of the module that is run, arrays as vectors: their leftmost element on the left."""
    return [_flat(body, port) if port.signal.element else port for port in ports]


def _flat(body: ModuleContext, port: Port) -> Port:
    entry = body.scope.entries[port.name]
    assert isinstance(entry, Vector)
    name = ast.Name(port.position, port.position + len(port.name), port.name)
    made = body.b.signal(f"{body.scope.path}.{port.name} flat", entry.total, "net", port.position)
    reference = ir.Ref(made.width, made)
    inside = ir.Ref(entry.total, entry.signal)
    if port.direction == "in":
        value = left_to_right(reference, entry.shape)
        target = [ir.Target(entry.signal, 0, entry.total)]
        body.b.drive(target, ir.settled(target, value), port.position, "port", body.scope.path)
    elif port.direction == "out":
        value = left_to_right(inside, entry.shape)
        body.b.drive([ir.Target(made, 0, made.width)], value, port.position, "port", body.scope.path)
    else:
        raise body.error("array-inout", f"`{port.name}` is an array that goes both ways, which cannot be run", name)
    return Port(port.name, port.direction, made, False, port.position)


def _port(body: ModuleContext, name: str, start: int, end: int) -> Port:
    value = body.m.port_values.get(name)
    inner = value.name if isinstance(value, ast.Name) else name
    entry = body.scope.entries.get(inner)
    if inner not in body.directions or (not isinstance(entry, Vector) and value is None):
        body.collector.error(
            "port-undeclared",
            f"port `{name}` has no `input` or `output` declaration",
            start,
            end,
            "declare it in the module",
        )
        raise ElaborationError
    direction = body.directions[inner][0]
    if not isinstance(entry, Vector):
        assert value is not None
        return Port(name, direction, _port_signal(body, name, direction, value), False, start)  # type: ignore[arg-type]
    if direction == "in" and entry.signal.two_state and body.m.system_verilog:
        return Port(name, "in", _two_state_input(body, name, entry), entry.signed, start)
    if direction == "in" and not body.m.system_verilog and entry.kind not in NET_TYPES | {"logic"}:
        body.collector.error("input-reg", f"input `{name}` cannot be `{entry.kind}`", start, end, "an input is a wire")
        raise ElaborationError
    return Port(name, direction, entry.signal, entry.signed, start)  # type: ignore[arg-type]


def _two_state_input(body: ModuleContext, name: str, entry: Vector) -> Signal:
    """What an input of a two-state type is given: it may be unknown outside, and is 0 then inside (1800 clause
    6.3.1)."""
    element = entry.width if entry.dims else 0
    signal = body.b.signal(f"{body.scope.path}.{name} given", entry.total, "net", entry.start, element=element)
    target = [ir.Target(entry.signal, 0, entry.total)]
    body.b.drive(target, ir.settled(target, ir.Ref(entry.total, signal)), entry.start, "port", body.scope.path)
    return signal


def _port_signal(body: ModuleContext, name: str, direction: str, value: ast.Expr) -> Signal:
    """A port that stands for parts of inner nets."""
    x = body.x(body.scope)
    inside = x.self_determined(value)
    signal = body.b.signal(f"{body.scope.path}.{name}", inside.width, "net", value.start)
    if direction == "in":
        body.b.drive(x.targets(value), ir.Ref(inside.width, signal), value.start, "port", body.scope.path)
    else:
        body.b.drive([ir.Target(signal, 0, inside.width)], inside, value.start, "port", body.scope.path)
    return signal
