"""Gate and switch primitives (IEEE 1364-2005 clauses 7.1 to 7.8)."""

from __future__ import annotations

from obento.core.ir import nodes as ir
from obento.core.ir.design import Instance, Switch
from obento.core.ir.signal import Signal
from obento.core.verilog.elaboration.module_context import ModuleContext
from obento.core.verilog.lowering.expressions import ExpressionLowering
from obento.core.verilog.lowering.statements import names_written
from obento.core.verilog.model.scope import Scope
from obento.core.verilog.syntax import ast

_OPS = {"and": "and", "nand": "and", "or": "or", "nor": "or", "xor": "xor", "xnor": "xor"}
_INVERTING = frozenset(["nand", "nor", "xnor", "not", "notif0", "notif1"])
_TRISTATE = {"bufif0": 0, "bufif1": 1, "notif0": 0, "notif1": 1}
_SWITCHES = {"nmos": 1, "rnmos": 1, "pmos": 0, "rpmos": 0}
_BOTH_WAYS = {"tran": None, "rtran": None, "tranif0": 0, "tranif1": 1, "rtranif0": 0, "rtranif1": 1}
_PULLS = {"pullup": 1, "pulldown": 0}
_PULL = (5, 5)


def settled(value: ir.Expr) -> ir.Expr:
    """A value as a gate puts it out: z becomes x."""
    return ir.Unary(value.width, "not", ir.Unary(value.width, "not", value))


def build(body: ModuleContext, g: ast.GateInstance, scope: Scope) -> None:
    """One gate, or an array of them."""
    x = body.x(scope, implicit=True)
    if g.gate in _BOTH_WAYS:
        _switch(body, g, x)
        return
    copies = body.range(g.range, scope)[2] if g.range is not None else 1
    if copies > body.b.limits.instances:
        raise body.error("too-many", f"{copies} gates are more than can be taken", g)
    for t in g.terminals:
        width = x.size(t)[0]
        if width not in (1, copies) and not (isinstance(t, ast.Number) and t.width is None):
            wanted = "single bits" if copies == 1 else f"one bit, or {copies} for all of them"
            raise body.error("gate-width", f"a gate connects {wanted}, this one has {width}", t, "use a bit select")
    outputs, inputs = _terminals(body, g)
    for output in outputs:
        for name in names_written(output):
            body.check_net(name, scope, "a gate")
    delay = body.delays(g.delays, scope)
    strengths = body.strengths(g.strengths) if g.strengths is not None or g.gate not in _PULLS else _PULL
    for copy in range(copies):
        value = _value(g.gate, [_input(x, t, copy) for t in inputs])
        for output in outputs:
            target = x.targets(output)
            if copies > 1 and sum(t.width for t in target) > 1:
                target = _part(target, copy)
            body.b.drive(target, value, g.start, g.gate, scope.path, delay, strengths)
        own = g.name or ""
        body.instance.children.append(Instance(own if copies == 1 else f"{own}[{copy}]", g.gate, g.start))


def _switch(body: ModuleContext, g: ast.GateInstance, x: ExpressionLowering) -> None:
    """A switch between two nets; it conducts both ways."""
    controlled = _BOTH_WAYS[g.gate]
    if g.range is not None or len(g.terminals) != 2 + (controlled is not None):
        terminals = "two nets" if controlled is None else "two nets and a control"
        raise body.error("gate-count", f"`{g.gate}` connects {terminals}, one digit each", g)
    ends: list[tuple[Signal, int]] = []
    for t in g.terminals[:2]:
        targets = x.targets(t)
        if len(targets) != 1 or targets[0].width != 1 or targets[0].offsets or targets[0].signal.kind != "net":
            raise body.error(
                "gate-width", "a switch connects single digits of nets", t, "use a constant bit select of a wire"
            )
        ends.append((targets[0].signal, targets[0].low))
    control = x.to_width(g.terminals[2], 1) if controlled is not None else None
    if control is not None and controlled == 0:
        control = ir.Unary(1, "not", control)
    body.b.design.switches.append(Switch(ends[0], ends[1], control, g.start))
    body.instance.children.append(Instance(g.name or "", g.gate, g.start))


def _input(x: ExpressionLowering, t: ast.Expr, copy: int) -> ir.Expr:
    """A terminal of one gate of an array: the rightmost gate takes the rightmost digit (7.1.6)."""
    width = x.size(t)[0]
    if width == 1 or (isinstance(t, ast.Number) and t.width is None):
        return x.to_width(t, 1)
    return ir.Slice(1, x.self_determined(t), copy)


def _part(targets: list[ir.Target], digit: int) -> list[ir.Target]:
    for t in reversed(targets):
        if digit < t.width:
            return [ir.Target(t.signal, t.low + digit, 1, t.offsets)]
        digit -= t.width
    raise AssertionError("widths were compared")


def _terminals(body: ModuleContext, g: ast.GateInstance) -> tuple[list[ast.Expr], list[ast.Expr]]:
    """Outputs and inputs of a gate."""
    count, kind = len(g.terminals), g.gate
    if kind in _TRISTATE or kind in _SWITCHES:
        if count != 3:
            raise body.error("gate-count", f"`{kind}` has one output, one input and one control", g)
        return g.terminals[:1], g.terminals[1:]
    if kind in ("cmos", "rcmos"):
        if count != 4:
            raise body.error("gate-count", f"`{kind}` has one output, one input and two controls", g)
        return g.terminals[:1], g.terminals[1:]
    if kind in _PULLS:
        return g.terminals, []
    if kind in ("buf", "not"):
        if count < 2:
            raise body.error("gate-count", f"`{kind}` needs an output and an input", g)
        return g.terminals[:-1], g.terminals[-1:]
    if kind in _OPS:
        if count < 2:
            raise body.error("gate-count", f"`{kind}` needs an output and at least one input", g)
        return g.terminals[:1], g.terminals[1:]
    raise AssertionError(kind)


def _value(kind: str, inputs: list[ir.Expr]) -> ir.Expr:
    """What a gate puts out (tables 7-3 to 7-6)."""
    if kind in _TRISTATE:
        data, control = inputs
        enable = control if _TRISTATE[kind] else ir.Unary(1, "not", control)
        return ir.Tristate(1, enable, ir.Unary(1, "not", data) if kind in _INVERTING else settled(data))
    if kind in _SWITCHES:
        data, control = inputs
        return ir.Tristate(1, control if _SWITCHES[kind] else ir.Unary(1, "not", control), data)
    if kind in ("cmos", "rcmos"):
        data, n_control, p_control = inputs
        on = ir.Binary(1, "or", n_control, ir.Unary(1, "not", p_control))
        return ir.Tristate(1, on, data)
    if kind in _PULLS:
        return ir.Const(1, _PULLS[kind], 1 - _PULLS[kind])
    if kind in ("buf", "not"):
        value: ir.Expr = ir.Unary(1, "not", inputs[0])
        return value if kind == "not" else ir.Unary(1, "not", value)
    value = inputs[0] if len(inputs) > 1 else settled(inputs[0])
    for other in inputs[1:]:
        value = ir.Binary(1, _OPS[kind], value, other)
    return ir.Unary(1, "not", value) if kind in _INVERTING else value
