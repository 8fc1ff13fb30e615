"""Adders, subtractors, multipliers and comparators: words as numbers."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from obento.core.ir import nodes as ir
from obento.core.wiring.kinds.kind import Kind, Misfit, Place, Sizes, Values, alike, constant, known, widened

_MOST_PRODUCT = 128


def _sum(op: str, pin: str) -> Callable[[Values, Place], Sequence[ir.Expr]]:
    """`a + b + carry`, or `a - b - borrow`, with what does not fit any more."""

    def build(v: Values, place: Place) -> Sequence[ir.Expr]:
        del place
        width = v["a"].width
        exact: ir.Expr = ir.Binary(width + 1, op, widened(v["a"], width + 1), widened(v["b"], width + 1))
        more = v.get(pin)
        if more is not None:
            exact = ir.Binary(width + 1, op, exact, widened(more, width + 1))
        return [ir.Slice(width, exact, 0), ir.Slice(1, exact, width)]

    return build


def _product(signed: bool) -> Callable[[Values, Place], Sequence[ir.Expr]]:
    def build(v: Values, place: Place) -> Sequence[ir.Expr]:
        del place
        width = v["a"].width + v["b"].width
        return [ir.Binary(width, "mul", widened(v["a"], width, signed), widened(v["b"], width, signed))]

    return build


def _product_size(sizes: Sizes) -> Sequence[int]:
    width = known(sizes, "a") + known(sizes, "b")
    if width > _MOST_PRODUCT:
        raise Misfit("too-wide", f"the product has {width} bits, more than {_MOST_PRODUCT}")
    return [width]


def _compared(less: str) -> Callable[[Values, Place], Sequence[ir.Expr]]:
    def build(v: Values, place: Place) -> Sequence[ir.Expr]:
        del place
        a, b = v["a"], v["b"]
        return [ir.Binary(1, less, a, b), ir.Binary(1, "eq", a, b), ir.Binary(1, less, b, a)]

    return build


def _negate(v: Values, place: Place) -> Sequence[ir.Expr]:
    del place
    a = v["a"]
    return [ir.Binary(a.width, "sub", constant(a.width, 0), a)]


def _with_one(sizes: Sizes) -> Sequence[int]:
    return [alike(sizes, "a", "b"), 1]


def _flags(sizes: Sizes) -> Sequence[int]:
    if sizes:
        alike(sizes, "a", "b")
    return [1, 1, 1]


_ORDER = ("less", "equal", "greater")

KINDS = [
    Kind("add", ("a", "b"), ("sum", "carry"), _with_one, _sum("add", "carry"), ("carry",)),
    Kind("subtract", ("a", "b"), ("difference", "borrow"), _with_one, _sum("sub", "borrow"), ("borrow",)),
    Kind("negate", ("a",), ("y",), lambda sizes: [alike(sizes, "a")], _negate),
    Kind("multiply", ("a", "b"), ("product",), _product_size, _product(False)),
    Kind("multiply_signed", ("a", "b"), ("product",), _product_size, _product(True)),
    Kind("compare", ("a", "b"), _ORDER, _flags, _compared("lt")),
    Kind("compare_signed", ("a", "b"), _ORDER, _flags, _compared("slt")),
]
