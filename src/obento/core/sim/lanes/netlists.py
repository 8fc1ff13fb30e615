"""What netlists are made of, gates of known bits, lowered without much ado.

`Levelized` lowers any process by running it on symbols. A netlist has thousands of gates that are all alike; here each
takes the short way to the same literals."""

from __future__ import annotations

from obento.core.ir.design import Process
from obento.core.ir.nodes import Assign, Binary, Concat, Expr, Ref, Slice, Unary
from obento.core.sim.lanes.graph import Graph

_GATE_OPS = frozenset(["and", "or", "xor"])


def sweep(processes: list[Process], literals: list[int], graph: Graph) -> list[Process]:
    """Lower every process that is a gate of two known bits into `graph`. Returns the others, in order.

    `literals` has the literal of each bit that is known and never x or z, else -1; the gates' outputs are entered.
    Whatever is not plain about a gate leaves it to the others, as an output that is known already."""
    others: list[Process] = []
    and_, xor = graph.and_, graph.xor
    for process in processes:
        body = process.body
        # `type(...) is` instead of patterns, and the kinds of operands once for each side: calls would take as long as
        # the rest.
        if type(body) is Assign and process.kind == "continuous" and not process.shadow:
            e = body.value
            flip = type(e) is Unary and e.op == "not"
            if flip:
                e = e.a  # type: ignore[attr-defined]
            if type(e) is Binary:
                x, y, op = e.a, e.b, e.op
            else:
                x, y, op = e, e, "and"
            a = b = -1
            if type(x) is Ref:
                a = literals[x.signal.offset]
            elif type(x) is Slice and type(x.a) is Ref and 0 <= x.low < x.a.width:
                a = literals[x.a.signal.offset + x.low]
            if type(y) is Ref:
                b = literals[y.signal.offset]
            elif type(y) is Slice and type(y.a) is Ref and 0 <= y.low < y.a.width:
                b = literals[y.a.signal.offset + y.low]
            if a >= 0 and b >= 0 and x.width == 1 and len(body.targets) == 1:
                target = body.targets[0]
                signal, low = target.signal, target.low
                out = signal.offset + low
                if not target.offsets and 0 <= low < signal.width and literals[out] < 0:
                    if op == "and":
                        literals[out] = and_(a, b) ^ flip
                        continue
                    if op == "or":
                        literals[out] = and_(a ^ 1, b ^ 1) ^ flip ^ 1
                        continue
                    if op == "xor":
                        literals[out] = xor(a, b) ^ flip
                        continue
        others.append(process)
    return others


def lower_gate(process: Process, literals: list[int], graph: Graph) -> bool:
    """The same for one process, whose expression may have other gates inside it. False when it does not fit."""
    body = process.body
    if (
        type(body) is not Assign
        or process.kind != "continuous"
        or process.shadow
        or body.value.width != 1
        or len(body.targets) != 1
    ):
        return False
    target = body.targets[0]
    if target.offsets or not 0 <= target.low < target.signal.width:
        return False
    literal = _literal(body.value, literals, graph)
    if literal < 0:
        return False
    literals[target.signal.offset + target.low] = literal
    return True


def _literal(e: Expr, literals: list[int], graph: Graph) -> int:
    """The literal of a one-bit expression over known bits; -1 where the long way is needed."""
    if type(e) is Binary:
        a = _literal(e.a, literals, graph) if e.op in _GATE_OPS else -1
        b = _literal(e.b, literals, graph) if a >= 0 else -1
        if b < 0:
            return -1
        if e.op == "and":
            return graph.and_(a, b)
        return graph.or_(a, b) if e.op == "or" else graph.xor(a, b)
    if type(e) is Unary:
        a = _literal(e.a, literals, graph) if e.op == "not" else -1
        return a ^ 1 if a >= 0 else -1
    if type(e) is Concat and len(e.parts) == 1:
        return _literal(e.parts[0], literals, graph)
    if type(e) is Ref and e.width == 1:
        return literals[e.signal.offset]
    if type(e) is Slice and type(e.a) is Ref and e.width == 1 and 0 <= e.low < e.a.width:
        return literals[e.a.signal.offset + e.low]
    return -1
