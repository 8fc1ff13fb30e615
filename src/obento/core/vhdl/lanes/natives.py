"""The functions of the standard packages on digits: four-state operators where those agree with the packages'
definitions."""

from __future__ import annotations

from typing import Protocol

from obento.core.ir import nodes as ir
from obento.core.values import ones
from obento.core.vhdl.lanes.values import Digits, NoLanes, bit, both, is_known, not_, number_width, same, widened
from obento.core.vhdl.model.nine_values import DASH, ONE, ZERO
from obento.core.vhdl.model.types import ArrayType, IntType, Subtype, Type
from obento.core.vhdl.model.values import Arr
from obento.core.vhdl.packages.standard import BOOLEAN, INTEGER, int_range

_BITWISE = {
    "and": ("and", False),
    "or": ("or", False),
    "xor": ("xor", False),
    "nand": ("and", True),
    "nor": ("or", True),
    "xnor": ("xor", True),
}
_ARITHMETIC = {"+": "add", "-": "sub", "*": "mul"}
_LESS = {
    "<": ("lt", False, False),
    "<=": ("le", False, False),
    ">": ("lt", True, False),
    ">=": ("le", True, False),
    "=": ("eq", False, False),
    "/=": ("eq", False, True),
}
_ONE = ir.Const(1, 1, 0)


class Marks(Protocol):
    """Who marks the lanes that have to be run step by step."""

    def escape(self, when: ir.Expr) -> None:
        """Those that end in an error."""
        ...

    def doubt(self, when: ir.Expr) -> None:
        """Those in which the digits do not tell what VHDL's values would."""
        ...


def vector(t: Type, e: ir.Expr) -> Digits:
    """Digits as a vector numbered downwards to 0."""
    return Digits(Subtype(t, [int_range(INTEGER, e.width - 1, 0, True)]), e=e)


def truth(e: ir.Expr) -> Digits:
    """A condition as a value."""
    return Digits(Subtype(BOOLEAN), e=e)


def bitwise(op: str, a: ir.Expr, b: ir.Expr) -> ir.Expr:
    """A logical operator, digit by digit."""
    name, invert = _BITWISE[op]
    e: ir.Expr = ir.Binary(a.width, name, a, b)
    return ir.Unary(a.width, "not", e) if invert else e


def native(package: str, name: str, args: list[Digits], result: Subtype, marks: Marks) -> Digits:
    """A call of one of the packages' functions.

    Raises
    ------
    NoLanes
        If the function has no form here.
    """
    op = name.strip('"')
    if op.startswith("?") and len(args) == 2:
        return _matching(op, args, any(_is_signed(package, a) for a in args), result, marks)
    if package == "std_logic_1164" or op in ("and", "or", "nand", "nor", "xor", "xnor", "not"):
        return _logic(op, args, result)
    if package in ("numeric_std", "std_logic_unsigned", "std_logic_signed", "std_logic_arith", "numeric_std_unsigned"):
        return _numeric(package, op, args, result, marks)
    raise NoLanes(f"`{name}` of {package}")


def _logic(op: str, args: list[Digits], result: Subtype) -> Digits:
    digits = [a.digits for a in args]
    if op == "not":
        e = digits[0]
        return _like(result, args[0], ir.Unary(e.width, "not", e))
    if op in _BITWISE and len(args) == 1:
        base, invert = _BITWISE[op]
        e = digits[0]
        reduced: ir.Expr = ir.Unary(1, f"r{base}", e)
        return Digits(result, e=not_(reduced) if invert else reduced)
    if op in _BITWISE:
        a, b = digits
        if a.width != b.width:
            if args[0].sub.type is not args[1].sub.type and 1 in (a.width, b.width):
                width = max(a.width, b.width)
                a, b = (d if d.width == width else ir.Concat(width, [d] * width) for d in (a, b))
            else:
                raise NoLanes("vectors of different lengths")
        longer = args[0] if isinstance(args[0].sub.type, ArrayType) else args[1]
        return _like(result, longer, bitwise(op, a, b))
    if op in (
        "to_x01",
        "to_ux01",
        "to_bit",
        "to_stdulogic",
        "to_stdlogicvector",
        "to_stdulogicvector",
        "to_std_logic_vector",
        "to_slv",
        "to_bitvector",
    ):
        e = digits[0]
        if op in ("to_bit", "to_bitvector"):
            # Unknown digits read 0.
            parts: list[ir.Expr] = [same(ir.Slice(1, e, i), _ONE) for i in range(e.width - 1, -1, -1)]
            return _like(result, args[0], parts[0] if len(parts) == 1 else ir.Concat(e.width, parts))
        clean = ir.Unary(e.width, "not", ir.Unary(e.width, "not", e)) if op in ("to_x01", "to_ux01") else e
        return _like(result, args[0], clean)
    if op == "is_x":
        return truth(not_(is_known(digits[0])))
    if op == "??":
        return truth(same(digits[0], _ONE))
    raise NoLanes(f"`{op}` of std_logic_1164")


