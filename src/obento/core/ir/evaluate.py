"""Evaluate an expression without running a design: constants in elaboration, and the plain reference of tests."""

from __future__ import annotations

import math
from collections.abc import Callable

from obento.core import values as v
from obento.core.ir.collections import OPS, Collection, Element
from obento.core.ir.doubles import from_bits, to_bits
from obento.core.ir.nodes import (
    Binary,
    Call,
    CollectionOp,
    Concat,
    Const,
    DigitsReal,
    Expr,
    Extend,
    Mux,
    Pick,
    Power,
    RealConst,
    RealDigits,
    RealMux,
    RealOp,
    RealRelation,
    Ref,
    Resolve,
    Rounded,
    Shift,
    Slice,
    SystemCall,
    TextConst,
    TextOp,
    TextValue,
    ToReal,
    Tristate,
    Unary,
)
from obento.core.ir.signal import Signal
from obento.core.ir.strength import resolve
from obento.core.ir.texts import TEXT_OPS, TEXT_VALUES, to_digits
from obento.core.values import Word


class NotConstant(Exception):
    """The expression reads a signal where only constants may stand."""


def _no_signal(signal: Signal) -> Word:
    raise NotConstant(signal.name)


def pick(a: Word, width: int, index: Word, iwidth: int, signed: bool, base: int, step: int, count: int) -> Word:
    """Select `count` digits at a computed offset (see `nodes.Pick`).

    Parameters
    ----------
    a
        The word to select from, `width` digits.
    index
        The number that says where, `iwidth` digits, `signed` or not.
    base, step
        Index `base` is at digit 0, each further index `step` digits on.
    count
        How many digits.
    """
    if not v.is_known(index, iwidth):
        return v.X1
    at = v.signed_value(index[0], iwidth) if signed else index[0]
    low = (at - base) * step
    if low >= width or low + count <= 0:
        return v.X1
    return v.select(a, width, low, count)


def tristate(enable: Word, a: Word, width: int) -> Word:
    """`a` while `enable` is 1, all z while it is 0, and unknown between the two otherwise."""
    if enable == v.ONE1:
        return a
    floating = a[0] & a[1] if enable != v.ZERO1 else v.ones(width)
    return floating, floating


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
        case Resolve():
            might = [None if m is None else evaluate(m, read) for m in e.might]
            return resolve(e.net, [evaluate(d, read) for d in e.drivers], might, e.strengths, e.width)
        case RealDigits():
            return v.word(to_bits(evaluate_real(e.a, read)), 64)
        case Rounded():
            return v.word(round_half_away(evaluate_real(e.a, read)), e.width)
        case TextValue():
            return _text_value(e, read)
        case RealRelation():
            return v.bit(RELATIONS[e.op](evaluate_real(e.a, read), evaluate_real(e.b, read)))
        case Call():
            raise NotConstant(e.function.name)
        case SystemCall():
            raise NotConstant(e.name)
        case CollectionOp():
            raise NotConstant(e.op)
    raise AssertionError(f"no rule for {type(e).__name__}")


def evaluate_collection(e: Expr) -> Collection:
    """A collection that is written out, of constants.

    Raises
    ------
    NotConstant
        As `evaluate`.
    """
    if not isinstance(e, CollectionOp) or e.op not in ("made", "table", "sized", "otherwise"):
        raise NotConstant(type(e).__name__)
    args = [_element(a) for a in e.args]
    made = OPS[e.op](*args) if e.of is None else OPS[e.op](e.of, *args)
    assert isinstance(made, Collection)
    return made


def _element(e: Expr) -> Element | Collection:
    match e:
        case CollectionOp():
            return evaluate_collection(e)
        case TextConst() | TextOp():
            return evaluate_text(e)
        case RealConst() | RealOp() | RealMux() | ToReal() | DigitsReal():
            return evaluate_real(e)
    return evaluate(e)


def _text_value(e: TextValue, read: Callable[[Signal], Word]) -> Word:
    args = [_text_operand(a, read) for a in e.args]
    return to_digits(str(args[0]), e.width) if e.op == "digits" else TEXT_VALUES[e.op](*args)


def _text_operand(e: Expr, read: Callable[[Signal], Word]) -> str | Word:
    return evaluate_text(e, read) if isinstance(e, TextConst | TextOp) else evaluate(e, read)


def evaluate_text(e: Expr, read: Callable[[Signal], Word] = _no_signal) -> str:
    """The value of a string expression.

    Raises
    ------
    NotConstant
        As `evaluate`.
    """
    match e:
        case TextConst():
            return e.value
        case TextOp():
            return TEXT_OPS[e.op](*(_text_operand(a, read) for a in e.args))
        case Ref():
            raise NotConstant(e.signal.name)
    raise NotConstant(type(e).__name__)


def evaluate_real(e: Expr, read: Callable[[Signal], Word] = _no_signal) -> float:
    """The value of a real expression.

    Raises
    ------
    NotConstant
        As `evaluate`.
    """
    match e:
        case RealConst():
            return e.value
        case RealOp():
            return REAL_OPS[e.op](*(evaluate_real(a, read) for a in e.args))
        case RealMux():
            return evaluate_real(e.a if v.v_ror(evaluate(e.cond, read), e.cond.width) == v.ONE1 else e.b, read)
        case ToReal():
            return to_real(evaluate(e.a, read), e.a.width, e.signed)
        case DigitsReal():
            return from_bits(evaluate(e.a, read))
        case Ref():
            raise NotConstant(e.signal.name)
        case Call():
            raise NotConstant(e.function.name)
        case SystemCall():
            raise NotConstant(e.name)
        case CollectionOp():
            raise NotConstant(e.op)
    raise AssertionError(f"no rule for {type(e).__name__}")


def to_real(a: Word, width: int, signed: bool) -> float:
    """A vector as a number, unknown digits read 0 (4.8.2)."""
    known = a[0] & ~a[1]
    return _float(v.signed_value(known, width) if signed else known)


def _float(value: int) -> float:
    try:
        return float(value)
    except OverflowError:
        return math.inf if value > 0 else -math.inf


def round_half_away(x: float) -> int:
    """The nearest whole number; 0 where there is none (infinity, not a number)."""
    if not math.isfinite(x):
        return 0
    return math.floor(x + 0.5) if x >= 0 else -math.floor(-x + 0.5)


def _quotient(a: float, b: float) -> float:
    if b == 0:
        return math.nan if a == 0 or math.isnan(a) else math.copysign(math.inf, a) * math.copysign(1, b)
    return a / b


def _power(a: float, b: float) -> float:
    try:
        result = a**b
    except ZeroDivisionError:
        return math.inf
    except OverflowError:
        return math.inf
    return result if isinstance(result, float) else math.nan


REAL_OPS: dict[str, Callable[..., float]] = {
    "add": lambda a, b: a + b, "sub": lambda a, b: a - b, "mul": lambda a, b: a * b, "div": _quotient, "pow": _power,
    "neg": lambda a: -a,
}  # fmt: skip
"""Operators on real numbers by name."""

RELATIONS: dict[str, Callable[[float, float], bool]] = {
    "eq": lambda a, b: a == b, "ne": lambda a, b: a != b, "lt": lambda a, b: a < b, "le": lambda a, b: a <= b,
}  # fmt: skip
