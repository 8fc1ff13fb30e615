"""User-defined primitives (IEEE 1364-2005 clause 8) as processes: each row of the table one condition."""

from __future__ import annotations

from obento.core.ir import nodes as ir
from obento.core.ir.design import Instance, Process
from obento.core.ir.signal import Signal, Watch
from obento.core.verilog.elaboration.gates import settled
from obento.core.verilog.elaboration.module_context import ModuleContext
from obento.core.verilog.lowering.statements import names_written
from obento.core.verilog.model.scope import Scope
from obento.core.verilog.syntax import ast

_LEVELS = {"0": "0", "1": "1", "x": "x", "?": "01x", "b": "01", "-": "01x"}
_EDGES = {
    "r": [("0", "1")],
    "f": [("1", "0")],
    "p": [("0", "1"), ("0", "x"), ("x", "1")],
    "n": [("1", "0"), ("1", "x"), ("x", "0")],
}
_CONSTANTS = {"0": ir.Const(1, 0, 1), "1": ir.Const(1, 1, 0), "x": ir.Const(1, 0, 0)}


def build(body: ModuleContext, primitive: ast.Primitive, item: ast.Instance, scope: Scope) -> None:
    """Add an instance of a primitive to the design."""
    if item.range is not None:
        raise body.error("not-yet", "arrays of user-defined primitives are not read by this version", item)
    terminals = [c.value for c in item.connections]
    if (
        len(terminals) != len(primitive.ports)
        or any(t is None for t in terminals)
        or any(c.port for c in item.connections)
    ):
        raise body.error(
            "gate-count",
            f"`{primitive.name}` has one output and {len(primitive.ports) - 1} inputs, connected by order",
            item,
        )
    x = body.x(scope, implicit=True)
    for t in terminals:
        assert t is not None
        if x.size(t)[0] != 1 and not (isinstance(t, ast.Number) and t.width is None):
            raise body.error("gate-width", "a primitive connects single bits", t, "use a bit select")
    output = terminals[0]
    assert output is not None
    for name in names_written(output):
        body.check_net(name, scope, "a primitive")
    target = x.targets(output)
    path = f"{scope.path}.{item.name or primitive.name}@{item.start}"
    inputs = [
        body.hidden(settled(x.to_width(t, 1)), f"{path}.{i}", item.start, "port", scope.path)
        for i, t in enumerate(terminals[1:])
        if t
    ]
    delays = [c.value for c in item.parameters if c.value is not None]
    delay = body.delays(delays, scope)
    state = body.b.signal(f"{path}.state", 1, "variable", item.start)
    watches = [Watch(s, "any", 0, 1) for s in inputs]
    if primitive.sequential:
        initial = {"0": (0, 1), "1": (1, 0)}.get(primitive.initial or "x", (0, 0))
        state.initial = initial
        before = [body.b.signal(f"{path}.{i}#", 1, "variable", item.start) for i in range(len(inputs))]
        lowered: ir.Stmt = _sequential(primitive, item.start, state, inputs, before)
        body.b.process(Process("always", lowered, watches, item.start, primitive.name, scope.path))
    else:
        lowered = _combinational(primitive, item.start, state, inputs)
        body.b.process(Process("continuous", lowered, watches, item.start, primitive.name, scope.path))
    body.b.drive(
        target, ir.Ref(1, state), item.start, primitive.name, scope.path, delay, body.strengths(item.strengths)
    )
    body.instance.children.append(Instance(item.name, primitive.name, item.start))


def _is(signal: Signal, symbols: str) -> ir.Expr | None:
    """Whether a signal has one of these values; None when that says nothing."""
    if set(symbols) == set("01x"):
        return None
    found: ir.Expr | None = None
    for symbol in symbols:
        one = ir.Binary(1, "ceq", ir.Ref(1, signal), _CONSTANTS[symbol])
        found = one if found is None else ir.Binary(1, "or", found, one)
    return found