def _matching(op: str, args: list[Digits], signed: bool, result: Subtype, marks: Marks) -> Digits:
    """`?=` and its like: a digit, X where an operand has a digit that is not known; those lanes are in doubt, since `-`
    matches all and digits do not tell it from X (1076-2008 clause 9.2.3)."""
    if op in ("?=", "?/=") and args[0].digits.width == args[1].digits.width and not _has_number(args):
        holds = _match(args, marks).digits
        return Digits(result, e=not_(holds) if op == "?/=" else holds)
    marks.doubt(not_(both(*(is_known(a.digits) for a in args))))
    return Digits(result, e=_compare(op[1:], args, [a for a in args if _is_vector(a)] or args, signed).digits)


def _has_number(args: list[Digits]) -> bool:
    return any(isinstance(a.sub.type, IntType) for a in args)


def _like(result: Subtype, arg: Digits, e: ir.Expr) -> Digits:
    if isinstance(result.type, ArrayType):
        if result.ranges is not None:
            return Digits(result, e=e)
        if arg.sub.length() == e.width and isinstance(arg.sub.type, ArrayType):
            return Digits(Subtype(result.type, arg.sub.ranges), e=e)
        return vector(result.type, e)
    return Digits(result, e=e)


def _is_signed(package: str, v: Digits) -> bool:
    name = v.sub.type.name
    return name == "signed" or (package == "std_logic_signed" and name == "std_logic_vector")


def _is_vector(v: Digits) -> bool:
    return isinstance(v.sub.type, ArrayType)


def _numeric(package: str, op: str, args: list[Digits], result: Subtype, marks: Marks) -> Digits:
    vectors = [a for a in args if _is_vector(a)]
    if any(v.digits.width == 0 for v in vectors):
        raise NoLanes("vectors without digits")
    signed = any(_is_signed(package, v) for v in vectors)
    if package == "std_logic_arith" and len({v.sub.type.name for v in vectors}) > 1 and len(vectors) > 1:
        raise NoLanes("signed and unsigned mixed")
    if op in _ARITHMETIC and len(args) == 2:
        return _sum(op, args, vectors, signed, result)
    if op in ("+", "-", "abs") and len(args) == 1:
        e = args[0].digits
        if op == "+":
            return vector(result.type, e)
        negated = ir.Unary(e.width, "neg", e)
        return vector(result.type, negated if op == "-" else ir.Mux(e.width, ir.Slice(1, e, e.width - 1), negated, e))
    if op in _LESS and len(args) == 2:
        return _compare(op, args, vectors, signed)
    if op in ("shift_left", "shift_right", "rotate_left", "rotate_right", "sll", "srl", "rol", "ror", "shl", "shr"):
        return _shift(op, args, signed, result, marks)
    if op in ("resize", "ext", "sxt") or (op.startswith("conv_") and op != "conv_integer" and _is_vector(args[0])):
        return _resize(op, args, signed, result)
    if op in ("to_integer", "conv_integer"):
        return _to_integer(args[0], signed, result, marks)
    if op in (
        "to_unsigned",
        "to_signed",
        "conv_std_logic_vector",
        "conv_unsigned",
        "conv_signed",
        "to_slv",
        "to_stdlogicvector",
    ):
        width = _size(args[1])
        return vector(result.type, widened(args[0], width))
    if op in ("/", "mod", "rem") and len(vectors) == 2:
        return _divide(op, args, signed, result)
    if op == "std_match":
        return _match(args, marks)
    if op in ("to_01", "is_x"):
        return _logic(op, args, result)
    raise NoLanes(f"`{op}` of {package}")


def _operand(v: Digits, width: int, signed: bool) -> ir.Expr:
    """An operand in the width of the operation; a single digit counts 0 or 1, a whole number is cut."""
    e = v.digits
    if isinstance(v.sub.type, IntType):
        return widened(v, width)
    if not _is_vector(v):
        return ir.Extend(width, e, False) if width > e.width else e
    if e.width == width:
        return e
    return ir.Extend(width, e, signed) if e.width < width else ir.Slice(width, e, 0)


