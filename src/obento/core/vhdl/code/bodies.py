"""What the bodies of processes and subprograms are like: all their statements, what they write, what wakes them."""

from __future__ import annotations

from collections.abc import Iterable

from obento.core.exhaustive import no_rule
from obento.core.vhdl.model import typed_tree as t
from obento.core.vhdl.model.nine_values import ONE, ZERO
from obento.core.vhdl.model.scope import Object
from obento.core.vhdl.model.types import Subtype, is_plain


def runs_through(p: t.Process) -> bool:
    """Whether all that a process with a list keeps between its runs are plain values of its own variables."""
    for d in p.decls:
        if not isinstance(d, t.Declare) or d.object.kind == "file" or not is_plain(d.object.subtype.type):
            return False
    return all(o.of_process is p for o in assigned_variables(p.body))


def edge_awaited(p: t.Process) -> int | None:
    """The value of its one signal at which a process does anything at all: clocked ones sleep through the other
    edge."""
    if p.sensitivity is None or len(p.sensitivity) != 1 or len(p.body) != 1 or not isinstance(p.body[0], t.If):
        return None
    clock, arms = p.sensitivity[0], p.body[0].arms
    if not isinstance(clock, t.Read) or len(arms) != 1 or clock.type.name != "std_ulogic":
        return None
    condition = arms[0][0]
    if isinstance(condition, t.Call) and condition.function.native is not None and _is_read(condition.args[:1], clock):
        return {"rising_edge": ONE, "falling_edge": ZERO}.get(condition.function.name)
    if not isinstance(condition, t.Op) or condition.op != "and":
        return None
    event, level = condition.args
    if not isinstance(event, t.SignalAttr) or event.name != "event" or not _is_read([event.target], clock):
        return None
    if (
        isinstance(level, t.Op)
        and level.op == "="
        and _is_read(level.args[:1], clock)
        and isinstance(level.args[1], t.Const)
    ):
        return level.args[1].value if level.args[1].value in (ZERO, ONE) else None
    return None


def _is_read(given: list[t.Expr], clock: t.Read) -> bool:
    return len(given) == 1 and isinstance(given[0], t.Read) and given[0].object is clock.object


def subtype_of(x: t.Expr) -> Subtype:
    """What is known of the subtype of a name."""
    if x.sub is not None:
        return x.sub
    return Subtype(x.type)


def jumps(body: Iterable[t.Stmt]) -> list[t.Jump]:
    """Every exit and next inside, also of inner loops."""
    return [s for s in walk(body) if isinstance(s, t.Jump)]


def walk(body: Iterable[t.Stmt]) -> Iterable[t.Stmt]:
    """All statements, those inside others too."""
    for s in body:
        yield s
        match s:
            case t.If():
                for _, inner in s.arms:
                    yield from walk(inner)
            case t.Case():
                for _, inner in s.arms:
                    yield from walk(inner)
            case t.Loop():
                yield from walk(s.body)
            case (
                t.SetVariable()
                | t.SetSignal()
                | t.Jump()
                | t.Return()
                | t.Wait()
                | t.Assert()
                | t.CallProcedure()
                | t.Null()
                | t.Declare()
                | t.DeclareSub()
            ):
                pass
            case _:
                raise no_rule(s)


def assigned_variables(body: Iterable[t.Stmt]) -> Iterable[Object]:
    """Variables whose name is bound anew by statements of this body."""
    for s in walk(body):
        targets: list[t.Expr] = []
        if isinstance(s, t.SetVariable):
            targets = [s.target]
        elif isinstance(s, t.CallProcedure):
            targets = [s.args[i] for i in s.procedure.outs()]
            if s.procedure.foreign:
                targets = list(s.args)
        while targets:
            x = targets.pop()
            if isinstance(x, t.ArrayAgg):
                targets += [v for _, v, _ in x.items]
            elif isinstance(x, t.RecordAgg):
                targets += x.values
            else:
                while isinstance(x, t.Index | t.Slice | t.Field):
                    x = x.prefix
                if isinstance(x, t.Read) and x.object.kind == "variable":
                    yield x.object