def _all(conditions: list[ir.Expr | None]) -> ir.Expr:
    found: ir.Expr | None = None
    for c in conditions:
        if c is not None:
            found = c if found is None else ir.Binary(1, "and", found, c)
    return found or ir.Const(1, 1, 0)


def _first_that_holds(position: int, rows: list[tuple[ir.Expr, ir.Stmt]], otherwise: ir.Stmt | None) -> ir.Stmt:
    chain = otherwise
    for condition, then in reversed(rows):
        chain = ir.If(position, condition, then, chain)
    return chain or ir.Block(position, [])


def _set(position: int, state: Signal, symbol: str) -> ir.Stmt:
    if symbol == "-":
        return ir.Block(position, [])
    return ir.Assign(position, [ir.Target(state, 0, 1)], _CONSTANTS[symbol])


def _combinational(primitive: ast.Primitive, position: int, state: Signal, inputs: list[Signal]) -> ir.Stmt:
    rows = [
        (
            _all([_is(s, _LEVELS[symbol]) for s, symbol in zip(inputs, row.inputs, strict=True)]),
            _set(row.start, state, row.output),
        )
        for row in primitive.rows
    ]
    return _first_that_holds(position, rows, _set(position, state, "x"))


def _edges(symbol: str) -> list[tuple[str, str]] | None:
    """The changes that an edge symbol stands for (table 8-1); None for a level."""
    if len(symbol) == 2:
        return [(a, b) for a in _LEVELS[symbol[0]] for b in _LEVELS[symbol[1]] if a != b]
    if symbol == "*":
        return [(a, b) for a in "01x" for b in "01x" if a != b]
    return _EDGES.get(symbol)


def _sequential(
    primitive: ast.Primitive, position: int, state: Signal, inputs: list[Signal], before: list[Signal]
) -> ir.Stmt:
    """One input after the other is looked at: a table knows one change at a time (8.4)."""
    steps: list[ir.Stmt] = []
    for i, signal in enumerate(inputs):
        changed = ir.Unary(1, "lnot", ir.Binary(1, "ceq", ir.Ref(1, signal), ir.Ref(1, before[i])))
        body = ir.Block(
            position, [_step(primitive, position, state, inputs, before[i], i), _remember(position, signal, before[i])]
        )
        steps.append(ir.If(position, changed, body, None))
    return ir.Block(position, steps)


def _remember(position: int, signal: Signal, before: Signal) -> ir.Stmt:
    return ir.Assign(position, [ir.Target(before, 0, 1)], ir.Ref(1, signal))


def _step(
    primitive: ast.Primitive, position: int, state: Signal, seen: list[Signal], old: Signal, changed: int
) -> ir.Stmt:
    """What the change of one input does; rows of levels come before those of edges (8.8)."""
    levels: list[tuple[ir.Expr, ir.Stmt]] = []
    edges: list[tuple[ir.Expr, ir.Stmt]] = []
    for row in primitive.rows:
        at = next((k for k, symbol in enumerate(row.inputs) if _edges(symbol) is not None), -1)
        if at not in (-1, changed):
            continue
        conditions = [_is(state, _LEVELS[row.state or "?"])]
        for k, symbol in enumerate(row.inputs):
            conditions.append(_is(seen[k], _LEVELS[symbol]) if k != at else _is_edge(old, seen[k], symbol))
        (levels if at < 0 else edges).append((_all(conditions), _set(row.start, state, row.output)))
    return _first_that_holds(position, levels + edges, _set(position, state, "x"))


def _is_edge(old: Signal, new: Signal, symbol: str) -> ir.Expr:
    found: ir.Expr | None = None
    for a, b in _edges(symbol) or []:
        one = _all([_is(old, a), _is(new, b)])
        found = one if found is None else ir.Binary(1, "or", found, one)
    return found or ir.Const(1, 0, 1)
