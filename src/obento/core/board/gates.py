"""Gates as a tree, written as a line of a wiring list: with any gates, or with those alone that are allowed."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass

from obento.core.wiring.elaborate import NEGATED

ALL_GATES = frozenset(["and", "or", "xor", "not", "nand", "nor", "xnor"])


@dataclass(frozen=True, slots=True)
class Plain:
    """A wire, a constant or a part, as it is written."""

    text: str


@dataclass(frozen=True, slots=True)
class Gate:
    """`op` is and, or, xor or not."""

    op: str
    args: tuple[Tree, ...]


Tree = Plain | Gate


class NotPossible(Exception):
    """With the gates that are allowed this cannot be made."""


def negated(tree: Tree) -> Tree:
    """The inverse; two inversions are none."""
    return tree.args[0] if isinstance(tree, Gate) and tree.op == "not" else Gate("not", (tree,))


def written(tree: Tree) -> str:
    """With any gates, as short as it goes: `nor(a, !b)`."""
    match tree:
        case Plain():
            return tree.text
        case Gate(op="not", args=(Gate(op="and" | "or" | "xor" as op, args=args),)):
            return _call(NEGATED[op], [written(a) for a in args])
        case Gate(op="not", args=(inner,)):
            return f"!{written(inner)}"
    return _call(tree.op, [written(a) for a in tree.args])


def with_only(tree: Tree, allowed: Collection[str]) -> str:
    """The same with the gates alone that are allowed.

    Raises
    ------
    NotPossible
        They cannot make it.
    """
    return _Maker(frozenset(allowed) & ALL_GATES).make(tree)


class _Maker:
    """Writes trees with some gates only. A gate of one input is allowed where its kind is: `nand(a)` inverts."""

    def __init__(self, allowed: frozenset[str]) -> None:
        self._allowed = allowed

    def make(self, tree: Tree) -> str:
        """A tree as text."""
        if isinstance(tree, Plain):
            return tree.text
        if tree.op == "not":
            inner = tree.args[0]
            if isinstance(inner, Gate) and inner.op == "not":
                return self.make(inner.args[0])
            return self._inverse(inner)
        return self._plain(tree)

    def _plain(self, tree: Gate) -> str:
        op, args = tree.op, tree.args
        if op in self._allowed:
            return _call(op, [self.make(a) for a in args])
        if op == "xor":
            return self._exclusive(args, False)
        if NEGATED[op] in self._allowed:
            return self._turned(_call(NEGATED[op], [self.make(a) for a in args]))
        other, inverse = ("or", "nor") if op == "and" else ("and", "nand")
        inverted = [self.make(negated(a)) for a in args]
        if inverse in self._allowed:
            return _call(inverse, inverted)
        if other in self._allowed:
            return self._turned(_call(other, inverted))
        raise NotPossible(f"{' and '.join(sorted(self._allowed)) or 'no gate'} cannot make {op.upper()}")

    def _inverse(self, inner: Tree) -> str:
        """The inverse of a tree that is no inversion."""
        if isinstance(inner, Gate):
            if NEGATED[inner.op] in self._allowed:
                return _call(NEGATED[inner.op], [self.make(a) for a in inner.args])
            if inner.op == "xor":
                return self._exclusive(inner.args, True)
            other = "or" if inner.op == "and" else "and"
            if other in self._allowed or NEGATED[other] in self._allowed:
                if self._can_invert_wires(inner):
                    return self.make(Gate(other, tuple(negated(a) for a in inner.args)))
        return self._turned(self.make(inner))

    def _can_invert_wires(self, inner: Gate) -> bool:
        """Whether every operand can be inverted without a gate more than its own."""
        return all(isinstance(a, Gate) and a.op == "not" for a in inner.args)

    def _turned(self, text: str) -> str:
        """A text inverted."""
        if "not" in self._allowed:
            return f"!{text}"
        for gate in ("nand", "nor"):
            if gate in self._allowed:
                return _call(gate, [text])
        if "xnor" in self._allowed:
            return _call("xnor", [text])
        if "xor" in self._allowed:
            return _call("xor", [text, "1"])
        raise NotPossible(f"{' and '.join(sorted(self._allowed)) or 'no gate'} cannot invert")

    def _exclusive(self, args: tuple[Tree, ...], inverted: bool) -> str:
        """Differs, out of gates that are allowed."""
        if inverted and "xor" in self._allowed:
            return self._turned(_call("xor", [self.make(a) for a in args]))
        if "xnor" in self._allowed:
            text = _call("xnor", [self.make(a) for a in args])
            return text if inverted else self._turned(text)
        first, *rest = args
        tree: Tree = first
        for b in rest:
            a = tree
            tree = Gate("or", (Gate("and", (a, negated(b))), Gate("and", (negated(a), b))))
        return self.make(negated(tree) if inverted else tree)


def _call(name: str, args: list[str]) -> str:
    return f"{name}({', '.join(args)})"
