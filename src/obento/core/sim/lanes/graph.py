"""A graph of two-input AND and XOR nodes with inverters on the edges, shared wherever two nodes would be equal.

A *literal* is `2 * node + inverted`. Node 0 is the constant, so literal 0 is false and literal 1 is true.
"""

from __future__ import annotations

from collections.abc import Iterable

from obento.core.limits import LimitReached
from obento.core.planes import count_plane

FALSE = 0
TRUE = 1
LEAF = -1
"""In place of the operands of leaves and of the constant. The operands of an XOR node stand inverted (`~`), below
this."""
_TOO_LARGE = "this design is too large to run all cases at once"


class Graph:
    """Nodes are numbered in an order in which every node comes after its inputs."""

    def __init__(self, most_nodes: int = 4_000_000) -> None:
        self.left: list[int] = [LEAF]
        self.right: list[int] = [LEAF]
        self._ands: dict[int, int] = {}
        self._xors: dict[int, int] = {}
        self._most_literal = 2 * most_nodes

    def leaf(self) -> int:
        """A fresh variable."""
        self.left.append(LEAF)
        self.right.append(LEAF)
        return 2 * (len(self.left) - 1)

    def and_(self, a: int, b: int) -> int:
        """The literal of a conjunction, shared with any equal one."""
        left, right = self.left, self.right
        while True:
            if a > b:
                a, b = b, a
            if a < 2:
                return b if a else 0
            if a ^ b < 2:
                return a if a == b else 0
            key = a << 32 | b
            literal = self._ands.get(key)
            if literal is not None:
                return literal
            # What the operands' own operands make simpler, one level down: absorption, contradiction, substitution, and
            # the
            # two ANDs of an XOR. With these the gates from which people build an XOR or an adder come out as XOR nodes,
            # and
            # a condition repeated below itself vanishes. The operands of a node come before it, the lower one left: so
            # only
            # the higher node can have the lower one below it, and only equal sides can be inverses.
            r, s = left[b >> 1], right[b >> 1]
            node = a >> 1
            if node == r >> 1 or node == s >> 1:
                if not b & 1:  # a and (r and s)
                    return b if a in (r, s) else 0
                if a not in (r, s):  # a and not (not a and ...)
                    return a
                b = (s if a == r else r) ^ 1  # a and not (a and s)
                continue
            if a & b & 1 and left[node] ^ r == 1 == right[node] ^ s:
                literal = self.xor(r, s)
            else:
                literal = 2 * len(left)
                if literal > self._most_literal:
                    raise LimitReached(_TOO_LARGE)
                left.append(a)
                right.append(b)
            self._ands[key] = literal
            return literal

    def or_(self, a: int, b: int) -> int:
        """The literal of a disjunction."""
        return self.and_(a ^ 1, b ^ 1) ^ 1

    def xor(self, a: int, b: int) -> int:
        """The literal of an exclusive disjunction, shared with any equal one."""
        flip = (a ^ b) & 1
        a &= ~1
        b &= ~1
        if a > b:
            a, b = b, a
        if a == b:
            return flip
        if a == 0:
            return b ^ flip
        key = a << 32 | b
        literal = self._xors.get(key)
        if literal is None:
            literal = self._xors[key] = 2 * len(self.left)
            if literal > self._most_literal:
                raise LimitReached(_TOO_LARGE)
            self.left.append(~a)
            self.right.append(~b)
        return literal ^ flip

    def mux(self, c: int, a: int, b: int) -> int:
        """`a` where c is 1, else `b`."""
        if c < 2:
            return a if c else b
        if a == b:
            return a
        if a ^ b == 1:
            return self.xor(c, b)
        if a < 2:
            return self.or_(c, b) if a else self.and_(c ^ 1, b)
        if b < 2:
            return self.or_(c ^ 1, a) if b else self.and_(c, a)
        if a == c:
            return self.or_(c, b)
        if b == c:
            return self.and_(c, a)
        if c & 1:
            c, a, b = c ^ 1, b, a
        return self.xor(self.and_(c, self.xor(a, b)), b)

    def all_of(self, literals: Iterable[int]) -> int:
        """The conjunction of many literals."""
        result = TRUE
        for literal in literals:
            result = self.and_(result, literal)
        return result

    def any_of(self, literals: Iterable[int]) -> int:
        """The disjunction of many literals."""
        result = FALSE
        for literal in literals:
            result = self.or_(result, literal)
        return result

    def cone(self, roots: Iterable[int]) -> dict[int, int]:
        """The nodes that the literals depend on, with how often each is read by the others and by the roots."""
        left, right = self.left, self.right
        reads: dict[int, int] = {}
        stack = [r >> 1 for r in roots]
        while stack:
            n = stack.pop()
            if n in reads:
                reads[n] += 1
                continue
            reads[n] = 1
            a, b = left[n], right[n]
            if a >= 0:
                stack.append(a >> 1)
                stack.append(b >> 1)
            elif a < LEAF:
                stack.append(~a >> 1)
                stack.append(~b >> 1)
        return reads

    def is_tautology(self, literal: int, most_leaves: int = 16) -> bool:
        """Whether a literal is true for every value of its leaves; False also when it has too many to tell."""
        if literal < 2:
            return literal == TRUE
        nodes = sorted(self.cone([literal]))
        leaves = [n for n in nodes if self.left[n] == LEAF]
        if len(leaves) > most_leaves:
            return False
        lanes = 1 << len(leaves)
        full = (1 << lanes) - 1
        value = {}
        for i, n in enumerate(leaves):
            value[n] = count_plane(i, lanes)
        for n in nodes:
            if n not in value:
                p, q = self.left[n], self.right[n]
                if p < LEAF:
                    value[n] = value[~p >> 1] ^ value[~q >> 1]
                else:
                    value[n] = (value[p >> 1] ^ (full if p & 1 else 0)) & (value[q >> 1] ^ (full if q & 1 else 0))
        return value[literal >> 1] == (0 if literal & 1 else full)
