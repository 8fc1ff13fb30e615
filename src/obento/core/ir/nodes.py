"""Expressions and statements of a Design.

Widths and signs are settled when these nodes are made: every operator names its kind outright (`lt` or `slt`), operands of
one operator have one width, and widening is a node of its own. Bit 0 is the rightmost digit whatever range was declared.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from obento.core.ir.design import Signal


@dataclass(slots=True)
class Expr:
    """Any expression; `width` in bits."""

    width: int


@dataclass(slots=True)
class Const(Expr):
    one: int
    zero: int


@dataclass(slots=True)
class Ref(Expr):
    """The whole of a signal."""

    signal: Signal


@dataclass(slots=True)
class Unary(Expr):
    """`op` is a key of `values.UNARY`; reductions and `lnot` have width 1."""

    op: str
    a: Expr


@dataclass(slots=True)
class Binary(Expr):
    """`op` is a key of `values.BINARY`; relations have width 1."""

    op: str
    a: Expr
    b: Expr


@dataclass(slots=True)
class Power(Expr):
    a: Expr
    b: Expr
    a_signed: bool
    b_signed: bool


@dataclass(slots=True)
class Shift(Expr):
    """`op` is shl, shr or sar; the amount `b` is self-determined and unsigned."""

    op: str
    a: Expr
    b: Expr


@dataclass(slots=True)
class Mux(Expr):
    """`?:`; an unknown condition merges the branches digit by digit."""

    cond: Expr
    a: Expr
    b: Expr


@dataclass(slots=True)
class Concat(Expr):
    """Leftmost part first."""

    parts: list[Expr]


@dataclass(slots=True)
class Slice(Expr):
    """`width` digits from offset `low`, which may reach outside (x there)."""

    a: Expr
    low: int


@dataclass(slots=True)
class Pick(Expr):
    """`width` digits of `a` from offset `(index - base) * step`; x where the index is unknown or outside."""

    a: Expr
    index: Expr
    index_signed: bool
    base: int
    step: int


@dataclass(slots=True)
class Extend(Expr):
    a: Expr
    signed: bool


@dataclass(slots=True)
class Tristate(Expr):
    """`a` where `enable` is 1, z where it is 0, x otherwise."""

    enable: Expr
    a: Expr


@dataclass(slots=True)
class Function:
    """A function body: locals are signals that belong to it alone; the last one of `params` order is not special."""

    name: str
    params: list[Signal]
    result: Signal
    local: list[Signal]
    body: Stmt | None = None
    position: int = 0


@dataclass(slots=True)
class Call(Expr):
    function: Function
    args: list[Expr]


@dataclass(slots=True)
class Stmt:
    position: int


@dataclass(slots=True)
class Target:
    """A stretch of a signal to be written: `width` digits from `low`, plus a computed offset when `index` is given.

    The offset is `(index - base) * step`. With `window` it must lie inside that many digits, else nothing is written.
    """

    signal: Signal
    low: int
    width: int
    index: Expr | None = None
    index_signed: bool = False
    base: int = 0
    step: int = 1
    window: int = 0


@dataclass(slots=True)
class Assign(Stmt):
    """Write `value` into `targets`, leftmost first; together they are as wide as the value."""

    targets: list[Target]
    value: Expr
    blocking: bool = True


@dataclass(slots=True)
class Block(Stmt):
    body: list[Stmt] = field(default_factory=list)


@dataclass(slots=True)
class If(Stmt):
    """Anything but a known 1 in the condition takes the else branch."""

    cond: Expr
    then: Stmt | None
    other: Stmt | None


@dataclass(slots=True)
class CaseArm:
    labels: list[Expr]
    body: Stmt | None
    position: int = 0


@dataclass(slots=True)
class Case(Stmt):
    """`match` is ceq, casez or casex; the first arm with a matching label runs."""

    match: str
    subject: Expr
    arms: list[CaseArm]
    default: Stmt | None


@dataclass(slots=True)
class Loop(Stmt):
    """Run `body` while `cond` is true."""

    cond: Expr
    body: Stmt | None


def children(e: Expr) -> list[Expr]:
    """The operands of an expression."""
    match e:
        case Unary() | Slice() | Extend():
            return [e.a]
        case Binary() | Power() | Shift():
            return [e.a, e.b]
        case Mux():
            return [e.cond, e.a, e.b]
        case Concat():
            return e.parts
        case Pick():
            return [e.a, e.index]
        case Tristate():
            return [e.enable, e.a]
        case Call():
            return e.args
    return []


def walk(expr: Expr) -> list[Expr]:
    """An expression and everything below it, in no particular order."""
    out: list[Expr] = []
    stack = [expr]
    while stack:
        e = stack.pop()
        out.append(e)
        stack += children(e)
    return out
