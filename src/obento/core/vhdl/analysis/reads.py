"""What statements and expressions read, and the parts of signals that they name."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from obento.core.exhaustive import no_rule
from obento.core.vhdl.analysis.subexpressions import children, parts_of
from obento.core.vhdl.code.bodies import walk
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.scope import Object


def static_prefix(x: t.Expr) -> tuple[Object | None, tuple[Any, ...]]:
    """The object and the longest path to a part of it that is known before the run (8.1)."""
    steps: list[t.Expr] = []
    while isinstance(x, t.Index | t.Slice | t.Field | t.AliasOf):
        if not isinstance(x, t.AliasOf):
            steps.append(x)
        x = x.prefix
    if not isinstance(x, t.Read):
        return None, ()
    path: list[tuple[Any, ...]] = []
    for step in reversed(steps):
        if isinstance(step, t.Field):
            path.append(("f", step.number))
        elif isinstance(step, t.Slice):
            known = step.range.known()
            if known is None:
                break
            path.append(("s", known[0], known[1], -1 if known[2] else 1))
        else:
            assert isinstance(step, t.Index)
            if not all(isinstance(i, t.Const) for i in step.indices):
                break
            path += [("i", i.value) for i in step.indices if isinstance(i, t.Const)]
    return x.object, tuple(path)


def signals_read(x: t.Expr) -> list[t.Expr]:
    """The signals, or parts of them, that an expression reads: what wakes whoever computes it."""
    out: list[t.Expr] = []
    _gather(x, out)
    return out


def _gather(x: t.Expr, out: list[t.Expr]) -> None:
    if isinstance(x, t.Read):
        if x.object.kind == "signal":
            out.append(x)
        return
    if isinstance(x, t.Index | t.Slice | t.Field):
        root, _ = static_prefix(x)
        if root is not None and root.kind == "signal":
            whole: t.Expr = x
            dynamic: list[t.Expr] = []
            while isinstance(whole, t.Index | t.Slice | t.Field):
                if isinstance(whole, t.Index) and not all(isinstance(i, t.Const) for i in whole.indices):
                    dynamic += whole.indices
                    x = whole.prefix
                elif isinstance(whole, t.Slice) and whole.range.known() is None:
                    dynamic += [whole.range.left, whole.range.right]
                    x = whole.prefix
                whole = whole.prefix
            out.append(x)
            for d in dynamic:
                _gather(d, out)
            return
    if isinstance(x, t.SignalAttr):
        out.append(x.target)
        return
    for inner in children(x):
        _gather(inner, out)


def everything_read(body: Sequence[t.Stmt]) -> list[t.Expr]:
    """Every expression of statements that is evaluated when they run."""
    return [x for s in walk(body) for x in read_by(s)]


def read_by(s: t.Stmt) -> list[t.Expr]:
    """Every expression that is evaluated when a statement runs, without those of the statements inside of it."""
    out: list[t.Expr] = []
    match s:
        case t.SetVariable():
            out += [s.value, *target_indices(s.target)]
        case t.SetSignal():
            out += [x for wave in s.waves for x in wave if x is not None]
            out += target_indices(s.target)
        case t.If():
            out += [c for c, _ in s.arms if c is not None]
        case t.Case():
            out.append(s.selector)
        case t.Loop():
            out += [s.condition] if s.condition is not None else []
            out += [s.range.left, s.range.right] if s.range is not None else []
        case t.Jump():
            out += [s.condition] if s.condition is not None else []
        case t.Return():
            out += [s.value] if s.value is not None else []
        case t.Assert():
            out += [x for x in (s.condition, s.report, s.severity) if x is not None]
        case t.CallProcedure():
            out += [a for p, a in zip(s.procedure.params, s.args, strict=True) if p.mode != "out"]
        case t.Declare():
            out += [s.value] if s.value is not None else []
        case t.Wait():
            out += [x for x in (s.until, s.time) if x is not None]
        case t.Null() | t.DeclareSub():
            pass
        case _:
            raise no_rule(s)
    return out


def named_by(s: t.Stmt) -> list[t.Expr]:
    """All that a statement reads, and what it writes."""
    if isinstance(s, t.CallProcedure):
        return list(s.args)
    return [*read_by(s), *([s.target] if isinstance(s, t.SetSignal | t.SetVariable) else [])]


def target_indices(x: t.Expr) -> list[t.Expr]:
    """What must be computed to know where an assignment goes."""
    out: list[t.Expr] = []
    if isinstance(x, t.ArrayAgg):
        return [i for _, v, _ in x.items for i in target_indices(v)]
    if isinstance(x, t.RecordAgg):
        return [i for v in x.values for i in target_indices(v)]
    while isinstance(x, t.Index | t.Slice | t.Field | t.AliasOf | t.Deref):
        if isinstance(x, t.Index):
            out += x.indices
        elif isinstance(x, t.Slice):
            out += [x.range.left, x.range.right]
        x = x.prefix
    return out


def reads_edge(body: Sequence[t.Stmt]) -> bool:
    """Whether some expression asks for an event, as clocked processes do."""
    for x in everything_read(body):
        for y in parts_of(x):
            if isinstance(y, t.SignalAttr) and y.name in ("event", "stable", "last_value"):
                return True
            if isinstance(y, t.Call) and y.function.name in ("rising_edge", "falling_edge"):
                return True
    return False
