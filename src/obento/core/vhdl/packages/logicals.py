"""What the functions of std_logic_1164 do."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from obento.core.ir.part import RunError
from obento.core.vhdl.model import nine_values as logic
from obento.core.vhdl.model.values import Arr
from obento.core.vhdl.packages.numbers import digits_text, match_digits, match_vectors
from obento.core.vhdl.runtime.operations import shift

_LOGIC = ("and", "or", "nand", "nor", "xor", "xnor")
_FROM_BIT = bytes((logic.ZERO, logic.ONE)) + bytes(254)


def _numbered(v: bytes, like: Arr | None = None) -> Arr:
    return Arr(1, 1, v) if like is None else Arr(like.left, like.step, v)


def find(name: str, kinds: str, result: str, renumber: bool = False) -> Callable[..., Any] | None:
    """By name and kinds of parameters: `l` one value, `v` a vector (also unsigned and signed), `b` bit, `B`
    bit_vector."""
    op = name.strip('"')
    finish: Callable[[bytes], Arr] = (lambda v: Arr(len(v) - 1, -1, v)) if renumber else _numbered
    if op in _LOGIC:
        return _logic(op, kinds, finish)
    if op == "not":
        return (lambda a: logic.NOT[a]) if kinds == "l" else (lambda a: finish(a.v.translate(logic.NOT_MAP)))
    if op in ("sll", "srl", "rol", "ror"):
        return lambda a, n: finish(shift(op, a, n, logic.ZERO).v)
    if op.startswith("?") and op != "??":
        return _matching(op, kinds)
    if op == "??":
        return lambda a: a in (logic.ONE, logic.H)
    if op == "resolved":
        return logic.resolve_array
    return _conversion(op, kinds) or _edge(op) or _text(op, kinds)


def _logic(op: str, kinds: str, finish: Callable[[bytes], Arr]) -> Callable[..., Any]:
    table = logic.TABLES[op]
    if kinds == "ll":
        return lambda a, b: table[a * 9 + b]
    if kinds == "v":
        base = {"nand": "and", "nor": "or", "xnor": "xor"}.get(op, op)
        inner = logic.TABLES[base]
        start = logic.ONE if base == "and" else logic.ZERO

        def reduce(a: Arr) -> int:
            found = start
            for x in a.v:
                found = inner[found * 9 + x]
            return found if base == op else logic.NOT[found]

        return reduce
    if kinds == "vl":
        return lambda a, b: finish(bytes(table[x * 9 + b] for x in a.v))
    if kinds == "lv":
        return lambda a, b: finish(bytes(table[a * 9 + x] for x in b.v))

    def both(run: Any, position: int, a: Arr, b: Arr) -> Arr:
        if len(a.v) != len(b.v):
            raise RunError(f"`{op}` needs vectors of the same length, not of {len(a.v)} and {len(b.v)}", position)
        return finish(logic.vector_logic(op, a.v, b.v))

    both.wants_run = True  # type: ignore[attr-defined]
    return both


def _matching(op: str, kinds: str) -> Callable[..., Any]:
    if kinds == "vv":

        def match(run: Any, position: int, a: Arr, b: Arr) -> int:
            if len(a.v) != len(b.v):
                raise RunError(f"`{op}` needs vectors of the same length, not of {len(a.v)} and {len(b.v)}", position)
            found = match_vectors(a.v, b.v)
            return found if op == "?=" else logic.NOT[found]

        match.wants_run = True  # type: ignore[attr-defined]
        return match
    if op in ("?=", "?/="):
        return lambda a, b: match_digits(a, b) if op == "?=" else logic.NOT[match_digits(a, b)]

    def less(a: int, b: int) -> int:
        x, y = logic.TO_X01[a], logic.TO_X01[b]
        if logic.U in (a, b):
            return logic.U
        if logic.X in (x, y):
            return logic.X
        holds = {"?<": x < y, "?<=": x <= y, "?>": x > y, "?>=": x >= y}[op]
        return logic.ONE if holds else logic.ZERO

    return less


def _bit(x: int, otherwise: int) -> int:
    return 1 if x in (logic.ONE, logic.H) else 0 if x in (logic.ZERO, logic.L) else otherwise


def _conversion(op: str, kinds: str) -> Callable[..., Any] | None:
    if op == "to_bit":
        return _bit
    if op in ("to_bitvector", "to_bit_vector", "to_bv"):
        return lambda a, otherwise: Arr(len(a.v) - 1, -1, bytes(_bit(x, otherwise) for x in a.v))
    if op == "to_stdulogic":
        return lambda a: _FROM_BIT[a]
    if op in (
        "to_stdlogicvector",
        "to_std_logic_vector",
        "to_slv",
        "to_stdulogicvector",
        "to_std_ulogic_vector",
        "to_sulv",
    ):
        return lambda a: Arr(len(a.v) - 1, -1, a.v.translate(_FROM_BIT) if kinds == "B" else a.v)
    if op == "to_01":
        if kinds[0] == "l":
            return lambda a, x: (logic.ZERO, logic.ONE)[_bit(a, 0)] if _bit(a, 2) != 2 else x
        return lambda a, x: Arr(
            len(a.v) - 1, -1, bytes((x,)) * len(a.v) if logic.is_x(a.v) else a.v.translate(logic.TO_X01)
        )
    maps = {"to_x01": logic.TO_X01, "to_x01z": logic.TO_X01Z, "to_ux01": logic.TO_UX01}
    if op in maps:
        table = maps[op]
        if kinds == "l":
            return lambda a: table[a]
        if kinds == "b":
            return lambda a: _FROM_BIT[a]
        if kinds == "B":
            return lambda a: _numbered(a.v.translate(_FROM_BIT))
        return lambda a: _numbered(a.v.translate(table))
    if op == "is_x":
        return (lambda a: a not in (2, 3, 6, 7)) if kinds == "l" else (lambda a: logic.is_x(a.v))
    if op == "std_match":
        if kinds == "ll":
            return std_match
        return lambda a, b: len(a.v) == len(b.v) and all(std_match(x, y) for x, y in zip(a.v, b.v, strict=True))
    return None


def std_match(a: int, b: int) -> bool:
    """STD_MATCH of numeric_std: '-' matches everything, other metavalues nothing."""
    if logic.DASH in (a, b):
        return True
    x, y = logic.TO_X01[a], logic.TO_X01[b]
    return x == y and x != logic.X


def _edge(op: str) -> Callable[..., Any] | None:
    if op == "rising_edge":
        return lambda s: s.event == s.run.cycle and s.value in (logic.ONE, logic.H) and s.last in (logic.ZERO, logic.L)
    if op == "falling_edge":
        return lambda s: s.event == s.run.cycle and s.value in (logic.ZERO, logic.L) and s.last in (logic.ONE, logic.H)
    return None


def _text(op: str, kinds: str) -> Callable[..., Any] | None:
    sizes = {
        "to_string": 1,
        "to_bstring": 1,
        "to_binary_string": 1,
        "to_hstring": 4,
        "to_hex_string": 4,
        "to_ostring": 3,
        "to_octal_string": 3,
    }
    if op not in sizes:
        return None
    letters = "01" if kinds in ("B", "b") else logic.LETTERS
    return lambda a: digits_text(a.v, letters, sizes[op], kinds == "s")