def _sum(op: str, args: list[Digits], vectors: list[Digits], signed: bool, result: Subtype) -> Digits:
    width = max(v.digits.width for v in vectors)
    if op == "*":
        total = sum(v.digits.width for v in vectors) if len(vectors) == 2 else 2 * width
        cut = [a if _is_vector(a) else Digits(a.sub, e=widened(a, width)) for a in args]
        a, b = (_operand(c, total, signed) if _is_vector(c) else ir.Extend(total, c.digits, signed) for c in cut)
        return vector(result.type, ir.Binary(total, "mul", a, b))
    a, b = (_operand(x, width, signed) for x in args)
    return vector(result.type, ir.Binary(width, _ARITHMETIC[op], a, b))


def _compare(op: str, args: list[Digits], vectors: list[Digits], signed: bool) -> Digits:
    width = max(v.digits.width for v in vectors)
    for a in args:
        if isinstance(a.sub.type, IntType):
            low, high = a.bounds
            width = max(width, low.bit_length() + 1, high.bit_length() + 1)
    if len(vectors) < 2 and not signed:
        width += 1  # room for the sign of a whole number
    signed_op = signed or len(vectors) < 2
    left, right = (_operand(x, width, signed) for x in args)
    name, swap, invert = _LESS[op]
    if swap:
        left, right = right, left
    if name != "eq" and signed_op:
        name = "s" + name
    holds = same(ir.Binary(1, name, left, right), _ONE)  # an unknown operand makes it false (and `/=` true)
    return truth(not_(holds) if invert else holds)


SHIFTS = frozenset(["sll", "srl", "rol", "ror", "sla", "sra"])
"""Operators that shift by a number of either sign."""

_ROTATIONS = {"rotate_left": True, "rol": True, "rotate_right": False, "ror": False}
_OPPOSITE = {"sll": "srl", "srl": "sll", "sla": "sra", "sra": "sla"}


def shifted(op: str, e: ir.Expr, amount: Digits, signed: bool = False) -> ir.Expr:
    """Digits shifted or rotated by a number; negative numbers shift the other way (1076-1993 clause 7.2.3)."""
    low, high = amount.bounds
    if op in _ROTATIONS:
        return _rotated(e, amount, _ROTATIONS[op])
    if low < 0 and op in _OPPOSITE:
        if high <= 0:
            return shifted(_OPPOSITE[op], e, _negated(amount))
        width = number_width(low, high)
        is_negative = ir.Slice(1, widened(amount, width), width - 1)
        forward = Digits(amount.sub, e=ir.Slice(width - 1, widened(amount, width), 0), low=0, high=high)
        return ir.Mux(e.width, is_negative, shifted(_OPPOSITE[op], e, _negated(amount)), shifted(op, e, forward))
    n = widened(amount, max(1, high.bit_length(), amount.digits.width))
    if op == "sla":  # what comes in is the rightmost element: as the mirror of `sra`
        return _mirrored(ir.Shift(e.width, "sar", _mirrored(e), n))
    kind = "shl" if op in ("shift_left", "sll", "shl") else "shr"
    if op == "sra" or (signed and kind == "shr" and op != "srl"):
        kind = "sar"
    return ir.Shift(e.width, kind, e, n)


def _mirrored(e: ir.Expr) -> ir.Expr:
    return e if e.width == 1 else ir.Concat(e.width, [ir.Slice(1, e, i) for i in range(e.width)])


def _negated(v: Digits) -> Digits:
    """A number with its sign turned, where it is negative; elsewhere anything."""
    low = v.bounds[0]
    if v.known:
        return Digits(v.sub, -v.value, True)
    width = number_width(low, max(-low, v.bounds[1]))
    return Digits(v.sub, e=ir.Unary(width, "neg", widened(v, width)), low=0, high=-low)


