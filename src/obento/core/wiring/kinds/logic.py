"""Decoders, encoders, tests of a whole word, shifters, words made wider."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from obento.core.ir import nodes as ir
from obento.core.wiring.kinds.kind import Kind, Misfit, Place, Sizes, Values, alike, bit, constant, known, widened

_MOST_ADDRESS = 8
"""Bits of the widest number that is decoded."""


def address(sizes: Sizes, name: str) -> int:
    """The size of an operand that counts to one of many."""
    size = known(sizes, name)
    if size > _MOST_ADDRESS:
        text = f"{size} bits count to one of {1 << size}; at most {1 << _MOST_ADDRESS} can be told apart"
        raise Misfit("too-wide", text, name)
    return size


def is_number(e: ir.Expr, number: int) -> ir.Expr:
    """Whether a word is this number: one digit that is certainly another one decides (as gates would)."""
    found: ir.Expr | None = None
    for i in range(e.width):
        digit = bit(e, i)
        literal = digit if number >> i & 1 else ir.Unary(1, "not", digit)
        found = literal if found is None else ir.Binary(1, "and", found, literal)
    assert found is not None
    return found


def _decoder(v: Values, place: Place) -> Sequence[ir.Expr]:
    del place
    s, enable = v["s"], v.get("enable")
    lines = [is_number(s, i) for i in range(1 << s.width)]
    if enable is not None:
        lines = [ir.Binary(1, "and", enable, line) for line in lines]
    return [ir.Concat(len(lines), lines[::-1])]


def _encoder(v: Values, place: Place) -> Sequence[ir.Expr]:
    del place
    d = v["d"]
    width = max(1, (d.width - 1).bit_length())
    code: ir.Expr = constant(width, 0)
    for i in range(1, d.width):
        code = ir.Mux(width, bit(d, i), constant(width, i), code)
    return [code, ir.Unary(1, "ror", d)]


def _encoder_sizes(sizes: Sizes) -> Sequence[int]:
    size = known(sizes, "d")
    if size > 1 << _MOST_ADDRESS:
        raise Misfit("too-wide", f"at most {1 << _MOST_ADDRESS} lines can be encoded, here are {size}", "d")
    return [max(1, (size - 1).bit_length()), 1]


def _of_word(name: str, make: Callable[[ir.Expr], ir.Expr]) -> Kind:
    """A part that tells one digit of a word."""

    def build(v: Values, place: Place) -> Sequence[ir.Expr]:
        del place
        return [make(v["a"])]

    return Kind(name, ("a",), ("y",), lambda sizes: [1], build)


def _shift(op: str) -> Callable[[Values, Place], Sequence[ir.Expr]]:
    def build(v: Values, place: Place) -> Sequence[ir.Expr]:
        del place
        return [ir.Shift(v["a"].width, op, v["a"], v["by"])]

    return build


def _rotate(to_left: bool) -> Callable[[Values, Place], Sequence[ir.Expr]]:
    def build(v: Values, place: Place) -> Sequence[ir.Expr]:
        del place
        a, by = v["a"], v["by"]
        width = a.width
        for i in range(by.width):
            step = pow(2, i, width)
            step = step if to_left else (width - step) % width
            if step:
                turned = ir.Concat(width, [ir.Slice(width - step, a, 0), ir.Slice(step, a, width - step)])
                a = ir.Mux(width, bit(by, i), turned, a)
        return [a]

    return build


def _widen(signed: bool) -> Callable[[Values, Place], Sequence[ir.Expr]]:
    def build(v: Values, place: Place) -> Sequence[ir.Expr]:
        del place
        return [widened(v["a"], v.sizes["bits"], signed)]

    return build


def _widened_size(sizes: Sizes) -> Sequence[int]:
    if "bits" not in sizes:
        raise Misfit("pin", "how wide it becomes is missing", "", "write for instance `bits: 8`")
    if sizes.get("a", 0) > sizes["bits"]:
        text = f"{sizes['a']} bits cannot be widened to {sizes['bits']}"
        raise Misfit("width-misfit", text, "a", "take a part of them: `a[3..0]`")
    return [sizes["bits"]]


def _same(sizes: Sizes) -> Sequence[int]:
    return [alike(sizes, "a")]


def _by(sizes: Sizes) -> Sequence[int]:
    if sizes.get("by", 1) > 32:
        raise Misfit("too-wide", f"how far is a number of at most 32 bits, here are {sizes['by']}", "by")
    return [alike(sizes, "a")]


KINDS = [
    Kind("decoder", ("s",), ("y",), lambda sizes: [1 << address(sizes, "s")], _decoder, ("enable",)),
    Kind("encoder", ("d",), ("code", "any"), _encoder_sizes, _encoder),
    _of_word("zero", lambda a: ir.Unary(1, "not", ir.Unary(1, "ror", a))),
    _of_word("negative", lambda a: bit(a, a.width - 1)),
    _of_word("all", lambda a: ir.Unary(1, "rand", a)),
    _of_word("any", lambda a: ir.Unary(1, "ror", a)),
    _of_word("parity", lambda a: ir.Unary(1, "rxor", a)),
    Kind("shift_left", ("a", "by"), ("y",), _by, _shift("shl")),
    Kind("shift_right", ("a", "by"), ("y",), _by, _shift("shr")),
    Kind("shift_signed", ("a", "by"), ("y",), _by, _shift("sar")),
    Kind("rotate_left", ("a", "by"), ("y",), _by, _rotate(True)),
    Kind("rotate_right", ("a", "by"), ("y",), _by, _rotate(False)),
    Kind("widen", ("a",), ("y",), _widened_size, _widen(False), ("bits",)),
    Kind("widen_signed", ("a",), ("y",), _widened_size, _widen(True), ("bits",)),
]
