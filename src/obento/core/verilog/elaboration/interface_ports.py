"""Interfaces as ports of modules (IEEE 1800-2017 clauses 25.3 to 25.5)."""

from __future__ import annotations

from dataclasses import replace

from obento.core.verilog.elaboration.module_context import ModuleContext
from obento.core.verilog.model.scope import Inside, Scope, View
from obento.core.verilog.syntax import ast


def connected(
    body: ModuleContext, child: ast.Module, item: ast.Instance, given: dict[str, ast.Expr], scope: Scope
) -> dict[str, Inside]:
    """What each port of a module that is an interface is connected to, by its name inside; taken out of `given`."""
    found: dict[str, Inside] = {}
    for port in child.items:
        if not isinstance(port, ast.InterfacePort):
            continue
        e = given.pop(port.name, None)
        if e is None:
            text = f"`{port.name}` of `{child.name}` is an interface and must be connected"
            raise body.error("open-interface", text, item, f"name an instance of `{port.interface or 'it'}`")
        if not port.dims:
            found[port.name] = _through(body, port, _instance(body, e, scope), e)
            continue
        left, right = body.x(scope).types.ends(port.dims[0])
        for i in range(min(left, right), max(left, right) + 1):
            one = ast.Index(e.start, e.end, e, ast.Number(e.start, e.end, None, False, i, ~i & (1 << 32) - 1, 32))
            found[f"{port.name}[{i}]"] = _through(body, port, _instance(body, one, scope), e)
        found[port.name] = Inside(None, e.start)
    return found


def _instance(body: ModuleContext, e: ast.Expr, scope: Scope) -> Inside:
    """The instance of an interface that an expression names, seen through a modport where it names one."""
    parts: list[str] = []
    node = e
    while not isinstance(node, ast.Name | ast.Dotted):
        if not isinstance(node, ast.Index):
            raise body.error("not-an-interface", "this is no instance of an interface", e)
        parts.append(f"[{body.x(scope).integer(node.index, 'the number of an instance')}]")
        node = node.base
    names = [node.name] if isinstance(node, ast.Name) else list(node.parts)
    if isinstance(node, ast.Dotted):
        for i, index in enumerate(node.indices):
            if index is not None:
                names[i] += f"[{body.x(scope).integer(index, 'the number of an instance')}]"
    names[-1] += "".join(reversed(parts))
    entry = scope.find_path(names) if len(names) > 1 else scope.find(names[0])
    if isinstance(entry, View):
        inside = scope.find_path(names[:-1]) if len(names) > 2 else scope.find(names[0])
        if isinstance(inside, Inside):
            return replace(inside, view=entry.directions)
    if not isinstance(entry, Inside) or not entry.interface:
        raise body.error("not-an-interface", f"`{'.'.join(names)}` is no instance of an interface", e)
    return entry


def _through(body: ModuleContext, port: ast.InterfacePort, inside: Inside, e: ast.Expr) -> Inside:
    """An interface as a port sees it."""
    if port.interface and inside.interface != port.interface:
        text = f"`{port.name}` is an interface `{port.interface}`, connected is one of `{inside.interface}`"
        raise body.error("interface-differs", text, e)
    if not port.modport:
        return inside
    view = inside.scope.entries.get(port.modport) if inside.scope is not None else None
    if not isinstance(view, View):
        text = f"the interface `{inside.interface}` has no modport `{port.modport}`"
        raise body.error("no-modport", text, port)
    return replace(inside, view=view.directions)
