"""A graph of two-input AND and XOR nodes with inverters on the edges, shared wherever two nodes would be equal.

A *literal* is `2 * node + inverted`. Node 0 is the constant, so literal 0 is false and literal 1 is true.
"""

from __future__ import annotations

from collections.abc import Iterable

from obento.core.limits import LimitReached

FALSE = 0
TRUE = 1
_NO_AND = 1 << 60
_TOO_LARGE = "this design is too large to run all cases at once"


class Graph:
    """Nodes are numbered in an order in which every node comes after its inputs."""

    def __init__(self, most_nodes: int = 4_000_000) -> None:
        self.left: list[int] = [-1]
        self.right: list[int] = [-1]
        self.is_xor: list[bool] = [False]
        # The operands of ANDs once more, and of other nodes something that is near to no literal.
        self._p: list[int] = [_NO_AND]
        self._q: list[int] = [_NO_AND]
        self._ands: dict[int, int] = {}
        self._xors: dict[int, int] = {}
        self._most_literal = 2 * most_nodes

    def leaf(self) -> int:
        """A fresh variable."""
        self.left.append(-1)
        self.right.append(-1)
        self.is_xor.append(False)
        self._p.append(_NO_AND)
        self._q.append(_NO_AND)
        return 2 * (len(self.left) - 1)

    def and_(self, a: int, b: int) -> int:
        if a > b:
            a, b = b, a
        if a < 2:
            return b if a else 0
        if a == b:
            return a
        if a ^ b == 1:
            return 0
        key = a << 32 | b
        literal = self._ands.get(key)
        if literal is None:
            # What the operands' own operands make simpler, one level down: absorption, contradiction, substitution, and the
            # two ANDs of an XOR. With these the gates from which people build an XOR or an adder come out as XOR nodes, and
            # a condition repeated below itself vanishes.
            na, nb = a >> 1, b >> 1
            p, q, r, s = self._p[na], self._q[na], self._p[nb], self._q[nb]
            if a ^ r < 2 or a ^ s < 2:
                literal = self._against(a, b)
            elif b ^ p < 2 or b ^ q < 2:
                literal = self._against(b, a)
            elif a & b & 1 and ((p ^ r == 1 and q ^ s == 1) or (p ^ s == 1 and q ^ r == 1)):
                literal = self.xor(p, q)
            else:
                literal = 2 * len(self.left)
                if literal > self._most_literal:
                    raise LimitReached(_TOO_LARGE)
                self.left.append(a)
                self.right.append(b)
                self.is_xor.append(False)
                self._p.append(a)
                self._q.append(b)
            self._ands[key] = literal
        return literal

    def _against(self, x: int, y: int) -> int:
        """`x` AND `y`, where `y` is an AND, or its inverse, with `x` or its inverse among its operands."""
        p, q = self._p[y >> 1], self._q[y >> 1]
        near_p, near_q = x ^ p, x ^ q
        if y & 1:  # x and not (p and q)
            if not near_p:
                return self.and_(x, q ^ 1)
            return self.and_(x, p ^ 1) if not near_q else x
        return y if not near_p or not near_q else 0

    def or_(self, a: int, b: int) -> int:
        return self.and_(a ^ 1, b ^ 1) ^ 1

    def xor(self, a: int, b: int) -> int:
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
            self.left.append(a)
            self.right.append(b)
            self.is_xor.append(True)
            self._p.append(_NO_AND)
            self._q.append(_NO_AND)
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
        result = TRUE
        for literal in literals:
            result = self.and_(result, literal)
        return result

    def any_of(self, literals: Iterable[int]) -> int:
        result = FALSE
        for literal in literals:
            result = self.or_(result, literal)
        return result

    def cone(self, roots: Iterable[int]) -> list[int]:
        """The nodes that the literals depend on, inputs first; leaves included, the constant not."""
        left, right = self.left, self.right
        seen: set[int] = set()
        stack = [r >> 1 for r in roots]
        while stack:
            n = stack.pop()
            if n == 0 or n in seen:
                continue
            seen.add(n)
            if left[n] >= 0:
                stack.append(left[n] >> 1)
                stack.append(right[n] >> 1)
        return sorted(seen)

    def is_tautology(self, literal: int, most_leaves: int = 16) -> bool:
        """Whether a literal is true for every value of its leaves; False also when it has too many to tell."""
        if literal < 2:
            return literal == TRUE
        nodes = self.cone([literal])
        leaves = [n for n in nodes if self.left[n] < 0]
        if len(leaves) > most_leaves:
            return False
        lanes = 1 << len(leaves)
        full = (1 << lanes) - 1
        value = {0: 0}
        for i, n in enumerate(leaves):
            value[n] = count_plane(i, lanes)
        for n in nodes:
            if self.left[n] >= 0:
                a = value[self.left[n] >> 1] ^ (full if self.left[n] & 1 else 0)
                b = value[self.right[n] >> 1] ^ (full if self.right[n] & 1 else 0)
                value[n] = a ^ b if self.is_xor[n] else a & b
        return value[literal >> 1] == (0 if literal & 1 else full)


def count_plane(digit: int, lanes: int) -> int:
    """The plane of one binary digit of the lane number, for lanes 0, 1, 2, ...: 0101..., 0011..., as one whole number."""
    half = 1 << digit
    plane = ((1 << half) - 1) << half
    size = 2 * half
    while size < lanes:
        plane |= plane << size
        size *= 2
    return plane & ((1 << lanes) - 1)
