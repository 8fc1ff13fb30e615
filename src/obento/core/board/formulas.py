"""Formulas in every notation as lines of a wiring list."""

from __future__ import annotations

from collections.abc import Callable

from obento.core.board.gates import Gate, Plain, Tree, negated, written
from obento.core.formula import ast as f
from obento.core.formula.printer import printed

Width = Callable[[str], "int | None"]
"""How wide a wire is; None where nobody knows."""


class NotStated(Exception):
    """Something that cannot be made of gates and parts by itself: a sentence, and what to do."""

    def __init__(self, text: str, hint: str = "") -> None:
        super().__init__(text)
        self.text, self.hint = text, hint


class FormulaToGates:
    """Formulas over wires whose widths are asked for."""

    def __init__(self, width_of: Width) -> None:
        self._width_of = width_of

    def tree(self, formula: f.Formula, width: int | None) -> Tree:
        """A formula for something of this width, or as wide as it is.

        Raises
        ------
        NotStated
            There is no gate or part for it.
        """
        match formula:
            case f.Name():
                return self._filled(formula, formula.name, width)
            case f.Bits():
                return self._filled(formula, printed(formula), width)
            case f.Number():
                return Plain(_number(formula, width))
            case f.Not():
                return negated(self.tree(formula.a, width))
            case f.Op(op="and" | "or" | "xor" as op):
                inner = self._common(formula, width)
                return Gate(op, tuple(self.tree(a, inner) for a in _operands(formula, op)))
            case f.Op(op="nand" | "nor" | "xnor" as op):
                inner = self._common(formula, width)
                plain = {"nand": "and", "nor": "or", "xnor": "xor"}[op]
                return negated(Gate(plain, (self.tree(formula.a, inner), self.tree(formula.b, inner))))
            case f.Choice():
                cond = self._text(formula.cond, 1)
                return Plain(f"select({cond}, {self._text(formula.b, width)}, {self._text(formula.a, width)})")
            case f.Join():
                return Plain("{" + ", ".join(self._text(p, self.width(p)) for p in formula.parts) + "}")
            case f.Op(op="==" | "!=" | "<" | "<=" | ">" | ">=" as op):
                return self._relation(op, formula)
            case f.Op(op="+" | "-" as op):
                part = "add" if op == "+" else "subtract"
                if width is None:
                    raise NotStated(
                        f"how wide `{printed(formula)}` is is not known", "state it with a name that is known"
                    )
                return Plain(f"{part}({self._text(formula.a, width)}, {self._text(formula.b, width)})")
        raise NotStated(
            f"`{printed(formula)}` is no gate", "state the part itself, for instance `y = shift_left(a, n)`"
        )

    def width(self, formula: f.Formula) -> int | None:
        """How wide a formula is by itself, where that can be said."""
        match formula:
            case f.Name():
                return self._width_of(formula.name)
            case f.Bits():
                return abs(formula.high - formula.low) + 1
            case f.Number():
                return formula.width
            case f.Not():
                return self.width(formula.a)
            case f.Join():
                sizes = [self.width(p) for p in formula.parts]
                return None if None in sizes else sum(s for s in sizes if s)
            case f.Choice():
                return self._widest(formula.a, formula.b)
            case f.Op(op="and" | "or" | "xor" | "nand" | "nor" | "xnor" | "+" | "-"):
                return self._widest(formula.a, formula.b)
            case f.Op(op="==" | "!=" | "<" | "<=" | ">" | ">="):
                return 1
        return None

    def _widest(self, *formulas: f.Formula) -> int | None:
        known = [w for w in map(self.width, formulas) if w is not None]
        return max(known) if known else None

    def _common(self, formula: f.Op, width: int | None) -> int | None:
        return width if width is not None else self.width(formula)

    def _text(self, formula: f.Formula, width: int | None) -> str:
        return written(self.tree(formula, width))

    def _filled(self, formula: f.Formula, text: str, width: int | None) -> Tree:
        """A wire with zeros before it where more digits are wanted; the right ones where fewer are."""
        own = self.width(formula)
        if width is None or own is None or own == width:
            return Plain(text)
        if own < width:
            return Plain(f"widen({text}, bits: {width})")
        if isinstance(formula, f.Name):
            return Plain(f"{text}[{width - 1}..0]" if width > 1 else f"{text}[0]")
        raise NotStated(f"`{text}` has {own} bits, and {width} are wanted", "take a part of it")

    def _relation(self, op: str, formula: f.Op) -> Tree:
        width = self._widest(formula.a, formula.b)
        a, b = self._text(formula.a, width), self._text(formula.b, width)
        if op in ("==", "!="):
            differs = Gate("xor", (self.tree(formula.a, width), self.tree(formula.b, width)))
            if width == 1:
                return differs if op == "!=" else negated(differs)
            return Plain(f"{'zero' if op == '==' else 'any'}({written(differs)})")
        if op in (">", "<="):
            a, b = b, a
        less: Tree = Plain(f"compare({a}, {b})")
        return less if op in ("<", ">") else negated(less)


def _operands(formula: f.Formula, op: str) -> list[f.Formula]:
    """The operands of `a & b & c`."""
    if isinstance(formula, f.Op) and formula.op == op:
        return [*_operands(formula.a, op), *_operands(formula.b, op)]
    return [formula]


def _number(n: f.Number, width: int | None) -> str:
    size = n.width if n.width is not None else width
    if size is None or (size == 1 and n.value < 2):
        if n.value < 2:
            return str(n.value)
        raise NotStated(f"how wide {n.value} is is not known", f"write for instance 4d{n.value}")
    size = max(size, width or 0)
    if n.value >> size:
        raise NotStated(f"{n.value} does not fit into {size} bits")
    return f"{size}d{n.value}"
