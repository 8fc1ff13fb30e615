"""Evaluate an expression without running a design: constants in elaboration, and the plain reference of tests."""

from __future__ import annotations

from collections.abc import Callable

from obento.core import values as v
from obento.core.ir.design import Signal
from obento.core.ir.nodes import (
    Binary,
    Call,
    Concat,
    Const,
    Expr,
    Extend,
    Mux,
    Pick,
    Power,
    Ref,
    Shift,
    Slice,
    Tristate,
    Unary,
)
from obento.core.values import Word


class NotConstant(Exception):
    """The expression reads a signal where only constants may stand."""


def _no_signal(signal: Signal) -> Word:
    raise NotConstant(signal.name)


def pick(a: Word, width: int, index: Word, iwidth: int, signed: bool, base: int, step: int, count: int) -> Word:
    """Select `count` digits at a computed offset (see `nodes.Pick`)."""
    if not v.is_known(index, iwidth):
        return v.X1
    at = v.signed_value(index[0], iwidth) if signed else index[0]
    low = (at - base) * step
    if low >= width or low + count <= 0:
        return v.X1
    return v.select(a, width, low, count)


def tristate(enable: Word, a: Word, width: int) -> Word:
    if enable == v.ONE1:
        return a
    return v.floating(width) if enable == v.ZERO1 else v.unknown(width)


def evaluate(e: Expr, read: Callable[[Signal], Word] = _no_signal) -> Word:
    """The value of `e`; `read` gives the value of a signal.

    Raises
    ------
    NotConstant
        If `read` is left out and the expression reads a signal, or it calls a function.
    """
    match e:
        case Const():
            return e.one, e.zero
        case Ref():
            return read(e.signal)
        case Unary():
            return v.UNARY[e.op](evaluate(e.a, read), e.a.width)
        case Binary():
            return v.BINARY[e.op](evaluate(e.a, read), evaluate(e.b, read), e.a.width)
        case Power():
            return v.power(evaluate(e.a, read), e.width, evaluate(e.b, read), e.b.width, e.a_signed, e.b_signed)
        case Shift():
            return v.shift(e.op, evaluate(e.a, read), e.width, evaluate(e.b, read), e.b.width)
        case Mux():
            cond = v.v_ror(evaluate(e.cond, read), e.cond.width)
            if cond == v.X1:
                return v.merge(evaluate(e.a, read), evaluate(e.b, read))
            return evaluate(e.a if cond == v.ONE1 else e.b, read)
        case Concat():
            one = zero = 0
            for part in e.parts:
                p1, p0 = evaluate(part, read)
                one, zero = one << part.width | p1, zero << part.width | p0
            return one, zero
        case Slice():
            return v.select(evaluate(e.a, read), e.a.width, e.low, e.width)
        case Pick():
            index = evaluate(e.index, read)
            return pick(evaluate(e.a, read), e.a.width, index, e.index.width, e.index_signed, e.base, e.step, e.width)
        case Extend():
            return v.extend(evaluate(e.a, read), e.a.width, e.width, e.signed)
        case Tristate():
            return tristate(evaluate(e.enable, read), evaluate(e.a, read), e.width)
        case Call():
            raise NotConstant(e.function.name)
    raise AssertionError(f"no rule for {type(e).__name__}")