def _rotated(e: ir.Expr, amount: Digits, to_left: bool) -> ir.Expr:
    size = e.width
    if amount.known:
        by = (amount.value if to_left else -amount.value) % size
        return ir.Concat(size, [ir.Slice(size - by, e, 0), ir.Slice(by, e, size - by)]) if by else e
    low, high = amount.bounds
    width = number_width(min(low, -1), max(high, size))
    whole = ir.Const(width, size, ~size & ones(width))
    n: ir.Expr = ir.Binary(width, "smod", widened(amount, width), whole)
    if low < 0:
        n = ir.Mux(width, ir.Slice(1, n, width - 1), ir.Binary(width, "add", n, whole), n)
    twice = ir.Concat(2 * size, [e, e])
    if to_left:
        return ir.Slice(size, ir.Shift(2 * size, "shl", twice, n), size)
    return ir.Slice(size, ir.Shift(2 * size, "shr", twice, n), 0)


def _shift(op: str, args: list[Digits], signed: bool, result: Subtype, marks: Marks) -> Digits:
    e, amount = args[0].digits, args[1]
    if _is_vector(amount):
        marks.doubt(not_(is_known(amount.digits)))
        kind = "shl" if op == "shl" else "sar" if signed else "shr"
        return vector(result.type, ir.Shift(e.width, kind, e, amount.digits))
    return vector(result.type, shifted(op, e, amount, signed))


def _size(v: Digits) -> int:
    if _is_vector(v):
        return v.digits.width
    if not v.known:
        raise NoLanes("a width that is only known in the run")
    return int(v.value)


def _resize(op: str, args: list[Digits], signed: bool, result: Subtype) -> Digits:
    e, width = args[0].digits, _size(args[1])
    if width < 1:
        raise NoLanes("vectors without digits")
    if op == "sxt":
        signed = True
    if width >= e.width:
        return vector(result.type, ir.Extend(width, e, signed) if width > e.width else e)
    if signed and op == "resize":
        parts: list[ir.Expr] = [ir.Slice(1, e, e.width - 1)]
        if width > 1:
            parts.append(ir.Slice(width - 1, e, 0))
        return vector(result.type, ir.Concat(width, parts))
    return vector(result.type, ir.Slice(width, e, 0))


def _to_integer(v: Digits, signed: bool, result: Subtype, marks: Marks) -> Digits:
    e = v.digits
    if not _is_vector(v):
        raise NoLanes("a single digit as a number")
    known = is_known(e)
    width = e.width
    if width > 31 + signed:
        if signed:
            raise NoLanes("a number of more than 32 digits")
        top = ir.Slice(width - 31, e, 31)
        marks.escape(both(known, same(ir.Unary(1, "ror", top), _ONE)))
        e, width = ir.Slice(31, e, 0), 31
    zero = ir.Const(width, 0, ones(width))
    low, high = (-(1 << (width - 1)), (1 << (width - 1)) - 1) if signed else (0, (1 << width) - 1)
    return Digits(Subtype(result.type), e=ir.Mux(width, known, e, zero), low=low, high=high)


def _divide(op: str, args: list[Digits], signed: bool, result: Subtype) -> Digits:
    width = max(a.digits.width for a in args) + signed
    a, b = (_operand(x, width, signed) for x in args)
    name = {"/": "div", "rem": "mod", "mod": "mod"}[op]
    e: ir.Expr = ir.Binary(width, ("s" if signed else "") + name, a, b)
    if op == "mod" and signed:
        # The remainder has the sign of the left operand, `mod` that of the right.
        rest = not_(same(e, ir.Const(width, 0, ones(width))))
        turns = both(rest, ir.Binary(1, "xor", ir.Slice(1, e, width - 1), ir.Slice(1, b, width - 1)))
        e = ir.Mux(width, turns, ir.Binary(width, "add", e, b), e)
    out = args[0].digits.width if op == "/" else args[1].digits.width
    return vector(result.type, ir.Slice(out, e, 0) if out < width else e)


def _match(args: list[Digits], marks: Marks) -> Digits:
    """std_match: `-` matches everything. Digits cannot tell it from other unknown values."""
    a, b = args
    if a.digits.width != b.digits.width:
        return truth(bit(False))
    if a.known:
        a, b = b, a
    p, q = a.digits, b.digits
    if not b.known:
        marks.doubt(not_(both(is_known(p), is_known(q))))
        return truth(same(p, q))
    marks.doubt(not_(is_known(p)))
    found: ir.Expr = ir.Const(1, 1, 0)
    for i, c in enumerate(reversed(b.value.v if isinstance(b.value, Arr) else [b.value])):
        if c == DASH:
            continue
        if c not in (ZERO, ONE):
            return truth(bit(False))
        found = both(found, same(ir.Slice(1, p, i), bit(c == ONE)))
    return truth(found)
