"""numeric_std, numeric_bit and the taught packages beside them: what their functions do (IEEE 1076.3).

Every function is found by its name and the kinds of its parameters: `u` unsigned, `s` signed, `i` whole number, `l` one
digit."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from obento.core.decimals import shown
from obento.core.ir.part import RunError
from obento.core.vhdl.model import nine_values as logic
from obento.core.vhdl.model.types import INTEGER_HIGH, INTEGER_LOW
from obento.core.vhdl.model.values import Arr, string
from obento.core.vhdl.runtime.operations import divide, modulo, remainder, shift

_BIT_TEXT = bytes([48, 49]) + bytes(254)
_BIT_DIGITS = bytes(49) + b"\1" + bytes(206)
_COMPARE: dict[str, Callable[[int, int], bool]] = {
    "<": lambda a, b: a < b,
    "<=": lambda a, b: a <= b,
    ">": lambda a, b: a > b,
    ">=": lambda a, b: a >= b,
    "=": lambda a, b: a == b,
    "/=": lambda a, b: a != b,
}
_ARITH_WARNING = "There is an 'U'|'X'|'W'|'Z'|'-' in an arithmetic operand, the result will be 'X'(es)."
_CONV_WARNING = (
    "CONV_INTEGER: There is an 'U'|'X'|'W'|'Z'|'-' in an arithmetic operand, and it has been converted to 0."
)


@dataclass(frozen=True, slots=True)
class Digits:
    """How vectors of one kind of digit are read and made."""

    text: bytes
    digits: bytes
    zero: int
    one: int
    unknown: int
    package: str

    def number(self, v: bytes, signed: bool) -> int | None:
        """The number that digits stand for, None where one is not known."""
        try:
            number = int(v.translate(self.text), 2)
        except ValueError:
            return 0 if not v else None
        return (
            number - (1 << len(v))
            if signed and v[0] not in (self.zero, logic.L if self.unknown else self.zero)
            else number
        )

    def vector(self, number: int | None, width: int) -> Arr:
        """A number as a vector; digits that are not known where there is none."""
        if width <= 0:
            return Arr(0, 1, b"")
        if number is None:
            return Arr(width - 1, -1, bytes((self.unknown,)) * width)
        return Arr(width - 1, -1, f"{number & ((1 << width) - 1):0{width}b}".encode().translate(self.digits))


STD = Digits(logic.TEXT, logic.DIGITS, logic.ZERO, logic.ONE, logic.X, "NUMERIC_STD")
BIT = Digits(_BIT_TEXT, _BIT_DIGITS, 0, 1, 0, "NUMERIC_BIT")


def wants_run(f: Callable[..., Any]) -> Callable[..., Any]:
    """The function takes the run and the place of its call before its own arguments."""
    f.wants_run = True  # type: ignore[attr-defined]
    return f


def find(digits: Digits, name: str, kinds: str, lenient: bool = False) -> Callable[..., Any] | None:
    """The function of numeric_std (or _bit) of this name; `lenient` for vectors that are numbers by package only."""
    op = name.strip('"')
    if op in ("find_leftmost", "find_rightmost"):
        return lambda a, y: _found(a, y, digits, op == "find_leftmost")
    if kinds in ("uu", "ss", "ui", "iu", "si", "is") and op in ("+", "-"):
        return _sum(digits, op, kinds)
    if kinds in ("ul", "lu", "sl", "ls") and op in ("+", "-"):
        return _sum_digit(digits, op, kinds)
    if len(kinds) == 2 and op == "*":
        return _product(digits, kinds)
    if len(kinds) == 2 and op in ("/", "rem", "mod"):
        return _quotient(digits, op, kinds)
    if len(kinds) == 2 and op in _COMPARE:
        return _comparison(digits, op, kinds)
    if len(kinds) == 2 and op.startswith("?") and op[1:] in _COMPARE:
        return _matching(digits, op[1:], kinds)
    if op in ("minimum", "maximum"):
        return _choice(digits, op, kinds)
    return _unary(digits, op, kinds)


def _unary(digits: Digits, op: str, kinds: str) -> Callable[..., Any] | None:
    signed = kinds[:1] == "s"
    if op in ("-", "abs") and kinds == "s":

        def negate(a: Arr) -> Arr:
            n = digits.number(a.v, True)
            return digits.vector(None if n is None else -n if op == "-" else abs(n), len(a.v))

        return negate
    if op in ("shift_left", "shift_right", "rotate_left", "rotate_right"):
        which = {
            "shift_left": "sll",
            "shift_right": "sra" if signed else "srl",
            "rotate_left": "rol",
            "rotate_right": "ror",
        }[op]
        return lambda a, n: _renumbered(shift(which, a, n, digits.zero))
    if op in ("sll", "srl", "rol", "ror", "sla", "sra"):
        # 1076-2008: `sla` and `sra` of an unsigned number move in zeros, of a signed one `sra` keeps the sign.
        which = {"sla": "sll", "sra": "sra" if signed else "srl"}.get(op, op)
        return lambda a, n: _renumbered(_shift_signed(which, a, n, digits.zero))
    if op == "resize":
        return lambda a, n: resized(digits, a, len(n.v) if isinstance(n, Arr) else n, signed)
    if op == "to_integer":
        return _to_integer(digits, signed)
    if op in ("to_unsigned", "to_signed"):
        return _from_integer(digits, op)
    return None


def _shift_signed(op: str, a: Arr, n: int, zero: int) -> Arr:
    if op == "sll" and n < 0:
        return shift("srl", a, -n, zero)
    return shift(op, a, n, zero)


def _renumbered(a: Arr) -> Arr:
    return Arr(len(a.v) - 1, -1, a.v)


def _sum(digits: Digits, op: str, kinds: str) -> Callable[..., Any]:
    signed = "s" in kinds

    @wants_run
    def add(run: Any, position: int, a: Any, b: Any) -> Arr:
        x = digits.number(a.v, signed) if isinstance(a, Arr) else a
        y = digits.number(b.v, signed) if isinstance(b, Arr) else b
        width = max(len(a.v) if isinstance(a, Arr) else 0, len(b.v) if isinstance(b, Arr) else 0)
        if isinstance(a, Arr) != isinstance(b, Arr):
            given = y if isinstance(a, Arr) else x
            _warn_cut(run, position, digits, given, width, signed)
        if (isinstance(a, Arr) and not a.v) or (isinstance(b, Arr) and not b.v):
            return digits.vector(0, 0)
        if x is None or y is None:
            return digits.vector(None, width)
        return digits.vector(x + y if op == "+" else x - y, width)

    return add


def _warn_cut(run: Any, position: int, digits: Digits, number: int | None, width: int, signed: bool) -> None:
    if number is None or width <= 0:
        return
    fits = -(1 << (width - 1)) <= number < 1 << (width - 1) if signed else 0 <= number < 1 << width
    if not fits:
        run.say(1, f"{digits.package}.TO_{'SIGNED' if signed else 'UNSIGNED'}: vector truncated", position)


def _sum_digit(digits: Digits, op: str, kinds: str) -> Callable[..., Any]:
    signed = "s" in kinds

    def value(x: Any) -> int | None:
        return digits.number(x.v, signed) if isinstance(x, Arr) else digits.number(bytes((x,)), False)

    def add(a: Any, b: Any) -> Arr:
        x, y = value(a), value(b)
        width = len(a.v if isinstance(a, Arr) else b.v)
        return digits.vector(None if x is None or y is None else x + y if op == "+" else x - y, width)

    return add


def _product(digits: Digits, kinds: str) -> Callable[..., Any]:
    signed = "s" in kinds

    @wants_run
    def multiply(run: Any, position: int, a: Any, b: Any) -> Arr:
        x = digits.number(a.v, signed) if isinstance(a, Arr) else a
        y = digits.number(b.v, signed) if isinstance(b, Arr) else b
        width = (
            len(a.v) + len(b.v)
            if isinstance(a, Arr) and isinstance(b, Arr)
            else 2 * len(a.v if isinstance(a, Arr) else b.v)
        )
        if isinstance(a, Arr) != isinstance(b, Arr):
            _warn_cut(run, position, digits, y if isinstance(a, Arr) else x, width // 2, signed)
        return digits.vector(None if x is None or y is None else x * y, width)

    return multiply


def _quotient(digits: Digits, op: str, kinds: str) -> Callable[..., Any]:
    signed = "s" in kinds
    compute = {"/": divide, "rem": remainder, "mod": modulo}[op]

    @wants_run
    def quotient(run: Any, position: int, a: Any, b: Any) -> Arr:
        x = digits.number(a.v, signed) if isinstance(a, Arr) else a
        y = digits.number(b.v, signed) if isinstance(b, Arr) else b
        if isinstance(a, Arr) and isinstance(b, Arr):
            width = len(a.v) if op == "/" else len(b.v)
        else:
            width = len(a.v if isinstance(a, Arr) else b.v)
        if x is None or y is None or width == 0:
            return digits.vector(None, width)
        if y == 0:
            run.say(2, f"{digits.package}.DIVMOD: DIV, MOD, or REM by zero", position)
            return digits.vector(None, width)
        found = compute(x, y, position)
        if isinstance(a, Arr) != isinstance(b, Arr):
            fits = -(1 << (width - 1)) <= found < 1 << (width - 1) if signed else found < 1 << width
            if not fits:
                word = {"/": "Quotient", "rem": "Remainder", "mod": "Modulus"}[op]
                run.say(1, f'{digits.package}."{op}": {word} Truncated', position)
        return digits.vector(found, width)

    return quotient


def _comparison(digits: Digits, op: str, kinds: str) -> Callable[..., Any]:
    signed = "s" in kinds
    compare = _COMPARE[op]
    on_unknown = op == "/="

    @wants_run
    def comparison(run: Any, position: int, a: Any, b: Any) -> bool:
        x = digits.number(a.v, signed) if isinstance(a, Arr) else a
        y = digits.number(b.v, signed) if isinstance(b, Arr) else b
        if (isinstance(a, Arr) and not a.v) or (isinstance(b, Arr) and not b.v):
            run.say(
                1,
                f'{digits.package}."{op}": null argument detected, returning {"TRUE" if on_unknown else "FALSE"}',
                position,
            )
            return on_unknown
        if x is None or y is None:
            run.say(
                1,
                f'{digits.package}."{op}": metavalue detected, returning {"TRUE" if on_unknown else "FALSE"}',
                position,
            )
            return on_unknown
        return compare(x, y)

    return comparison


def _matching(digits: Digits, op: str, kinds: str) -> Callable[..., Any]:
    signed = "s" in kinds
    compare = _COMPARE[op]

    def matching(a: Any, b: Any) -> int:
        width = max(len(a.v) if isinstance(a, Arr) else 0, len(b.v) if isinstance(b, Arr) else 0)
        if op in ("=", "/=") and digits.unknown:
            p, q = (_widened(digits, t, width, signed) for t in (a, b))
            found = match_vectors(p, q)
            return found if op == "=" else logic.NOT[found]
        x = digits.number(a.v, signed) if isinstance(a, Arr) else a
        y = digits.number(b.v, signed) if isinstance(b, Arr) else b
        if x is None or y is None:
            return digits.unknown
        return digits.one if compare(x, y) else digits.zero

    return matching


def _widened(digits: Digits, a: Any, width: int, signed: bool) -> bytes:
    if not isinstance(a, Arr):
        return bytes(digits.vector(a, width).v)
    return bytes(resized(digits, a, width, signed).v)


def _found(a: Arr, y: int, digits: Digits, from_left: bool) -> int:
    """FIND_LEFTMOST and FIND_RIGHTMOST: the index of the first digit that matches, -1 where none does."""
    is_bit = digits.unknown == 0
    hits = [i for i, x in enumerate(a.v) if (x == y if is_bit else match_digits(x, y) == logic.ONE)]
    return a.left + a.step * (hits[0] if from_left else hits[-1]) if hits else -1


def match_digits(a: int, b: int) -> int:
    """`?=` of two of the nine values (1076-2008 clause 9.2.3): '-' matches everything."""
    if logic.DASH in (a, b):
        return logic.ONE
    if logic.U in (a, b):
        return logic.U
    x, y = logic.TO_X01[a], logic.TO_X01[b]
    if logic.X in (x, y):
        return logic.X
    return logic.ONE if x == y else logic.ZERO


def match_vectors(a: bytes, b: bytes) -> int:
    """`?=` of vectors."""
    found = logic.ONE
    for x, y in zip(a, b, strict=True):
        found = logic.TABLES["and"][found * 9 + match_digits(x, y)]
    return found


def _choice(digits: Digits, op: str, kinds: str) -> Callable[..., Any]:
    signed = "s" in kinds

    def choose(a: Arr, b: Arr) -> Arr:
        width = max(len(a.v), len(b.v))
        x, y = digits.number(a.v, signed), digits.number(b.v, signed)
        if x is None or y is None:
            return digits.vector(None, width)
        return digits.vector(min(x, y) if op == "minimum" else max(x, y), width)

    return choose


def resized(digits: Digits, a: Arr, width: int, signed: bool) -> Arr:
    """RESIZE: a signed number keeps its sign digit when it is cut."""
    v = a.v
    if width < 1:
        return Arr(0, 1, b"")
    if not v:
        return digits.vector(0, width)
    if width >= len(v):
        fill = bytes((v[0] if signed else digits.zero,))
        return Arr(width - 1, -1, fill * (width - len(v)) + v)
    if signed:
        return Arr(width - 1, -1, v[:1] + v[len(v) - width + 1 :])
    return Arr(width - 1, -1, v[len(v) - width :])


def _to_integer(digits: Digits, signed: bool) -> Callable[..., Any]:
    @wants_run
    def to_integer(run: Any, position: int, a: Arr) -> int:
        if not a.v:
            run.say(1, f"{digits.package}.TO_INTEGER: null detected, returning 0", position)
            return 0
        number = digits.number(a.v, signed)
        if number is None:
            run.say(1, f"{digits.package}.TO_INTEGER: metavalue detected, returning 0", position)
            return 0
        if not INTEGER_LOW <= number <= INTEGER_HIGH:
            raise RunError(f"{shown(number)} is too large for an integer", position)
        return number

    return to_integer


def _from_integer(digits: Digits, op: str) -> Callable[..., Any]:
    signed = op == "to_signed"

    @wants_run
    def from_integer(run: Any, position: int, number: int, size: Any) -> Arr:
        width = len(size.v) if isinstance(size, Arr) else size
        if width > 1 << 20:
            raise RunError(f"a vector of {width} digits is more than can be held", position)
        _warn_cut(run, position, digits, number, width, signed)
        return digits.vector(number, width)

    return from_integer


# The taught packages that are no standard: std_logic_arith, std_logic_unsigned, std_logic_signed.


def find_taught(name: str, kinds: str, result: str, signed_vectors: bool | None) -> Callable[..., Any] | None:
    """A function of std_logic_arith, or of the packages that take every std_logic_vector (`v`) as a number."""
    op = name.strip('"')
    if signed_vectors is not None:
        kinds = kinds.replace("v", "s" if signed_vectors else "u")
    if op in ("+", "-", "*") and len(kinds) == 2:
        return _taught_sum(op, kinds)
    if op in _COMPARE and len(kinds) == 2:
        return _taught_comparison(op, kinds)
    if op in ("+", "-", "abs") and len(kinds) == 1:

        def unary(a: Arr) -> Arr:
            n = STD.number(a.v, kinds == "s")
            return STD.vector(n if n is None or op == "+" else -n if op == "-" else abs(n), len(a.v))

        return unary
    if op in ("shl", "shr"):
        which = {"shl": "sll", "shr": "sra" if kinds[0] == "s" else "srl"}[op]

        def move(a: Arr, count: Arr) -> Arr:
            n = STD.number(count.v, False)
            return _renumbered(shift(which, a, n, logic.ZERO)) if n is not None else STD.vector(None, len(a.v))

        return move
    if op == "conv_integer":
        return _conv_integer(kinds)
    if op.startswith("conv_"):

        def conv(a: Any, width: int) -> Arr:
            if isinstance(a, int):
                if kinds[0] == "l":
                    number = STD.number(bytes((a,)), False)
                    return STD.vector(number, width)
                return STD.vector(a, width)
            return _stretched(a, width, kinds[0] == "s")

        return conv
    if op in ("ext", "sxt"):
        return lambda a, width: _stretched(a, width, op == "sxt")
    return None


def _stretched(a: Arr, width: int, signed: bool) -> Arr:
    v = a.v
    if width <= len(v):
        return Arr(width - 1, -1, v[len(v) - width :])
    fill = bytes((v[0] if signed and v else logic.ZERO,))
    return Arr(width - 1, -1, fill * (width - len(v)) + v)


def _taught_sum(op: str, kinds: str) -> Callable[..., Any]:
    mixed = "u" in kinds and "s" in kinds

    @wants_run
    def add(run: Any, position: int, a: Any, b: Any) -> Arr:
        values: list[int | None] = []
        widths: list[int] = []
        for value, kind in ((a, kinds[0]), (b, kinds[1])):
            if isinstance(value, Arr):
                values.append(STD.number(value.v, kind == "s"))
                widths.append(len(value.v) + (mixed and kind == "u"))
            elif kind == "l":
                values.append(STD.number(bytes((value,)), False))
            else:
                values.append(value)
        x, y = values
        width = sum(widths) if op == "*" else max(widths)
        if x is None or y is None:
            run.say(1, _ARITH_WARNING, position)
            return STD.vector(None, width)
        return STD.vector(x + y if op == "+" else x - y if op == "-" else x * y, width)

    return add


def _taught_comparison(op: str, kinds: str) -> Callable[..., Any]:
    compare = _COMPARE[op]

    @wants_run
    def comparison(run: Any, position: int, a: Any, b: Any) -> bool:
        x = STD.number(a.v, kinds[0] == "s") if isinstance(a, Arr) else a
        y = STD.number(b.v, kinds[1] == "s") if isinstance(b, Arr) else b
        if x is None or y is None:
            if op in ("=", "/=") and isinstance(a, Arr) and isinstance(b, Arr):
                width = max(len(a.v), len(b.v))
                same = _stretched(a, width, kinds[0] == "s").v == _stretched(b, width, kinds[1] == "s").v
                return bool(same == (op == "="))
            run.say(1, _ARITH_WARNING, position)
            return op == "/="
        return compare(x, y)

    return comparison


def _conv_integer(kinds: str) -> Callable[..., Any]:
    @wants_run
    def conv_integer(run: Any, position: int, a: Any) -> int:
        if kinds == "i":
            return int(a)
        number = STD.number(bytes((a,)) if isinstance(a, int) else a.v, kinds == "s")
        if number is None:
            run.say(1, _CONV_WARNING, position)
            return 0
        if not INTEGER_LOW <= number <= INTEGER_HIGH:
            raise RunError(f"{shown(number)} is too large for an integer", position)
        return number

    return conv_integer


def digits_text(v: bytes, letters: str, size: int, signed: bool) -> Arr:
    """Digits of 1, 3 or 4 bits each, as `to_hstring` and its kin write them."""
    text = "".join(letters[x] for x in v)
    if size == 1:
        return string(text)
    fill = text[0] if signed and text else "0"
    text = fill * (-len(text) % size) + text
    out = ""
    for i in range(0, len(text), size):
        group = text[i : i + size].replace("L", "0").replace("H", "1")
        if set(group) <= {"0", "1"}:
            out += f"{int(group, 2):X}"
        else:
            out += "Z" if set(group) == {"Z"} else "X"
    return string(out)
