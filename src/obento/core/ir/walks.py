"""What an expression consists of."""

from __future__ import annotations

from collections.abc import Callable

from obento.core.ir.nodes import (
    Binary,
    Call,
    CollectionOp,
    Concat,
    DigitsReal,
    Expr,
    Extend,
    Mux,
    Pick,
    Power,
    RealDigits,
    RealMux,
    RealOp,
    RealRelation,
    Resolve,
    Rounded,
    Shift,
    Slice,
    SystemCall,
    TextOp,
    TextValue,
    ToReal,
    Tristate,
    Unary,
)


def _no_children(e: Expr) -> list[Expr]:
    return []


_CHILDREN: dict[type, Callable[..., list[Expr]]] = {
    Unary: lambda e: [e.a],
    Slice: lambda e: [e.a],
    Extend: lambda e: [e.a],
    ToReal: lambda e: [e.a],
    RealDigits: lambda e: [e.a],
    DigitsReal: lambda e: [e.a],
    Rounded: lambda e: [e.a],
    Binary: lambda e: [e.a, e.b],
    Power: lambda e: [e.a, e.b],
    Shift: lambda e: [e.a, e.b],
    RealRelation: lambda e: [e.a, e.b],
    Mux: lambda e: [e.cond, e.a, e.b],
    RealMux: lambda e: [e.cond, e.a, e.b],
    Concat: lambda e: e.parts,
    Pick: lambda e: [e.a, e.index],
    Tristate: lambda e: [e.enable, e.a],
    Call: lambda e: e.args,
    RealOp: lambda e: e.args,
    TextOp: lambda e: e.args,
    TextValue: lambda e: e.args,
    CollectionOp: lambda e: e.args if e.each is None else [*e.args, e.each.test],
    Resolve: lambda e: [*e.drivers, *(m for m in e.might if m is not None)],
    SystemCall: lambda e: [a.value for a in e.args if a.value is not None],
}


def children(e: Expr) -> list[Expr]:
    """The operands of an expression."""
    return _CHILDREN.get(type(e), _no_children)(e)


def walk(expr: Expr) -> list[Expr]:
    """An expression and everything below it, in no particular order."""
    out = [expr]
    for e in out:  # grows while it is walked
        operands = _CHILDREN.get(type(e))
        if operands is not None:
            out += operands(e)
    return out


def calls_something(e: Expr) -> bool:
    """Whether evaluating an expression calls a function, which may have effects or no end."""
    return any(isinstance(node, Call | SystemCall | CollectionOp) for node in walk(e))
