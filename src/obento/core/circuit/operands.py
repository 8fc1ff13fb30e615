"""Operands that are drawn and counted as the pins of one gate."""

from __future__ import annotations

from obento.core.ir.nodes import Binary, Expr


def joined_operands(e: Binary) -> list[Expr]:
    """The operands of `a & b & c`, which reads as one gate; what stands in parentheses on the right is one of its
    own."""
    found: list[Expr] = []
    node: Expr = e
    while isinstance(node, Binary) and node.op == e.op:
        found.append(node.b)
        node = node.a
    return [node, *reversed(found)]
