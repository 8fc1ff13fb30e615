"""Formulas as people write them in books: `key · (safe ⊕ boat_clear)`."""

from __future__ import annotations

from obento.core.formula.ast import Bits, Choice, Formula, Join, Minus, Name, Not, Number, Op

_SIGNS = {
    "and": "·", "or": "∨", "xor": "⊕", "nand": "nand", "nor": "nor", "xnor": "⊙", "!=": "≠", "<=": "≤", ">=": "≥",
}  # fmt: skip
_RANK = {
    "or": 1, "nor": 1, "xor": 2, "xnor": 2, "and": 3, "nand": 3, "==": 4, "!=": 4, "<": 4, "<=": 4, ">": 4, ">=": 4,
    "<<": 5, ">>": 5, "+": 6, "-": 6, "*": 7, "/": 7, "%": 7,
}  # fmt: skip
_PREFIX, _CHOICE = 8, 0


def printed(f: Formula) -> str:
    """The printed form. NOT is `!`; screens may draw an overbar instead. It reads back as the same formula."""
    return _print(f, -1)


def _print(f: Formula, outer: int) -> str:
    match f:
        case Name():
            return f.name
        case Number():
            return str(f.value) if f.width is None else f"{f.width}b{f.value:0{f.width}b}"
        case Bits():
            return f"{f.name}[{f.high}]" if f.high == f.low else f"{f.name}[{f.high}..{f.low}]"
        case Not():
            return "!" + _print(f.a, _PREFIX)
        case Minus():
            return "-" + _print(f.a, _PREFIX)
        case Join():
            return "{" + ", ".join(printed(p) for p in f.parts) + "}"
        case Choice():
            text = f"{_print(f.cond, 1)} ? {printed(f.a)} : {printed(f.b)}"
            return f"({text})" if outer > _CHOICE else text
        case Op():
            rank = _RANK[f.op]
            # What may be joined from either side needs no parentheses at the right.
            of_same = f.op in ("and", "or", "xor") and isinstance(f.b, Op) and f.b.op == f.op
            # `a nand b nand c` is refused as ambiguous, so the left keeps its parentheses.
            of_chain = f.op in ("nand", "nor") and isinstance(f.a, Op) and f.a.op == f.op
            text = f"{_print(f.a, rank + of_chain)} {_SIGNS.get(f.op, f.op)} {_print(f.b, rank + (not of_same))}"
            return f"({text})" if rank < outer else text
    raise AssertionError(type(f).__name__)
